import { planned } from '../core/chunks/planned.ts';
import type { Decision, Plan } from '../core/plan/types.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import type { BuiltFile } from '../core/snapshot/output-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { part, route, sketch } from './snapshots.ts';

const CHECKED = { bytes: null, serverMs: 20, evaluationMs: 3 };

/**
 * A small app that has one of nearly everything: layouts, shared code, packages in two versions, styles and fonts, parts in all
 * places, data, images, scripts, links, streamed documents, redirects, and visitors with habits.
 */
export function fullApp(): Snapshot {
  const app = sketch(
    {
      'src/main': { bytes: 3000, imports: ['src/app.css', 'src/frame', 'src/home', '~src/board', '~src/crew'] },
      'src/app.css': { kind: 'style', bytes: 2400 },
      'src/frame': { bytes: 4100, imports: ['src/kit', '~src/menu'] },
      'src/kit': { bytes: 900, imports: ['src/format', 'src/icons'] },
      'src/format': { bytes: 700, imports: ['a/dates/index'] },
      'src/icons': { bytes: 5200 },
      'src/home': { bytes: 6100, imports: ['src/kit', 'src/hero', '~src/map', 'src/dialog', 'src/home.css'] },
      'src/home.css': { kind: 'style', bytes: 1300 },
      'src/hero': { bytes: 2200 },
      'src/map': { bytes: 3100, imports: ['tiles/index', 'src/format'] },
      'src/dialog': { bytes: 2700, imports: ['sheets/index', '~src/terms'] },
      'src/terms': { bytes: 4300 },
      'src/board': { bytes: 8200, imports: ['src/kit', 'src/rows', 'src/board.css', '~src/chart'] },
      'src/board.css': { kind: 'style', bytes: 1900 },
      'src/rows': { bytes: 2600, imports: ['b/dates/index', 'src/format'] },
      'src/chart': { bytes: 3900, imports: ['curves/index', 'b/dates/index', '~src/legend'] },
      'src/legend': { bytes: 2100, imports: ['curves/index'] },
      'src/crew': { bytes: 5100, imports: ['src/rows', 'src/board', 'src/badge'] },
      'src/badge': { bytes: 600 },
      'src/menu': { bytes: 1900, imports: ['src/icons'] },
      'a/dates/index': { package: 'dates', bytes: 21_000 },
      'b/dates/index': { package: 'dates', bytes: 24_000 },
      'tiles/index': { package: 'tiles', bytes: 88_000, imports: ['tiles/draw'] },
      'tiles/draw': { package: 'tiles', bytes: 41_000 },
      'sheets/index': { package: 'sheets', bytes: 64_000 },
      'curves/index': { package: 'curves', bytes: 52_000, imports: ['a/dates/index'] },
    },
    {
      base: '/app/',
      packages: [
        { name: 'dates', version: '1.0.0', folder: 'a/dates' },
        { name: 'dates', version: '2.0.0', folder: 'b/dates' },
        { name: 'tiles', version: '3.1.0', folder: 'tiles' },
        { name: 'sheets', version: '0.4.0', folder: 'sheets' },
        { name: 'curves', version: '5.0.2', folder: 'curves' },
      ] as Snapshot['packages'],
      scripts: [
        {
          id: 'count',
          name: 'count',
          address: 'https://count.example/c.js',
          ...CHECKED,
          bytes: 9000,
          placement: 'blocking',
          evidence: { path: 'index.html', line: 4 },
        },
        {
          id: 'chat',
          name: 'chat',
          address: '/vendor/chat.js',
          ...CHECKED,
          bytes: 3000,
          placement: 'async',
          evidence: null,
        },
      ],
      links: [
        {
          realm: 'site',
          rel: 'preload',
          address: '/hero.jpg',
          as: 'image',
          crossorigin: false,
          priority: 'high',
          bytes: 40_000,
          evidence: { path: 'index.html', line: 6 },
        },
        {
          realm: 'site',
          rel: 'preconnect',
          address: 'https://api.example',
          as: '',
          crossorigin: true,
          priority: 'auto',
          bytes: null,
          evidence: { path: 'index.html', line: 7 },
        },
      ],
      routes: [
        route('/', 'src/home', {
          layouts: ['src/frame'],
          rendering: 'server',
          landings: 5,
          document: { bytes: 9000, serverMs: 80, flushes: [{ upTo: 3000, atMs: 10 }] },
          parts: [
            part('hero', 'src/hero', { needs: ['pic'] }),
            part('map', 'src/map', { place: 'below', share: 0.4, needs: ['stops'] }),
            part('dialog', 'src/dialog', { place: 'action', action: 'book', share: 0.3 }),
            part('menu', 'src/menu', { place: 'conditional', condition: { kind: 'media', maxWidth: 640 }, share: 0.5 }),
          ],
          content: [
            {
              id: 'pic',
              kind: 'image',
              address: '/hero.jpg',
              bytes: 40_000,
              serverMs: 15,
              foundIn: 'document',
              place: 'first screen',
              lazy: false,
            },
            {
              id: 'far',
              kind: 'image',
              address: '/far.jpg',
              bytes: 20_000,
              serverMs: 15,
              foundIn: { module: 'src/map' },
              place: 'below',
              lazy: true,
            },
          ],
          data: [{ id: 'stops', address: 'https://api.example/stops', bytes: 6000, serverMs: 90, module: 'src/map' }],
          fonts: [
            {
              id: 'text',
              address: '/text.woff2',
              bytes: 18_000,
              serverMs: 10,
              declaredBy: 'src/app.css',
              display: 'swap',
            },
          ],
          links: ['/board', '/crew/:id'],
        }),
        route('/board', 'src/board', {
          layouts: ['src/frame'],
          landings: 3,
          document: { bytes: 4000, serverMs: 60, redirects: [{ origin: 'https://go.example', serverMs: 30 }] },
          parts: [
            part('chart', 'src/chart', { needs: ['tides'] }),
            part('legend', 'src/legend', {
              place: 'conditional',
              condition: { kind: 'answer', of: 'tides' },
              share: 0.5,
            }),
            part('menu', 'src/menu', { place: 'action', action: 'menu', share: 0.1 }),
          ],
          data: [{ id: 'tides', address: '/api/tides', bytes: 3000, serverMs: 70, module: 'src/chart' }],
          links: ['/', '/crew/:id'],
        }),
        route('/crew/:id', 'src/crew', {
          parts: [
            part('badge', 'src/badge', {
              place: 'conditional',
              condition: { kind: 'segment', segment: 'crew' },
              share: 0.4,
            }),
          ],
        }),
      ],
      unusedRules: [
        { module: 'src/app.css', line: 3, selector: '.gone', bytes: 700, missing: ['gone'] },
        { module: 'src/board.css', line: 9, selector: '.old', bytes: 300, missing: ['old'] },
      ],
      sheetUses: [{ module: 'src/home.css', by: ['src/home'] }],
      visitors: {
        segments: [{ name: 'crew', share: 0.2 }],
        touch: 0.5,
        dataSaver: 0.1,
        returning: 0.4,
        deployed: 0.25,
        routes: [
          {
            pattern: '/',
            dwell: { medianMs: 4000, spread: 0.5 },
            moves: [
              { to: '/board', share: 0.5 },
              { to: '/crew/:id', share: 0.1 },
            ],
          },
          {
            pattern: '/board',
            acts: [{ part: 'menu', share: 0.2, hesitation: { medianMs: 500, spread: 0.3 } }],
            moves: [{ to: '/', share: 0.3 }],
          },
        ],
      },
    },
  );
  const needed = app.imports.findIndex((i) => i.specifier === 'src/icons');
  app.imports[needed].sync = { reason: 'it is read while the module starts', line: 2 };
  addDraws(app);
  return app;
}

