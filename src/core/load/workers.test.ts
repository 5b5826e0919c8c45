import { ROUND } from '../../test-support/programs.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { WorkerStart } from '../snapshot/module-types.ts';

type Start = Pick<WorkerStart, 'context' | 'begun'> & { from?: string };

/** A landing of an app whose code starts a worker. */
function landing({ from = 'main', ...start }: Start) {
  const app = sketch(
    {
      main: { imports: ['~page', '~other'] },
      page: { bytes: 40_000 },
      other: {},
      beside: { bytes: 60_000, imports: ['sums'] },
      sums: { bytes: 30_000 },
    },
    { routes: [route('/', 'page'), route('/other', 'other')] },
  );
  app.entries.push({
    ...{ realm: 'worker beside', kind: 'worker', document: null, modules: ['beside'] },
    startedBy: [{ from, specifier: './beside', ...start }],
  });
  const { timeline, reading } = predict(app, BASELINE, '/', ROUND);
  const of = (name: string) => timeline.requests.find((r) => r.name === name);
  return { worker: timeline.requests.find((r) => r.name.endsWith('(worker)')), of, reading };
}

describe('a worker', () => {
  it('is asked for as the code runs that starts it, and doesn’t hold the page', () => {
    const with_ = landing({ context: 'module' });
    const without = landing({ context: 'handler' });
    const sent = with_.worker!.sent;
    expect(sent).toBeGreaterThanOrEqual(with_.of('entry')!.end);
    expect(with_.worker!.evaluated).toBeNaN();
    expect(without.worker).toBeUndefined();
    // It shares the link, and nothing else.
    expect(with_.reading.readout.requests).toBe(without.reading.readout.requests + 1);
    expect(with_.reading.milestones.interactive).toBeGreaterThanOrEqual(without.reading.milestones.interactive);
  });

  it.each([
    ['a handler', { context: 'handler' }, false],
    ['a function that nobody is known to call', { context: 'function' }, false],
    ['what the page draws', { context: 'wrapper', from: 'page' }, true],
    ['what another route draws', { context: 'wrapper', from: 'other' }, false],
    ['a module that the route doesn’t run', { context: 'module', from: 'other' }, false],
    ['an idle callback', { context: 'function', begun: { on: 'idle' } }, true],
    ['an approach', { context: 'function', begun: { on: 'approach' } }, false],
    ['a module that isn’t shipped', { context: 'module', from: 'gone' }, false],
  ] as [string, Start, boolean][])(
    'that %s starts is asked for where that happens on the landing',
    (_, start, comes) => {
      expect(landing(start).worker !== undefined).toBe(comes);
    },
  );

  it('that is begun once the page is at rest comes after everything else', () => {
    const { worker, of } = landing({ context: 'function', begun: { on: 'idle' } });
    expect(worker!.sent).toBeGreaterThan(landing({ context: 'module' }).worker!.sent);
    expect(worker!.sent).toBeGreaterThanOrEqual(of('page')!.evaluated);
  });
});
