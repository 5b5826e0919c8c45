import { type EffectivePlan, effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { formChunks } from './form-chunks.ts';
import type { ChunkGraph } from './types.ts';

/** An app under a plan: its modules as they ship, the plan laid over them, and the chunks that come of it. */
export interface PlannedApp {
  snapshot: Snapshot;
  plan: EffectivePlan;
  graph: ChunkGraph;
}

/** Lays a plan over a snapshot (as the plan ships it, see `shipped`) and cuts it into chunks: once, for all later stages. */
export function planned(snapshot: Snapshot, plan: Plan): PlannedApp {
  const effective = effectivePlan(snapshot, plan);
  return { snapshot, plan: effective, graph: formChunks(snapshot, effective) };
}
