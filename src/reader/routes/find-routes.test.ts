import { reexportsOf } from '../graph/reexports.ts';
import { parseScript } from '../script/parse-script.ts';
import { findRoutes } from './find-routes.ts';
import type { RouteModule } from './names.ts';

function tables(path: string, text: string, leads: Record<string, string>): RouteModule[] {
  const script = parseScript(path, text, { jsxImportSource: 'made-up' });
  expect(script.error).toBeNull();
  const resolved = new Map(Object.entries(leads));
  const bare = (to: string): RouteModule => ({
    ...{ path: to, realm: 'site', sheet: null, resolved: new Map(), reexports: null, elements: [], package: null },
  });
  return [
    {
      path,
      realm: 'site',
      sheet: script.routes,
      resolved,
      reexports: reexportsOf(script.exports, resolved),
      elements: script.elements,
      package: null,
    },
    ...[...new Set(resolved.values())].map(bare),
  ];
}

/** All modules once; one that was read counts before one that is only named. */
const together = (...groups: RouteModule[][]) => {
  const all = groups.flat().sort((a, b) => Number(b.sheet !== null) - Number(a.sheet !== null));
  return all.filter((m, i) => all.findIndex((o) => o.path === m.path) === i);
};

describe('route tables', () => {
  describe('whose pages hang on components beside them', () => {
    const page = (component: string) => {
      const text = `
        import Home from './home';
        import { Header } from './header';
        const A = lazy(() => import('./a'));
        const B = lazy(() => import('./b'));
        ${component}
        export const routes = [{ path: '/', element: <Home /> }, { path: '/x', element: <Page /> }];`;
      const leads = { './home': 'home.ts', './header': 'header.ts', './a': 'a.ts', './b': 'b.ts' };
      return findRoutes(tables('routes.tsx', text, leads)).routes.find((r) => r.pattern === '/x')?.page;
    };
    it.each([
      ['only wrap them', 'function Page() { return <Suspense fallback={null}><A /></Suspense>; }'],
      ['call them by another name', 'function Page() { const Inner = A; return <Suspense><Inner /></Suspense>; }'],
      ['name them twice over', 'const Page = () => { const One = A; const Two = One; return <Two />; };'],
      ['have markup around them', 'function Page() { return <main><h1>x</h1><Suspense><A /></Suspense></main>; }'],
      ['draw something static as well', 'function Page() { return <><Header /><Suspense><A /></Suspense></>; }'],
    ])('is the page, where these %s', (_, component) => {
      expect(page(component)).toBe('a.ts');
    });

    it('isn’t what a layout draws beside its routes, though that is deferred', () => {
      const text = `
        const Badge = lazy(() => import('./badge'));
        const Area = ({ children }) => <section><Suspense><Badge /></Suspense>{children}</section>;
        export default Area;
        export const inner = [{ path: 'duty', layout: () => import('./duty'), children: [{ path: 'list', component: () => import('./list') }] }];
        export const routes = [{ path: '/area', component: Area, children: inner }];`;
      const leads = { './badge': 'badge.ts', './duty': 'duty.ts', './list': 'list.ts' };
      const { routes } = findRoutes(tables('area.tsx', text, leads));
      expect(routes.map((r) => [r.pattern, r.layouts, r.page])).toEqual([
        ['/area/duty/list', ['area.tsx', 'duty.ts'], 'list.ts'],
      ]);
    });

    it.each([
      ['several', 'function Page() { return <main><Suspense><A /><B /></Suspense></main>; }'],
      ['one of several', 'function Page() { return <main>{open ? <A /> : <B />}</main>; }'],
      ['none', 'function Page() { return <main><Header /></main>; }'],
      ['itself', 'function Page() { const Page2 = Page2; return <main><Page2 /></main>; }'],
    ])('are pages themselves where they draw %s', (_, component) => {
      expect(page(component)).toBe('routes.tsx');
    });
  });

  it('are found in the usual shapes: components, markup, deferred arrows and wrapped imports', () => {
    const text = `
      import Home from './home';
      import { Shell as Frame } from './shell';
      const Lazy = defer(() => import('./lazy'));
      const notRoutes = [{ path: 'a' }, { path: 'b' }];
      export const routes = [
        { path: '/', component: Home },
        { path: '/shell', element: <Frame />, children: [{ index: true, element: <Home /> }, { path: 'deep/:id', lazy: () => import('./deep') }] },
        { path: '/lazy', component: Lazy },
        { path: '/wrapped', view: wrap(() => import('./wrapped')) },
      ];`;
    const leads = {
      './home': 'home.ts',
      './shell': 'shell.ts',
      './lazy': 'lazy.ts',
      './deep': 'deep.ts',
      './wrapped': 'wrapped.ts',
    };
    const { routes, failed } = findRoutes(tables('routes.tsx', text, leads));
    expect(failed).toEqual([]);
    expect(routes.map((r) => [r.pattern, r.layouts, r.page, r.evidence?.line])).toEqual([
      ['/', [], 'home.ts', 7],
      ['/shell', ['shell.ts'], 'home.ts', 8],
      ['/shell/deep/:id', ['shell.ts'], 'deep.ts', 8],
      ['/lazy', [], 'lazy.ts', 9],
      ['/wrapped', [], 'wrapped.ts', 10],
    ]);
  });

  it('in the module of a view are nested there, at any depth, and cycles end', () => {
    const top = tables('top.ts', "export const t = [{ path: '/area', view: () => import('./area') }];", {
      './area': 'area.ts',
    });
    const area = tables(
      'area.ts',
      "export const t = [{ path: 'one', view: () => import('./one') }, { path: 'again', view: () => import('./area') }];",
      { './one': 'one.ts', './area': 'area.ts' },
    );
    const { routes } = findRoutes(together(area, top));
    expect(routes.map((r) => [r.pattern, r.layouts, r.page])).toEqual([
      ['/area/one', ['area.ts'], 'one.ts'],
      ['/area/again', ['area.ts'], 'area.ts'],
    ]);
  });

  it('with absolute paths inside children keep them', () => {
    const text =
      "import A from './a';\nexport const t = [{ path: '/x', component: A, children: [{ path: '/x/y', component: A }] }];";
    const { routes } = findRoutes(tables('t.ts', text, { './a': 'a.ts' }));
    expect(routes.map((r) => r.pattern)).toEqual(['/x/y']);
  });
});

