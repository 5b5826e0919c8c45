import { mistakenApp } from '../../test-support/mistaken-app.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { Scorer } from '../advise/score.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS, DEVICES, LINKS } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { finish } from '../steps.ts';
import { modelOf } from '../visitors/model.ts';
import { choose } from './choose.ts';
import type { Candidate, Choice, Circumstance, Limits, Wanted } from './types.ts';

const CROWDED: Circumstance = { name: 'crowded', conditions: DEFAULT_CONDITIONS, share: 3 };
const CABLE: Circumstance = {
  name: 'cable',
  conditions: { link: LINKS[4], device: DEVICES[3], cache: 'empty' },
  share: 1,
};
const LIMITS: Limits = {
  changes: 30,
  firstContentMs: 200,
  interactiveMs: 1000,
  changeMs: 0,
  wasteBytes: null,
  spareDataSavers: false,
};

function chosen(
  snapshot: Snapshot,
  wanted: Partial<Omit<Wanted, 'limits'>> & { limits?: Partial<Limits> },
  circumstances = [CROWDED],
  plan: Plan = BASELINE,
): Choice {
  const { limits, ...more } = wanted;
  return finish(
    choose(snapshot, plan, modelOf(snapshot).model, circumstances, {
      about: 'both',
      aim: 'mean',
      ...more,
      limits: { ...LIMITS, ...limits },
    }),
  );
}

/** Two routes: the start of one asks for its page and a part of its screen late, and a dialog has heavy code. */
function app(): Snapshot {
  return sketch(
    {
      main: { imports: ['~home', '~list'], bytes: 30_000 },
      home: { imports: ['~hero', '~dialog'], bytes: 20_000 },
      hero: { bytes: 15_000 },
      dialog: { bytes: 150_000 },
      list: { imports: ['~row'], bytes: 40_000 },
      row: { bytes: 30_000 },
    },
    {
      routes: [
        route('/', 'home', {
          landings: 70,
          links: ['/list'],
          parts: [part('hero', 'hero'), part('dialog', 'dialog', { place: 'action', share: 0.3 })],
        }),
        route('/list', 'list', { landings: 30, parts: [part('row', 'row')] }),
      ],
    },
  );
}

describe('choosing hints', () => {
  const choice = chosen(app(), { about: 'hints' });
  const { model } = modelOf(app());
  const cost = (plan: Plan) => new Scorer(app(), model, DEFAULT_CONDITIONS).score(plan).cost;

  it('beats the best single hint, and the plan costs what was promised', () => {
    const singles = choice.candidates.map((c) => cost({ ...BASELINE, decisions: c.remedy.decisions }));
    expect(choice.turns.length).toBeGreaterThan(1);
    expect(choice.after.cost).toBeLessThan(Math.min(...singles));
    expect(cost(choice.plan)).toBeCloseTo(choice.after.cost, 6);
    expect(choice.before.cost).toBeCloseTo(cost(BASELINE), 6);
  });

  it('tells the path: the gains of the turns add up to all of it', () => {
    const sum = choice.turns.reduce((total, t) => total + t.gain, 0);
    expect(sum).toBeCloseTo(choice.before.cost - choice.after.cost, 6);
    expect(choice.turns.at(-1)!.cost).toBeCloseTo(choice.after.cost, 6);
  });

  it('draws a curve on which more waste always buys more, each point as it would be', () => {
    const { curve } = choice;
    expect(curve.length).toBeGreaterThan(1);
    for (let i = 1; i < curve.length; i++) {
      expect(curve[i].waste).toBeGreaterThanOrEqual(curve[i - 1].waste);
      expect(curve[i].gain).toBeGreaterThan(curve[i - 1].gain);
    }
    const middle = curve[Math.floor(curve.length / 2)];
    const decisions = middle.turns.flatMap((t) => t.candidate.remedy.decisions);
    expect(choice.before.cost - cost({ ...BASELINE, decisions })).toBeCloseTo(middle.gain, 6);
  });

  it('has no set of all candidates that beats the curve', () => {
    const scorer = new Scorer(app(), model, DEFAULT_CONDITIONS);
    const { candidates, curve, before } = choice;
    const saved = before.cost - choice.after.cost;
    // What helps alone, the two best ways of each thing.
    const keys = [...new Set(candidates.map((c) => c.instead))];
    const alone = (c: Candidate) => before.cost - scorer.score({ ...BASELINE, decisions: c.remedy.decisions }).cost;
    const ways = keys
      .map((key) => candidates.filter((c) => c.instead === key && alone(c) > 0))
      .filter((of) => of.length > 0)
      .map((of) => [null, ...of.sort((a, b) => alone(b) - alone(a)).slice(0, 2)]);
    const sets = ways.reduce<Candidate[][]>((all, of) => all.flatMap((s) => of.map((c) => (c ? [...s, c] : s))), [[]]);
    expect(sets.length).toBeGreaterThan(50);
    for (const set of sets) {
      const { cost: costs, waste } = scorer.score({ ...BASELINE, decisions: set.flatMap((c) => c.remedy.decisions) });
      const most = Math.max(0, ...curve.filter((p) => p.waste <= waste + 1e-6).map((p) => p.gain));
      expect(before.cost - costs).toBeLessThanOrEqual(most + Math.max(0.5, saved * 0.02) + 1e-6);
    }
  });

  it('keeps a limit on waste, on changes, and on first content', () => {
    const none = chosen(app(), { about: 'hints', limits: { wasteBytes: 0 } });
    expect(none.after.waste).toBe(0);
    expect(none.turns.length).toBeGreaterThan(0);
    expect(choice.after.waste).toBeGreaterThan(0);
    expect(chosen(app(), { about: 'hints', limits: { changes: 2 } }).turns).toHaveLength(2);
    const careful = chosen(app(), { about: 'hints', limits: { firstContentMs: 0 } });
    expect(careful.after.firstContentLater).toBe(0);
  });

  it('spares data savers where that is wanted', () => {
    const spared = chosen(app(), { about: 'hints', limits: { spareDataSavers: true } });
    const hints = spared.plan.decisions.flatMap((d) => (d.kind === 'hint' ? [d.hint] : []));
    const inCase = hints.filter((h) => h.kind === 'prefetch' || h.place === 'script');
    expect(inCase.length).toBeGreaterThan(0);
    expect(hints.length).toBeGreaterThan(inCase.length);
    for (const h of hints) expect(h.notForDataSaver ?? false).toBe(inCase.includes(h));
  });

  it('tells while it works what it has so far, each change once, and never above the limit', () => {
    const wanted: Wanted = { about: 'hints', aim: 'mean', limits: { ...LIMITS, changes: 3 } };
    for (const { turns, done, of } of choose(app(), BASELINE, model, [CROWDED], wanted)) {
      expect(new Set(turns.map((t) => t.candidate.id)).size).toBe(turns.length);
      expect(turns.length).toBeLessThanOrEqual(3);
      expect(done).toBeLessThanOrEqual(of);
    }
  });

  it('makes the same choice again', () => {
    expect(chosen(app(), { about: 'hints' }).plan).toEqual(choice.plan);
  });

  it('offers nothing that the plan has already', () => {
    const again = chosen(app(), { about: 'hints' }, [CROWDED], choice.plan);
    expect(again.before.cost - again.after.cost).toBeLessThan(3);
    const ids = new Set(choice.turns.map((t) => t.candidate.id));
    expect(again.candidates.some((c) => ids.has(c.id))).toBe(false);
  });
});

