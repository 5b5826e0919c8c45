import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorNotes } from '../snapshot/visitor-types.ts';
import type { Learned } from '../visitors/learn.ts';
import type { Visit } from '../visits/types.ts';
import { withChange } from './edit.ts';
import type { Amendments } from './types.ts';

/** Amendments with a kept visit, in place of an older one of the same name. */
export function withVisit(amendments: Amendments, visit: Visit): Amendments {
  const others = (amendments.visits ?? []).filter((v) => v.name !== visit.name);
  return { ...amendments, visits: [...others, visit] };
}

/** Amendments in which what is said of the visitors is replaced. */
export function withVisitors(amendments: Amendments, visitors: VisitorNotes): Amendments {
  return { ...amendments, visitors };
}

/**
 * Amendments with what a log says in place of what was said of the routes that it knows: landings, moves, acts and dwell
 * times. Routes that the log never met keep what was said, but nobody lands on them.
 */
export function withLearned(
  amendments: Amendments,
  snapshot: Pick<Snapshot, 'routes' | 'visitors'>,
  { landings, notes }: Pick<Learned, 'landings' | 'notes'>,
): Amendments {
  const said = amendments.visitors ?? snapshot.visitors ?? {};
  const met = new Set((notes.routes ?? []).map((r) => r.pattern));
  const routes = [...(said.routes ?? []).filter((r) => !met.has(r.pattern)), ...(notes.routes ?? [])];
  const counts = new Map(landings.map((l) => [l.pattern, l.landings]));
  let next = withVisitors(amendments, { ...said, routes });
  for (const { pattern, realm } of snapshot.routes) {
    next = withChange(next, { realm, pattern }, { landings: counts.get(pattern) ?? 0 });
  }
  return next;
}
