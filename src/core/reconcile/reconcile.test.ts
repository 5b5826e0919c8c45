import { readApp } from '../../reader/read-app.ts';
import { type Reading, readSource } from '../../reader/read-source.ts';
import { buildOf } from '../../test-support/build.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import type { DocumentLink } from '../snapshot/document-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { reconcile } from './reconcile.ts';
import { reconcileMarkdown } from './reconcile-text.ts';

afterAll(removeFolders);

const long = (name: string, times: number) => `export const ${name} = '${`${name} `.repeat(times)}';`;
const files = (deferred: boolean) => ({
  'index.html': '<script type="module" src="/src/main.js"></script>',
  'src/main.js':
    "export const routes = [{ path: '/', page: () => import('./pages/home.js') }, { path: '/far', page: () => import('./pages/far.js') }];\n",
  'src/pages/home.js': deferred
    ? "export default async () => (await import('../parts/chart.js')).chart;\n"
    : "import { chart } from '../parts/chart.js';\nexport default async () => chart;\n",
  'src/pages/far.js': long('far', 30),
  'src/parts/chart.js': long('chart', 400),
});
const before = readSource(folderOf(files(false)));
const after = readSource(folderOf(files(true)));
const hint: Decision = {
  kind: 'hint',
  hint: { kind: 'modulepreload', target: { kind: 'route', pattern: '/' }, place: 'markup', routes: ['/'] },
};
const plan: Plan = {
  name: 'Plan',
  description: '',
  decisions: [
    { kind: 'detach', import: 'src/pages/home.js::../parts/chart.js' },
    { kind: 'trigger', splitPoint: 'src/parts/chart.js', fetch: { on: 'action' } },
    hint,
    { kind: 'put aside', finding: 'x', reason: '' },
  ],
};

const built = (of: Reading, head = '') => {
  const { snapshot } = readApp(folderOf(buildOf(of, head)), { as: 'output' });
  expect(snapshot.failed).toEqual([]);
  return snapshot;
};
const fileOf = (of: ReturnType<typeof built>, path: string) =>
  of.output!.files.find((f) => f.modules.some((m) => of.modules[m.module].path === path))!.path;

