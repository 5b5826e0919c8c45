import { fits } from '../load/places.ts';
import type { LoadProgram } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Cause, RevealState, Timeline } from '../sim/types.ts';
import { requestsUntil, unusedRequests } from './behind.ts';
import { largestContent } from './largest-content.ts';
import { START_SUMS, type Sums, startSums, total } from './start.ts';

/** Instants of a landing, in ms. NaN when it never came to that. */
export interface Milestones {
  firstContent: number;
  /** The largest content of the first screen shows; see `largestContent`. */
  largestContent: number;
  /** All parts of the first screen show, with their images and data. */
  firstScreenComplete: number;
  /** All parts of the first screen that answer do so, and no task that is queued by then is long. */
  interactive: number;
  /**
   * The trade's strict measure: after first content and the end of the document's own scripts, the end of the last long
   * task before 5 s of quiet. It knows tasks and requests but no parts: it lies before `interactive` where the last part
   * comes with a short task, and after it where a long task follows.
   */
  timeToInteractive: number;
}

export interface Readout {
  /** Requests until interactive, the document included. */
  requests: number;
  /** Longest chain of discoveries among them, the document being hop 0. */
  hops: number;
  /** The three sums of what the landing fetches by itself, in compressed bytes; see START_SUMS. */
  startBytes: number;
  otherScripts: number;
  alsoFetched: number;
  /** What exceeds 50 ms in tasks between first content and interactive, summed. */
  blocked: number;
  /** Share of the time until interactive in which the downlink carried something. */
  linkBusy: number;
  /** Compressed bytes of modules in the files of the start that the first screen doesn't need. */
  unusedAtStart: number;
  /** Bytes fetched and never used in this timeline. */
  wasted: number;
  /** Parts of the first screen that come after first content where no room was kept for them: they move the rest. */
  moves: number;
}

export const LONG_TASK = 50;
const QUIET_WINDOW = 5000;

export interface Reading {
  milestones: Milestones;
  readout: Readout;
  causes: {
    firstContent: Cause | null;
    largestContent: Cause | null;
    firstScreenComplete: Cause | null;
    interactive: Cause | null;
  };
  /** The files behind the sums of the readout. */
  sums: Sums;
  /** What is taken for the largest content: an image's file, or a part. */
  largest: string;
  /** Parts of the first screen that never show, or never answer, by index into the program's: what they wait for is held. */
  missing: { part: number; state: 'shown' | 'answering' }[];
  /** Something of what the landing fetches has an unknown size: times and sizes rest on less than everything. */
  unknown: string[];
}

/** Reads the milestones and the readout off a timeline. */
export function readTimeline(program: LoadProgram, timeline: Timeline, conditions: Conditions): Reading {
  const firstContent = timeline.moments.firstContent;
  const painted: Instant = { at: firstContent, cause: timeline.moments.firstContentCause };
  const expected = expectedParts(program, conditions);
  const [complete, unshown] = lastOf(timeline, painted, expected, (p) =>
    program.parts[p].fill.length > 0 ? 'filled' : 'shown',
  );
  const largest = largestContent(program, timeline, expected);
  const acting = expected.filter((p) => program.parts[p].interactive);
  const ready = acting.length > 0 ? painted : later(atLoad(timeline), painted);
  const [answering, mute] = lastOf(timeline, ready, acting, () => 'answering');
  const settled = afterLongTasks(timeline, answering);
  const milestones: Milestones = {
    firstContent,
    largestContent: largest.at,
    firstScreenComplete: complete.at,
    interactive: settled.at,
    timeToInteractive: strictInteractive(timeline, firstContent),
  };
  const sums = startSums(program, timeline, conditions);
  return {
    milestones,
    readout: readoutOf(program, timeline, milestones, conditions, sums),
    causes: {
      firstContent: painted.cause,
      largestContent: largest.cause,
      firstScreenComplete: complete.cause,
      interactive: settled.cause,
    },
    sums,
    largest: largest.name,
    missing: [
      ...unshown.map((part) => ({ part, state: 'shown' as const })),
      ...mute.filter((p) => !unshown.includes(p)).map((part) => ({ part, state: 'answering' as const })),
    ],
    unknown: START_SUMS.flatMap((s) => sums[s].flatMap((f) => (f.unknown ? [timeline.requests[f.request].name] : []))),
  };
}

interface Instant {
  at: number;
  cause: Cause | null;
}

function atLoad(timeline: Timeline): Instant {
  return { at: timeline.moments.domContentLoaded, cause: timeline.moments.firstContentCause };
}

function later(a: Instant, b: Instant): Instant {
  return a.at > b.at ? a : b;
}

