import { BASELINE } from '../core/plan/types.ts';
import { predict } from '../core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import { readSource } from '../reader/read-source.ts';
import { SAMPLE } from '../test-support/folders.ts';
import { Analyst } from './analyst.ts';

const { snapshot } = readSource(SAMPLE);
const detach = { kind: 'detach' as const, import: 'src/timetable/departure-board.tsx::../tickets/ticket-dialog' };

describe('the analyst', () => {
  const analyst = new Analyst();
  analyst.take(snapshot);

  it('gives what the core gives, with the baseline beside it', () => {
    const plan = { ...BASELINE, decisions: [detach] };
    const { now, baseline, stale } = analyst.landing(plan, '/timetable', DEFAULT_CONDITIONS);
    const direct = predict(snapshot, plan, '/timetable', DEFAULT_CONDITIONS);
    expect(now.timeline).toEqual(direct.timeline);
    expect(now.milestones.interactive).toBeLessThan(baseline.milestones.interactive);
    expect(stale).toEqual([]);
    const entry = now.timeline.requests.findIndex((r) => r.name === 'entry');
    expect(now.contents[entry]?.modules[0].minified).toBeGreaterThan(50_000);
    expect(now.contents[0]).toBeNull();
  });

  it('previews exactly what deciding then does', () => {
    const { before, after } = analyst.preview(BASELINE, [detach], '/timetable', DEFAULT_CONDITIONS);
    expect(before).toEqual(analystReading([]));
    expect(after).toEqual(analystReading([detach]));
  });

  it('answers the same whether it has worked it out before or not, and starts afresh with another snapshot', () => {
    const other = new Analyst();
    other.take(snapshot);
    const plans = Array.from({ length: 9 }, (_, i) => ({
      ...BASELINE,
      decisions: i % 3 === 0 ? [] : i % 3 === 1 ? [detach] : [{ ...detach, kind: 'join' as const }],
    }));
    for (const [i, plan] of plans.entries()) {
      const route = snapshot.routes[i % 5].pattern;
      expect(other.landing(plan, route, DEFAULT_CONDITIONS).now.milestones).toEqual(
        predict(snapshot, plan, route, DEFAULT_CONDITIONS).reading.milestones,
      );
    }
    const slower = {
      ...snapshot,
      routes: snapshot.routes.map((r) => ({ ...r, document: { ...r.document, serverMs: 5000 } })),
    };
    other.take(slower);
    expect(other.landing(BASELINE, '/', DEFAULT_CONDITIONS).now.milestones.firstContent).toBeGreaterThan(5000);
  });

  it('needs a project first', () => {
    expect(() => new Analyst().outline(BASELINE, '/', null)).toThrow('Open a project first');
  });

  function analystReading(decisions: (typeof detach)[]) {
    return predict(snapshot, { ...BASELINE, decisions }, '/timetable', DEFAULT_CONDITIONS).reading;
  }
});
