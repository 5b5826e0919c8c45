import { anyConditions, anyProgram, anyVisit } from '../../test-support/any-program.ts';
import { simulate } from './simulate.ts';
import { simulateVisit } from './simulate-visit.ts';
import type { RequestRecord, Timeline } from './types.ts';

/** Times are sums of fractions: they may differ in the last digits. */
const ABOUT = 1e-6;
const SEEDS = Array.from({ length: 400 }, (_, i) => i + 1);

/** What must hold of any load whatever: else the message says what doesn't. */
function faults({ requests, tasks, reveals, moments }: Timeline, downKbps: number): string[] {
  const found: string[] = [];
  const expectThat = (holds: boolean, what: string) => {
    if (!holds) found.push(what);
  };
  const { bodyInserted, domInteractive, domContentLoaded, load } = moments;
  const instants = [bodyInserted, domInteractive, domContentLoaded, load].filter((t) => !Number.isNaN(t));
  expectThat(
    instants.every((t, i) => i === 0 || t >= instants[i - 1] - ABOUT),
    `the page's moments: ${instants}`,
  );
  const ran = tasks.flatMap((t) =>
    t.kind === 'evaluate' && t.request >= 0 && requests[t.request].resource >= 0 ? [t.request] : [],
  );
  expectThat(new Set(ran).size === ran.length, 'a file is evaluated twice');
  for (const r of requests)
    expectThat(Number.isNaN(r.evaluated) || r.evaluated >= r.end - ABOUT, `${r.address}: evaluated before it came`);
  for (const r of requests) expectThat(inOrder(r), `${r.address}: its instants are not in order`);
  const loads = requests.filter((r) => r.pieces.length > 0 && !r.cut && !r.fromCache);
  for (const r of loads) {
    const came = r.pieces.reduce((sum, p) => sum + p.bytes, 0);
    expectThat(came >= r.bytes - ABOUT, `${r.address}: ${came} of ${r.bytes} bytes came`);
  }
  const pieces = loads.flatMap((r) => r.pieces);
  const carried = pieces.reduce((sum, p) => sum + p.bytes, 0);
  const from = Math.min(...pieces.map((p) => p.from));
  const to = Math.max(...pieces.map((p) => p.to));
  expectThat(carried * 8 <= downKbps * (to - from) + 8 * 64_000, 'more came than the link carries');
  const byStart = [...tasks].sort((a, b) => a.start - b.start);
  for (const [i, task] of byStart.entries()) {
    expectThat(task.end >= task.start && task.start >= task.ready - ABOUT, `${task.name}: begins before it can`);
    if (i > 0) expectThat(task.start >= byStart[i - 1].end - ABOUT, `${task.name}: at the same time as another`);
  }
  for (const { part, state, at } of reveals) {
    expectThat(at >= 0, `part ${part} is ${state} before the page is opened`);
    const shown = reveals.some((r) => r.part === part && r.state === 'shown' && r.at <= at + ABOUT);
    if (state === 'filled' || state === 'answering') expectThat(shown, `part ${part} is ${state} before it shows`);
  }
  for (const { cause } of [...requests, ...tasks, ...reveals]) {
    expectThat(cause.request < requests.length && cause.task < tasks.length, 'a cause that is not there');
  }
  return found;
}

function inOrder(r: RequestRecord): boolean {
  const all = [r.discovered, r.queued, r.released, r.sent, r.reached, r.served, r.firstByte, r.end];
  const known = all.filter((t) => !Number.isNaN(t));
  return known.every((t, i) => i === 0 || t >= known[i - 1] - ABOUT);
}

describe('any page whatever, under any conditions', () => {
  it.each(SEEDS)('obeys what holds of all loads: %d', (seed) => {
    const [program, conditions] = [anyProgram(seed), anyConditions(seed)];
    const timeline = simulate(program, conditions);
    expect(timeline.stopped).toBeUndefined();
    expect(faults(timeline, conditions.link.downKbps)).toEqual([]);
    expect(simulate(program, conditions)).toEqual(timeline);
  });

  it.each(SEEDS.slice(0, 200))('obeys it in a visit: %d', (seed) => {
    const conditions = anyConditions(seed);
    const { pages, stopped } = simulateVisit(anyVisit(seed), conditions);
    expect(stopped).toBeUndefined();
    for (const { timeline } of pages) expect(faults(timeline, conditions.link.downKbps)).toEqual([]);
  });
});