const plan = (name: string, decisions: Decision[]): Plan => ({ name, description: `${name} of all`, decisions });
const detach = (key: string): Decision => ({ kind: 'detach', import: key });

/** Plans over that app that have every kind of decision between them, some of them about nothing that is there. */
export const FULL_PLANS: readonly Plan[] = [
  plan('splits', [
    detach('src/home::src/dialog'),
    { kind: 'detach', package: 'curves' },
    { kind: 'detach', module: 'src/rows' },
    { kind: 'join', import: 'src/board::src/chart' },
    { kind: 'trigger', splitPoint: 'src/dialog', fetch: { on: 'approach' } },
    { kind: 'trigger', splitPoint: 'src/map', fetch: { on: 'idle' } },
    {
      kind: 'split',
      splitPoint: 'src/dialog',
      run: { on: 'action' },
      fallback: { show: 'stand-in', holdMs: 300 },
      onError: 'a message',
      data: 'with the code',
    },
    {
      kind: 'split',
      splitPoint: 'src/map',
      fallback: { show: 'reserved space', holdMs: 0 },
      together: 'pair',
      clientOnly: true,
    },
    { kind: 'put aside', finding: 'leak x', reason: 'wanted' },
    detach('src/gone::src/dialog'),
  ]),
  plan('hints', [
    {
      kind: 'hint',
      hint: { kind: 'preload', place: 'header', target: { kind: 'asset', address: '/text.woff2' }, routes: ['/'] },
    },
    {
      kind: 'hint',
      hint: {
        kind: 'modulepreload',
        place: 'markup',
        target: { kind: 'split point', module: 'src/chart' },
        routes: ['/board'],
        priority: 'low',
      },
    },
    {
      kind: 'hint',
      hint: {
        kind: 'prefetch',
        place: 'script',
        target: { kind: 'route', pattern: '/board' },
        routes: ['/'],
        on: { on: 'idle' },
        notForDataSaver: true,
      },
    },
    {
      kind: 'hint',
      hint: {
        kind: 'preconnect',
        place: 'early',
        target: { kind: 'origin', origin: 'https://count.example' },
        routes: [],
      },
    },
    {
      kind: 'hint',
      hint: {
        kind: 'fetch priority',
        place: 'markup',
        target: { kind: 'asset', address: '/hero.jpg' },
        routes: ['/'],
        priority: 'high',
      },
    },
    {
      kind: 'hint',
      hint: {
        kind: 'prefetch document',
        place: 'markup',
        target: { kind: 'route', pattern: '/' },
        routes: ['/board'],
        on: { on: 'approach' },
      },
    },
    { kind: 'script', script: 'count', placement: 'defer' },
    { kind: 'script', script: 'chat', placement: 'after load' },
    { kind: 'drop link', rel: 'preload', address: '/hero.jpg' },
    { kind: 'loader', loader: 'discovered' },
  ]),
  plan('shapes', [
    { kind: 'gather', name: 'vendor', match: { package: 'dates' } },
    { kind: 'together', modules: ['src/hero', 'src/icons'] },
    { kind: 'apart', match: { path: 'src/rows' } },
    { kind: 'floor', bytes: 3000 },
    { kind: 'ceiling', requests: 4 },
    { kind: 'copy', below: 1000 },
    { kind: 'chunk name', chunk: 'gone', name: 'renamed' },
  ]),
  plan('grains', [{ kind: 'grain' }, { kind: 'copy', below: 800 }]),
  plan('ships', [
    { kind: 'no script', module: 'src/hero' },
    { kind: 'trim', module: 'src/app.css' },
    { kind: 'one version', package: 'dates', keep: 'b/dates' },
    { kind: 'style in script', match: { path: 'src/*.css' } },
    { kind: 'move', import: 'src/home::src/home.css', to: 'src/frame' },
  ]),
];

