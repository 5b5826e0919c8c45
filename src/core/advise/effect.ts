import { planWith } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import { troublesOf } from '../ship/shipped.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { landingCost } from './score.ts';
import type { Effect, Remedy, RouteScore, Score, Seen, WaitScore } from './types.ts';

/** Differences below this are not told, in ms. */
const TOLD = 0.5;
/** Seen less often than this per visit, it is no difference. */
export const LEAST_SEEN = 0.001;
/** Of what helps in other ways: so much may it cost, in expected ms per visit. */
export const SMALL_LOSS = 3;

/** What a change does to the visitors: the differences of two scores of one app (times in ms, sizes in bytes). */
export function effectOf(before: Score, after: Score): Effect {
  const was = new Map(before.routes.map((r) => [r.pattern, r]));
  const waited = new Map(before.waits.map((w) => [w.key, w]));
  const routes = after.routes
    .map((now) => {
      const old = was.get(now.pattern)!;
      return {
        pattern: now.pattern,
        share: now.share,
        firstContent: now.firstContent - old.firstContent,
        interactive: now.interactive - old.interactive,
        startBytes: now.startBytes - old.startBytes,
        otherScripts: now.otherScripts - old.otherScripts,
        alsoFetched: now.alsoFetched - old.alsoFetched,
        hops: now.hops - old.hops,
        cost: (landingCost(now) - landingCost(old)) * now.share,
      };
    })
    .filter((r) => Math.abs(r.interactive) > TOLD || Math.abs(r.firstContent) > TOLD || r.startBytes !== 0)
    .sort((a, b) => Math.abs(b.cost) - Math.abs(a.cost))
    .map(({ cost: _, ...r }) => r);
  const waits = after.waits
    .map(({ key, route, name, wait }) => ({ key, route, name, change: wait - (waited.get(key)?.wait ?? wait) }))
    .filter((w) => Math.abs(w.change) > TOLD)
    .sort((a, b) => Math.abs(b.change) - Math.abs(a.change));
  const waiting = (score: Score) => score.waits.reduce((sum, w) => sum + w.first * w.wait, 0);
  return {
    cost: after.cost - before.cost,
    waste: after.waste - before.waste,
    seen: seenChange(before, after),
    routes,
    perVisit: waiting(after) - waiting(before),
    waits,
  };
}

function seenChange(before: Score, after: Score): Seen {
  const moved = (routes: readonly RouteScore[]) => routes.reduce((sum, r) => sum + r.share * r.moves, 0);
  const often = (waits: readonly WaitScore[], what: 'flashes' | 'silent') =>
    waits.reduce((sum, w) => sum + (w[what] ? w.perVisit : 0), 0);
  return {
    moves: moved(after.routes) - moved(before.routes),
    flashes: often(after.waits, 'flashes') - often(before.waits, 'flashes'),
    silent: often(after.waits, 'silent') - often(before.waits, 'silent'),
  };
}

/** Detachments of a way that take more than detaching, in words. */
export function cautionsOf(app: Snapshot, plan: Plan, remedy: Remedy): string[] {
  const blockedBy = (p: Plan) => troublesOf(app, p).blocked.map((b) => `${b.import}: ${b.reason} (line ${b.line})`);
  const before = new Set(blockedBy(plan));
  return [...new Set(blockedBy(planWith(plan, remedy)))].filter((words) => !before.has(words));
}

/** What goes wrong to be seen, all of it; the worst of the three counts if any grows. */
export function seenSum({ seen: { moves, flashes, silent } }: Effect): number {
  return Math.max(moves, flashes, silent) > LEAST_SEEN ? Number.POSITIVE_INFINITY : moves + flashes + silent;
}
