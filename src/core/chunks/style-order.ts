import { effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { formChunks } from './form-chunks.ts';
import { postOrder } from './reach.ts';

/** Two style sheets that one root wants in one order and another root in the other. */
export interface StyleConflict {
  realm: string;
  first: string;
  second: string;
  /** Paths of the targets: this one imports `first` before `second`; */
  asSaid: string;
  /** … and this one the other way round. */
  reversed: string;
}

/**
 * Style sheets whose order contradicts itself. Sheets keep the order of their imports (depth first, post-order), and a
 * file holds them in one order only: where two roots want two sheets in different orders, which rule wins depends on
 * which root came first. One pair per two roots and first sheet is told.
 */
export function styleConflicts(snapshot: Snapshot, plan: Plan): StyleConflict[] {
  const index = graphIndex(snapshot);
  const { deferred } = effectivePlan(snapshot, plan);
  const isStyle = snapshot.modules.map((m) => m.kind === 'style');
  const graph = formChunks(snapshot, plan);
  const found: StyleConflict[] = [];
  for (const realm of graph.realms) {
    const orders = graph.roots
      .filter((r) => r.realm === realm)
      .map((r) => ({
        name: snapshot.modules[r.target[0]]?.path ?? realm,
        places: new Map(
          [...postOrder(index, deferred, r.target)].filter((m) => isStyle[m]).map((m, place) => [m, place]),
        ),
      }))
      .filter((o) => o.places.size > 1);
    orders.forEach((one, at) => {
      for (const other of orders.slice(at + 1)) {
        const pair = firstConflict(one.places, other.places);
        if (!pair) continue;
        const [first, second] = pair.map((m) => snapshot.modules[m].path);
        found.push({ realm, first, second, asSaid: one.name, reversed: other.name });
      }
    });
  }
  return found;
}

/** A pair of sheets that both have, next to each other in one among those, in different orders; null without one. */
function firstConflict(one: Map<number, number>, other: Map<number, number>): [number, number] | null {
  const shared = [...one.keys()].filter((m) => other.has(m));
  for (let i = 1; i < shared.length; i++) {
    if (other.get(shared[i - 1])! > other.get(shared[i])!) return [shared[i - 1], shared[i]];
  }
  return null;
}
