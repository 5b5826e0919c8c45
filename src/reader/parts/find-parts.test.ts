import fs from 'node:fs';
import path from 'node:path';
import type { Route, RouteProposal } from '../../core/snapshot/route-types.ts';
import { folderOf, removeFolders, SAMPLE } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const LIBRARY = path.resolve('examples/hollow-lane-library');

/** An example without its notes: parts then come from the code alone. */
function withoutNotes(example: string): string {
  const folder = folderOf({});
  fs.cpSync(example, folder, { recursive: true });
  fs.rmSync(path.join(folder, 'yokeline.app.json'));
  return folder;
}

const said = (routes: Route[]) =>
  new Set(
    routes.flatMap((r) =>
      r.parts.map((p) => `${r.pattern} ${p.module} ${p.place === 'below' ? 'first screen' : p.place}`),
    ),
  );

/** Without what a layout draws plainly on all of its routes, of which the notes don't speak. */
function ofPages(routes: Route[]): Route[] {
  return routes.map((r) => ({
    ...r,
    parts: r.parts.filter((p) => p.place !== 'first screen' || !r.layouts.includes(p.evidence?.path ?? '')),
  }));
}

describe('parts proposed from code', () => {
  it('are what a layout draws plainly as well, on the first screen of each of its routes', () => {
    const { snapshot } = readSource(withoutNotes(SAMPLE));
    for (const route of snapshot.routes) {
      const drawn = route.parts.filter((p) => route.layouts.includes(p.evidence?.path ?? ''));
      expect(drawn.map((p) => [p.module, p.place])).toContainEqual(['src/app/masthead.tsx', 'first screen']);
    }
  });

  it('agree with what is noted of the sample', () => {
    const noted = said(readSource(SAMPLE).snapshot.routes);
    const { routes } = readSource(withoutNotes(SAMPLE)).snapshot;
    // The notes speak of what is drawn; of what only acts run there is one package, told below.
    const drawn = routes.map((r) => ({ ...r, parts: r.parts.filter((p) => !p.module.startsWith('packages/')) }));
    const found = said(ofPages(drawn));
    const right = [...found].filter((p) => noted.has(p)).length;
    expect(right / noted.size).toBeGreaterThan(0.9);
    expect(right / found.size).toBeGreaterThan(0.7);
  });

  it('are packages that only acts run, too, behind the act and on the routes that have it', () => {
    const { routes } = readSource(withoutNotes(SAMPLE)).snapshot;
    const found = routes.flatMap((r) =>
      r.parts.flatMap((p) => (p.module.startsWith('packages/') ? [[r.pattern, p.name, p.place, p.action]] : [])),
    );
    expect(found).toEqual([
      ['/timetable', '@saltmarsh/paperkit', 'action', 'print'],
      ['/trips', '@saltmarsh/paperkit', 'action', 'print'],
    ]);
  });

  it('agree with what is noted of an app in another style, the places below included', () => {
    const exact = (routes: Route[]) =>
      new Set(routes.flatMap((r) => r.parts.map((p) => `${r.pattern} ${p.module} ${p.place}`)));
    const noted = exact(readSource(LIBRARY).snapshot.routes);
    const found = exact(ofPages(readSource(withoutNotes(LIBRARY)).snapshot.routes));
    const right = [...found].filter((p) => noted.has(p)).length;
    expect(right / noted.size).toBeGreaterThan(0.95);
    expect(right / found.size).toBeGreaterThan(0.95);
  });

  it('name the action, the condition and the line', () => {
    const { snapshot } = readSource(withoutNotes(SAMPLE));
    const part = (pattern: string, module: string) =>
      snapshot.routes.find((r) => r.pattern === pattern)!.parts.find((p) => p.module.endsWith(module))!;
    expect(part('/timetable', 'fare-calculator.tsx')).toMatchObject({
      place: 'action',
      action: 'Price a crossing',
      evidence: { path: 'src/timetable/timetable-page.tsx', line: 22 },
    });
    expect(part('/timetable', 'ticket-dialog.tsx')).toMatchObject({ place: 'action', action: 'make ticket' });
    expect(part('/', 'narrow-menu.tsx')).toMatchObject({
      place: 'conditional',
      condition: { kind: 'media', maxWidth: 640 },
    });
    expect(part('/book', 'passenger-fields.tsx').place).toBe('first screen');
    expect(part('/book', 'payment.tsx')).toMatchObject({ place: 'action', action: 'Next' });
  });

  it('are found in another style of code too', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': '<script type="module" src="/src/index.jsx"></script>',
        'src/index.jsx':
          "import { Home } from './home.jsx';\nexport const routes = [{ path: '/', element: <Home /> }];",
        'src/home.jsx': `
          import { useState, lazy } from './hooks.js';
          import { Header } from './header.jsx';
          import { Editor } from './editor.jsx';
          import { Wide } from './wide.jsx';
          const Preview = lazy(() => import('./preview.jsx'));
          const Help = lazy(() => import('./help.jsx'));
          export function Home() {
            const [editing, setEditing] = useState(false);
            const [tab, setTab] = useState('text');
            const handleEdit = () => setEditing(true);
            return <div>
              <Header />
              <button onClick={() => setEditing(true)} title="x">Edit <b>it</b></button>
              <a onClick={() => setTab('preview')}>{'Preview'}</a>
              {editing && <Editor onClose={() => setEditing(false)} />}
              {tab === 'preview' && <Preview />}
              {tab === 'text' ? <Help /> : null}
              {window.matchMedia('(min-width: 900px)').matches && <Wide />}
            </div>;
          }`,
        'src/hooks.js': 'export const useState = (x) => [x, () => {}];\nexport const lazy = (f) => f;',
        'src/header.jsx': "import { Logo } from './logo.jsx';\nexport const Header = () => <header><Logo /></header>;",
        'src/logo.jsx': 'export const Logo = () => null;',
        'src/editor.jsx': "import { Toolbar } from './logo2.jsx';\nexport const Editor = () => <Toolbar />;",
        'src/logo2.jsx': 'export const Toolbar = () => null;',
        'src/wide.jsx': 'export const Wide = () => null;',
        'src/preview.jsx': 'export default () => null;',
        'src/help.jsx': 'export default () => null;',
      }),
    );
    const parts = snapshot.routes[0].parts.map((p) => [p.name, p.place, p.action ?? p.condition ?? null]);
    expect(parts).toEqual([
      ['header', 'first screen', null],
      ['editor', 'action', 'Edit it'],
      ['preview', 'action', 'Preview'],
      ['help', 'first screen', null],
      ['wide', 'conditional', { kind: 'media', minWidth: 900 }],
    ]);
  });

  it('are what leads to a page as well, and what stands behind it; what draws pages is none', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': '<script type="module" src="/main.jsx"></script>',
        'main.jsx': "import { App } from './app';\ncreateRoot(document.body).render(<App />);",
        'app.jsx':
          "import { Nav } from './nav';\nimport { Pages } from './pages';\nexport const App = () => <><Nav /><Pages /></>;",
        'nav.jsx':
          "import { Help } from './help';\nexport const Nav = () => { const [open, toggle] = useState(false); return <><b onMouseEnter={() => import('./tides')}>Tides</b><b onClick={toggle}>Help</b>{open && <Help />}</>; };",
        'pages.jsx':
          "import { Tides } from './tides';\nimport { Foot } from './foot';\nexport const Pages = () => <><Routes><Route path=\"/tides\" element={<Tides />} /></Routes><Tides /><Foot /></>;",
        'tides.jsx': 'export const Tides = () => <p>tides</p>;',
        'help.jsx': 'export const Help = () => <p>help</p>;',
        'foot.jsx': 'export const Foot = () => <p>foot</p>;',
      }),
    );
    expect(snapshot.routes.map((r) => r.page)).toEqual(['tides.jsx']);
    expect(snapshot.routes[0].parts.map((p) => [p.module, p.place])).toEqual([
      ['nav.jsx', 'first screen'],
      ['help.jsx', 'action'],
      ['foot.jsx', 'first screen'],
    ]);
  });
});

