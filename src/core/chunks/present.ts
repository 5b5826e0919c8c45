import type { GraphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { addAll, type Bits, bitsOf, emptyBits, fillBits, manyBits } from './bits.ts';
import type { Reacher } from './reach.ts';
import type { RootDraft } from './roots.ts';

/**
 * Present(r): the modules certainly loaded when root r is requested. The greatest fixpoint of
 * Present(r) = ⋂ over the roots p that ask for r of Present(p) ∪ Reach(p); nothing for the entry. A page root
 * also has what the layouts of every chain that uses the page reach, since they always travel with it. Only layouts
 * that nothing of the page leads to count, and that are no pages themselves: what the page brings can't be there before it. Where
 * the same module serves another route as a layout, that chain counts as well.
 */
export function presentSets(snapshot: Snapshot, index: GraphIndex, reacher: Reacher, drafts: RootDraft[]): Bits[] {
  const size = snapshot.modules.length;
  const reach = drafts.map((d) => d.reach);
  const withPage = drafts.map((d, r) => (d.kind === 'page' ? layoutsReach(snapshot, index, reacher, drafts, r) : null));
  const present = manyBits(drafts.length, size);
  for (const bits of present.slice(1)) fillBits(bits, size);
  const now = emptyBits(size);
  const asks = drafts.map(() => [] as number[]);
  drafts.forEach((d, r) => {
    for (const p of new Set(d.askedBy.map((a) => a.root))) asks[p].push(r);
  });

  const waiting = drafts.map((_, r) => r).slice(1);
  const isWaiting = new Uint8Array(drafts.length).fill(1);
  const words = present[0].length;
  for (let next = 0; next < waiting.length; next++) {
    const r = waiting[next];
    isWaiting[r] = 0;
    const askers = new Set(drafts[r].askedBy.map((a) => a.root));
    fillBits(now, size);
    for (const p of askers) {
      const had = present[p];
      const own = reach[p];
      for (let w = 0; w < words; w++) now[w] &= had[w] | own[w];
    }
    const extra = withPage[r];
    if (extra) addAll(now, extra);
    if (same(now, present[r])) continue;
    present[r].set(now);
    for (const q of asks[r]) {
      if (q === 0 || isWaiting[q]) continue;
      isWaiting[q] = 1;
      waiting.push(q);
    }
  }
  return present;
}

function layoutsReach(
  snapshot: Snapshot,
  index: GraphIndex,
  reacher: Reacher,
  drafts: RootDraft[],
  page: number,
): Bits | null {
  const size = snapshot.modules.length;
  const { path } = snapshot.modules[drafts[page].target[0]];
  const alone = layoutsApart(drafts, page);
  let common: Bits | null = null;
  for (const route of snapshot.routes) {
    if (route.page !== path && !route.layouts.includes(path)) continue;
    const layouts = route.layouts
      .filter((l) => l !== path)
      .flatMap((l) => index.moduleAt.get(l) ?? [])
      .filter((m) => alone.has(m));
    const chain = bitsOf(reacher.from(layouts), size);
    if (common === null) common = chain;
    else for (let w = 0; w < common.length; w++) common[w] &= chain[w];
  }
  return common;
}

/** Targets of the layout roots that a page's own code doesn't lead to, at any remove. */
function layoutsApart(drafts: RootDraft[], page: number): Set<number> {
  const led = new Set([page]);
  for (let grew = true; grew; ) {
    grew = false;
    drafts.forEach((d, r) => {
      if (led.has(r) || !d.askedBy.some((a) => led.has(a.root))) return;
      led.add(r);
      grew = true;
    });
  }
  return new Set(drafts.flatMap((d, r) => (d.kind === 'layout' && !led.has(r) ? d.target : [])));
}

function same(a: Bits, b: Bits): boolean {
  for (let w = 0; w < a.length; w++) if (a[w] !== b[w]) return false;
  return true;
}
