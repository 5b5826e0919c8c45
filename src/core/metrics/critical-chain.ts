import type { Cause, RequestRecord, TaskRecord, Timeline } from '../sim/types.ts';

export type LinkKind =
  | 'connecting'
  | 'round trips'
  | 'server'
  | 'transfer'
  | 'sharing the link'
  | 'held back'
  | 'waiting for thread'
  | 'running'
  | 'drawing'
  | 'waiting for a trigger'
  | 'browser';

/** What the thread does, as a way of spending time. */
const CLASS_OF_TASK: Record<TaskRecord['kind'], LinkKind> = {
  parse: 'running',
  evaluate: 'running',
  work: 'running',
  render: 'drawing',
  paint: 'drawing',
};

/** A stretch of the chain that leads to a milestone. Stretches touch: each begins where the one before ends. */
export interface ChainLink {
  kind: LinkKind;
  from: number;
  to: number;
  what: string;
  request: number;
  task: number;
}

/**
 * Walks back from a milestone over the causes and splits the whole time from 0 to `at`. The stretches follow one
 * another without gap or overlap, so their lengths add up to the milestone. Half of the round-trip time is on the way
 * up to the server and half on the way down; what goes beyond that on either way is others' traffic.
 */
export function criticalChain(timeline: Timeline, cause: Cause | null, at: number, rttMs: number): ChainLink[] {
  const back: ChainLink[] = [];
  let now = at;
  const add = (kind: LinkKind, from: number, what: string, request = -1, task = -1) => {
    const start = Math.max(0, Math.min(from, now));
    if (start < now) back.push({ kind, from: start, to: now, what, request, task });
    now = start;
  };
  const seen = new Set<string>();
  for (let by = cause; by && now > 0; ) {
    const gap = by.kind === 'trigger' ? 'waiting for a trigger' : 'browser';
    add(gap, by.at, by.what, by.request, by.task);
    const step = by.task >= 0 ? `task ${by.task}` : `request ${by.request}`;
    if (seen.has(step) && by.task >= 0) break;
    seen.add(step);
    if (by.task >= 0) {
      const task = timeline.tasks[by.task];
      add(CLASS_OF_TASK[task.kind], task.start, task.name, task.request, by.task);
      add('waiting for thread', task.ready, task.name, task.request, by.task);
      by = task.cause;
    } else if (by.request >= 0) {
      const request = timeline.requests[by.request];
      walkRequest(timeline, request, by.request, now, rttMs, add);
      by = request.cause;
    } else {
      break;
    }
  }
  if (now > 0) add('browser', 0, 'before the first request');
  return back.reverse();
}

function walkRequest(
  timeline: Timeline,
  request: RequestRecord,
  index: number,
  until: number,
  rttMs: number,
  add: (kind: LinkKind, from: number, what: string, request?: number) => void,
): void {
  const { name, firstByte, served, reached, sent } = request;
  if (until > firstByte) {
    const alone = until - firstByte - sharedTime(timeline, request, firstByte, until);
    add('transfer', until - alone, name, index);
    add('sharing the link', firstByte, name, index);
  }
  const answerable = Math.min(firstByte, served + rttMs / 2);
  add('sharing the link', firstByte - sharedTime(timeline, request, answerable, firstByte), name, index);
  add('round trips', served, name, index);
  add('server', reached, name, index);
  // Beyond half a round trip it waited behind other requests on the way up.
  add('sharing the link', Math.min(reached, sent + rttMs / 2), name, index);
  add('round trips', sent, name, index);
  add('connecting', request.released, name, index);
  add('held back', request.queued, name, index);
  add('browser', request.discovered, name, index);
}

/** Time between two instants in which pieces of other requests were on the link. */
function sharedTime(timeline: Timeline, own: RequestRecord, from: number, to: number): number {
  let shared = 0;
  for (const other of timeline.requests) {
    if (other === own) continue;
    for (const piece of other.pieces) {
      const overlap = Math.min(piece.to, to) - Math.max(piece.from, from);
      if (overlap > 0) shared += overlap;
    }
  }
  return Math.min(shared, to - from);
}

/** A way in which time went: how much of it, and what took it, longest first. */
export interface SpentTime {
  kind: LinkKind;
  ms: number;
  by: { what: string; ms: number }[];
}

/** Sums of a chain by kind, in the order of their size; they add up to the milestone. */
export function whereTheTimeWent(chain: readonly ChainLink[]): SpentTime[] {
  const sums = new Map<LinkKind, Map<string, number>>();
  for (const { kind, what, from, to } of chain) {
    const by = sums.get(kind) ?? new Map<string, number>();
    sums.set(kind, by.set(what, (by.get(what) ?? 0) + to - from));
  }
  const longestFirst = (a: { ms: number }, b: { ms: number }) => b.ms - a.ms;
  return [...sums]
    .map(([kind, by]) => ({
      kind,
      ms: [...by.values()].reduce((sum, ms) => sum + ms, 0),
      by: [...by].map(([what, ms]) => ({ what, ms })).sort(longestFirst),
    }))
    .sort(longestFirst);
}
