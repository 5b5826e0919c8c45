// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

/** Routes of an app, as `pattern < layouts > page, data`. */
function routesOf(files: Record<string, string>): string[] {
  const { snapshot } = readSource(
    folderOf({
      'index.html': '<script type="module" src="/src/main.tsx"></script>',
      'src/api.ts': 'export const fetchTide = (id) => fetch(`/api/tides/${id}`);',
      ...files,
    }),
  );
  expect(snapshot.failed).toEqual([]);
  return snapshot.routes.map(({ pattern, layouts, page, data }) =>
    [pattern, ...layouts, page, ...data.map((d) => `${d.address} ${d.begins}`)].join(' '),
  );
}

const page = (id: string, more = '', maker = 'createFileRoute') =>
  `import { ${maker} } from 'kit-router'; import { fetchTide } from '../api';\nexport const Route = ${maker}('${id}')({ component: Page${more} });\nfunction Page() { return <p />; }`;

describe('routes that are known by an id', () => {
  const files = (routes: Record<string, string>) => ({
    'src/main.tsx': Object.keys(routes)
      .map((file, i) =>
        /lazy/.test(file)
          ? `export const r${i} = () => import('./routes/${file}');`
          : `import { Route as R${i} } from './routes/${file}'; export const u${i} = R${i};`,
      )
      .join('\n'),
    ...Object.fromEntries(Object.entries(routes).map(([file, text]) => [`src/routes/${file}.tsx`, text])),
  });
  const root =
    "import { createRootRouteWithContext } from 'kit-router';\nexport const Route = createRootRouteWithContext<{ a: 1 }>()({ component: () => <Shell /> });\nfunction Shell() { return <p />; }";

  it('stand in those whose id theirs begins with, and in the root', () => {
    const routes = routesOf(
      files({
        __root: root,
        index: page('/'),
        tides: page('/tides', ", loader: () => fetchTide('all')"),
        'tides.$id': page('/tides/$id', ', loader: ({ params }) => fetchTide(params.id)'),
        'tides_.map': page('/tides_/map'),
        _in: page('/_in'),
        '_in.ports': page('/_in/ports'),
        'days.index': page('/days/'),
        days: page('/days'),
        'files.$': page('/files/$'),
      }),
    );
    const [at, id] = ['src/routes/', 'src/routes/__root.tsx'];
    expect(routes).toEqual([
      `/ ${id} ${at}index.tsx`,
      `/days ${id} ${at}days.tsx ${at}days.index.tsx`,
      `/files/* ${id} ${at}files.$.tsx`,
      `/ports ${id} ${at}_in.tsx ${at}_in.ports.tsx`,
      `/tides ${id} ${at}tides.tsx /api/tides/all evaluated`,
      `/tides/:id ${id} ${at}tides.tsx ${at}tides.$id.tsx /api/tides/all evaluated /api/tides/:id evaluated`,
      `/tides/map ${id} ${at}tides_.map.tsx`,
    ]);
  });

  it('may have what they draw in a module of its own that comes later', () => {
    const routes = routesOf(
      files({
        __root: root,
        day: "import { createFileRoute } from 'kit-router'; import { fetchTide } from '../api';\nexport const Route = createFileRoute('/day')({ loader: () => fetchTide('day') });",
        'day.lazy': page('/day', '', 'createLazyFileRoute'),
      }),
    );
    expect(routes).toEqual(['/day src/routes/__root.tsx src/routes/day.lazy.tsx /api/tides/day evaluated']);
  });
});

