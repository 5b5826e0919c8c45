import fs from 'node:fs';
import path from 'node:path';
import { membersOf } from '../core/chunks/bits.ts';
import { planned } from '../core/chunks/planned.ts';
import { BASELINE } from '../core/plan/types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';
import { exactSizes } from './weigh.ts';

afterAll(removeFolders);

const html = '<!doctype html><html><head><script type="module" src="/src/main.ts"></script></head><body></body></html>';

function importsOf(snapshot: Snapshot, from: string) {
  return snapshot.imports
    .filter((i) => snapshot.modules[i.from].path === from)
    .map((i) => ({ ...i, to: snapshot.modules[i.to].path }));
}

describe('the sample', () => {
  const { snapshot, texts } = readSource(SAMPLE);

  it('is read whole: between 100 and 150 modules, nothing unresolved, nothing failed', () => {
    expect(snapshot.modules.length).toBeGreaterThanOrEqual(100);
    expect(snapshot.modules.length).toBeLessThanOrEqual(150);
    expect(snapshot.unresolved).toEqual([]);
    expect(snapshot.failed).toEqual([]);
    expect(snapshot.packages.map((p) => p.name)).toContain('@saltmarsh/paperkit');
  });

  it('has its routes with their chains, the crew’s through two nested tables', () => {
    expect(snapshot.routes.map((r) => r.pattern)).toEqual([
      '/',
      '/timetable',
      '/sailings/:id',
      '/book',
      '/trips',
      '/harbour',
      '/help',
      '/crew/duty/manifest',
    ]);
    const crew = snapshot.routes.at(-1)!;
    expect(crew.layouts).toEqual(['src/app/frame.tsx', 'src/crew/crew-area.tsx', 'src/crew/duty-section.tsx']);
    expect(crew.page).toBe('src/crew/manifest-page.tsx');
    expect(crew.evidence).toEqual({ path: 'src/crew/duty-section.tsx', line: 6 });
  });

  it('has heavy packages of 60 to 600 kB, about 1.5 MB together', () => {
    const weight = new Map<string, number>();
    for (const m of snapshot.modules)
      if (m.package) weight.set(m.package, (weight.get(m.package) ?? 0) + m.bytes.minified);
    const heavy = [...weight.values()].filter((w) => w > 50_000);
    expect(heavy.length).toBeGreaterThanOrEqual(5);
    expect(Math.min(...heavy)).toBeGreaterThan(60_000);
    expect(Math.max(...heavy)).toBeLessThan(600_000);
    expect(heavy.reduce((a, b) => a + b)).toBeGreaterThan(1_350_000);
  });

  it('has the planted mistakes', () => {
    const graph = planned(snapshot, BASELINE).graph;
    const start = new Set([...membersOf(graph.roots[0].reach)].map((m) => snapshot.modules[m].path));
    expect(start).toContain('packages/paperkit/src/index.ts');
    expect(start).toContain('packages/mapkeel/src/index.ts');
    expect(start).toContain('packages/tidewright/src/index.ts');
    expect(start).toContain('src/sailing/sailing-page.tsx');
    expect(start).not.toContain('src/trips/trips-page.tsx');
    expect(snapshot.scripts).toMatchObject([
      { id: 'support-chat', placement: 'blocking', bytes: 46_000, evidence: { path: 'index.html', line: 7 } },
    ]);
  });

  it('has imports with their places, deferred ones with the code around them, type-only ones not', () => {
    const board = importsOf(snapshot, 'src/timetable/departure-board.tsx');
    expect(board.map((i) => i.specifier)).not.toContain('../shared/types');
    const dialog = board.find((i) => i.specifier === '../tickets/ticket-dialog')!;
    expect(dialog).toMatchObject({
      kind: 'static',
      line: 6,
      column: 1,
      to: 'src/tickets/ticket-dialog.tsx',
      names: ['TicketDialog'],
    });
    const text = fs.readFileSync(path.join(SAMPLE, 'src/timetable/departure-board.tsx'), 'utf8');
    expect(text.slice(dialog.start, dialog.end)).toBe("import { TicketDialog } from '../tickets/ticket-dialog';");
    const badge = board.find((i) => i.specifier === './line-badge')!;
    expect(badge).toMatchObject({ kind: 'dynamic', context: 'wrapper' });
    expect(text.slice(badge.start, badge.end)).toBe("import('./line-badge')");
    expect(board.map((i) => i.to)).toContain('packages/view/src/jsx-runtime.ts');
    expect(importsOf(snapshot, 'src/harbour/berths.ts')).toEqual([]);
  });

  it('estimates large chunks within 10 % of the really compressed size', () => {
    for (const chunk of planned(snapshot, BASELINE).graph.chunks.filter((c) => c.bytes.minified > 20_000)) {
      const exact = exactSizes(chunk.modules.map((m) => texts[snapshot.modules[m].path]));
      const estimate = chunk.bytes.gzip - chunk.overhead.gzip;
      expect(Math.abs(estimate - exact.gzip) / exact.gzip).toBeLessThan(0.1);
    }
  });
});

