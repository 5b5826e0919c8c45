// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

/** A page under `/tides` that is read with other files; what its route asks for, as `address path:line`. */
function callsOf(files: Record<string, string>): string[] {
  return routeOf(files).data.map((d) => `${d.address} ${d.evidence!.path}:${d.evidence!.line}`);
}

function routeOf(files: Record<string, string>) {
  const { snapshot } = readSource(
    folderOf({
      'index.html': '<script type="module" src="/src/main.tsx"></script>',
      'src/main.tsx': "import Page from './page';\nexport const routes = [{ path: '/tides', element: <Page /> }];",
      ...files,
    }),
  );
  return snapshot.routes[0];
}

const page = (body: string, head = '') => ({
  'src/page.tsx': `${head}\nexport default function Page() {\n${body}\nreturn <p />; }`,
});

describe('calls for data in a page', () => {
  it.each([
    ["useEffect(() => { fetch('/api/tides').then(show); }, []);", '/api/tides'],
    ['useEffect(() => { fetch(`/api/tides/${props.id}?days=${n}`); }, []);', '/api/tides/:id'],
    [
      "const load = async () => { await window.fetch('data/tides.json'); }; useEffect(() => { load(); }, []);",
      '/data/tides.json',
    ],
    ["async function load() { await fetch(BASE + '/tides'); } useEffect(load, []);", '/v2/tides'],
    ["fetch(new URL('/tides', location.href));", '/tides'],
    ['fetch(`${import.meta.env.API}/tides`);', '/tides'],
    ["fetch('https://tides.example/now');", 'https://tides.example/now'],
    ["const r = new XMLHttpRequest(); r.open('GET', '/tides'); const xhr = r; xhr.open('GET', '/tides');", '/tides'],
    ["new EventSource('/api/live');", '/api/live'],
    ["fetch({ url: '/tides' });", '/tides'],
    ["const tides = useQuery({ queryKey: ['tides'], queryFn: () => fetch('/tides') });", '/tides'],
    ["const tides = useAsked({ fetcher: async () => { await fetch('/tides'); } }, { keep: true });", '/tides'],
  ])('%s', (body, address) => {
    const found = callsOf(page(body, "const BASE = '/v2';"));
    expect(found.map((f) => f.split(' ')[0])).toEqual([address]);
  });

  it.each([
    ['when somebody acts', "return <button onClick={() => fetch('/api/save')}>Save</button>;"],
    ['in a listener', "addEventListener('click', () => fetch('/api/save'));"],
    ['in a function that nobody calls', "const save = () => fetch('/api/save');"],
    ['of which nothing is known', 'fetch(address); fetch(`${base}`);'],
    ['that isn’t one', "const fetch2 = (x) => x; fetch2('/a'); map.get('/b'); router.push('/c'); navigate('/d');"],
  ])('are none: %s', (_, body) => {
    expect(callsOf(page(body))).toEqual([]);
  });
});

