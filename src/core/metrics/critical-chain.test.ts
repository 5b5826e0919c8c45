import { cause as by, requestRecord } from '../../test-support/programs.ts';
import type { Cause, RequestRecord, TaskRecord, Timeline } from '../sim/types.ts';
import { criticalChain, whereTheTimeWent } from './critical-chain.ts';

function request(
  times: [number, number, number, number, number, number, number],
  cause: Cause,
  pieces: RequestRecord['pieces'],
): RequestRecord {
  const [discovered, queued, released, sent, served, firstByte, end] = times;
  // It waits 10 ms behind others on the way up, where half a round trip is 50.
  const reached = Math.min(served, sent + 60);
  return requestRecord(sent, end, { discovered, queued, released, reached, served, firstByte, cause, pieces });
}

function lengths(timeline: Timeline, cause: Cause, at: number): [string, number][] {
  return criticalChain(timeline, cause, at, 100).map((l) => [l.kind, l.to - l.from]);
}

const task = (ready: number, start: number, end: number, cause: Cause): TaskRecord => ({
  kind: 'evaluate',
  name: 'run',
  request: 0,
  ready,
  start,
  end,
  cause,
});

describe('criticalChain', () => {
  it('splits a request and a task into every way of spending time', () => {
    const a = request([10, 14, 34, 60, 160, 240, 300], by({ kind: 'navigation' }), [{ from: 240, to: 300, bytes: 10 }]);
    const b = request([10, 10, 10, 10, 10, 10, 10], by({}), [
      { from: 215, to: 235, bytes: 5 },
      { from: 250, to: 270, bytes: 5 },
    ]);
    const timeline = {
      requests: [a, b],
      tasks: [task(305, 320, 400, by({ kind: 'arrival', at: 300, request: 0 }))],
    } as unknown as Timeline;
    const chain = lengths(timeline, by({ at: 400, task: 0 }), 410);
    expect(chain).toEqual([
      ['browser', 10],
      ['browser', 4],
      ['held back', 20],
      ['connecting', 26],
      ['round trips', 50],
      ['sharing the link', 10],
      ['server', 40],
      ['round trips', 60],
      ['sharing the link', 20],
      ['sharing the link', 20],
      ['transfer', 40],
      ['browser', 5],
      ['waiting for thread', 15],
      ['running', 80],
      ['browser', 10],
    ]);
    expect(chain.reduce((sum, [, ms]) => sum + ms, 0)).toBe(410);
    const sums = whereTheTimeWent(criticalChain(timeline, by({ at: 400, task: 0 }), 410, 100));
    expect(sums[0]).toEqual({ kind: 'round trips', ms: 110, by: [{ what: 'a', ms: 110 }] });
  });

  it('tells drawing and painting from running, and names what took it', () => {
    const tasks = [
      task(0, 0, 50, by({ kind: 'navigation' })),
      { ...task(50, 50, 80, by({ at: 50, task: 0 })), kind: 'render', name: 'page' },
      { ...task(80, 80, 85, by({ at: 80, task: 1 })), kind: 'paint', name: 'first paint' },
    ];
    const timeline = { requests: [], tasks } as unknown as Timeline;
    const chain = criticalChain(timeline, by({ at: 85, task: 2 }), 85, 100);
    expect(whereTheTimeWent(chain)).toEqual([
      { kind: 'running', ms: 50, by: [{ what: 'run', ms: 50 }] },
      {
        kind: 'drawing',
        ms: 35,
        by: [
          { what: 'page', ms: 30 },
          { what: 'first paint', ms: 5 },
        ],
      },
    ]);
  });

  it('calls the time until a trigger fires a wait for a trigger', () => {
    const timeline = { requests: [], tasks: [task(0, 0, 50, by({ kind: 'navigation' }))] } as unknown as Timeline;
    expect(lengths(timeline, by({ kind: 'trigger', at: 50, task: 0 }), 200)).toEqual([
      ['running', 50],
      ['waiting for a trigger', 150],
    ]);
  });

  it('ends where causes go in a circle, and still adds up', () => {
    const timeline = {
      requests: [],
      tasks: [
        task(150, 160, 200, by({ kind: 'task', at: 150, task: 1 })),
        task(100, 100, 140, by({ at: 100, task: 0 })),
      ],
    } as unknown as Timeline;
    const chain = lengths(timeline, by({ at: 200, task: 0 }), 210);
    expect(chain).toEqual([
      ['browser', 100],
      ['running', 50],
      ['waiting for thread', 10],
      ['running', 40],
      ['browser', 10],
    ]);
  });

  it('is one stretch when nothing is known, and empty at 0', () => {
    const nothing = { requests: [], tasks: [] } as unknown as Timeline;
    expect(lengths(nothing, by({ at: 0 }), 80)).toEqual([['browser', 80]]);
    expect(criticalChain(nothing, null, 0, 100)).toEqual([]);
  });
});