describe('parseScript', () => {
  const contexts = (text: string) =>
    parseScript('a.tsx', text, { jsxImportSource: 'made-up' })
      .imports.filter((i) => i.kind === 'dynamic')
      .map((i) => i.context);

  it('tells the code around a deferred import', () => {
    expect(contexts("const A = later(() => import('./a'));")).toEqual(['wrapper']);
    expect(contexts("const A = later(async () => { return import('./a'); });")).toEqual(['wrapper']);
    expect(contexts("import('./a');")).toEqual(['module']);
    expect(contexts("const b = <button onClick={() => import('./a')} />;")).toEqual(['handler']);
    expect(contexts("const handleOpen = async () => { await import('./a'); };")).toEqual(['handler']);
    expect(contexts("const x = { onPress() { return import('./a'); } };")).toEqual(['handler']);
    expect(contexts("async function open() { await import('./a'); }")).toEqual(['function']);
    expect(contexts("const routes = { page: () => import('./a') };")).toEqual(['function']);
  });

  it('keeps what exists at run time, with names, and nothing else', () => {
    const { imports } = parseScript(
      'a.ts',
      "import type { T } from './t';\nimport { type U, used, unused } from './u';\nimport all, * as ns from './n';\nexport { x as y } from './x';\nexport * from './s';\nexport type { V } from './v';\nconsole.log(used, all, ns);",
      { jsxImportSource: 'made-up' },
    );
    expect(imports.map((i) => [i.specifier, i.names, i.line])).toEqual([
      ['./u', ['used'], 2],
      ['./n', ['default', '*'], 3],
      ['./x', ['x'], 4],
      ['./s', ['*'], 5],
    ]);
  });

  it('sees requires of constants and imports that the compiler adds', () => {
    const { imports } = parseScript('a.jsx', "const a = require('./a');\nrequire(name);\nexport const b = <a.B />;", {
      jsxImportSource: 'made-up',
    });
    expect(imports.map((i) => i.specifier).sort()).toEqual(['./a', 'made-up/jsx-runtime']);
  });
});
