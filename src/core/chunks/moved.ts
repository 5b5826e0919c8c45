import { withDecision } from '../plan/decisions.ts';
import type { Decision, Plan } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { planned } from './planned.ts';
import type { ChunkGraph } from './types.ts';

/** What a root's load group gains or loses by a change of the plan, in minified bytes of modules. */
export interface Moved {
  root: string;
  bytes: number;
}

/**
 * What the needs of all roots gain (above 0) or lose by decisions: the new split point brings what left the start, and
 * other roots bring themselves what is no longer present when they are asked for. Largest first.
 */
export function movedBy(snapshot: Snapshot, plan: Plan, decisions: Decision[], before?: ChunkGraph): Moved[] {
  const sizes = (graph: ChunkGraph) =>
    new Map(
      graph.roots.map((r) => [r.id, [...r.need].reduce((sum, m) => sum + snapshot.modules[m].bytes.minified, 0)]),
    );
  const old = sizes(before ?? planned(snapshot, plan).graph);
  const now = sizes(planned(snapshot, decisions.reduce(withDecision, plan)).graph);
  const roots = new Set([...old.keys(), ...now.keys()]);
  return [...roots]
    .map((root) => ({ root, bytes: (now.get(root) ?? 0) - (old.get(root) ?? 0) }))
    .filter((m) => m.bytes !== 0)
    .sort((a, b) => Math.abs(b.bytes) - Math.abs(a.bytes) || (a.root < b.root ? -1 : 1));
}
