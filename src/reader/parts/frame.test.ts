import { planned } from '../../core/chunks/planned.ts';
import { compileLoad, compileWithInteractions } from '../../core/load/compile.ts';
import { BASELINE } from '../../core/plan/types.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const APP = {
  'package.json': '{ "dependencies": { "react": "*" } }',
  'index.html': '<div id="root"></div><script type="module" src="/main.jsx"></script>',
  'main.jsx':
    "import { createRoot } from 'react-dom/client';\nimport App from './app.jsx';\ncreateRoot(root).render(<App />);",
  'routes.jsx':
    "import { lazy } from 'react';\nexport const routes = [{ path: '/', component: lazy(() => import('./tide.jsx')) }, { path: '/log', component: lazy(() => import('./log.jsx')) }];",
  'tide.jsx': 'export default () => <p>tide</p>;',
  'log.jsx': 'export default () => <p>log</p>;',
  'bar.jsx': 'export const Bar = () => <header>Harbour</header>;',
};
const read = (more: Record<string, string>) => readSource(folderOf({ ...APP, ...more })).snapshot;
const inApp = (markup: string, imports = '', more: Record<string, string> = {}) =>
  read({
    ...more,
    'app.jsx': `import { routes } from './routes.jsx';\n${imports}\nexport default function App() { const Page = routes[0].component; return ${markup}; }`,
  });

describe('what stands around all routes', () => {
  it.each([
    ['markup of its own', '<><nav>Tides</nav><Page /></>', '', 'app.jsx'],
    [
      'a component of its own that shows something',
      '<div><Bar /><Page /></div>',
      "import { Bar } from './bar.jsx';",
      'app.jsx',
    ],
    [
      'text in a component of a package',
      '<Box><Title level={1}>Tides</Title><Page /></Box>',
      "import { Box, Title } from 'kit';",
      'app.jsx',
    ],
    [
      'what a function compares',
      '<Box a={(n) => n > 1} b={2 > one}><Page /></Box>',
      "import { Box } from 'kit'; const one = 1;",
      undefined,
    ],
    ['nothing but the page', '<Page />', '', undefined],
    ['what only divides', '<div className="app"><main><Page /></main></div>', '', undefined],
    ['providers of packages', '<Provider><Page /></Provider>', "import { Provider } from 'kit';", undefined],
  ])('%s', (_, markup, imports, frame) => expect(inApp(markup, imports).entries[0].frame).toBe(frame));

  it('may be in the entry itself', () => {
    const main =
      "import { createRoot } from 'react-dom/client';\nimport { routes } from './routes.jsx';\nfunction App() { const Page = routes[0].component; return <><h1>Tides</h1><Page /></>; }\ncreateRoot(root).render(<App />);";
    expect(read({ 'main.jsx': main }).entries[0].frame).toBe('main.jsx');
  });

  it('isn’t taken for a type of TypeScript', () => {
    const app =
      "import { useState } from 'react';\nimport { routes } from './routes.jsx';\nexport default function App() { const [a] = useState<p>(); const Page = routes[0].component; return <Page a={a} />; }";
    const main = APP['main.jsx'].replace('./app.jsx', './app.tsx');
    expect(read({ 'main.jsx': main, 'app.tsx': app }).entries[0].frame).toBeUndefined();
  });

  it('shows before the page, whose code comes later', () => {
    const parts = (snapshot: ReturnType<typeof read>) =>
      compileLoad(planned(snapshot, BASELINE), '/log').parts.map((p) => [p.id, p.needs.length]);
    expect(parts(inApp('<><nav>Tides</nav><Page /></>'))).toEqual([
      ['shell', 1],
      ['page', 1],
    ]);
    expect(parts(inApp('<Page />'))).toEqual([['page', 1]]);
  });

  it('has what it alone draws drawn with it, and not after the page', () => {
    const drawnAfter = (bar: string, tide = 'export default () => <p>tide</p>;') => {
      const imports = "import { Bar } from './bar.jsx';";
      const app = inApp('<div><Bar /><Page /></div>', imports, { 'bar.jsx': bar, 'tide.jsx': tide });
      const { parts } = compileLoad(planned(app, BASELINE), '/');
      return parts.find((p) => p.id === 'bar.jsx')?.after.map((a) => parts[a].id);
    };
    expect(drawnAfter('export const Bar = () => <header>Harbour</header>;')).toEqual(['shell']);
    // What nobody can tell to show is drawn there as well.
    expect(drawnAfter("import { Top } from 'kit'; export const Bar = () => <Top />;")).toEqual([]);
    const both = "import { Bar } from './bar.jsx';\nexport default () => <p>tide <Bar /></p>;";
    expect(drawnAfter('export const Bar = () => <header>Harbour</header>;', both)).toEqual(['page']);
  });

  const framed = inApp(
    '<><nav>Tides <Clock /></nav><Page /></>',
    "import { lazy } from 'react';\nconst Clock = lazy(() => import('./clock.jsx'));",
    { 'clock.jsx': 'export default () => <p>12:00</p>;' },
  );

  it('asks for what it draws as it is drawn itself, and stays on moves', () => {
    const program = compileWithInteractions(planned(framed, BASELINE), '/');
    const shell = program.parts.findIndex((p) => p.id === 'shell');
    const clock = program.groups.findIndex((g) => g.name === 'clock.jsx');
    const asks = program.resources
      .flatMap((r) => r.follow)
      .filter((a) => a.do.kind === 'import' && a.do.group === clock);
    expect(asks).toEqual([expect.objectContaining({ when: 'drawn', target: shell })]);
    const move = program.interactions!.find((i) => i.kind === 'move' && i.name.includes('/log'))!;
    expect([...move.hides, ...move.shows]).not.toContain(shell);
    expect(program.parts.filter((p) => p.id === 'shell')).toHaveLength(1);
  });

  it('is priced once, however the entry leads to it', () => {
    const price = (more: Record<string, string>) =>
      compileLoad(planned(read(more), BASELINE), '/').parts.find((p) => p.id === 'shell')!.renderMs;
    const bar = "import { Bar } from './bar.jsx';\n";
    const body = (name: string) =>
      `function ${name}() { const Page = routes[0].component; return <><Bar /><nav>${'Tides '.repeat(2000)}</nav><Page /></>; }`;
    const inOwn = price({ 'app.jsx': `${bar}import { routes } from './routes.jsx';\nexport default ${body('App')}` });
    const inEntry = price({
      'main.jsx': `import { createRoot } from 'react-dom/client';\n${bar}import { routes } from './routes.jsx';\n${body('App')}\ncreateRoot(root).render(<App />);`,
    });
    expect(inOwn / inEntry).toBeGreaterThan(0.8);
    expect(inOwn / inEntry).toBeLessThan(1.25);
  });
});