describe('choosing over several circumstances', () => {
  it('counts each by its share; robustly, only the one where a visit costs most', () => {
    const mean = chosen(app(), { about: 'hints' }, [CROWDED, CABLE]);
    expect(mean.before.costs).toHaveLength(2);
    expect(mean.before.cost).toBeCloseTo(0.75 * mean.before.costs[0] + 0.25 * mean.before.costs[1], 6);
    const robust = chosen(app(), { about: 'hints', aim: 'worst' }, [CABLE, CROWDED]);
    expect(robust.before.cost).toBeCloseTo(Math.max(...robust.before.costs), 6);
    expect(robust.after.cost).toBeLessThanOrEqual(Math.max(...mean.after.costs) + 0.5);
  });

  it('names who loses', () => {
    // A large dialog that is prefetched in the markup, by decision of those on a fast link, is in the way on a slow one.
    const fast = chosen(mistakenApp(2, 3).snapshot, {}, [{ ...CABLE, share: 1 }]);
    expect(fast.turns.length).toBeGreaterThan(0);
    for (const { change } of fast.losers) expect(change).toBeGreaterThan(10);
  });
});

describe('choosing splits and hints together', () => {
  const { snapshot } = mistakenApp(4, 2);
  it('saves more than either alone', () => {
    const both = chosen(snapshot, {});
    const splits = chosen(snapshot, { about: 'splits' });
    const hints = chosen(snapshot, { about: 'hints' });
    expect(both.after.cost).toBeLessThan(Math.min(splits.after.cost, hints.after.cost));
    expect(splits.turns.every((t) => t.candidate.about === 'split')).toBe(true);
  });

  it('takes nothing that was put aside', () => {
    const free = chosen(snapshot, { about: 'splits', limits: { changes: 2 } });
    const [first] = free.turns;
    const aside = { kind: 'put aside' as const, finding: first.candidate.instead, reason: '' };
    const other = chosen(snapshot, { about: 'splits', limits: { changes: 2 } }, [CROWDED], {
      ...BASELINE,
      decisions: [aside],
    });
    expect(other.candidates.map((c) => c.instead)).not.toContain(first.candidate.instead);
    expect(other.plan.decisions[0]).toEqual(aside);
  });
});

describe('what can’t be chosen', () => {
  it.each([
    ['changes', { changes: 0 }],
    ['firstContentMs', { firstContentMs: -1 }],
    ['wasteBytes', { wasteBytes: -5 }],
  ])('contradictory limits: %s', (at, limits) => {
    expect(() => chosen(app(), { limits })).toThrow(expect.objectContaining({ title: 'Limits that contradict', at }));
  });

  it('nobody to choose for', () => {
    expect(() => chosen(app(), {}, [])).toThrow(expect.objectContaining({ title: 'An empty mix' }));
    expect(() => chosen(app(), {}, [{ ...CROWDED, share: 0 }])).toThrow(
      expect.objectContaining({ title: 'An empty mix' }),
    );
    const empty = app();
    empty.routes = [];
    expect(() => chosen(empty, {})).toThrow(expect.objectContaining({ title: 'Nobody comes' }));
  });
});