describe('calls through other modules', () => {
  const client = {
    'src/client.ts': [
      "export const BASE = '/api';",
      'export async function getJson<T>(path: string): Promise<T> {',
      '  const answer = await fetch(`${BASE}${path}`);',
      '  return answer.json();',
      '}',
      "export const api = { tides: (id: string) => getJson(`/tides/${id}`), ports() { return getJson('/ports'); } };",
      "export default { buoys: () => getJson('/buoys') };",
    ].join('\n'),
    'src/use-tide.ts':
      "import { getJson } from './client';\nexport default function useTide(id) { useEffect(() => { getJson(`/tide/${id}`); }, []); }",
    'src/tide-service.ts':
      "import { getJson } from './client';\nexport default class TideService { load() { return getJson('/tide'); } }",
    'src/index.ts': "export { getJson as read, api } from './client'; export * from './use-tides';",
    'src/use-tides.ts': [
      "import { getJson } from './client';",
      'export function useTides(port: string) {',
      '  const [tides, set] = useState(null);',
      '  useEffect(() => { getJson(`/tides/${port}`).then(set); }, [port]);',
      '  const reload = () => getJson("/tides/again");',
      '  return { tides, reload };',
      '}',
    ].join('\n'),
  };
  const from = (what: string, file = './client') => `import ${what} from '${file}';`;

  it.each([
    [from('{ getJson }'), "useEffect(() => { getJson('/tides'); }, []);", '/api/tides'],
    [from('{ useTides }', './use-tides'), "const { tides } = useTides('far');", '/api/tides/far'],
    [from('{ useTides }', './index'), 'const { tides } = useTides(props.port);', '/api/tides/:port'],
    [
      from('{ useTides }', './use-tides'),
      "const { reload } = useTides2(); const t = useTides('x'); useEffect(() => { t.reload(); }, []);",
      '/api/tides/x /api/tides/again',
    ],
    [from('{ api }', './index'), 'api.tides("12");', '/api/tides/12'],
    [from('{ api }'), 'useQuery({ queryKey: ["ports"], queryFn: api.ports });', '/api/ports'],
    [from('{ api }'), 'useQuery({ queryKey: ["ports"], queryFn: () => api.ports() });', '/api/ports'],
    [from('all'), 'all.buoys();', '/api/buoys'],
    [from('* as client'), "client.getJson('/far');", '/api/far'],
    [from('{ getJson }') + from('useSWR', 'kit-swr'), "useSWR('/wind', getJson);", '/api/wind'],
    [from('http', 'kit-http'), "http.get('/wind'); http.get('wind'); http.create('/x');", '/wind'],
    [
      `${from('kit', 'kit-http')}const http = kit.create({ baseURL: '/v3' });`,
      "http.get('wind'); http.get('/mist'); http.get('https://far.example/x');",
      '/v3/wind /v3/mist https://far.example/x',
    ],
    [`${from('{ kit }', 'kit-http')}const http = kit.create({ baseURL: '/v3' });`, "http.get('wind');", '/v3/wind'],
    [`${from('ofetch', 'ofetch')}const http = ofetch.create({ baseURL: '/v4' });`, "http('wind');", '/v4/wind'],
    [`${from('ky', 'ky')}const http = ky.extend({ prefixUrl: '/v5' });`, "http('wind');", '/v5/wind'],
    [`${from('{ createFetch }', 'kit')}const useApi = createFetch({ baseUrl: '/v6' });`, "useApi('wind');", '/v6/wind'],
    [from('useTide', './use-tide'), 'const tide = useTide(toRef(props));', '/api/tide/:id'],
    [from('TideService', './tide-service'), 'const tides = new TideService(); tides.load();', '/api/tide'],
  ])('%s %s', (head, body, addresses) => {
    const found = callsOf({ ...client, ...page(body, head) });
    expect(found.map((f) => f.split(' ')[0])).toEqual(addresses.split(' '));
    expect(new Set(found.map((f) => f.split(' ')[1]))).toEqual(new Set(['src/page.tsx:3']));
  });

  it.each([
    [
      'a class',
      "class WithTide extends Component { componentDidMount() { this.load(); } load() { getJson('/tide'); } render() { return <Wrapped />; } }\nreturn hoist(WithTide, Wrapped);",
    ],
    [
      'a function',
      "return function WithTide(props) { useEffect(() => { getJson('/tide'); }, []); return <Wrapped {...props} />; };",
    ],
    [
      'a variable',
      "const WithTide = (props) => { useEffect(() => { getJson('/tide'); }, []); return <Wrapped />; };\nreturn WithTide;",
    ],
  ])('are made by what a component is wrapped into, as that is drawn: %s', (_, body) => {
    const wrapper = (how: string) => ({
      'src/with-tide.tsx': `import { getJson } from './client';\n${how} withTide(Wrapped) {\n${body}\n}`,
    });
    const { data } = routeOf({
      ...client,
      ...wrapper('export default function'),
      'src/page.tsx':
        "import withTide from './with-tide';\nfunction Page() { return <p />; }\nexport default withTide(Page);",
    });
    expect(data).toMatchObject([{ address: '/api/tide', evidence: { path: 'src/page.tsx', line: 3 } }]);
    const kept = routeOf({
      ...client,
      ...wrapper('export function'),
      'src/page.tsx':
        "import { withTide } from './with-tide';\nconst Inner = () => <i />;\nconst Board = withTide(Inner);\nexport default function Page() { return <Board />; }",
    });
    expect(kept.data.map((d) => d.address)).toEqual(['/api/tide']);
  });

  it('are followed where functions call one another in circles', () => {
    const found = callsOf({
      'src/a.ts': "import { b } from './b'; export const a = (p: string) => { b(p); b(p); b(p); fetch(p); };",
      'src/b.ts': "import { a } from './a'; export const b = (p: string) => { a(p); a(p); a(p); };",
      ...page("a('/round');", "import { a } from './a';"),
    });
    expect(found.map((f) => f.split(' ')[0])).toEqual(['/round']);
  });
});

