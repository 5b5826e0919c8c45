import { formChunks } from '../chunks/form-chunks.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { followLanding, type Landing } from '../load/landing.ts';
import { type EffectivePlan, effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import type { Route, Snapshot } from '../snapshot/types.ts';

/** What arrives at the start of one route. */
export interface Start {
  route: Route;
  landing: Landing;
  /** Modules in the files that the landing fetches by itself. */
  modules: Set<number>;
  /** Chunks that they come in. */
  chunks: Set<number>;
}

export interface Starts {
  graph: ChunkGraph;
  effective: EffectivePlan;
  starts: Start[];
}

/** The starts of all routes under a plan. */
export function startsOf(snapshot: Snapshot, plan: Plan): Starts {
  const graph = formChunks(snapshot, plan);
  const effective = effectivePlan(snapshot, plan);
  const starts = snapshot.routes.map((route): Start => {
    const landing = followLanding(snapshot, effective, graph, route);
    const chunks = new Set(landing.roots.flatMap((l) => graph.roots[l.root].group));
    const modules = new Set([...chunks].flatMap((c) => graph.chunks[c].modules));
    return { route, landing, modules, chunks };
  });
  return { graph, effective, starts };
}
