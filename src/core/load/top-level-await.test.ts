import { ROUND } from '../../test-support/programs.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { waitingCycles } from '../chunks/waiting-cycles.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';

const app = (deferred: '~' | '~~') =>
  sketch(
    {
      main: { imports: [`${deferred}texts`, '~page'], context: 'module' },
      texts: { bytes: 300_000, imports: ['~more'], context: 'module' },
      more: {},
      page: {},
    },
    { routes: [route('/', 'page')] },
  );

function landing(deferred: '~' | '~~') {
  const { timeline, reading } = predict(app(deferred), BASELINE, '/', ROUND);
  const of = (name: string) => timeline.requests.find((r) => r.name === name)!;
  return { of, interactive: reading.milestones.interactive };
}

describe('a module that waits for a deferred import while it starts', () => {
  it('is done only when that has run: what it asks for next comes later', () => {
    const free = landing('~');
    const held = landing('~~');
    expect(free.of('page').sent).toBeLessThan(free.of('texts').end);
    expect(held.of('page').sent).toBeGreaterThan(held.of('texts').evaluated);
    expect(held.of('entry').evaluated).toBeGreaterThanOrEqual(held.of('texts').evaluated);
    expect(held.interactive).toBeGreaterThan(free.interactive + 100);
  });

  it('that in turn needs the waiting module is found: neither would ever start', () => {
    const cycle = sketch({
      main: { imports: ['first', 'third'] },
      first: { imports: ['~~second'] },
      second: { imports: ['deep'] },
      deep: { imports: ['first'] },
      third: { imports: ['~~deep'] },
    });
    expect(waitingCycles(cycle, BASELINE).map((i) => cycle.modules[i.from].path)).toEqual(['first']);
    const joined = { ...BASELINE, decisions: [{ kind: 'join' as const, import: 'first::second' }] };
    expect(waitingCycles(cycle, joined)).toEqual([]);
  });
});