it('routes name the one around them', () => {
  const routes = routesOf({
    'src/main.tsx': `import { createRootRoute, createRoute, createRouter } from 'kit-router';
import { fetchTide } from './api'; import Tides from './tides';
const rootRoute = createRootRoute({ component: Shell });
const index = createRoute({ getParentRoute: () => rootRoute, path: '/', component: Home });
export const tides = createRoute({ getParentRoute: () => rootRoute, path: 'tides', component: Tides });
const shell = createRoute({ getParentRoute: () => tides, id: 'shell', component: Home });
const one = createRoute({ getParentRoute: () => shell, path: '$id', loader: ({ params: { id } }) => fetchTide(id) }).lazy(() => import('./one').then((d) => d.Route));
export const router = createRouter({ routeTree: rootRoute.addChildren([index, tides.addChildren([shell.addChildren([one])])]) });
function Shell() { return <p />; } function Home() { return <p />; }`,
    'src/tides.tsx': 'export default function Tides() { return <p />; }',
    'src/one.tsx':
      "import { createLazyRoute } from 'kit-router';\nexport const Route = createLazyRoute('/tides/$id')({ component: One });\nfunction One() { return <p />; }",
  });
  expect(routes).toEqual([
    '/ src/main.tsx',
    '/tides src/main.tsx src/tides.tsx',
    '/tides/:id src/main.tsx src/tides.tsx src/one.tsx /api/tides/:id evaluated',
  ]);
});

describe('a router that waits before it draws', () => {
  /** Patterns of the routes whose shell waits for the page. */
  const waiting = (main: string, more: Record<string, string> = {}) => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': '<script type="module" src="/src/main.tsx"></script>',
        'src/main.tsx': `import { createBrowserRouter, RouterProvider } from 'kit-router'; import Shell from './shell'; import Tides from './tides'; const Later = () => import('./tides'); const later = (name) => () => import(\`./\${name}.tsx\`); ${main}`,
        'src/shell.tsx': 'export default function Shell() { return <header>Harbour</header>; }',
        'src/tides.tsx': 'export default function Tides() { return <p />; }',
        ...more,
      }),
    );
    return snapshot.routes.filter((r) => r.shellWaits).map((r) => r.pattern);
  };
  const router = (routes: string, root = '') =>
    `createRoot(place).render(<RouterProvider router={createBrowserRouter([{ path: '/', element: <Shell />, ${root} children: [${routes}] }])} />);`;

  it.each([
    [
      'for what it loads',
      "{ path: 'tides', element: <Tides />, loader: () => fetch('/tides') }, { index: true, element: <Tides /> }",
      ['/tides'],
    ],
    [
      'for code that it asks for',
      "{ path: 'tides', lazy: () => import('./tides') }, { index: true, element: <Tides /> }",
      ['/tides'],
    ],
    ['for neither', "{ path: 'tides', element: <Tides /> }", []],
    [
      'for a component that it is handed as a function that imports',
      "{ path: 'tides', component: () => import('./tides') }",
      ['/tides'],
    ],
    [
      'for one of several',
      "{ path: 'tides', components: { default: Shell, side: () => import('./tides') } }",
      ['/tides'],
    ],
    ['for one by name', "{ path: 'tides', component: Later }", ['/tides']],
    ['for what a helper gives', "{ path: 'tides', component: later('tides') }", ['/tides']],
    [
      'for one export of it',
      "{ path: 'tides', loadComponent: () => import('./tides').then((m) => m.default) }",
      ['/tides'],
    ],
    ['not for a component that imports by itself', "{ path: 'tides', component: lazy(() => import('./tides')) }", []],
  ])('%s', (_, routes, expected) => {
    expect(waiting(router(routes))).toEqual(expected);
  });

  it('for what it loads for all of them', () => {
    expect(waiting(router("{ path: 'tides', element: <Tides /> }", "loader: () => fetch('/me'),"))).toEqual(['/tides']);
  });

  it('but not where it draws something else meanwhile, or where something stands around it', () => {
    const lazy = "{ path: 'tides', lazy: () => import('./tides') }";
    expect(waiting(router(lazy, 'HydrateFallback: () => <i>…</i>,'))).toEqual([]);
    const around =
      "import App from './app';\ncreateRoot(place).render(<App />);\nexport const routes = [{ path: 'tides', lazy: () => import('./tides') }];";
    expect(waiting(around, { 'src/app.tsx': 'export default function App() { return <h1>Harbour</h1>; }' })).toEqual(
      [],
    );
  });
});
