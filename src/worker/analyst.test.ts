import type { Decision } from '../core/plan/types.ts';
import { BASELINE } from '../core/plan/types.ts';
import { predict } from '../core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import { importKey } from '../core/snapshot/graph-index.ts';
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
    const { now, ghost: baseline, stale } = analyst.startup.landing(plan, '/timetable', DEFAULT_CONDITIONS);
    const direct = predict(snapshot, plan, '/timetable', DEFAULT_CONDITIONS);
    expect(now.timeline).toEqual(direct.timeline);
    expect(now.milestones.interactive).toBeLessThan(baseline.milestones.interactive);
    expect(stale).toEqual([]);
    const entry = now.timeline.requests.findIndex((r) => r.name === 'entry');
    expect(now.contents[entry]?.modules[0].minified).toBeGreaterThan(50_000);
    expect(now.contents[0]).toBeNull();
    const modulesOf = (address: string) => analyst.startup.modulesOf(plan, '/timetable', DEFAULT_CONDITIONS, address);
    const all = modulesOf(now.timeline.requests[entry].address);
    const { modules, count } = now.contents[entry]!;
    expect(all.length).toBe(count);
    expect(all.slice(0, modules.length)).toEqual(modules);
    expect(modulesOf('/lost.js')).toEqual([]);
  });

  it('previews exactly what deciding then does', () => {
    const { before, after } = analyst.split.preview(BASELINE, [detach], '/timetable', DEFAULT_CONDITIONS);
    expect(before).toEqual(analystReading([]));
    expect(after).toEqual(analystReading([detach]));
  });

  it('promises of a further detachment what the start then loses, and proposes none by which it loses nothing', () => {
    const startOf = (decisions: Decision[], route: string) =>
      predict(snapshot, { ...BASELINE, decisions }, route, DEFAULT_CONDITIONS).reading.readout.startBytes;
    let proposed = 0;
    let withheld = 0;
    for (const { pattern } of snapshot.routes.slice(0, 4))
      for (const item of snapshot.imports.filter((i) => snapshot.modules[i.from].package === null)) {
        const decisions: Decision[] =
          item.kind === 'dynamic' ? [] : [{ kind: 'detach', import: importKey(snapshot, item) }];
        const target = snapshot.modules[item.to].path;
        const found = analyst.split.explain(BASELINE, decisions, pattern, target, DEFAULT_CONDITIONS);
        if (!found) continue;
        if (!found.hold.cut) {
          withheld++;
          continue;
        }
        proposed++;
        const { gain, decisions: further } = found.hold.cut;
        const lost = startOf(decisions, pattern) - startOf([...decisions, ...further], pattern);
        expect(lost).toBe(gain);
        expect(lost).toBeGreaterThan(0);
      }
    expect(proposed).toBeGreaterThan(10);
    expect(withheld).toBeGreaterThan(10);
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
      expect(other.startup.landing(plan, route, DEFAULT_CONDITIONS).now.milestones).toEqual(
        predict(snapshot, plan, route, DEFAULT_CONDITIONS).reading.milestones,
      );
    }
    const slower = {
      ...snapshot,
      routes: snapshot.routes.map((r) => ({ ...r, document: { ...r.document, serverMs: 5000 } })),
    };
    other.take(slower);
    expect(other.startup.landing(BASELINE, '/', DEFAULT_CONDITIONS).now.milestones.firstContent).toBeGreaterThan(5000);
  });

  it('draws a mix in steps, with the same visitors for the plan and the baseline', () => {
    const plan = { ...BASELINE, decisions: [detach] };
    const wish = { links: { 'crowded-cell': 1 }, devices: { laptop: 1 }, returning: 0.5, spread: 0.2, visits: 60 };
    let step = analyst.startup.mix(plan, '/timetable', wish, 0);
    for (let steps = 0; step.drawn < 60 && steps < 100; steps++)
      step = analyst.startup.mix(plan, '/timetable', wish, step.drawn);
    expect(step.plan).toHaveLength(60);
    expect(step.baseline).toHaveLength(60);
    const shorter = step.plan.filter((d, i) => d.interactive < step.baseline[i].interactive);
    expect(shorter.length).toBeGreaterThan(20);
    expect(analyst.startup.mix(BASELINE, '/timetable', wish, 0).drawn).toBeGreaterThan(0);
    const nobody = { ...wish, devices: {} };
    expect(() => analyst.startup.mix(plan, '/timetable', nobody, 0)).toThrow('An empty mix');
  });

  it('writes and reads archives, calibrates by them, and tells slack and waits', () => {
    const text = analyst.handoff.har(BASELINE, '/timetable', DEFAULT_CONDITIONS, '2026-01-02T03:04:05.000Z');
    const recording = analyst.startup.readRecording(text, 'x.har');
    const { now } = analyst.startup.landing(BASELINE, '/timetable', DEFAULT_CONDITIONS);
    expect(recording.requests).toHaveLength(now.timeline.requests.length);
    expect(recording.load).toBeCloseTo(now.timeline.moments.load, 1);
    const found = analyst.startup.calibrate(BASELINE, '/timetable', DEFAULT_CONDITIONS, recording.load! + 200);
    expect(found.reached).toBe(true);
    expect(found.load).toBeCloseTo(recording.load! + 200, -1);
    const entry = now.timeline.requests.find((r) => r.name === 'entry')!;
    expect(analyst.startup.slack(BASELINE, '/timetable', DEFAULT_CONDITIONS, entry.address)).toBeLessThan(60);
    expect(analyst.startup.slack(BASELINE, '/timetable', DEFAULT_CONDITIONS, '/lost.js')).toBeNull();
    const plan = { ...BASELINE, decisions: [detach] };
    const target = 'src/tickets/ticket-dialog.tsx';
    const inner = { kind: 'detach' as const, package: '@saltmarsh/paperkit' };
    const { before, after } = analyst.split.waits(plan, [inner], '/timetable', target, DEFAULT_CONDITIONS);
    expect(after!.wait).toBeLessThan(before!.wait);
  });

  it('marks what brings a chunk, and gives the outline of a split point', () => {
    const plan = { ...BASELINE, decisions: [detach] };
    const { now } = analyst.startup.landing(plan, '/timetable', DEFAULT_CONDITIONS);
    const at = now.timeline.requests.findIndex((r) => r.name === 'weather-strip');
    expect(now.brings[at]?.splitPoints).toEqual(['src/timetable/weather-strip.tsx']);
    expect(now.brings[0]).toBeNull();
    const { imports } = analyst.split.outline(plan, '/timetable', 'src/tickets/ticket-dialog.tsx');
    expect(imports.map((i) => i.package)).toContain('@saltmarsh/paperkit');
  });

  it('needs a project first', () => {
    expect(() => new Analyst().split.outline(BASELINE, '/', null)).toThrow('Open a project first');
  });

  function analystReading(decisions: (typeof detach)[]) {
    return predict(snapshot, { ...BASELINE, decisions }, '/timetable', DEFAULT_CONDITIONS).reading;
  }
});