describe('parts of corrected routes', () => {
  const folder = withoutNotes(SAMPLE);
  const { routes } = readSource(folder).snapshot;
  const alone = routes.filter((r) => r.layouts.length === 1);
  const shown = ({ page, layouts, content, data, parts }: Omit<Route, 'realm'> | RouteProposal) => ({
    ...{ page, layouts, content, data, parts },
  });

  it('are those of the page and layouts that a route is given, whatever it was before', () => {
    // Each has what the next one has.
    const corrected = alone.map(({ realm, pattern }, at) => {
      const { page, layouts } = alone[(at + 1) % alone.length];
      return { realm, pattern, page, layouts };
    });
    const { snapshot } = readSource(folder, { corrected });
    expect(snapshot.proposals.map((p) => p.pattern)).toEqual(alone.map((r) => r.pattern));
    expect(snapshot.proposals.map(shown)).toEqual(alone.map((_, at) => shown(alone[(at + 1) % alone.length])));
    // What was read stays as read.
    expect(snapshot.routes).toEqual(routes);
  });

  it('keep what isn’t corrected, take in code that nothing led to, and leave out what isn’t there', () => {
    const more = withoutNotes(SAMPLE);
    fs.writeFileSync(
      path.join(more, 'src/spare.tsx'),
      "import { useState } from '@saltmarsh/view';\nimport { Masthead } from './app/masthead.tsx';\n" +
        'export function Spare() {\n  const [open, setOpen] = useState(false);\n' +
        '  return <main><button onClick={() => setOpen(true)}>who we are</button>{open ? <Masthead /> : null}</main>;\n}\n',
    );
    const { realm, pattern, layouts } = alone[1];
    const { snapshot } = readSource(more, {
      corrected: [
        { realm, pattern, page: 'src/spare.tsx' },
        { realm, pattern: '/added', page: 'src/spare.tsx', layouts: [] },
        { realm, pattern: alone[2].pattern, page: 'src/nowhere.tsx' },
        { realm, pattern: '/nothing', layouts: [] },
      ],
    });
    expect(snapshot.proposals.map((p) => [p.pattern, p.page, p.layouts])).toEqual([
      [pattern, 'src/spare.tsx', layouts],
      ['/added', 'src/spare.tsx', []],
    ]);
    expect(snapshot.proposals[1].parts).toContainEqual(
      expect.objectContaining({ module: 'src/app/masthead.tsx', place: 'action', action: 'who we are' }),
    );
    expect(snapshot.modules.some((m) => m.path === 'src/spare.tsx')).toBe(true);
  });
});

