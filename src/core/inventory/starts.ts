import type { PlannedApp } from '../chunks/planned.ts';
import { planned } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { firstScreenOf } from '../load/first-screen.ts';
import { followLanding, type Landing } from '../load/landing.ts';
import type { Plan } from '../plan/types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** The start of one route: see START_SUMS. */
export interface Start {
  route: Route;
  landing: Landing;
  /** Chunks that the landing asks for because its first screen needs them. */
  chunks: Set<number>;
  /** Modules in them, whether the first screen needs these or not. */
  modules: Set<number>;
}

export interface Starts extends PlannedApp {
  starts: Start[];
}

/** The starts of all routes under a plan, with what any screen asks for. */
export function startsOf(snapshot: Snapshot, plan: Plan): Starts {
  const app = planned(snapshot, plan);
  const { plan: effective, graph } = app;
  const starts = snapshot.routes.map((route): Start => {
    const landing = followLanding(snapshot, effective, graph, route);
    const { roots } = firstScreenOf(snapshot, effective, graph, landing);
    const chunks = new Set(landing.roots.filter((l) => roots.has(l.root)).flatMap((l) => graph.roots[l.root].group));
    return { route, landing, ...startOf(graph, chunks) };
  });
  return { ...app, starts };
}

/** A start made of these chunks. */
export function startOf(graph: ChunkGraph, chunks: Set<number>): Pick<Start, 'chunks' | 'modules'> {
  return { chunks, modules: new Set([...chunks].flatMap((c) => graph.chunks[c].modules)) };
}