/** What modules draw of others: the app's own components and those of packages, several times and in one another. */
function addDraws({ modules }: Snapshot): void {
  const draws: Record<string, Record<string, number>> = {
    'src/frame': { 'src/kit': 1 },
    'src/kit': { 'src/icons': 3 },
    'src/home': { 'src/hero': 1, 'src/kit': 2 },
    'src/map': { 'tiles/index': 4 },
    'src/board': { 'src/rows': 12, 'src/kit': 1 },
    'src/rows': { 'src/icons': 1 },
    'src/chart': { 'curves/index': 2 },
    'src/dialog': { 'sheets/index': 1 },
  };
  const at = (path: string) => modules.findIndex((m) => m.path === path);
  for (const [from, of] of Object.entries(draws))
    modules[at(from)].draws = Object.entries(of).map(([path, times]) => ({ module: at(path), times }));
}

/** A production output of that app, built as a plan says, with its links in the document; as an app of its own. */
export function builtApp(asPlanned: Plan): Snapshot {
  const app = fullApp();
  const { graph, plan: effective } = planned(app, asPlanned);
  const fileOf = new Map(graph.chunks.flatMap((chunk, at) => [...chunk.modules].map((m) => [m, at] as const)));
  const files = graph.chunks.map((chunk, at): BuiltFile => {
    const to = new Map<number, 'static' | 'dynamic'>();
    app.imports.forEach((item, i) => {
      const target = fileOf.get(item.to);
      if (fileOf.get(item.from) !== at || target === undefined || target === at) return;
      if (effective.deferred[i] === 0 || !to.has(target)) to.set(target, effective.deferred[i] ? 'dynamic' : 'static');
    });
    return {
      path: `assets/${chunk.name}.${chunk.kind === 'style' ? 'css' : 'js'}`,
      kind: chunk.kind === 'style' ? 'style' : 'script',
      bytes: { minified: chunk.bytes.minified, gzip: chunk.bytes.gzip, brotli: chunk.bytes.brotli },
      inside: 'sources',
      modules: [...chunk.modules].map((module) => ({ module, bytes: app.modules[module].bytes.minified })),
      contents: [],
      imports: [...to].map(([file, kind]) => ({ to: file, kind, line: 1 })),
    };
  });
  const starts = [{ realm: 'site', tags: [{ file: fileOf.get(0)!, placement: 'module' as const, offset: 100 }] }];
  const imports = app.imports.map(
    (item, i) => ({ ...item, kind: effective.deferred[i] ? 'dynamic' : 'static' }) as Import,
  );
  return { ...app, name: 'built', origin: 'output', imports, links: app.links.slice(1), output: { files, starts } };
}