describe('a component that is told whether something is open', () => {
  const placeOf = (panel: string) => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': '<script type="module" src="/main.tsx"></script>',
        'main.tsx': "import Page from './page';\nexport const routes = [{ path: '/', element: <Page /> }];",
        'page.tsx':
          "import { useState } from 'react';\nimport Panel from './panel';\nexport default function Page() { const [open, setOpen] = useState(false);\nreturn <><button onClick={() => setOpen(true)}>Menu</button><Panel open={open} /></>; }",
        'panel.tsx': panel,
      }),
    );
    const page = snapshot.modules.find((m) => m.path === 'page.tsx')!;
    return {
      place: snapshot.routes[0].parts.find((p) => p.module === 'panel.tsx')!.place,
      draws: page.draws?.length ?? 0,
    };
  };

  it.each([
    ['it only looks otherwise', "export default ({ open }) => <nav className={clsx('nav', { open })} />;"],
    [
      'it only says so',
      'export default ({ open }) => <nav aria-expanded={open} data-state={open ? "open" : "closed"} />;',
    ],
    ['it doesn’t care', 'export default () => <nav />;'],
  ])('is drawn where %s', (_, panel) => {
    expect(placeOf(panel)).toEqual({ place: 'first screen', draws: 1 });
  });

  it.each([
    ['it gives nothing before', 'export default ({ open }) => { if (!open) return null; return <nav />; };'],
    ['it draws its inside then', 'export default ({ open }) => <div>{open && <nav />}</div>;'],
    ['it chooses', 'export default ({ open }) => open ? <nav /> : null;'],
    ['it tells a dialog', "import { Dialog } from 'kit'; export default ({ open }) => <Dialog open={open} />;"],
    ['it hands all on', "import { Dialog } from 'kit'; export default (props) => <Dialog {...props} />;"],
  ])('is drawn by the act where %s', (_, panel) => {
    expect(placeOf(panel)).toEqual({ place: 'action', draws: 0 });
  });
});
