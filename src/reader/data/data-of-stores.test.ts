// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

/** A page under `/tides` with other files; the route as read. */
function routeOf(files: Record<string, string>) {
  const { snapshot } = readSource(
    folderOf({
      'index.html': '<script type="module" src="/src/main.tsx"></script>',
      'src/main.tsx': "import Page from './page';\nexport const routes = [{ path: '/tides', element: <Page /> }];",
      'src/api.ts': "export const fetchTides = (id: string) => fetch(`/api/tides/${id ?? ''}`).then((r) => r.json());",
      'src/row.tsx': 'export default function Row({ tide }) { return <p>{tide.at}</p>; }',
      ...files,
    }),
  );
  return snapshot.routes[0];
}

const page = (head: string, body: string, drawn = '<p />') => ({
  'src/page.tsx': `${head}\nexport default function Page() {\n${body.replaceAll('; ', ';\n')}\nreturn ${drawn}; }`,
});

/** Ways to keep data in a store: the store, how the page gets at it, and what it calls to load. */
const STORES: [name: string, store: string, head: string, body: string, list: string][] = [
  [
    'a thunk of a function by name',
    "import { createAsyncThunk } from 'kit-store'; import { fetchTides } from './api';\nexport const loadTides = createAsyncThunk('tides/load', fetchTides);",
    "import { useDispatch, useSelector } from 'kit-bindings'; import { loadTides } from './store';",
    "const dispatch = useDispatch(); const tides = useSelector((s) => s.tides); useEffect(() => { dispatch(loadTides('x')); }, []);",
    'tides',
  ],
  [
    'a thunk that is written out',
    "import { fetchTides } from './api';\nexport const loadTides = (id: string) => async (dispatch) => { dispatch({ type: 'got', tides: await fetchTides(id) }); };",
    "import { useDispatch, useSelector } from 'kit-bindings'; import { loadTides } from './store';",
    "const dispatch = useDispatch(); const { tides } = useSelector((s) => s.tides); useEffect(() => { dispatch(loadTides('x')); }, [dispatch]);",
    'tides',
  ],
  [
    'a hook that picks',
    "import { create } from 'kit-states'; import { fetchTides } from './api';\nexport const useTides = create((set) => ({ tides: [], load: async (id) => { set({ tides: await fetchTides(id) }); } }));",
    "import { useTides } from './store';",
    "const tides = useTides((s) => s.tides); const load = useTides((s) => s.load); useEffect(() => { load('x'); }, [load]);",
    'tides',
  ],
  [
    'a hook that gives all',
    "import { create } from 'kit-states'; import { fetchTides } from './api';\nexport const useTides = create((set) => ({ tides: [], load: async (id) => { set({ tides: await fetchTides(id) }); } }));",
    "import { useTides } from './store';",
    "const { tides, load } = useTides(); useEffect(() => { load('x'); }, [load]);",
    'tides',
  ],
  [
    'described endpoints',
    "import { createApi, fetchBaseQuery } from 'kit-store/query';\nexport const api = createApi({ baseQuery: fetchBaseQuery({ baseUrl: '/api' }), endpoints: (b) => ({ tides: b.query({ query: (id) => `tides/${id}` }), save: b.mutation({ query: (t) => ({ url: 'save', method: 'POST', body: t }) }) }) });\nexport const { useTidesQuery, useSaveMutation } = api;",
    "import { useSaveMutation, useTidesQuery } from './store';",
    "const { data: tides = [] } = useTidesQuery('x'); const [save] = useSaveMutation();",
    'tides',
  ],
];

describe.each(STORES)('%s', (_, store, head, body, list) => {
  const rows = `<ul>{${list}.map((t) => <Row key={t.at} tide={t} />)}</ul>`;
  const route = () => routeOf({ 'src/store.ts': store, ...page(`${head} import Row from './row';`, body, rows) });

  it('leads to the server', () => {
    expect(route().data.map((d) => d.address)).toEqual(['/api/tides/x']);
  });

  it('says what is drawn of it', () => {
    expect(route().parts).toMatchObject([{ module: 'src/row.tsx', drawnAfter: ['x'] }]);
  });
});

it('endpoints that are added to a client lie behind its base', () => {
  const { data } = routeOf({
    'src/store.ts':
      "import { createApi, fetchBaseQuery } from 'kit-store/query';\nexport const api = createApi({ baseQuery: fetchBaseQuery({ baseUrl: '/v2/' }), endpoints: () => ({}) });",
    'src/more.ts':
      "import { api } from './store';\nconst more = api.injectEndpoints({ endpoints: (b) => ({ ports: b.query({ query() { return { url: '/ports' }; } }) }) });\nexport const { usePortsQuery } = more;",
    ...page("import { usePortsQuery } from './more';", 'const { data } = usePortsQuery();'),
  });
  expect(data.map((d) => d.address)).toEqual(['/v2/ports']);
});

