import { part, route, sketch } from '../../test-support/snapshots.ts';
import { NO_AMENDMENTS } from '../amend/types.ts';
import { landingsToRun, rehearsedLimits } from '../check/rehearsed.ts';
import { checkMarkdown, checkReport } from '../check/report.ts';
import { InputError } from '../errors.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { Rehearsal } from '../rehearsals/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { limitStates, proposeLimits } from './limits.ts';
import type { Limit } from './types.ts';
import { LIMIT } from './types.ts';
import { amountWords, limitWords } from './words.ts';

/** An app with a page, a dialog behind an action, and a library that only the dialog needs. */
function app(pageImports: string[] = ['src/dialog.ts'], deferred = true): Snapshot {
  const open = part('dialog', 'src/dialog.ts', { place: 'action', action: 'open' });
  return sketch(
    {
      'src/main.ts': { bytes: 20_000, imports: ['src/page.ts'] },
      'src/page.ts': {
        bytes: 30_000,
        imports: pageImports.map((p) => (p === 'src/dialog.ts' && deferred ? `~${p}` : p)),
      },
      'src/dialog.ts': { bytes: 8000, imports: ['lib/heavy.js'] },
      'src/near.ts': { bytes: 900, imports: ['lib/heavy.js'] },
      'lib/heavy.js': { bytes: 240_000, package: 'heavy' },
    },
    { routes: [route('/', 'src/page.ts', { parts: [open] })] },
  );
}

const limit = (more: Partial<Limit> = {}): Limit => ({
  route: '/',
  measure: 'start bytes',
  most: 30_000,
  link: DEFAULT_CONDITIONS.link.id,
  device: DEFAULT_CONDITIONS.device.id,
  cache: 'empty',
  ...more,
});

describe('limits', () => {
  it('of a plan are kept by it, with slack, and equal what the landing shows', () => {
    const limits = proposeLimits(app(), BASELINE, DEFAULT_CONDITIONS, 0.1);
    expect(limits.map((l) => `${l.action ?? ''}${l.measure}`)).toEqual([
      'start bytes',
      'requests',
      'hops',
      'interactive',
      'dialogwait',
    ]);
    const states = limitStates(app(), limits, []);
    expect(states.map((s) => s.state)).toEqual(['kept', 'kept', 'kept', 'kept', 'kept']);
    const { readout, milestones } = predict(app(), BASELINE, '/', DEFAULT_CONDITIONS).reading;
    const value = (measure: string) => states.find((s) => s.limit.measure === measure)!.value;
    expect(value('start bytes')).toBe(readout.startBytes);
    expect(value('interactive')).toBe(milestones.interactive);
    for (const s of states) {
      const slack = s.limit.most / s.value!;
      expect(slack).toBeGreaterThanOrEqual(1);
      expect(s.limit.measure === 'hops' ? slack : slack / 1.1).toBeLessThan(
        s.limit.measure === 'requests' ? 1.5 : 1.05,
      );
    }
    const tight = limits.map((l) => ({ ...l, most: states.find((s) => s.limit === l)!.value! * 0.99 }));
    expect(limitStates(app(), tight, []).every((s) => s.state === 'broken')).toBe(true);
  });

  it('for a route or an action that is gone are missing, not kept', () => {
    const states = limitStates(app(), [limit({ route: '/gone' }), limit({ action: 'gone', measure: 'wait' })], []);
    expect(states).toMatchObject([{ state: 'missing' }, { state: 'missing' }]);
  });

  it('are measured under the plan they were set for, unless another is given', () => {
    const joined: Plan = {
      name: 'Joined',
      description: '',
      decisions: [{ kind: 'join', import: 'src/page.ts::src/dialog.ts' }],
    };
    const [own, none] = [limit({ plan: 'Joined' }), limit()];
    expect(limitStates(app(), [own, none], [joined]).map((s) => s.state)).toEqual(['broken', 'kept']);
    expect(limitStates(app(), [own, none], [joined], BASELINE).map((s) => s.state)).toEqual(['kept', 'kept']);
    expect(() => limitStates(app(), [own], [])).toThrow(InputError);
    expect(() => limitStates(app(), [own], [])).toThrow('there are none but the baseline');
  });

  it('are told in words, with units', () => {
    expect(limitWords(limit())).toBe('/: start at most 30 kB');
    expect(limitWords(limit({ action: 'dialog', measure: 'wait', most: 250 }))).toBe('/ › dialog: wait at most 250 ms');
    expect([amountWords('hops', 2), amountWords('interactive', null)]).toEqual(['2', 'never']);
  });

  it.each<[object, string]>([
    [{ ...limit(), most: -1 }, 'limits[0].most'],
    [{ ...limit(), measure: 'wait' }, 'limits[0].measure'],
    [{ ...limit(), action: 'dialog' }, 'limits[0].measure'],
    [{ ...limit(), route: 'no slash' }, 'limits[0].route'],
    [{ ...limit(), cache: 'cold' }, 'limits[0].cache'],
  ])('from outside name the field that is wrong: %j', (value, at) => {
    expect(() => LIMIT.check(value, 'limits[0]')).toThrow(expect.objectContaining({ at }));
  });
});

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
});