const plain = (main: string, more: Record<string, string> = {}) =>
  readSource(
    folderOf({
      'package.json': '{}',
      'index.html': '<div id="root"></div><script type="module" src="/main.js"></script>',
      'main.js': `import { frame, Card } from './frame.js';
const routes = [{ path: '/', page: () => import('./tide.js') }, { path: '/log', page: () => import('./log.js') }];
const root = document.getElementById('root');
const go = () => routes[0].page().then((m) => m.draw(root));
${main}`,
      'frame.js':
        "export function frame(root) { root.innerHTML = '<header>Tides</header><main></main>'; }\nexport class Card extends HTMLElement { connectedCallback() { this.innerHTML = '<p>card</p>'; } }",
      'tide.js': "export const draw = (root) => { root.innerHTML = '<p>tide</p>'; };",
      'log.js': "export const draw = (root) => { root.innerHTML = '<p>log</p>'; };",
      ...more,
    }),
  ).snapshot.entries[0].frame;

describe('what a plain script puts into the page as it starts', () => {
  it.each<[string, string, string | undefined]>([
    ['markup, in a function that it calls', 'frame(root); go();', 'frame.js'],
    ['markup by another method', "root.insertAdjacentHTML('beforeend', '<nav>Tides</nav>'); go();", 'main.js'],
    [
      'markup that is put together',
      "const bar = '<nav>' + document.title + '</nav>';\nroot.innerHTML = bar; go();",
      'main.js',
    ],
    ['an element', "root.append(document.createElement('h1')); go();", 'main.js'],
    ['text', "root.textContent = 'One moment'; go();", 'main.js'],
    ['nothing but the page', 'go();', undefined],
    ['what only divides', "root.innerHTML = '<main></main>'; go();", undefined],
    ['an empty place', "root.innerHTML = ''; root.textContent = ' '; go();", undefined],
    ['what somebody asks for', "addEventListener('keydown', () => frame(root)); go();", undefined],
    ['what an answer brings', "fetch('/tides').then(() => frame(root)); go();", undefined],
    ['what a timer brings', 'setTimeout(() => frame(root), 900); go();', undefined],
    [
      'what is waited for',
      "const start = async () => { await fetch('/tides'); frame(root); };\nstart(); go();",
      undefined,
    ],
    [
      'what comes before a wait',
      "const start = async () => { frame(root); await fetch('/tides'); };\nstart(); go();",
      'frame.js',
    ],
    ['what is waited for at the top', "await fetch('/tides');\nframe(root); go();", undefined],
    ['an element that may be used later', "customElements.define('tide-card', Card); go();", undefined],
  ])('%s', (_, main, frame) => expect(plain(main)).toBe(frame));
});
