import { cause as noCause, requestRecord as request } from '../../test-support/programs.ts';
import type { LoadProgram } from '../load/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { TaskRecord, Timeline } from '../sim/types.ts';
import { readTimeline } from './readout.ts';

const cause = noCause();

function task(start: number, end: number, ready = start): TaskRecord {
  return { kind: 'evaluate', name: 'task', request: -1, ready, start, end, cause };
}

function timeline(firstContent: number, more: Partial<Timeline>): Timeline {
  return {
    requests: [],
    tasks: [],
    reveals: [],
    steps: [],
    moments: {
      bodyInserted: 0,
      domInteractive: 0,
      domContentLoaded: firstContent,
      load: firstContent,
      firstContent,
      firstContentCause: cause,
    },
    ...more,
  };
}

const program = {
  parts: [
    { id: 'a', name: 'a', place: 'first screen', interactive: true },
    { id: 'b', name: 'b', place: 'first screen', interactive: false },
    { id: 'c', name: 'c', place: 'below', interactive: true },
  ],
} as LoadProgram;

describe('readTimeline', () => {
  it('takes interactive from the last interactive part of the first screen, past a long task in the queue', () => {
    const made = timeline(500, {
      tasks: [task(900, 1000), task(1000, 1200, 950), task(1300, 1400)],
      reveals: [
        { part: 0, state: 'answering', at: 1000, cause },
        { part: 1, state: 'shown', at: 700, cause },
        { part: 1, state: 'filled', at: 1100, cause },
        { part: 2, state: 'answering', at: 4000, cause },
      ],
    });
    const { milestones } = readTimeline(program, made, DEFAULT_CONDITIONS);
    expect(milestones.interactive).toBe(1200);
    expect(milestones.firstScreenComplete).toBe(1100);
  });

  it('sums what exceeds 50 ms between first content and interactive', () => {
    const made = timeline(500, {
      tasks: [task(450, 600), task(700, 740), task(800, 950)],
      reveals: [{ part: 0, state: 'answering', at: 950, cause }],
    });
    expect(readTimeline(program, made, DEFAULT_CONDITIONS).readout.blocked).toBe(50 + 100);
  });

  it('finds the strict time to interactive before five quiet seconds', () => {
    const strict = (more: Partial<Timeline>) =>
      readTimeline(program, timeline(500, more), DEFAULT_CONDITIONS).milestones.timeToInteractive;
    expect(strict({})).toBe(500);
    expect(strict({ tasks: [task(1000, 1100), task(4000, 4030)] })).toBe(1100);
    expect(strict({ tasks: [task(1000, 1100), task(6200, 6300)] })).toBe(1100);
    expect(strict({ tasks: [task(1000, 1100), task(6000, 6300)] })).toBe(6300);
    const three = [request(1000, 3000), request(1000, 3000), request(1000, 3000)];
    expect(strict({ tasks: [task(7000, 7100)], requests: three })).toBe(7100);
    expect(strict({ tasks: [task(9000, 9100)], requests: three })).toBe(500);
  });

  it('counts requests, hops, bytes and waste until interactive', () => {
    const made = timeline(500, {
      reveals: [{ part: 0, state: 'answering', at: 1000, cause }],
      requests: [
        request(0, 100, { type: 'document', role: 'content', hop: 0 }),
        request(200, 400),
        request(300, 900, { role: 'on demand', hop: 2 }),
        request(400, 1500, { role: 'wasted', hop: 1 }),
        request(2000, 2100, { role: 'in case', hop: 5 }),
      ],
    });
    const { readout } = readTimeline(program, made, DEFAULT_CONDITIONS);
    expect(readout).toMatchObject({ requests: 4, hops: 2, startBytes: 2000, unusedAtStart: 1000, wasted: 2000 });
    expect(readout.linkBusy).toBeGreaterThan(0);
    expect(readout.linkBusy).toBeLessThanOrEqual(1);
  });
});