/** Parts that belong to the first screen on this device. */
export function expectedParts({ parts }: LoadProgram, { device }: Conditions): number[] {
  return parts.flatMap((p, at) =>
    p.place === 'first screen' && p.onItsOwn && fits(p.screens, device.viewport.width) ? [at] : [],
  );
}

/** When the last of these parts reached its state, `from` on; never (NaN) while one of them didn't, and which. */
function lastOf(
  timeline: Timeline,
  from: Instant,
  parts: readonly number[],
  state: (part: number) => RevealState,
): [Instant, number[]] {
  const missing = new Set(parts);
  let last = from;
  for (const r of timeline.reveals) {
    if (!missing.has(r.part) || r.state !== state(r.part)) continue;
    missing.delete(r.part);
    if (!(last.at > r.at)) last = { at: r.at, cause: r.cause };
  }
  return missing.size > 0 ? [{ at: Number.NaN, cause: null }, [...missing]] : [last, []];
}

/** The first instant from then on at which no task that is already queued exceeds 50 ms. */
function afterLongTasks(timeline: Timeline, from: Instant): Instant {
  let { at, cause } = from;
  timeline.tasks.forEach((task, i) => {
    if (task.ready <= at && task.end > at && task.end - task.start > LONG_TASK) {
      at = task.end;
      cause = { kind: 'task', what: task.name, at, request: -1, task: i };
    }
  });
  return { at, cause };
}

/**
 * After first content, the end of the last long task before 5 s of quiet with at most two requests in flight; not before
 * the document's own scripts have run (content loaded).
 */
function strictInteractive(timeline: Timeline, firstContent: number): number {
  if (!Number.isFinite(firstContent)) return Number.NaN;
  const scripts = timeline.moments.domContentLoaded;
  const least = Number.isFinite(scripts) ? Math.max(firstContent, scripts) : firstContent;
  const long = timeline.tasks
    .filter((t) => t.end - t.start > LONG_TASK && t.end > firstContent)
    .map((t) => ({ from: t.start, to: t.end }));
  const unquiet = [...long, ...busyPeriods(timeline, 2)];
  const starts = [firstContent, ...unquiet.map((u) => u.to)].filter((t) => t >= firstContent).sort((a, b) => a - b);
  const quiet = starts.find((at) => !unquiet.some((u) => u.to > at && u.from < at + QUIET_WINDOW))!;
  return long.reduce((last, t) => (t.to <= quiet ? Math.max(last, t.to) : last), least);
}

/** Periods in which more than `limit` requests were in flight. */
function busyPeriods(timeline: Timeline, limit: number): { from: number; to: number }[] {
  const edges: [number, number][] = [];
  for (const r of timeline.requests) edges.push([r.sent, 1], [r.end, -1]);
  edges.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const periods: { from: number; to: number }[] = [];
  let flying = 0;
  for (const [at, step] of edges) {
    const was = flying;
    flying += step;
    if (was <= limit && flying > limit) periods.push({ from: at, to: at });
    else if (was > limit && flying <= limit) periods[periods.length - 1].to = at;
  }
  return periods;
}

function readoutOf(
  program: LoadProgram,
  timeline: Timeline,
  { firstContent, interactive }: Milestones,
  conditions: Conditions,
  sums: Sums,
): Readout {
  const until = Number.isFinite(interactive) ? interactive : Number.POSITIVE_INFINITY;
  const sent = requestsUntil(timeline, interactive);
  const out: Readout = {
    requests: sent.length,
    hops: Math.max(0, ...sent.map((r) => r.hop)),
    startBytes: total(sums.start),
    otherScripts: total(sums['other scripts']),
    alsoFetched: total(sums['also fetched']),
    blocked: 0,
    linkBusy: 0,
    unusedAtStart: sums.start.reduce((sum, f) => sum + f.idle, 0),
    wasted: unusedRequests(timeline).reduce((sum, r) => sum + r.bytes, 0),
    moves: 0,
  };
  let carried = 0;
  for (const r of timeline.requests) {
    if (r.discovered > until) continue;
    for (const piece of r.pieces) {
      const span = piece.to - piece.from;
      if (piece.from < until)
        carried += piece.bytes * (piece.to <= until || span === 0 ? 1 : (until - piece.from) / span);
    }
  }
  for (const task of timeline.tasks) {
    if (task.end <= firstContent || task.start >= until) continue;
    out.blocked += Math.max(0, Math.min(task.end, until) - Math.max(task.start, firstContent) - LONG_TASK);
  }
  for (const reveal of timeline.reveals) {
    const { place, fallback } = program.parts[reveal.part];
    const pushes = place === 'first screen' && fallback?.show === 'nothing' && reveal.state === 'shown';
    if (pushes && reveal.at > firstContent) out.moves++;
  }
  if (Number.isFinite(until)) out.linkBusy = Math.min(1, (carried * 8) / conditions.link.downKbps / until);
  return out;
}