describe('calls of components of other frameworks', () => {
  const read = (files: Record<string, string>) => readSource(folderOf(files)).snapshot.routes[0];

  it('Vue: setup, mounted, the options of a component', () => {
    const app = (component: string) => ({
      'index.html': '<script type="module" src="/main.ts"></script>',
      'main.ts': "import Page from './Page.vue';\nexport const routes = [{ path: '/', component: Page }];",
      'Page.vue': component,
    });
    const setup =
      '<script setup lang="ts">\nconst load = async () => { await fetch(\'/api/tides\'); };\nonMounted(load);\n</script><template><p /></template>';
    expect(read(app(setup)).data).toMatchObject([{ id: 'tides', address: '/api/tides', evidence: { line: 3 } }]);
    const options =
      "<script>\nexport default { async mounted() { this.rows = await fetch('/api/ports'); }, methods: { save() { fetch('/api/save'); } } };\n</script><template><p /></template>";
    expect(read(app(options)).data.map((d) => d.address)).toEqual(['/api/ports']);
  });

  it('Svelte: the load function beside a page', () => {
    const { data } = read({
      'package.json': '{ "devDependencies": { "@sveltejs/kit": "2" } }',
      'src/routes/+page.svelte': '<p>tides</p>',
      'src/routes/+page.ts': "export const load = async ({ fetch }) => ({\n  tides: await fetch('/api/tides'),\n});",
    });
    expect(data).toMatchObject([{ address: '/api/tides', module: 'src/routes/+page.ts', evidence: { line: 2 } }]);
  });

  it('Angular: a service that is injected', () => {
    const { data } = read({
      'index.html': '<script type="module" src="/main.ts"></script>',
      'main.ts': "import { Page } from './page';\nexport const routes = [{ path: '', component: Page }];",
      'page.ts':
        "import { Component, inject } from '@angular/core';\nimport { TideService } from './tide.service';\n@Component({ selector: 'a-page', template: '<p></p>' })\nexport class Page {\n  tides = inject(TideService);\n  constructor(private ports: TideService) {}\n  ngOnInit() {\n    this.tides.load();\n    this.ports.far('x');\n  }\n}",
      'tide.service.ts':
        "import { HttpClient } from '@angular/common/http';\nexport class TideService {\n  private http = inject(HttpClient);\n  load() { return this.http.get('/api/tides'); }\n  far(id: string) { return this.http.get(`/api/ports/${id}`); }\n}",
    });
    expect(data.map((d) => `${d.address} ${d.evidence!.path}:${d.evidence!.line}`)).toEqual([
      '/api/tides page.ts:8',
      '/api/ports/x page.ts:9',
    ]);
  });
});

describe('calls of parts', () => {
  const files = {
    'index.html': '<script type="module" src="/main.tsx"></script>',
    'main.tsx': "import Page from './page';\nexport const routes = [{ path: '/', element: <Page /> }];",
    'page.tsx':
      "import List from './list'; import Notes from './notes';\nexport default function Page() { const [open, setOpen] = useState(false);\nconst load = () => fetch('/api/notes');\nreturn <><List /><button onClick={() => { setOpen(true); load(); }}>Notes</button>{open ? <Notes /> : null}</>; }",
    'list.tsx': "export default function List() { useEffect(() => { fetch('/api/list'); }, []); return <p />; }",
    'notes.tsx': "import Inner from './inner';\nexport default function Notes() { return <Inner />; }",
    'inner.tsx': "export default function Inner() { useEffect(() => { fetch('/api/inner'); }, []); return <p />; }",
  };

  it('are what a part needs: its own, those of what it draws, and those of the action that opens it', () => {
    const [{ parts, data }] = readSource(folderOf(files)).snapshot.routes;
    expect(data.map((d) => [d.id, d.module])).toEqual([
      ['list', 'list.tsx'],
      ['inner', 'inner.tsx'],
      ['notes', 'page.tsx'],
    ]);
    expect(parts.map((p) => [p.module, p.place, p.needs])).toEqual([
      ['list.tsx', 'first screen', ['list']],
      ['notes.tsx', 'action', ['inner', 'notes']],
    ]);
  });

  it('are found where a file passes on what it draws, without those of what else that file passes on', () => {
    const through = {
      ...files,
      'notes.tsx': "import { Inner } from './all';\nexport default function Notes() { return <Inner />; }",
      'all.ts': "export { default as Inner } from './inner'; export { default as Other } from './other';",
      'other.tsx': "export default function Other() { useEffect(() => { fetch('/api/other'); }, []); return <p />; }",
    };
    const [{ parts, data }] = readSource(folderOf(through)).snapshot.routes;
    expect(data.map((d) => d.id)).toEqual(['list', 'inner', 'notes']);
    expect(parts[1]).toMatchObject({ module: 'notes.tsx', needs: ['inner', 'notes'] });
  });

  it('give way to those that notes know of', () => {
    const noted = { id: 'known', address: '/known', bytes: 9, serverMs: 9, module: 'page.tsx' };
    const notes = { 'yokeline.app.json': JSON.stringify({ routes: { '/': { data: [noted] } } }) };
    expect(readSource(folderOf({ ...files, ...notes })).snapshot.routes[0].data).toEqual([noted]);
  });
});
