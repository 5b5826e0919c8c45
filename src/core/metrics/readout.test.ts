import { file, cause as noCause, page, requestRecord as request, screenPart } from '../../test-support/programs.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import type { Reveal, TaskRecord, Timeline } from '../sim/types.ts';
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

const program = page([], [file('/a.js'), file('/b.js', { purpose: 'later' })], {
  parts: [
    screenPart('a'),
    screenPart('b', { interactive: false, fill: [1] }),
    screenPart('c', { place: 'below' }),
    screenPart('narrow', { screens: { maxWidth: 300 } }),
  ],
});
const shown = (part: number, at: number): Reveal => ({ part, state: 'shown', at, cause });
const all: Reveal[] = [shown(0, 600), { part: 1, state: 'filled', at: 600, cause }];

describe('readTimeline', () => {
  it('takes interactive from the last interactive part of the first screen, past a long task in the queue', () => {
    const made = timeline(500, {
      tasks: [task(900, 1000), task(1000, 1200, 950), task(1300, 1400)],
      reveals: [
        shown(0, 650),
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

  it('never comes to what a part of the first screen never reaches, and says which', () => {
    const held = readTimeline(program, timeline(500, { reveals: [all[0]] }), DEFAULT_CONDITIONS);
    expect(held.milestones).toMatchObject({
      firstContent: 500,
      firstScreenComplete: Number.NaN,
      interactive: Number.NaN,
    });
    expect(held.missing).toEqual([
      { part: 1, state: 'shown' },
      { part: 0, state: 'answering' },
    ]);
    const mute = readTimeline(program, timeline(500, { reveals: all }), DEFAULT_CONDITIONS);
    expect(mute.milestones.firstScreenComplete).toBe(600);
    expect(mute.milestones.interactive).toBeNaN();
  });

  it('goes past a task of more than 50 ms, and not of 50', () => {
    const until = (from: number, to: number) =>
      readTimeline(
        program,
        timeline(500, {
          tasks: [task(from, to, 990)],
          reveals: [...all, { part: 0, state: 'answering', at: 1000, cause }],
        }),
        DEFAULT_CONDITIONS,
      ).milestones.interactive;
    expect(until(1000, 1050)).toBe(1000);
    expect(until(1000, 1051)).toBe(1051);
    expect(until(940, 1000)).toBe(1000);
    // Short, however late it ends.
    expect(until(100_000, 100_010)).toBe(1000);
  });

  it('counts what pushes others away: parts of the first screen whose room nobody kept, once something shows', () => {
    const pushing = page([], [], {
      parts: [
        screenPart('free', { fallback: { show: 'nothing', holdMs: 0 } }),
        screenPart('kept', { fallback: { show: 'reserved space', holdMs: 0 } }),
        screenPart('plain'),
        screenPart('far', { place: 'below', fallback: { show: 'nothing', holdMs: 0 } }),
      ],
    });
    const moves = (...reveals: Reveal[]) =>
      readTimeline(pushing, timeline(500, { reveals }), DEFAULT_CONDITIONS).readout.moves;
    expect(moves(shown(0, 500))).toBe(0);
    expect(moves(shown(0, 501), { part: 0, state: 'answering', at: 700, cause })).toBe(1);
    expect(moves(shown(1, 600), shown(2, 600), shown(3, 600))).toBe(0);
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
    const scripts = timeline(500, {});
    scripts.moments.domContentLoaded = 800;
    expect(readTimeline(program, scripts, DEFAULT_CONDITIONS).milestones.timeToInteractive).toBe(800);
    expect(strict({ tasks: [task(1000, 1100), task(4000, 4030)] })).toBe(1100);
    expect(strict({ tasks: [task(1000, 1100), task(6200, 6300)] })).toBe(1100);
    expect(strict({ tasks: [task(1000, 1100), task(6000, 6300)] })).toBe(6300);
    const three = [request(1000, 3000), request(1000, 3000), request(1000, 3000)];
    expect(strict({ tasks: [task(7000, 7100)], requests: three })).toBe(7100);
    expect(strict({ tasks: [task(9000, 9100)], requests: three })).toBe(500);
    // Two in flight are quiet, three are not; one that begins as another ends is not one more.
    expect(strict({ tasks: [task(7000, 7100)], requests: three.slice(1) })).toBe(500);
    const after = [request(1000, 2000), request(1000, 2000), request(2000, 3000)];
    expect(strict({ tasks: [task(7000, 7100)], requests: after })).toBe(500);
    // Of exactly 50 ms, a task is not long.
    expect(strict({ tasks: [task(1000, 1050)] })).toBe(500);
    expect(strict({ tasks: [task(400, 500)] })).toBe(500);
  });

  it('counts requests and hops until interactive, sums and waste whenever they end', () => {
    const made = timeline(500, {
      reveals: [{ part: 0, state: 'answering', at: 1000, cause }],
      requests: [
        request(0, 100, { resource: -1, type: 'document', role: 'content', hop: 0 }),
        request(200, 400),
        request(300, 900, { resource: 1, role: 'on demand', hop: 2 }),
        request(400, 1500, { role: 'wasted', hop: 1 }),
        request(2000, 2100, { role: 'in case', hop: 5 }),
      ],
    });
    const { readout } = readTimeline(program, made, DEFAULT_CONDITIONS);
    expect(readout).toMatchObject({ requests: 4, hops: 2, startBytes: 1000, alsoFetched: 3000, wasted: 2000 });
    expect(readout.linkBusy).toBeGreaterThan(0);
    expect(readout.linkBusy).toBeLessThanOrEqual(1);
  });

  it('leaves out requests that are sent after interactive, and of what travels then counts what came before', () => {
    const made = timeline(500, {
      reveals: [{ part: 0, state: 'answering', at: 1000, cause }],
      requests: [
        request(0, 100, { resource: -1, type: 'document', role: 'content', hop: 0, pieces: [] }),
        request(1200, 1400, { discovered: 900, hop: 3, pieces: [{ from: 1200, to: 1400, bytes: 7000 }] }),
        request(800, 1200, { hop: 1, pieces: [{ from: 800, to: 1200, bytes: 8000 }] }),
        request(900, 1000, { hop: 1, pieces: [{ from: 900, to: 1000, bytes: 500 }] }),
        request(1500, 1600, { hop: 4, pieces: [{ from: 1500, to: 1600, bytes: 9000 }] }),
      ],
    });
    const { readout } = readTimeline(program, made, DEFAULT_CONDITIONS);
    expect([readout.requests, readout.hops]).toEqual([3, 1]);
    // Half of the 8000 bytes, and all of the 500, over one second at the link's rate.
    expect(readout.linkBusy).toBeCloseTo((4500 * 8) / DEFAULT_CONDITIONS.link.downKbps / 1000, 6);
  });
});