describe('promised beside delivered', () => {
  it('is all there when the build was made from the edited sources and carries the hint', () => {
    const home = fileOf(built(after), 'src/pages/home.js');
    const found = reconcile(before.snapshot, plan, built(after, `<link rel="modulepreload" href="/${home}">`));
    expect(found.decisions).toEqual([
      expect.objectContaining({ decision: 0, state: 'delivered', why: 'it is deferred' }),
      expect.objectContaining({ decision: 1, state: 'untold' }),
    ]);
    expect(found.hints).toMatchObject([
      { rel: 'modulepreload', address: `/${home}`, routes: ['/'], state: 'delivered', why: 'index.html:1' },
    ]);
    expect(found.routes.map((r) => [r.pattern, r.extra])).toEqual([
      ['/', []],
      ['/far', []],
    ]);
    for (const { promised, delivered } of found.routes) {
      expect(delivered!.files.length).toBe(promised.files);
      expect(Math.abs(delivered!.bytes - promised.bytes)).toBeLessThan(400);
    }
    expect(found.unknown).toEqual([]);
    expect(found.ok).toBe(true);
    expect(reconcileMarkdown(found)).toContain('**The build delivers what the plan promised**');
  });

  it('names what is still static, what lies in starts unasked, and hints that reached no document', () => {
    const found = reconcile(before.snapshot, plan, built(before));
    expect(found.decisions[0]).toMatchObject({ state: 'not delivered', why: 'still static: src/pages/home.js:1' });
    const home = found.routes.find((r) => r.pattern === '/')!;
    expect(home.extra).toMatchObject([
      { path: 'src/parts/chart.js', file: fileOf(built(before), 'src/parts/chart.js') },
    ]);
    expect(found.hints).toMatchObject([{ state: 'not delivered', why: 'no document has it' }]);
    expect(found.ok).toBe(false);
    expect(reconcileMarkdown(found)).toMatch(
      /doesn’t deliver all of the plan\*\*: detach chart from home; modulepreload/,
    );
  });

  it('knows hints that stand there but that nothing will use, and those that files can’t tell', () => {
    const asked = (more: Partial<Extract<Decision, { kind: 'hint' }>['hint']>): Plan => ({
      ...plan,
      decisions: [{ kind: 'hint', hint: { ...hint.hint, ...more } as typeof hint.hint }],
    });
    const home = fileOf(built(before), 'src/pages/home.js');
    const as = reconcile(
      before.snapshot,
      asked({ kind: 'preload' }),
      built(before, `<link rel="preload" as="image" href="/${home}">`),
    );
    expect(as.hints[0]).toMatchObject({ state: 'not delivered', why: expect.stringContaining('not as script') });
    const mode = (link: string, target: Extract<Decision, { kind: 'hint' }>['hint']['target'], more = {}) =>
      reconcile(before.snapshot, asked({ kind: 'preconnect', target, ...more } as never), built(before, link)).hints[0];
    const origin = { kind: 'origin', origin: 'https://api.example' } as const;
    const connect = (attributes: string) => `<link rel="preconnect" href="https://api.example"${attributes}>`;
    expect(mode(connect(''), origin, { crossorigin: true })).toMatchObject({
      state: 'not delivered',
      why: 'it is there without crossorigin: nothing will use it',
    });
    expect(mode(connect(' crossorigin'), origin, { crossorigin: false })).toMatchObject({
      state: 'not delivered',
      why: 'it is there with crossorigin: nothing will use it',
    });
    expect(mode(connect(' crossorigin'), origin, { crossorigin: true })).toMatchObject({ state: 'delivered' });
    // What is fetched for later documents has no such mode.
    const prefetch = reconcile(
      before.snapshot,
      asked({ kind: 'prefetch' }),
      built(before, `<link rel="prefetch" href="/${home}" crossorigin>`),
    );
    expect(prefetch.hints[0]).toMatchObject({ state: 'delivered' });
    const header = reconcile(before.snapshot, asked({ place: 'header' }), built(before));
    expect(header.hints[0]).toMatchObject({ state: 'untold', why: 'it comes with the answer of the server' });
  });

  it('tells a link that several routes get once, with all of them', () => {
    const origin = { kind: 'origin', origin: 'https://api.example' } as const;
    const everywhere: Decision = {
      kind: 'hint',
      hint: { kind: 'preconnect', target: origin, place: 'markup', routes: [], crossorigin: true },
    };
    const { hints, ok } = reconcile(before.snapshot, { ...plan, decisions: [everywhere] }, built(before));
    expect(hints.map((h) => [h.routes, h.state, h.why])).toEqual([
      [['/', '/far'], 'not delivered', 'no document has it'],
    ]);
    expect(ok).toBe(false);
  });

  it('tells modules that one file holds together', () => {
    const of = (modules: string[]) =>
      reconcile(before.snapshot, { ...plan, decisions: [{ kind: 'together', modules }] }, built(before)).decisions[0];
    const home = 'src/pages/home.js';
    expect(of([home, home])).toMatchObject({ state: 'delivered', why: 'one file holds them' });
    expect(of([home, 'src/pages/far.js'])).toMatchObject({ state: 'not delivered' });
  });

  it('tells of every kind of decision what the files show of it', () => {
    const chat = { id: 'chat', name: 'chat', address: 'https://talk.example/chat.js', bytes: 9000, serverMs: 10 };
    const placed = { ...chat, evaluationMs: 5, evidence: null };
    const app = { ...before.snapshot, scripts: [{ ...placed, placement: 'blocking' as const }] };
    const of = (decisions: Decision[], more: Partial<Snapshot> = {}) =>
      reconcile(app, { ...plan, decisions }, { ...built(before), ...more }).decisions.map((d) => [d.state, d.why]);
    const script: Decision = { kind: 'script', script: 'chat', placement: 'defer' };
    expect(of([script])).toEqual([['untold', 'the documents have no such script']]);
    expect(of([script], { scripts: [{ ...placed, placement: 'async' }] })).toEqual([
      ['not delivered', 'it is placed async'],
    ]);
    expect(of([script], { scripts: [{ ...placed, id: 'x', placement: 'defer' }] })).toEqual([
      ['delivered', 'it is placed defer'],
    ]);
    const drop: Decision = { kind: 'drop link', rel: 'preload', address: '/x.png' };
    const links = (more: Partial<DocumentLink> = {}): DocumentLink[] => [
      {
        ...{ realm: 'site', rel: 'preload', address: '/x.png', as: 'image', crossorigin: false },
        ...{ priority: 'auto', bytes: null, evidence: { path: 'index.html', line: 2 } },
        ...more,
      },
    ];
    app.links = links();
    expect([
      of([drop], { links: links() }),
      of([drop], { links: links({ rel: 'prefetch' }) }),
      of([drop], { links: links({ address: '/y.png' }) }),
    ]).toEqual([
      [['not delivered', 'a document still has it']],
      [['delivered', 'no document has it']],
      [['delivered', 'no document has it']],
    ]);
    const chart = fileOf(built(before), 'src/parts/chart.js');
    const [home, far] = ['src/pages/home.js', 'src/pages/far.js'];
    expect(
      of([
        { kind: 'no script', module: 'src/parts/chart.js' },
        { kind: 'together', modules: [home, 'src/parts/chart.js'] },
        { kind: 'together', modules: [home, far] },
        { kind: 'join', import: 'src/main.js::./pages/far.js' },
        { kind: 'detach', import: 'src/main.js::./gone.js' },
        { kind: 'floor', bytes: 1000 },
      ]),
    ).toEqual([
      ['not delivered', `${chart} holds it`],
      [expect.any(String), expect.stringContaining('file')],
      ['not delivered', 'several files hold them'],
      ['not delivered', 'still deferred: src/main.js:1'],
      ['untold', 'it names nothing in the snapshot'],
      ['untold', 'the files don’t tell'],
    ]);
  });

  it('knows modules by the end of their paths where the build counts from another folder, and says what it doesn’t know', () => {
    const elsewhere = built(before);
    const modules = elsewhere.modules.map((m) => ({ ...m, path: m.path.replace(/^src\//, 'work/app/src/') }));
    const found = reconcile(before.snapshot, { ...plan, decisions: [] }, { ...elsewhere, modules });
    // The entry stands too near the root to be told by its end.
    expect(found.unknown).toEqual(['src/main.js']);
    expect(found.routes.map((r) => r.delivered !== null)).toEqual([true, true]);
    const twice = {
      ...elsewhere,
      modules: modules.map((m, at) => ({ ...m, path: at === 1 ? `other/${m.path.slice(5)}` : m.path })),
    };
    expect(() => reconcile(before.snapshot, { ...plan, decisions: [] }, twice)).not.toThrow();
  });

  it('sums up what lies in starts unasked, the largest first', () => {
    const many = { ...built(before) };
    const found = reconcile(before.snapshot, { ...plan, decisions: plan.decisions.slice(0, 2) }, many);
    const text = reconcileMarkdown(found);
    expect(text).toContain('| route | promised | delivered | not promised in it |');
    expect(text).toMatch(/src\/parts\/chart.js \(\d/);
    expect(text).not.toContain(' more |');
    const none = reconcileMarkdown({ ...found, decisions: [], hints: [], ok: false });
    expect(none).toContain('starts hold more than promised');
    expect(none).not.toContain('### Decisions');
    const [home] = found.routes;
    const more = { ...home, extra: [...home.extra, ...home.extra], more: 3 };
    expect(reconcileMarkdown({ ...found, routes: [more] })).toMatch(
      /chart.js \([^)]+\), src\/parts\/chart.js \([^)]+\) and 3 more \|/,
    );
    expect(reconcileMarkdown({ ...found, routes: [{ ...home, delivered: null, extra: [] }] })).toContain(
      'its page is in no file',
    );
  });

  it('refuses what isn’t a build, and a build whose maps hold no sources', () => {
    expect(() => reconcile(before.snapshot, BASELINE, after.snapshot)).toThrow('Not a build');
    const bare = built(after);
    for (const f of bare.output!.files) f.inside = 'none';
    expect(() => reconcile(before.snapshot, BASELINE, bare)).toThrow('No sources in the maps');
  });
});

describe('a moved import', () => {
  const moved: Plan = {
    ...BASELINE,
    decisions: [{ kind: 'move', import: 'src/main.js::./far.css', to: 'src/pages/far.js' }],
  };
  const withSheet = (of: 'src/main.js' | 'src/pages/far.js') => {
    const all: Record<string, string> = { ...files(false), 'src/far.css': '.far { color: red }' };
    all[of] = `import '${of === 'src/main.js' ? './far.css' : '../far.css'}';\n${all[of]}`;
    return readSource(folderOf(all));
  };
  const as = withSheet('src/main.js');

  it('is told by the module that makes it in the build’s own sources', () => {
    const told = (of: Reading) => {
      const build = built(of);
      // What a build says of its styles differs: here, that the sheet is one of its sources.
      const sheet = build.modules.length;
      const [maker] = ['src/main.js', 'src/pages/far.js'].filter((path) =>
        of.snapshot.imports.some((i) => of.snapshot.modules[i.from].path === path && i.specifier.endsWith('far.css')),
      );
      const from = build.modules.findIndex((m) => m.path.endsWith(maker));
      const css = of.snapshot.modules.find((m) => m.path === 'src/far.css')!;
      const edge = { ...build.imports[0], from, to: sheet, kind: 'static' as const, specifier: 'far.css', line: 1 };
      const known = build.modules.some((m) => m.path.endsWith('far.css'));
      const whole = known ? build : { ...build, modules: [...build.modules, css], imports: [...build.imports, edge] };
      return reconcile(as.snapshot, moved, whole).decisions[0];
    };
    expect(told(as)).toMatchObject({ state: 'not delivered', why: 'still made in src/main.js:1' });
    expect(told(withSheet('src/pages/far.js'))).toMatchObject({
      state: 'delivered',
      why: 'it is made in src/pages/far.js',
    });
  });

  it('is left open where the build says nothing of the sheet', () => {
    expect(reconcile(as.snapshot, moved, built(before)).decisions[0].state).toBe('untold');
  });
});
