import { readApp } from '../../reader/read-app.ts';
import { type Reading, readSource } from '../../reader/read-source.ts';
import { buildOf } from '../../test-support/build.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
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
    const header = reconcile(before.snapshot, asked({ place: 'header' }), built(before));
    expect(header.hints[0]).toMatchObject({ state: 'untold', why: 'it comes with the answer of the server' });
  });

  it('refuses what isn’t a build, and a build whose maps hold no sources', () => {
    expect(() => reconcile(before.snapshot, BASELINE, after.snapshot)).toThrow('Not a build');
    const bare = built(after);
    for (const f of bare.output!.files) f.inside = 'none';
    expect(() => reconcile(before.snapshot, BASELINE, bare)).toThrow('No sources in the maps');
  });
});