it.each([
  [
    'handed by a wrapper',
    "import { connect } from 'kit-bindings';",
    'export default connect(null, { loadTides })(Page);',
  ],
  [
    'handed by a wrapper, in an object of its own',
    "import { connect } from 'kit-bindings';",
    'const more = { loadTides };\nexport default connect(null, more)(Page);',
  ],
])('a class component calls what it is %s', (_, head, last) => {
  const { data } = routeOf({
    'src/store.ts':
      "import { createAsyncThunk } from 'kit-store'; import { fetchTides } from './api';\nexport const loadTides = createAsyncThunk('tides/load', fetchTides);",
    'src/page.tsx': `import { Component } from 'react'; import { loadTides } from './store'; ${head}\nclass Page extends Component { componentDidMount() { this.props.loadTides('far'); } render() { return <p />; } }\n${last}`,
  });
  expect(data.map((d) => d.address)).toEqual(['/api/tides/far']);
});

describe('options of queries', () => {
  it.each([
    ['in a function', '', "createQuery(() => ({ queryKey: ['t'], queryFn: () => fetchTides('x') }));"],
    ['in a function, under a name', '', "const tides = createQuery(() => ({ queryFn: () => fetchTides('x') }));"],
    ['in what a hook runs', '', "const tides = useAsync(async () => { await fetchTides('x'); }, []);"],
    ['in a function, by name', '', "createQuery(() => { return { queryKey: ['t'], queryFn: fetchTides }; });"],
    [
      'kept at the top',
      "const tides = queryOptions({ queryKey: ['t'], queryFn: () => fetchTides('x') });",
      'useQuery(tides);',
    ],
    [
      'kept at the top, by name',
      "const tides = queryOptions({ queryKey: ['t'], queryFn: fetchTides });",
      'useQuery(tides);',
    ],
    [
      'made by a function',
      "const tides = (id) => queryOptions({ queryKey: ['t', id], queryFn: () => fetchTides(id) });",
      "useSuspenseQuery(tides('x'));",
    ],
  ])('%s', (_, head, body) => {
    const { data } = routeOf(page(`import { fetchTides } from './api';\n${head}`, body));
    expect(data.map((d) => d.address)).toEqual([expect.stringMatching(/^\/api\/tides\/(x|)/)]);
  });

  it('are followed no further where they only wait for an act', () => {
    const body =
      "const save = useCallback(() => fetchTides('x'), []); const send = useMutation(() => fetchTides('y')); const late = useDebounced(() => fetchTides('z'));";
    expect(routeOf(page("import { fetchTides } from './api';", body)).data).toEqual([]);
  });

  it('that nobody asks with lead nowhere', () => {
    const head =
      "import { fetchTides } from './api';\nconst tides = queryOptions({ queryFn: fetchTides });\nconst later = createAsyncThunk('t', fetchTides);";
    expect(routeOf(page(head, '')).data).toEqual([]);
  });
});

describe('loaders that routes are given', () => {
  const api = { 'src/api.ts': 'export const fetchTides = (id) => fetch(`/api/tides/${id}`);' };
  const routes = (list: string, head = '') => {
    const { snapshot } = readSource(
      folderOf({
        ...api,
        'index.html': '<script type="module" src="/src/main.tsx"></script>',
        'src/main.tsx': `import Tides from './tides'; import Ports from './ports'; import { fetchTides } from './api'; ${head}\nexport const router = createRouter(${list});`,
        'src/tides.tsx':
          "import { fetchTides } from './api';\nexport const load = (client) => async ({ params }) => client.get(() => fetchTides('far'));\nexport const tideLoader = (client) => async ({ params }) => { await fetchTides('near'); };\nexport default function Tides() { return <p />; }",
        'src/ports.tsx': 'export default function Ports() { return <p />; }',
      }),
    );
    return snapshot.routes.map((r) => [r.pattern, r.data.map((d) => `${d.address} ${d.begins}`), r.pageAfter ?? []]);
  };

  it.each([
    [
      'written out, of the route and of what is around it',
      "[{ path: '/', loader: () => fetch('/api/me'), children: [{ path: 'tides', loader: async ({ params }) => fetchTides(params.id), element: <Tides /> }, { path: 'ports', element: <Ports /> }] }]",
      '',
      [
        ['/tides', ['/api/me evaluated', '/api/tides/:id evaluated'], ['me', 'tides']],
        ['/ports', ['/api/me evaluated'], ['me']],
      ],
    ],
    [
      'by name, and made by a function',
      "[{ path: '/tides', loader: tideLoader(client), Component: Tides }, { path: '/ports', loader: loadPorts, Component: Ports }]",
      "import { tideLoader } from './tides'; const loadPorts = () => fetch('/api/ports');",
      [
        ['/tides', ['/api/tides/near evaluated'], ['near']],
        ['/ports', ['/api/ports evaluated'], ['ports']],
      ],
    ],
    [
      'as attributes of elements',
      "<Route path='/'><Route path='tides' loader={() => fetchTides('low')} element={<Tides />} /><Route path='ports' element={<Ports />} /></Route>",
      '',
      [
        ['/tides', ['/api/tides/low evaluated'], ['low']],
        ['/ports', [], []],
      ],
    ],
  ])('%s', (_, list, head, expected) => {
    expect(routes(list, head)).toEqual(expected);
  });
});

