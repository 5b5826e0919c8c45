import { limitedApp as app, limit } from '../../test-support/limited-app.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import type { Limit } from '../limits/types.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { Rehearsal } from '../rehearsals/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { Unresolved } from '../snapshot/types.ts';
import { brokenMeanwhile } from './broken-meanwhile.ts';
import { broughtBy, type LimitCause, recoverFor } from './causes.ts';
import type { LandingChange } from './landing-change-types.ts';
import { landingsToRun, rehearsedLimits } from './rehearsed.ts';
import { type CheckReport, checkMarkdown, checkReport } from './report.ts';
import { checkSarif } from './sarif.ts';

describe('a check', () => {
  const project = (limits: Limit[], snapshot = app()) => ({
    snapshot,
    plans: [],
    amendments: { ...NO_AMENDMENTS, limits },
  });

  it('keeps quiet while all is kept', () => {
    const report = checkReport(project([limit(), limit({ action: 'dialog', measure: 'bytes', most: 100_000 })]), app());
    expect(report).toEqual({
      ok: true,
      checked: 2,
      broken: [],
      missing: [],
      pending: [],
      rehearsed: [],
      against: null,
    });
    expect(checkMarkdown(report)).toBe('**Load limits kept**: 2 checked.\n');
  });

  it('goes by what a browser measured where one did, and by the prediction elsewhere', () => {
    const content = limit({ measure: 'first content', most: 2000 });
    const [soon, wait] = [
      limit({ measure: 'interactive', most: 1 }),
      limit({ action: 'dialog', measure: 'wait', most: 9 }),
    ];
    const limits = [content, soon, wait, limit()];
    const landings = landingsToRun(limits, []);
    expect(landings.map((l) => [l.route, l.act, l.limits])).toEqual([
      ['/', undefined, [content, soon]],
      ['/', 'dialog', [wait]],
    ]);
    const run = (firstContent: number) => ({ moments: { firstContent, interactive: 0.5, wait: null } });
    const rehearsal = { runs: [run(1900), run(2100), run(2300)] } as unknown as Rehearsal;
    const rehearsed = landings.flatMap((l) => rehearsedLimits(l, rehearsal));
    const report = checkReport(project(limits), app(), undefined, rehearsed);
    // The second would be broken as predicted; of the third the browser saw nothing.
    expect(report.broken.map((b) => [b.limit, b.value])).toEqual([
      [content, 2100],
      [wait, null],
    ]);
    expect(checkMarkdown(report)).toMatch(
      /in place of a prediction:[\s\S]*first content at most 2000 ms`: 2100 ± 200 ms[\s\S]*not seen/,
    );
    expect(landingsToRun([limit({ plan: 'Lean', measure: 'interactive' })], [], BASELINE)).toMatchObject([
      { plan: BASELINE },
    ]);
  });

  it('names the new import that brought the bytes, the way to it, and what detaching it recovers', () => {
    const now = app(['src/dialog.ts', 'src/near.ts']);
    const [broken] = checkReport(project([limit()]), now).broken;
    expect(broken.because).toMatchObject([
      {
        from: 'src/page.ts',
        to: 'src/near.ts',
        line: 2,
        bytes: 240_900,
        modules: 2,
        isNew: true,
        path: [
          { path: 'src/main.ts', line: 1 },
          { path: 'src/page.ts', line: 2 },
          { path: 'src/near.ts', line: 1 },
          { path: 'lib/heavy.js', line: null },
        ],
      },
    ]);
    expect(broken.recover[0]).toMatchObject({ import: 'src/page.ts::src/near.ts' });
    for (const r of broken.recover) {
      const { decisions } = r;
      const { startBytes } = predict(now, { ...BASELINE, decisions }, '/', DEFAULT_CONDITIONS).reading.readout;
      expect(r.value).toBe(startBytes);
      expect(r.enough).toBe(startBytes <= 30_000);
      expect(r.saves).toBeCloseTo(broken.value! - startBytes, 6);
    }
    const text = checkMarkdown(checkReport(project([limit()]), now));
    expect(text).toContain('**Load limits broken**: 1 of 1.');
    expect(text).toContain('- `src/page.ts:2` now brings `src/near.ts`: 240.9 kB minified in 2 modules');
  });

  it('names a deferred import that became a static one, and code that grew', () => {
    const [joined] = checkReport(project([limit()]), app(['src/dialog.ts'], false)).broken;
    expect(joined.because).toMatchObject([{ from: 'src/page.ts', to: 'src/dialog.ts', isNew: true, modules: 2 }]);
    const grown = app();
    grown.modules[1].bytes = { source: 500_000, minified: 230_000, gzip: 80_000, brotli: 80_000, marginal: 80_000 };
    const [more] = checkReport(project([limit()]), grown).broken;
    expect(more.because).toMatchObject([{ from: 'src/main.ts', to: 'src/page.ts', isNew: false, bytes: 200_000 }]);
  });

  it('tells what brings the bytes of an action, and of a limit that was broken before', () => {
    const heavier = app();
    heavier.modules[4].bytes.gzip = heavier.modules[4].bytes.marginal = 200_000;
    heavier.modules[4].bytes.minified = 600_000;
    const [action] = checkReport(
      project([limit({ action: 'dialog', measure: 'bytes', most: 90_000 })]),
      heavier,
    ).broken;
    expect(action.because).toMatchObject([{ from: 'src/dialog.ts', to: 'lib/heavy.js', isNew: false }]);
    expect(action.recover).toMatchObject([{ import: 'src/dialog.ts::lib/heavy.js', enough: true }]);
    const heavy = app(['src/near.ts']);
    const [old] = checkReport(project([limit({ most: 10_000 })], heavy), heavy).broken;
    expect(old.because[0]).toMatchObject({ from: 'src/page.ts', to: 'src/near.ts', bytes: 240_900, isNew: false });
  });

  it('keeps what is just at its limit, as predicted and as measured', () => {
    const landing = predict(app(), BASELINE, '/', DEFAULT_CONDITIONS).reading.readout.startBytes;
    expect(checkReport(project([limit({ most: landing })]), app()).ok).toBe(true);
    expect(checkReport(project([limit({ most: landing - 1 })]), app()).ok).toBe(false);
    const content = limit({ measure: 'first content', most: 2000 });
    const seen = (median: number) => [
      { limit: content, words: '', measured: { median, least: median, most: median, runs: 1 } },
    ];
    expect(checkReport(project([content]), app(), undefined, seen(2000)).ok).toBe(true);
    expect(checkReport(project([content]), app(), undefined, seen(2000.1)).ok).toBe(false);
  });

  it('counts on what several statements of one import still do', () => {
    const twice = app(['src/dialog.ts', 'src/dialog.ts'], false);
    const decisions = [{ kind: 'detach' as const, module: 'src/dialog.ts' }];
    const plan = { name: 'Plan', description: '', decisions };
    const { pending } = checkReport({ ...project([limit({ plan: 'Plan', most: 1e9 })]), plans: [plan] }, twice);
    expect(pending.map((p) => p.path)).toEqual(
      twice.imports
        .filter((i) => i.kind === 'static' && twice.modules[i.to].path === 'src/dialog.ts')
        .map(() => 'src/page.ts'),
    );
    expect(pending.length).toBeGreaterThan(0);
  });

  it('tells limits for what is gone, and edits that the plan counts on', () => {
    const decisions = [{ kind: 'detach' as const, import: 'src/page.ts::src/dialog.ts' }];
    const plan = { name: 'Plan', description: '', decisions };
    const report = checkReport(
      { ...project([limit({ plan: 'Plan' }), limit({ route: '/gone' })]), plans: [plan] },
      app(['src/dialog.ts'], false),
    );
    expect(report).toMatchObject({
      ok: false,
      broken: [],
      missing: [{ words: '/gone: start at most 30 kB' }],
    });
    expect(report.pending).toEqual([{ words: 'detach dialog from page', path: 'src/page.ts', line: 1 }]);
    expect(checkMarkdown(report)).toMatch(/isn’t there any more:[\s\S]*not in the code yet:[\s\S]*`src\/page.ts:1`/);
  });

  it('counts on trimmed sheets and moved imports until they are in the code', () => {
    const sheet = (from: string, unused: string[]) =>
      sketch(
        {
          'src/main.ts': { imports: ['src/page.ts', ...(from === 'src/main.ts' ? ['src/a.css'] : [])] },
          'src/page.ts': { imports: from === 'src/page.ts' ? ['src/a.css'] : [] },
          'src/a.css': { kind: 'style', bytes: 900 },
        },
        {
          routes: [route('/', 'src/page.ts')],
          unusedRules: unused.map((selector) => ({
            module: 'src/a.css',
            line: 7,
            selector,
            bytes: 20,
            missing: [selector],
          })),
        },
      );
    const decisions: Plan['decisions'] = [
      { kind: 'trim', module: 'src/a.css' },
      { kind: 'move', import: 'src/main.ts::src/a.css', to: 'src/page.ts' },
    ];
    const before = sheet('src/main.ts', ['.gone']);
    const plan = { name: 'Plan', description: '', decisions };
    const kept = { ...project([limit({ plan: 'Plan', most: 1_000_000 })], before), plans: [plan] };
    expect(checkReport(kept, before).pending).toMatchObject([
      { path: 'src/a.css', line: 7 },
      { path: 'src/main.ts', words: 'import a in page, not in main' },
    ]);
    expect(checkReport(kept, sheet('src/page.ts', [])).pending).toEqual([]);
  });

  it('finds the ways of an act from the part that it brings, and none where there is no such act or route', () => {
    const grown = app();
    grown.modules[grown.modules.findIndex((m) => m.path === 'lib/heavy.js')].bytes.minified += 50_000;
    const [act] = broughtBy(app(), grown, BASELINE, { route: '/', action: 'dialog' });
    expect(act).toMatchObject({ from: 'src/dialog.ts', to: 'lib/heavy.js', bytes: 50_000, modules: 1 });
    expect(broughtBy(app(), grown, BASELINE, { route: '/', action: 'gone' })).toEqual([]);
    expect(broughtBy(app(), grown, BASELINE, { route: '/gone' })).toEqual([]);
    // What the landing asks for comes by its entry, so the act's library isn't its cause.
    expect(broughtBy(app(), grown, BASELINE, { route: '/' })).toEqual([]);
    expect(recoverFor(app(), BASELINE, limit({ route: '/gone' }), [])).toEqual([]);
  });

  it('tries detaching every import on the way to what was brought', () => {
    const now = app(['src/near.ts']);
    const because = broughtBy(app(), now, BASELINE, { route: '/' });
    const tried = recoverFor(now, BASELINE, limit({ most: 30_000 }), because).map((r) => `${r.from} ${r.to}`);
    expect(new Set(tried)).toEqual(new Set(['src/page.ts src/near.ts', 'src/near.ts lib/heavy.js']));
  });

  it('has landings run once for each plan, landing, act and conditions, and not for what a browser can’t tell', () => {
    const own = limit({ plan: 'Lean', measure: 'interactive' });
    const lean: Plan = { ...BASELINE, name: 'Lean' };
    const landings = landingsToRun(
      [own, { ...own, measure: 'first content' }, { ...own, cache: 'returning' }, { ...own, plan: undefined }, limit()],
      [lean],
    );
    expect(landings.map((l) => [l.plan.name, l.conditions.cache, l.limits.length, 'act' in l])).toEqual([
      ['Lean', 'empty', 2, false],
      ['Lean', 'returning', 1, false],
      [BASELINE.name, 'empty', 1, false],
    ]);
  });
});

describe('a check in words', () => {
  const cause = (more: Partial<LimitCause> = {}): LimitCause => ({
    ...{ from: 'src/page.ts', to: 'src/near.ts', line: 3, bytes: 900, modules: 1, isNew: true },
    path: [
      { path: 'src/page.ts', line: 3 },
      { path: 'src/near.ts', line: null },
    ],
    ...more,
  });
  const report = (more: Partial<CheckReport>): CheckReport => ({
    ...{ ok: false, checked: 1, broken: [], missing: [], pending: [], rehearsed: [], against: null },
    ...more,
  });
  const broken = (because: LimitCause[], value: number | null = 40_000): CheckReport['broken'][number] => ({
    ...{ limit: limit(), words: '/: start at most 30 kB', value, allowed: 30_000, because },
    recover: [],
  });
  const change = (measure: 'start bytes' | 'interactive', after: number, brings: LimitCause[] = []): LandingChange => ({
    ...{ route: '/', state: 'changed', brings, brought: [] },
    figures: [{ measure, before: 1000, after }],
  });
  const against = (...landings: LandingChange[]) => ({
    ref: 'main',
    commit: 'abc',
    landings,
    lost: [] as Unresolved[],
  });
  const log = (of: Partial<CheckReport>, prefix?: string) => JSON.parse(checkSarif(report(of), prefix)).runs[0];
  const rules = (of: Partial<CheckReport>) => log(of).results.map((r: { ruleId: string }) => r.ruleId);

  it('counts modules, and tells a limit that is never come to', () => {
    const said = (b: LimitCause) => checkMarkdown(report({ broken: [broken([b])] }));
    expect(said(cause())).toContain('- `src/page.ts:3` now brings `src/near.ts`: 0.9 kB minified in 1 module\n');
    expect(said(cause({ modules: 2, isNew: false }))).toContain('brings `src/near.ts`: 0.9 kB minified in 2 modules\n');
    expect(said(cause())).toContain('`src/page.ts:3` → `src/near.ts`');
    expect(said(cause())).toContain('10 kB more than 30 kB allowed');
    expect(checkMarkdown(report({ broken: [broken([], null)] }))).toContain('where 30 kB is allowed');
  });

  it('says all that it found, in the order in which one acts on it', () => {
    const recover = (more: Partial<CheckReport['broken'][number]['recover'][number]>) => ({
      ...{ import: 'k', decisions: [], from: 'src/page.ts', to: 'src/near.ts', line: 3 },
      ...{ value: 29_000, saves: 11_000, enough: true, ...more },
    });
    const said = checkMarkdown(
      report({
        checked: 4,
        broken: [
          {
            ...broken([cause()]),
            recover: [
              recover({}),
              recover({ line: 4, value: 35_000, saves: 5000, enough: false, blocked: 'it is called' }),
            ],
          },
        ],
        missing: [{ limit: limit(), words: '/gone: start at most 30 kB' }],
        pending: [{ words: 'detach <near> from page', path: 'src/page.ts', line: 3 }],
        rehearsed: [
          { limit: limit(), words: '/: interactive', measured: { median: 900, least: 890, most: 910, runs: 3 } },
        ],
        against: against(change('interactive', 1300, [cause()])),
      }),
    );
    const parts = said.split('\n\n').map((part) => part.trimEnd());
    expect(parts.slice(0, 1)).toEqual(['**Load limits broken**: 1 of 4, and 1 for what isn’t there any more.']);
    expect(parts.slice(3)).toEqual([
      '- `src/page.ts:3` now brings `src/near.ts`: 0.9 kB minified in 1 module\n  - `src/page.ts:3` → `src/near.ts`',
      'Detaching would recover:',
      '- `src/page.ts:3` → `src/near.ts`: 29 kB, 11 kB less, which keeps the limit\n- `src/page.ts:4` → `src/near.ts`: 35 kB, 5 kB less; takes more than detaching: it is called',
      'Against `main`:',
      '- `/`: interactive +300 ms\n  - `src/page.ts:3` now brings `src/near.ts` (900 bytes minified)',
      'Measured in a browser, in place of a prediction:',
      '- `/: interactive`: 900 ± 10 ms',
      'Limits for what isn’t there any more:',
      '- `/gone: start at most 30 kB`',
      'Counted on, but not in the code yet:',
      '- `src/page.ts:3` detach \\<near\\> from page',
    ]);
    expect(checkMarkdown(report({ ok: true, checked: 2 }))).toBe('**Load limits kept**: 2 checked.\n');
    expect(checkMarkdown(report({ checked: 0, against: against() }))).toBe('No landing changes against `main`.\n');
  });

  it('names files in Markdown as they are called, and each import that did something', () => {
    const odd = ['node_modules/a_b/_c.js', 'src/[id]/*.tsx', 'src/(app)/<x>.tsx', 'src/a#b&c|d~.ts', 'src/__init__.ts'];
    const brings = odd.map((to, i) => cause({ to, bytes: 5000 - i }));
    const said = checkMarkdown(report({ checked: 0, against: against(change('start bytes', 9000, brings)) }));
    expect(said.match(/now brings `[^`]+`/g)).toEqual(odd.slice(0, 3).map((to) => `now brings \`${to}\``));
    expect(said).toContain('\n  - and 2 more imports\n');
    for (const path of odd) {
      const text = checkMarkdown(report({ pending: [{ words: `detach ${path}`, path, line: 1 }] }));
      // What a backslash stands before is shown as it is (CommonMark 0.31, 2.4).
      expect(text.replace(/\\([!-/:-@[-`{-~])/g, '$1')).toContain(`- \`${path}:1\` detach ${path}`);
      const shown = text.slice(text.indexOf('detach')).replace(/\\[!-/:-@[-`{-~]/g, '');
      expect(shown).not.toMatch(/[\\`*_[\]<>#|~&]/);
    }
  });

  it('tells imports that lead nowhere now, at their place', () => {
    const lost = { from: 'src/_app.ts', specifier: './gone_page', line: 4, reason: 'it isn’t there', leftOut: false };
    const app = { checked: 0, against: { ...against(), lost: [lost] } };
    expect(checkMarkdown(report(app))).toBe(
      'No landing changes against `main`.\n- `src/_app.ts:4` leads nowhere: `./gone_page`\n',
    );
    const changed = { ...app, against: { ...app.against, landings: [change('start bytes', 2000)] } };
    expect(checkMarkdown(report(changed))).toMatch(
      /^Against `main`:\n\n- `src\/_app\.ts:4` leads nowhere.*\n- `\/`: start/,
    );
    const [found] = log(app, 'web/').results;
    expect(found).toMatchObject({
      ruleId: 'import-lost',
      message: { text: 'src/_app.ts:4 leads nowhere: ./gone_page.' },
    });
    expect(found.locations[0].physicalLocation).toMatchObject({
      artifactLocation: { uri: 'web/src/_app.ts' },
      region: { startLine: 4 },
    });
  });

  it('counts files that a save broke, and no others', () => {
    const failed = (...paths: string[]) => ({ failed: paths.map((path) => ({ path, line: 1, message: '' })) as never });
    const found = brokenMeanwhile(
      failed('old.ts'),
      failed('old.ts', 'new.ts', 'other.ts'),
      new Set(['new.ts', 'old.ts']),
    );
    expect(found.map((f) => f.path)).toEqual(['new.ts']);
  });

  it('has a place for each finding that has one, from the root of the repository', () => {
    const { results } = log({ broken: [broken([cause()]), broken([])] }, 'apps/my app/');
    expect(results[0].locations[0].physicalLocation).toEqual({
      artifactLocation: { uri: 'apps/my%20app/src/page.ts', uriBaseId: '%SRCROOT%' },
      region: { startLine: 3 },
    });
    const around = { from: '../../packages/ui/src/button.tsx', line: 7 };
    const [shared] = log({ broken: [broken([cause(around)])] }, 'apps/web/').results;
    expect(shared.locations[0].physicalLocation).toMatchObject({
      artifactLocation: { uri: 'packages/ui/src/button.tsx' },
      region: { startLine: 7 },
    });
    expect(results[0].message.text).toMatch(/now 40 kB\. src\/page\.ts:3 now brings src\/near\.ts\.$/);
    expect(results[1].message.text).toMatch(/now 40 kB\.$/);
    expect(results[1].locations).toBeUndefined();
    // Lines begin with one (SARIF 2.1.0, 3.30.5); what has none is at the first.
    const [{ locations }] = log({ broken: [broken([cause({ line: 0 })])] }).results;
    expect(locations[0].physicalLocation.region).toEqual({ startLine: 1 });
  });

  it('tells landings from 100 bytes and from 10 ms on, the heavier ones as heavier', () => {
    const of = (...landings: LandingChange[]) => rules({ against: against(...landings) });
    expect(of(change('start bytes', 1099), change('start bytes', 900))).toEqual([]);
    expect(of(change('start bytes', 1100), change('interactive', 1010))).toEqual(['landing-heavier', 'landing-slower']);
    expect(of(change('interactive', 1009))).toEqual([]);
    const never = {
      ...change('interactive', 0),
      figures: [{ measure: 'interactive' as const, before: null, after: 5 }],
    };
    expect(of(never)).toEqual([]);
    expect(log({ against: against(change('start bytes', 2000, [cause()])) }).results[0].message.text).toContain(
      'now brings',
    );
  });

  it('tells what is missing and what is still to be edited by rules of their own', () => {
    const pending = [{ words: 'detach near from page', path: 'src/page.ts', line: 3 }];
    const told = { broken: [broken([])], missing: [{ limit: limit(), words: 'gone' }], pending };
    expect(log(told).results.map((r: { ruleId: string; level: string }) => [r.ruleId, r.level])).toEqual([
      ['limit-broken', 'error'],
      ['limit-missing', 'warning'],
      ['edit-pending', 'note'],
    ]);
    expect(log(told).tool.driver.rules.map((r: { id: string }) => r.id)).toEqual(
      expect.arrayContaining(rules(told) as unknown[]),
    );
  });
});
