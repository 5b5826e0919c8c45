import { NO_AMENDMENTS } from '../../core/amend/types.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import { DEFAULT_CONDITIONS, DEVICES } from '../../core/sim/conditions.ts';
import { readSource } from '../../reader/read-source.ts';
import { SAMPLE } from '../../test-support/folders.ts';
import { Analyst } from '../analyst.ts';

const { snapshot } = readSource(SAMPLE);
const laptop = { ...DEFAULT_CONDITIONS, device: DEVICES[3] };
const later: Plan = {
  ...BASELINE,
  decisions: [
    { kind: 'detach', module: 'src/tickets/ticket-dialog.tsx' },
    { kind: 'trigger', splitPoint: 'src/tickets/ticket-dialog.tsx', fetch: { on: 'approach' } },
  ],
};

describe('visits in the worker', () => {
  const analyst = new Analyst();
  analyst.take(snapshot);
  const typical = analyst.visits.typical(BASELINE, '/timetable');
  const ticket = { ...typical, steps: [{ does: 'act' as const, part: 'ticket', dwellMs: 4000, leadMs: 300 }] };

  it('begins with a visit that the habits suggest, and can play it', () => {
    expect(typical.steps.map((s) => s.does)).toEqual(expect.arrayContaining(['act', 'scroll', 'move']));
    const view = analyst.visits.play(BASELINE, typical, DEFAULT_CONDITIONS);
    expect(view.stuck).toBeNull();
    expect(view.moments).toHaveLength(typical.steps.length + 1);
    expect(view.moments.every((m) => Math.abs(m.was - m.wait) < 1e-9)).toBe(true);
  });

  it('shows the wait that a plan moved to the act, beside the baseline, with its trigger', () => {
    const view = analyst.visits.play(later, ticket, laptop);
    const [landing, act] = view.moments;
    expect(landing.wait).toBeLessThan(landing.was - 500);
    expect(act.wait).toBeGreaterThan(act.was + 300);
    expect(act.splitPoint).toEqual({ module: 'src/tickets/ticket-dialog.tsx', fetch: { on: 'approach' } });
    expect(analyst.visits.play(BASELINE, ticket, laptop).moments[1].splitPoint).toBeNull();
  });

  it('gives for every lead the wait that playing it with that lead gives', () => {
    const curve = analyst.visits.byLead(later, ticket, 0, laptop);
    for (const { lead, wait } of curve) {
      const visit = { ...ticket, steps: [{ ...ticket.steps[0], leadMs: lead }] };
      expect(analyst.visits.play(later, visit, laptop).moments[1].wait).toBeCloseTo(wait, 6);
    }
    // Where the lead no longer matters, sums of other numbers differ in their last digits.
    const waits = curve.map((c) => Math.round(c.wait * 1e6) / 1e6);
    expect([...waits].sort((a, b) => b - a)).toEqual(waits);
  });

  it('offers only what is possible where the visit ends', () => {
    const { next } = analyst.visits.play(BASELINE, { ...ticket, landing: '/book', steps: [] }, DEFAULT_CONDITIONS);
    expect(next.flatMap((n) => (n.does === 'move' ? [] : [n.part]))).toEqual(['vehicle', 'cabin', 'payment']);
    for (const n of next) {
      const step =
        n.does === 'move'
          ? { does: n.does, to: n.to, by: n.by, dwellMs: 100, leadMs: 0, holds: [] }
          : { does: n.does, part: n.part, dwellMs: 100, leadMs: 0 };
      const view = analyst.visits.play(
        BASELINE,
        { name: '', landing: '/book', holds: [], steps: [step] },
        DEFAULT_CONDITIONS,
      );
      expect(view.stuck).toBeNull();
    }
  });

  it('comes to an expectation step by step, and knows it from then on', () => {
    const variants = [{ conditions: DEFAULT_CONDITIONS, share: 1 }];
    const finish = (plan: Plan) => {
      for (let calls = 0; ; calls++) {
        const { result, done, of } = analyst.visits.expect(plan, variants);
        expect(done).toBeLessThanOrEqual(of);
        if (result) return { result, calls };
      }
    };
    const first = finish(BASELINE);
    expect(first.calls).toBeGreaterThan(2);
    expect(first.result.waits.error / first.result.waits.value).toBeLessThanOrEqual(0.01);
    expect(finish(BASELINE)).toEqual({ result: first.result, calls: 0 });
    analyst.amend({ ...NO_AMENDMENTS, visitors: {} });
    expect(finish(BASELINE).calls).toBeGreaterThan(2);
    analyst.amend(NO_AMENDMENTS);
  });

  it('learns from a log of any length, telling how far it is', async () => {
    const lines = Array.from({ length: 20_000 }, (_, i) => `v${i >> 1},${i},${i % 2 ? '/book' : '/'}`);
    const file = new File([`visit,time,route\n${lines.join('\n')}`], 'visits.csv');
    const told: number[] = [];
    const learned = await analyst.visits.learn(file, (bytes) => told.push(bytes));
    expect(learned).toMatchObject({ lines: 20_000, visits: 10_000, troubles: [] });
    expect(told.at(-1)).toBe(file.size);
  });
});