describe('elements that scripts define', () => {
  const route = (component: string) => {
    const { snapshot } = readSource(
      folderOf({
        'tsconfig.json': '{ "compilerOptions": { "experimentalDecorators": true } }',
        'index.html': '<tide-app></tide-app><script type="module" src="/src/app.ts"></script>',
        'src/app.ts':
          "import { customElement } from 'lit/decorators.js'; import { Router } from 'kit-router';\n@customElement('tide-app') export class App extends HTMLElement { firstUpdated() { new Router(this).setRoutes([{ path: '/', component: 'tide-view' }, { path: '/ports', component: 'port-view', action: async () => { await import('./port-view'); } }]); } }\nimport './tide-view';",
        'src/tide-view.ts': `import { customElement } from 'lit/decorators.js'; const fetchTides = () => fetch('/api/tides');\n${component}`,
        'src/port-view.ts': "customElements.define('port-view', class extends HTMLElement {});",
      }),
    );
    return snapshot.routes;
  };

  it('are pages of routes by their names', () => {
    const routes = route("@customElement('tide-view') export class View extends HTMLElement {}");
    expect(routes.map((r) => [r.pattern, r.page])).toEqual([
      ['/', 'src/tide-view.ts'],
      ['/ports', 'src/port-view.ts'],
    ]);
  });

  it.each([
    ['in a field', 'tides = new Task(this, { task: () => fetchTides(), args: () => [] });'],
    ['in a field, as it is made', 'tides = fetchTides();'],
    ['as they are connected', 'connectedCallback() { fetchTides(); }'],
    ['once they were drawn', 'firstUpdated() { fetchTides(); }'],
  ])('ask for data %s', (_, member) => {
    const [{ data }] = route(`@customElement('tide-view') export class View extends HTMLElement { ${member} }`);
    expect(data.map((d) => [d.address, d.begins ?? 'drawn'])).toEqual([['/api/tides', 'drawn']]);
  });

  it('ask for none where a field only holds what asks', () => {
    const [{ data }] = route(
      "@customElement('tide-view') export class View extends HTMLElement { load = () => fetchTides(); static all = () => fetchTides(); }",
    );
    expect(data).toEqual([]);
  });
});

describe('what a provider loads', () => {
  const CONTEXT =
    "import { createContext, useContext } from 'react';\nexport const TidesContext = createContext([]);\nexport function TidesProvider({ children }) { const [all, setAll] = useState([]); useEffect(() => { fetch('/api/tides').then((r) => r.json()).then(setAll); }, []); return <TidesContext.Provider value={all}>{children}</TidesContext.Provider>; }\nexport const useTides = () => useContext(TidesContext);";
  it.each([
    ['through a hook', "import { useTides } from './context';", 'const all = useTides();', ['tides']],
    [
      'by its name',
      "import { useContext } from 'react';\nimport { TidesContext } from './context';",
      'const { all } = useContext(TidesContext);',
      ['tides'],
    ],
    ['not at all', "import { useOther } from './other';", 'const all = useOther();', []],
  ])('fills what takes the context %s', (_, head, body, after) => {
    const { snapshot } = readSource(
      folderOf({
        'package.json': '{ "dependencies": { "react": "*" } }',
        'index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
        'src/main.jsx':
          "import { createRoot } from 'react-dom/client';\nimport { Route, Routes } from 'react-router';\nimport { TidesProvider } from './context';\nimport Page from './page';\ncreateRoot(document.getElementById('root')).render(<TidesProvider><Routes><Route path='/' element={<Page />} /></Routes></TidesProvider>);",
        'src/context.jsx': CONTEXT,
        'src/other.js': 'export const useOther = () => [1];',
        'src/row.jsx': 'export default function Row() { return <p />; }',
        'src/page.jsx': `import Row from './row';\n${head}\nexport default function Page() { ${body} return <ul>{all.map((t) => <Row key={t} />)}</ul>; }`,
      }),
    );
    const [{ data, parts }] = snapshot.routes;
    expect(data.map((d) => d.id)).toEqual(['tides']);
    expect(parts.find((p) => p.module === 'src/row.jsx')?.drawnAfter ?? []).toEqual(after);
  });
});
