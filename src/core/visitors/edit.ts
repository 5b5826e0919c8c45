import type { Habits, RouteNotes, Spread, VisitorNotes } from '../snapshot/visitor-types.ts';

/** Notes with one share of moves said; what was assumed of the route's other moves is said with it, so that it stays. */
export function withMove(notes: VisitorNotes, habits: Habits, to: string, share: number): VisitorNotes {
  const others = movesOf(notes, habits).filter((m) => m.to !== to);
  const was = movesOf(notes, habits).findIndex((m) => m.to === to);
  const moves = was < 0 ? [...others, { to, share }] : others.toSpliced(was, 0, { to, share });
  return withRoute(notes, habits.pattern, { moves: moves.filter((m) => m.share > 0 || m.to === to) });
}

/** Notes in which the share of stays that act on a part is said. */
export function withAct(notes: VisitorNotes, habits: Habits, part: string, share: number): VisitorNotes {
  const said = notes.routes?.find((r) => r.pattern === habits.pattern)?.acts ?? [];
  const act = { ...said.find((a) => a.part === part), part, share };
  return withRoute(notes, habits.pattern, { acts: [...said.filter((a) => a.part !== part), act] });
}

/** Notes in which it is said how long people stay on a route. */
export function withDwell(notes: VisitorNotes, pattern: string, dwell: Spread): VisitorNotes {
  return withRoute(notes, pattern, { dwell });
}

/** The moves as they were said, unscaled; else as they are assumed. */
export function movesOf(notes: VisitorNotes, habits: Habits): { to: string; share: number }[] {
  return notes.routes?.find((r) => r.pattern === habits.pattern)?.moves ?? habits.moves;
}

function withRoute(notes: VisitorNotes, pattern: string, change: Partial<RouteNotes>): VisitorNotes {
  const routes = notes.routes ?? [];
  const at = routes.findIndex((r) => r.pattern === pattern);
  const next = { ...(routes[at] ?? { pattern }), ...change };
  return { ...notes, routes: at < 0 ? [...routes, next] : routes.with(at, next) };
}
