import type { Conditions } from '../sim/conditions.ts';
import type { Part } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { playVisit } from '../visits/play.ts';
import type { VisitCompiler } from '../visits/program.ts';
import { ASSUMED } from './model.ts';

/** What a person waits for who wants one part of a route, as the first thing there. Times in ms from the act. */
export interface PartWait {
  /** Until it shows, or (where it shows already) until it answers; NaN when it never does. */
  wait: number;
  until: 'shown' | 'answering';
  /** Until all of it is there: its images and data, and what is deferred inside it. */
  complete: number;
  /** What is asked for from the act on. */
  bytes: number;
  requests: number;
  hops: number;
}

/**
 * Plays the visit in which somebody lands on a route, stays as long as people usually do, and then wants a part of it,
 * without an approach. Null where the part has no moment of its own: it stands on the first screen, or can't come.
 */
export function partWait(
  compiler: VisitCompiler,
  snapshot: Snapshot,
  pattern: string,
  part: Part,
  conditions: Conditions,
): PartWait | null {
  if (!compiler.hasMoment(pattern, pattern, part.id)) return null;
  const said = snapshot.visitors?.routes?.find((r) => r.pattern === pattern)?.dwell ?? ASSUMED.dwell;
  const does = part.place === 'below' ? 'scroll' : 'act';
  const step = { does, part: part.id, dwellMs: said.medianMs, leadMs: 0 } as const;
  const { experiences, timeline, program } = playVisit(
    compiler,
    { name: '', landing: pattern, holds: [], steps: [step] },
    conditions,
  );
  const played = experiences.find((e) => e.step === 0);
  if (!played) return { wait: Number.NaN, until: 'shown', complete: Number.NaN, bytes: 0, requests: 0, hops: 0 };
  const asked = played.requests.map((i) => timeline.pages[played.page].timeline.requests[i]);
  return {
    wait: played.wait,
    until: program.documents[played.page].program.interactions![played.interaction].until,
    complete: Math.max(played.wait, played.complete),
    bytes: asked.reduce((sum, r) => sum + r.bytes, 0),
    requests: asked.length,
    hops: new Set(asked.map((r) => r.hop)).size,
  };
}
