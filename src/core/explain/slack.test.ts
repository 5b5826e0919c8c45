import { ROUND } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { readTimeline } from '../metrics/readout.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { simulate } from '../sim/simulate.ts';
import { slackOf } from './slack.ts';

const app = sketch(
  {
    main: { imports: ['page'] },
    page: { imports: ['~list', '~chart'] },
    chart: { bytes: 200_000 },
    list: { bytes: 3000 },
  },
  { routes: [route('/', 'page', { parts: [part('chart', 'chart'), part('list', 'list')] })] },
);

describe('slack', () => {
  const { program, reading } = predict(app, BASELINE, '/', ROUND);
  const at = (name: string) => program.resources.findIndex((r) => r.name === name);

  it('is what a file can be late without moving the milestone, and not more', () => {
    const late = (resource: number, ms: number) => {
      const resources = program.resources.map((r, i) => (i === resource ? { ...r, serverMs: r.serverMs + ms } : r));
      const tried = { ...program, resources };
      return readTimeline(tried, simulate(tried, ROUND), ROUND).milestones.interactive;
    };
    for (const name of ['entry', 'list', 'chart']) {
      const slack = slackOf(program, ROUND, at(name))!;
      expect(late(at(name), slack)).toBeLessThanOrEqual(reading.milestones.interactive + 1);
      expect(late(at(name), slack + 10)).toBeGreaterThan(reading.milestones.interactive + 1);
    }
  });

  it('is exact to 5 ms where something later hides a delay', () => {
    const slower = (index: number, ms: number, of = program) => ({
      ...of,
      resources: of.resources.map((r, i) => (i === index ? { ...r, serverMs: r.serverMs + ms } : r)),
    });
    const list = at('list');
    const hiding = slower(at('chart'), 300);
    const late = (ms: number) => {
      const tried = slower(list, ms, hiding);
      return readTimeline(tried, simulate(tried, ROUND), ROUND).milestones.interactive;
    };
    const slack = slackOf(hiding, ROUND, list)!;
    expect(slack).toBeGreaterThan(20);
    expect(slack).toBeLessThan(8000);
    expect(late(slack)).toBeLessThanOrEqual(late(0) + 1);
    expect(late(slack + 6)).toBeGreaterThan(late(0) + 1);
  });

  it('is without end for what nothing waits for', () => {
    const image = {
      ...program.resources[0],
      address: '/far.jpg',
      type: 'image' as const,
      follow: [],
      chunk: undefined,
    };
    const markup = [
      ...program.document.markup,
      { at: 3000, tag: 'img' as const, resource: program.resources.length, lazy: false, inView: true },
    ];
    const wider = { ...program, resources: [...program.resources, image], document: { ...program.document, markup } };
    expect(slackOf(wider, ROUND, program.resources.length)).toBe(8000);
    const never = { ...program, document: { ...program.document, markup: [] } };
    expect(slackOf(never, ROUND, at('chart'))).toBeNull();
  });
});
