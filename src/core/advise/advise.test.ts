import { readSource } from '../../reader/read-source.ts';
import { SAMPLE } from '../../test-support/folders.ts';
import { mistakenApp } from '../../test-support/mistaken-app.ts';
import { planWith } from '../plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { shipped } from '../ship/shipped.ts';
import { type Conditions, DEFAULT_CONDITIONS, LINKS } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { modelOf } from '../visitors/model.ts';
import type { CacheState } from '../vocabulary/cache-states.ts';
import { advise } from './advise.ts';
import { Scorer } from './score.ts';
import type { Advice, Finding } from './types.ts';

function adviceFor(app: Snapshot, plan: Plan = BASELINE, conditions: Conditions = DEFAULT_CONDITIONS): Advice {
  const steps = advise(app, plan, modelOf(app).model, conditions);
  let told: readonly Finding[] = [];
  for (;;) {
    const step = steps.next();
    if (step.done) {
      expect(step.value.findings.slice(0, told.length).map((f) => f.id)).toEqual(told.map((f) => f.id));
      return step.value;
    }
    const { done, of, soFar = told } = step.value;
    expect(done).toBeLessThanOrEqual(of);
    const costs = soFar.map((f) => f.effect.cost);
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
    // Only at the end some of them turn out to be one.
    if (done < of) expect(soFar.length).toBeGreaterThanOrEqual(told.length);
    told = soFar;
  }
}

const landing = (app: Snapshot, plan: Plan, pattern: string, cache: CacheState = 'empty') =>
  predict(shipped(app, plan).snapshot, plan, pattern, { ...DEFAULT_CONDITIONS, cache }).reading.milestones;

const { snapshot: sample } = readSource(SAMPLE);
const advice = adviceFor(sample);
const found = (...words: string[]): Finding[] =>
  advice.findings.filter((f) => words.every((w) => JSON.stringify([f.what, f.why, f.evidence, f.remedy]).includes(w)));

