import { landingShares } from '../snapshot/landing-shares.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Habits, RouteNotes, Spread, VisitorModel, VisitorNotes } from '../snapshot/visitor-types.ts';

/** Where nothing is said: assumptions, named as such wherever they are shown. */
export const ASSUMED = {
  dwell: { medianMs: 6000, spread: 0.8 },
  hesitation: { medianMs: 300, spread: 0.6 },
  /** Share of stays on a route with links that go on to one of them, each alike. */
  goesOn: 0.5,
} satisfies { dwell: Spread; hesitation: Spread; goesOn: number };

/** What of the notes doesn't fit: shares that exceed the whole, routes and parts that the app doesn't have. */
export interface ModelTrouble {
  /** The route that it is about. */
  route: string;
  message: string;
  /** The sum of shares that should be 1 at most; others can't be mended by scaling. */
  sum?: number;
}

/**
 * The visitors of an app: what its notes say, and assumptions for the rest. Shares of moves that exceed 1 together are
 * scaled, moves to unknown routes and acts on unknown parts left aside; `troubles` names all of these.
 */
export function modelOf(snapshot: Snapshot): { model: VisitorModel; troubles: ModelTrouble[] } {
  const notes = snapshot.visitors ?? {};
  const troubles: ModelTrouble[] = [];
  const known = new Map(snapshot.routes.map((r) => [r.pattern, r]));
  for (const { pattern } of notes.routes ?? [])
    if (!known.has(pattern))
      troubles.push({ route: pattern, message: `what is said of ${pattern} is left aside: there is no such route` });
  const landings = landingShares(snapshot.routes);
  const hesitation = notes.hesitation ?? ASSUMED.hesitation;
  const model: VisitorModel = {
    segments: segmentsOf(snapshot, notes),
    touch: notes.touch ?? null,
    dataSaver: notes.dataSaver ?? 0,
    returning: notes.returning ?? 0,
    deployed: notes.deployed ?? 0,
    hesitation,
    routes: snapshot.routes.map((route) => {
      const said = notes.routes?.find((r) => r.pattern === route.pattern) ?? { pattern: route.pattern };
      return {
        pattern: route.pattern,
        page: route.page,
        landings: landings.get(route.pattern) ?? 0,
        dwell: said.dwell ?? ASSUMED.dwell,
        moves: movesOf(route, said, known, troubles),
        acts: actsOf(route, said, hesitation, troubles),
        conditions: route.parts.flatMap((part) => conditionOf(part)),
      };
    }),
  };
  return { model, troubles };
}

/** The notes with the shares of moves from a route scaled so that they add up to 1. */
export function scaled(notes: VisitorNotes, pattern: string): VisitorNotes {
  const routes = (notes.routes ?? []).map((r) => {
    const sum = (r.moves ?? []).reduce((all, m) => all + m.share, 0);
    if (r.pattern !== pattern || sum === 0) return r;
    return { ...r, moves: r.moves!.map((m) => ({ ...m, share: m.share / sum })) };
  });
  return { ...notes, routes };
}

/** Segments that are said, and those that only parts name: half of all visitors each. */
function segmentsOf(snapshot: Snapshot, notes: VisitorNotes): VisitorModel['segments'] {
  const segments = [...(notes.segments ?? [])];
  for (const { condition, share } of snapshot.routes.flatMap((r) => r.parts)) {
    if (condition?.kind !== 'segment' || segments.some((s) => s.name === condition.segment)) continue;
    segments.push({ name: condition.segment, share: share < 1 ? share : 0.5 });
  }
  return segments;
}

function movesOf(route: Route, said: RouteNotes, known: Map<string, Route>, troubles: ModelTrouble[]): Habits['moves'] {
  const links = route.links.filter((to) => known.has(to));
  const moves = said.moves ?? links.map((to) => ({ to, share: ASSUMED.goesOn / links.length }));
  const kept = moves.filter(({ to }) => {
    if (known.has(to)) return true;
    troubles.push({
      route: route.pattern,
      message: `a move from ${route.pattern} leads to ${to}, which is no route of this app`,
    });
    return false;
  });
  const sum = kept.reduce((all, m) => all + m.share, 0);
  if (sum <= 1.000_001) return kept;
  troubles.push({
    route: route.pattern,
    message: `the moves from ${route.pattern} add up to ${Math.round(sum * 100)} % of its stays; they count in proportion`,
    sum,
  });
  return kept.map((m) => ({ ...m, share: m.share / sum }));
}

function actsOf(route: Route, said: RouteNotes, hesitation: Spread, troubles: ModelTrouble[]): Habits['acts'] {
  for (const { part } of said.acts ?? []) {
    if (!route.parts.some((p) => p.id === part))
      troubles.push({
        route: route.pattern,
        message: `an act on ${route.pattern} is about ${part}, which is no part of it`,
      });
  }
  return route.parts
    .filter(
      (p) =>
        p.place === 'action' || p.place === 'below' || (p.place === 'first screen' && p.interactive && p.share < 1),
    )
    .map((part) => {
      const own = said.acts?.find((a) => a.part === part.id);
      return {
        part: part.id,
        name: part.name,
        module: part.module,
        scroll: part.place === 'below',
        share: own?.share ?? part.share,
        hesitation: own?.hesitation ?? hesitation,
      };
    });
}

function conditionOf({ id, place, condition, share }: Part): Habits['conditions'] {
  if (place !== 'conditional' || !condition || condition.kind === 'media') return [];
  if (condition.kind === 'segment') return [{ part: id, share, segment: condition.segment }];
  return [{ part: id, share, ...(condition.kind === 'one of' ? { group: condition.group } : {}) }];
}