describe('any tree', () => {
  it('keeps a module with a syntax error, and reads the rest', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': html,
        'src/main.ts': "import './bad';\nimport './good';",
        'src/bad.ts': 'const a = 1;\nconst b = ;',
        'src/good.ts': 'export {};',
      }),
    );
    expect(snapshot.failed).toEqual([{ path: 'src/bad.ts', line: 2, message: 'Unexpected token' }]);
    expect(snapshot.modules.find((m) => m.path === 'src/bad.ts')?.bytes.source).toBe(24);
    expect(snapshot.modules.map((m) => m.path)).toContain('src/good.ts');
  });

  it('lists imports that lead nowhere, outside, to the network or to no constant', () => {
    const outside = folderOf({ 'secret.ts': 'export {};' });
    const main = [
      "import './gone';",
      "import 'not-installed';",
      "import 'node:fs';",
      `import '${path.join('..', '..', path.basename(outside), 'secret')}';`,
      "import 'https://cdn.example/x.js';",
      'export const load = (name: string) => import(name);',
    ].join('\n');
    const { snapshot } = readSource(folderOf({ 'index.html': html, 'src/main.ts': main }));
    expect(snapshot.unresolved.map((u) => [u.specifier.slice(0, 20), u.line])).toEqual(
      expect.arrayContaining([
        ['./gone', 1],
        ['not-installed', 2],
        ['node:fs', 3],
        ['https://cdn.example/', 5],
      ]),
    );
    const reason = (line: number) => snapshot.unresolved.find((u) => u.line === line)?.reason;
    expect(reason(4)).toBe('it lies outside the folder that was read');
    expect(reason(6)).toBe('the address is not a constant');
    expect(snapshot.modules.map((m) => m.path)).toEqual(['src/main.ts']);
  });

  it('follows cycles, requires, workers, styles, JSON and assets', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': html,
        'src/main.ts':
          "import { b } from './b';\nimport './a.css';\nimport data from './d.json';\nimport pic from './p.svg';\nconst c = require('./c');\nnew Worker(new URL('./w.ts', import.meta.url));\nconsole.log(b, data, pic, c);",
        'src/b.ts': "import './main';\nexport const b = 1;",
        'src/c.ts': 'module.exports = 1;',
        'src/a.css': '@import "./base.css";\n.a { color: #ff0000; }',
        'src/base.css': 'b { margin: 0px; }',
        'src/d.json': '{ "x": 1 }',
        'src/p.svg': '<svg/>',
        'src/w.ts': "import './b';",
      }),
    );
    expect(snapshot.entries.map((e) => e.realm)).toEqual(['site', 'worker src/w.ts']);
    expect(snapshot.modules.map((m) => [m.path.slice(4), m.kind])).toEqual([
      ['a.css', 'style'],
      ['b.ts', 'script'],
      ['base.css', 'style'],
      ['c.ts', 'script'],
      ['d.json', 'json'],
      ['main.ts', 'script'],
      ['p.svg', 'asset'],
      ['w.ts', 'script'],
    ]);
    expect(snapshot.modules.find((m) => m.kind === 'asset')).toMatchObject({ fileBytes: 6 });
    expect(importsOf(snapshot, 'src/a.css')).toMatchObject([{ to: 'src/base.css', kind: 'static' }]);
    expect(snapshot.unresolved).toEqual([]);
  });

  it.each([
    ['new Worker(new URL("./w.ts", import.meta.url));', [{ specifier: './w.ts', context: 'module' }]],
    [
      'const at = new URL("./w.ts", import.meta.url);\nnew SharedWorker(at);',
      [{ specifier: './w.ts', context: 'module' }],
    ],
    [
      'navigator.serviceWorker.register(new URL("w.ts", import.meta.url));',
      [{ specifier: './w.ts', context: 'module' }],
    ],
    [
      'import W from "./w.ts?worker";\nexport const go = () => new W();',
      [{ specifier: './w.ts?worker', context: 'function' }],
    ],
    ['import W from "./w.ts?worker";\nhand(W);', [{ specifier: './w.ts?worker', context: 'function' }]],
    ['import W from "./w.ts?worker";\nnew W();', [{ specifier: './w.ts?worker', context: 'module' }]],
    [
      'function Search() { useEffect(() => { new Worker(new URL("./w.ts", import.meta.url)); }, []); return 1; }\nhand(Search);',
      [{ specifier: './w.ts', context: 'wrapper' }],
    ],
    [
      'requestIdleCallback(() => new Worker(new URL("./w.ts", import.meta.url)));',
      [{ specifier: './w.ts', context: 'wrapper', begun: { on: 'idle' } }],
    ],
    [
      'document.onclick = () => new Worker(new URL("./w.ts", import.meta.url));',
      [{ specifier: './w.ts', context: 'function' }],
    ],
  ])('says what starts a worker: %s', (main, started) => {
    const { snapshot } = readSource(
      folderOf({ 'index.html': html, 'src/main.ts': `declare const hand: any;\n${main}`, 'src/w.ts': 'export {};' }),
    );
    const worker = snapshot.entries.find((e) => e.kind === 'worker');
    expect(worker).toMatchObject({ realm: 'worker src/w.ts', modules: ['src/w.ts'] });
    expect(worker!.startedBy).toEqual(started.map((s) => ({ from: 'src/main.ts', ...s })));
    // It runs beside the page, not among its modules.
    expect(snapshot.imports).toEqual([]);
    expect(snapshot.unresolved).toEqual([]);
  });

  it('lists a route that points nowhere, one that is there twice, and notes about one that no table has', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': html,
        'yokeline.app.json': '{ "routes": { "/none": {} } }',
        'src/main.ts':
          "import { Home } from './home';\nexport const routes = [\n  { path: '/', component: Home },\n  { path: '/lost', component: () => import('./lost') },\n  { path: '/', component: () => import('./home') },\n];",
        'src/home.ts': 'export const Home = () => 1;',
      }),
    );
    expect(snapshot.routes.map((r) => [r.pattern, r.page])).toEqual([['/', 'src/home.ts']]);
    expect(snapshot.failed).toEqual([
      { path: 'src/main.ts', line: 4, message: "the route /lost leads to ./lost, which can't be found" },
      { path: 'src/main.ts', line: 5, message: 'the route / is there twice; the first one counts' },
      { path: 'yokeline.app.json', line: 1, message: 'routes["/none"] names a route that no table has (found: /)' },
    ]);
  });

  it('starts from the described or usual entry when there is no HTML', () => {
    const { snapshot } = readSource(
      folderOf({ 'package.json': '{ "name": "tiny", "module": "lib/start.js" }', 'lib/start.js': 'export {};' }),
    );
    expect(snapshot.name).toBe('tiny');
    expect(snapshot.entries[0].modules).toEqual(['lib/start.js']);
  });

  it('knows side effects as the package describes them', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': html,
        'src/main.ts': "import { a } from 'pure';\nglobalThis.y = a;\nimport 'pure/effect.js';",
        'node_modules/pure/package.json':
          '{ "name": "pure", "version": "1.0.0", "main": "index.js", "sideEffects": ["./effect.js"] }',
        'node_modules/pure/index.js': 'exports.a = 1;',
        'node_modules/pure/effect.js': 'globalThis.x = 1;',
      }),
    );
    const effects = new Map(snapshot.modules.map((m) => [path.basename(m.path), m.sideEffects]));
    expect([effects.get('index.js'), effects.get('effect.js'), effects.get('main.ts')]).toEqual([false, true, true]);
    expect(snapshot.packages).toEqual([{ name: 'pure', version: '1.0.0', folder: 'node_modules/pure' }]);
  });

  it.each([
    [() => path.join(SAMPLE, 'nowhere'), 'No such folder'],
    [() => path.join(SAMPLE, 'index.html'), 'Not a folder'],
    [() => folderOf({ 'readme.txt': 'hello' }), 'No sources'],
    [() => folderOf({ 'deep/er/x.ts': 'export {};' }), 'No entry'],
    [() => folderOf({ 'index.html': html, 'src/main.ts': '', 'yokeline.app.json': '{ oops' }), 'yokeline.app.json:1:3'],
    [
      () =>
        folderOf({
          'index.html': html,
          'src/main.ts': '',
          'yokeline.app.json': '{ "routes": { "/": { "document": { "bytes": "many" } } } }',
        }),
      'routes["/"].document.bytes',
    ],
    [() => folderOf({ 'index.html': html, 'src/main.ts': '', 'package.json': '{,' }), 'package.json:1:2'],
  ])('says what to do when there is nothing to read (%#)', (make, words) => {
    expect(() => readSource(make())).toThrow(words);
  });
});