describe('advice on the sample', () => {
  it.each([
    ['the document maker behind the ticket dialog', 'part in the start', ['ticket-dialog', 'departure-board']],
    ['four stairs to the manifest', 'staircase', ['/crew/duty/manifest']],
    ['small parts of the first screen split off', 'deferred first screen', ['line-badge', 'tide-note']],
    ['the hero image that is found late', 'found late', ['pier at dawn']],
    ['data that is found late', 'found late', ['next sailings']],
    ['the map engine in everybody’s start', 'route leak', ['berth-finder', 'src/app/frame.tsx']],
    ['the sibling that was forgotten', 'route leak', ['sailing-page', 'forgotten']],
    ['the script that blocks the parser', 'script in the way', ['support chat', 'index.html']],
    ['the chart package that one helper keeps', 'kept by sharing', ['tidewright', 'tide-level']],
  ])('finds %s, once', (_, kind, words) => {
    const hits = found(...words).filter((f) => f.kind === kind);
    expect(hits).toHaveLength(1);
    expect(hits[0].effect.cost).toBeLessThan(0);
  });

  it('finds the sheet of helpers that nobody uses where bytes are dear, and tells that it was tried where they aren’t', () => {
    // Elsewhere its few packets only make the window grow sooner in which the script comes.
    expect(advice.noGain.filter((n) => n.what.includes('helpers.css'))).toHaveLength(1);
    const link = LINKS.find((l) => l.id === 'edge-of-coverage')!;
    const { findings } = adviceFor(sample, BASELINE, { ...DEFAULT_CONDITIONS, link });
    const hits = findings.filter((f) => f.kind === 'unused styles' && f.what.includes('helpers.css'));
    expect(hits).toHaveLength(1);
    expect(hits[0].effect.cost).toBeLessThan(0);
  });

  it('tells what was tried without gain', () => {
    expect(advice.noGain.length).toBeGreaterThan(0);
    for (const { cost } of advice.noGain) expect(cost).toBeGreaterThan(-0.5);
  });

  it('tells exactly what the stations show after taking it', () => {
    for (const { remedy, effect, whose } of advice.findings.slice(0, 8)) {
      const cache = whose === 'returning after a deploy' ? 'deployed' : 'empty';
      const plan = planWith(BASELINE, remedy);
      for (const { pattern, firstContent, interactive } of effect.routes) {
        const [before, after] = [BASELINE, plan].map((p) => landing(sample, p, pattern, cache));
        expect(after.interactive - before.interactive).toBeCloseTo(interactive, 6);
        expect(after.firstContent - before.firstContent).toBeCloseTo(firstContent, 6);
      }
    }
  });

  it('is ordered by effect, and only what helps is advice', () => {
    const alone = advice.findings.filter((f) => f.basis.on === 'the plan');
    const costs = alone.map((f) => f.effect.cost);
    expect([...costs].sort((a, b) => a - b)).toEqual(costs);
    // What pays only after these, or elsewhere, is told after them.
    expect(advice.findings.slice(0, alone.length)).toEqual(alone);
    for (const { effect, seen } of advice.findings)
      expect(seen ? effect.seen.silent + effect.seen.flashes + effect.seen.moves : effect.cost).toBeLessThan(0);
    expect(new Set(advice.findings.map((f) => f.id)).size).toBe(advice.findings.length);
  });

  it('taken step by step makes the landing interactive at least 40 % earlier, and ends by itself', () => {
    const before = landing(sample, BASELINE, '/timetable').interactive;
    let plan: Plan = BASELINE;
    for (let taken = 0; taken < 4; taken++) {
      const [best] = taken === 0 ? advice.findings : adviceFor(sample, plan).findings;
      if (!best) break;
      plan = planWith(plan, best.remedy);
    }
    expect(landing(sample, plan, '/timetable').interactive).toBeLessThan(before * 0.6);
  });

  it('says where detaching alone would break the code', () => {
    const needs: Snapshot = {
      ...sample,
      imports: sample.imports.map((i) =>
        i.specifier === '../tickets/ticket-dialog' ? { ...i, sync: { reason: 'it is called', line: 12 } } : i,
      ),
    };
    const finding = adviceFor(needs).findings.find((f) =>
      f.remedy.decisions.some((d) => 'module' in d && d.module === 'src/tickets/ticket-dialog.tsx'),
    );
    expect(finding?.cautions[0]).toContain('it is called');
    // The word of the tide is worked out while the board draws itself.
    expect(advice.findings.flatMap((f) => f.cautions)).toEqual([
      expect.stringContaining('src/shared/tide-level.ts::@saltmarsh/tidewright: its answer is used at once'),
    ]);
  });

  it('advises against a hint that delays something that matters more', () => {
    const hint: Decision = {
      kind: 'hint',
      hint: {
        kind: 'preload',
        place: 'markup',
        target: { kind: 'route', pattern: '/harbour' },
        routes: ['/timetable'],
      },
    };
    const detach: Decision = { kind: 'detach', module: 'src/harbour/berth-finder.ts' };
    const plan = { ...BASELINE, decisions: [detach, hint] };
    const against = adviceFor(sample, plan).findings.find((f) => f.kind === 'hint that costs');
    expect(against?.remedy.withdraw).toHaveLength(1);
    expect(planWith(plan, against!.remedy).decisions).toEqual([detach]);
  });
});

describe('the score', () => {
  it('is the same whether runs were remembered or made again', () => {
    const { model } = modelOf(sample);
    const scorer = new Scorer(sample, model, DEFAULT_CONDITIONS);
    const plans = [
      BASELINE,
      planWith(BASELINE, advice.findings[0].remedy),
      planWith(BASELINE, advice.findings[3].remedy),
    ];
    for (const plan of [...plans, ...plans]) {
      const fresh = new Scorer(sample, model, DEFAULT_CONDITIONS).score(plan);
      const kept = scorer.score(plan);
      expect(kept.routes).toEqual(fresh.routes);
      // Waits are remembered by what they ask for, whatever else the landing did: they may differ by a hair.
      kept.waits.forEach((w, i) => {
        expect(Math.abs(w.wait - fresh.waits[i].wait)).toBeLessThan(25);
      });
      expect(Math.abs(kept.cost / fresh.cost - 1)).toBeLessThan(0.005);
    }
  });
});

it('shortens made-up apps with mistakes by a quarter in the middle, by advice alone', () => {
  const gains = Array.from({ length: 10 }, (_, seed) => {
    const { snapshot } = mistakenApp(seed + 1, 3);
    let plan: Plan = BASELINE;
    for (let taken = 0; taken < 5; taken++) {
      const [best] = adviceFor(snapshot, plan).findings;
      if (!best) break;
      plan = planWith(plan, best.remedy);
    }
    const [before, after] = [BASELINE, plan].map((p) => landing(snapshot, p, '/r0').interactive);
    return 1 - after / before;
  }).sort((a, b) => a - b);
  expect(gains[5]).toBeGreaterThan(0.25);
  expect(gains[0]).toBeGreaterThanOrEqual(0);
});
