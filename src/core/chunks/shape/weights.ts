import { landingShares } from '../../snapshot/landing-shares.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import type { RootDraft } from '../roots.ts';

/** How often a split point without a noted part is taken to be asked for, per visit. An assumption. */
const UNKNOWN_SHARE = 0.2;

/**
 * How often each root of a realm is asked for, per landing: the entry always, pages and layouts by their share of the
 * landings  split points by the visits that need their part.
 */
export function rootWeights(snapshot: Snapshot, drafts: readonly RootDraft[]): number[] {
  const patterns = drafts[0]?.routes ?? [];
  const shares = landingShares(snapshot.routes.filter((r) => patterns.includes(r.pattern)));
  const landing = (pattern: string) => shares.get(pattern) ?? 0;
  const needed = new Map<string, number>();
  for (const route of snapshot.routes) {
    if (!patterns.includes(route.pattern)) continue;
    for (const part of route.parts)
      needed.set(part.module, (needed.get(part.module) ?? 0) + part.share * landing(route.pattern));
  }
  return drafts.map((draft, r) => {
    if (r === 0) return 1;
    if (draft.kind === 'page' || draft.kind === 'layout') return draft.routes.reduce((sum, p) => sum + landing(p), 0);
    return needed.get(snapshot.modules[draft.target[0]].path) ?? UNKNOWN_SHARE;
  });
}
