import type { PlannedApp } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { followLanding } from '../load/landing.ts';
import type { Wish } from '../visitors/reckon.ts';

/** By chunk graph, as landings of one graph ask for the same files. */
const cached = new WeakMap<ChunkGraph, Map<string, number>>();

/**
 * Compressed bytes of modules that travel in files which a landing needs, though neither it nor, as far as is known of visitors, what they do there
 * next needs them: shared files, gathered packages, copies. `stays`: how often a visit is on the route.
 */
export function bytesInVain(app: PlannedApp, pattern: string, wishes: readonly Wish[], stays: number): number {
  const known = cached.get(app.graph) ?? new Map<string, number>();
  cached.set(app.graph, known);
  const bytes = known.get(pattern) ?? inVain(app, pattern, wishes, stays);
  known.set(pattern, bytes);
  return bytes;
}

function inVain(
  { snapshot, plan, graph }: PlannedApp,
  pattern: string,
  wishes: readonly Wish[],
  stays: number,
): number {
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  if (!route) return 0;
  const needed = new Set<number>();
  const chunks = new Set<number>();
  for (const { root } of followLanding(snapshot, plan, graph, route).roots) {
    for (const m of graph.roots[root].need) needed.add(m);
    for (const chunk of graph.roots[root].group) chunks.add(chunk);
  }
  const left = new Map<number, number>();
  for (const chunk of chunks) for (const m of graph.chunks[chunk].modules) if (!needed.has(m)) left.set(m, 1);
  if (left.size === 0) return 0;
  for (const { route: from, module, perVisit } of wishes) {
    if (from !== pattern || stays === 0) continue;
    const share = Math.min(1, perVisit / stays);
    for (const root of graph.roots) {
      if (snapshot.modules[root.target[0]]?.path !== module) continue;
      for (const m of root.need) if (left.has(m)) left.set(m, left.get(m)! * (1 - share));
    }
  }
  let sum = 0;
  for (const [m, chance] of left) sum += snapshot.modules[m].bytes.marginal * chance;
  return sum;
}
