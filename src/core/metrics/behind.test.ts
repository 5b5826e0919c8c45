import { anyConditions, anyProgram } from '../../test-support/any-program.ts';
import { requestRecord } from '../../test-support/programs.ts';
import { simulate } from '../sim/simulate.ts';
import type { Timeline } from '../sim/types.ts';
import { longestHops, requestsUntil, sourceRequest, unusedRequests } from './behind.ts';
import { readTimeline } from './readout.ts';

const timelineOf = (requests: Timeline['requests'], tasks: Timeline['tasks'] = []) =>
  ({ requests, tasks }) as unknown as Timeline;

it.each(Array.from({ length: 150 }, (_, i) => i + 1))(
  'what stands behind the figures of page %d comes to them',
  (seed) => {
    const [program, conditions] = [anyProgram(seed), anyConditions(seed)];
    const timeline = simulate(program, conditions);
    const { readout, milestones } = readTimeline(program, timeline, conditions);
    const until = Number.isFinite(milestones.interactive) ? milestones.interactive : Number.POSITIVE_INFINITY;
    const sent = timeline.requests.filter((r) => r.sent <= until && r.discovered <= until);
    expect(requestsUntil(timeline, milestones.interactive)).toEqual(sent);
    expect(readout.requests).toBe(sent.length);
    const chain = longestHops(timeline, milestones.interactive);
    expect(chain.map((r) => r.hop)).toEqual(Array.from({ length: readout.hops + 1 }, (_, hop) => hop));
    chain.forEach((r, at) => {
      if (at > 0) expect(timeline.requests[sourceRequest(timeline, r.cause)]).toBe(chain[at - 1]);
    });
    const unused = unusedRequests(timeline);
    expect(unused.reduce((sum, r) => sum + r.bytes, 0)).toBeCloseTo(readout.wasted, 6);
    expect(unused.every((r, at) => at === 0 || unused[at - 1].bytes >= r.bytes)).toBe(true);
  },
);

it('a request is led back to what asked for it, through the tasks in between', () => {
  const by = (request: number, task: number) => ({ kind: 'task', what: '', at: 0, request, task }) as const;
  const task = (request: number, cause: ReturnType<typeof by>) =>
    ({ kind: 'work', name: '', ready: 0, start: 0, end: 1, request, cause }) as const;
  const tasks = [task(2, by(-1, -1)), task(-1, by(-1, 0)), task(-1, by(1, -1)), task(-1, by(-1, -1))];
  const timeline = timelineOf([requestRecord(0, 1)], tasks);
  expect(
    [by(4, 0), by(-1, 0), by(-1, 1), by(-1, 2), by(-1, 3), by(-1, -1)].map((c) => sourceRequest(timeline, c)),
  ).toEqual([4, 2, 2, 1, -1, -1]);
});

it('a request that was found in time and sent too late doesn’t count', () => {
  const requests = [requestRecord(0, 50), requestRecord(120, 200, { discovered: 90 }), requestRecord(100, 200)];
  expect(requestsUntil(timelineOf(requests), 100)).toEqual([requests[0], requests[2]]);
  expect(requestsUntil(timelineOf(requests), Number.NaN)).toEqual(requests);
});
