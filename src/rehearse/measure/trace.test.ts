import { type TraceEvent, tasksOf } from './trace.ts';

const ADDRESS = 'https://app.test/';
const base = { pid: 7, tid: 1, args: {} };
const begin = (ts: number, url = ADDRESS): TraceEvent => ({
  ...{ ...base, name: 'navigationStart', ph: 'R', ts },
  args: { data: { isOutermostMainFrame: true, documentLoaderURL: url } },
});
const span = (name: string, ts: number, dur: number, more: Partial<TraceEvent> = {}): TraceEvent => ({
  ...{ ...base, name, ph: 'X', ts, dur },
  ...more,
});
const thread: TraceEvent = { ...base, name: 'thread_name', ph: 'M', ts: 0, args: { name: 'CrRendererMain' } };

describe('the tasks of a trace', () => {
  it('count from the navigation, each with what its time went to', () => {
    const events = [
      thread,
      begin(1000, 'https://warm.test/'),
      begin(10_000),
      span('RunTask', 12_000, 20_000),
      span('EvaluateScript', 13_000, 10_000),
      span('v8.compile', 14_000, 3000),
      span('FunctionCall', 24_000, 6000),
      span('Layout', 26_000, 1000),
      span('Unheard of', 27_000, 2000),
    ];
    expect(tasksOf(events, ADDRESS)).toEqual([
      { start: 2, end: 22, of: { run: 7, compile: 3, draw: 5, layout: 1, other: 4 } },
    ]);
  });

  it('leave out other threads, what came before, and what is too short', () => {
    const events = [
      thread,
      begin(10_000),
      span('RunTask', 5000, 3000),
      span('RunTask', 11_000, 900),
      span('RunTask', 20_000, 9000, { tid: 2 }),
      span('RunTask', 40_000, 9000, { pid: 8 }),
      span('RunTask', 60_000, 2000),
    ];
    expect(tasksOf(events, ADDRESS)).toEqual([{ start: 50, end: 52, of: { other: 2 } }]);
  });

  it('are none without the navigation', () => {
    expect(tasksOf([thread, span('RunTask', 11_000, 9000)], ADDRESS)).toEqual([]);
  });
});
