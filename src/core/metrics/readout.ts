import type { LoadProgram } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Cause, Timeline } from '../sim/types.ts';

/** Instants of a landing, in ms. NaN when it never came to that. */
export interface Milestones {
  firstContent: number;
  firstScreenComplete: number;
  interactive: number;
  timeToInteractive: number;
}

export interface Readout {
  /** Requests until interactive, the document included. */
  requests: number;
  /** Longest chain of discoveries among them, the document being hop 0. */
  hops: number;
  /** Compressed bytes of script and style that travelled until interactive. */
  startBytes: number;
  /** What exceeds 50 ms in tasks between first content and interactive, summed. */
  blocked: number;
  /** Share of the time until interactive in which the downlink carried something. */
  linkBusy: number;
  /** Bytes that arrived before interactive and that the start doesn't need. */
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
  causes: { firstContent: Cause | null; firstScreenComplete: Cause | null; interactive: Cause | null };
}

/** Reads the milestones and the readout off a timeline. */
export function readTimeline(program: LoadProgram, timeline: Timeline, conditions: Conditions): Reading {
  const firstContent = timeline.moments.firstContent;
  const complete = lastReveal(
    program,
    timeline,
    (s) => s === 'shown' || s === 'filled',
    () => true,
  );
  const answering = lastReveal(
    program,
    timeline,
    (s) => s === 'answering',
    (p) => program.parts[p].interactive,
  );
  const base: Instant =
    answering ?? later(atLoad(timeline), { at: firstContent, cause: timeline.moments.firstContentCause });
  const settled = afterLongTasks(timeline, base);
  const milestones: Milestones = {
    firstContent,
    firstScreenComplete: complete?.at ?? firstContent,
    interactive: settled.at,
    timeToInteractive: strictInteractive(timeline, firstContent),
  };
  return {
    milestones,
    readout: readoutOf(program, timeline, milestones, conditions),
    causes: {
      firstContent: timeline.moments.firstContentCause,
      firstScreenComplete: complete?.cause ?? timeline.moments.firstContentCause,
      interactive: settled.cause,
    },
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

/** When the last of the first screen's parts reached a state; null while one of them never did, or when it has none. */
function lastReveal(
  program: LoadProgram,
  timeline: Timeline,
  state: (s: string) => boolean,
  counts: (part: number) => boolean,
): Instant | null {
  let last: Instant | null = null;
  for (const r of timeline.reveals) {
    if (program.parts[r.part].place !== 'first screen' || !counts(r.part) || !state(r.state)) continue;
    if (!last || r.at >= last.at) last = { at: r.at, cause: r.cause };
  }
  return last;
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

/** After first content, the end of the last long task before 5 s of quiet with at most two requests in flight. */
function strictInteractive(timeline: Timeline, firstContent: number): number {
  if (!Number.isFinite(firstContent)) return Number.NaN;
  const long = timeline.tasks
    .filter((t) => t.end - t.start > LONG_TASK && t.end > firstContent)
    .map((t) => ({ from: t.start, to: t.end }));
  const unquiet = [...long, ...busyPeriods(timeline, 2)];
  const starts = [firstContent, ...unquiet.map((u) => u.to)].filter((t) => t >= firstContent).sort((a, b) => a - b);
  const quiet = starts.find((at) => !unquiet.some((u) => u.to > at && u.from < at + QUIET_WINDOW))!;
  return long.reduce((last, t) => (t.to <= quiet ? Math.max(last, t.to) : last), firstContent);
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
): Readout {
  const until = Number.isFinite(interactive) ? interactive : Number.POSITIVE_INFINITY;
  const out: Readout = {
    requests: 0,
    hops: 0,
    startBytes: 0,
    blocked: 0,
    linkBusy: 0,
    unusedAtStart: 0,
    wasted: 0,
    moves: 0,
  };
  let carried = 0;
  for (const r of timeline.requests) {
    const started = r.discovered <= until;
    if (r.role === 'wasted' || r.role === 'in case') out.wasted += r.bytes;
    if (!started) continue;
    const unneeded = r.role === 'on demand' || r.role === 'in case' || r.role === 'wasted';
    if (unneeded && r.end <= until) out.unusedAtStart += r.bytes;
    for (const piece of r.pieces) {
      const span = piece.to - piece.from;
      if (piece.from < until)
        carried += piece.bytes * (piece.to <= until || span === 0 ? 1 : (until - piece.from) / span);
    }
    if (r.sent > until) continue;
    out.requests++;
    out.hops = Math.max(out.hops, r.hop);
    if ((r.type === 'script' || r.type === 'style') && r.end <= until) out.startBytes += r.bytes;
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
