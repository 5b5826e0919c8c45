import type { Plan } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { planned } from './planned.ts';
import { evaluationOrder, postOrder } from './reach.ts';

/** Two style sheets that one root wants in one order and another root in the other. */
export interface StyleConflict {
  realm: string;
  first: string;
  second: string;
  /** Paths of the targets: this one imports `first` before `second`; */
  asSaid: string;
  /** … and this one the other way round. */
  reversed: string;
  /** How many pairs of roots disagree about these two; the named ones are the first of them. */
  pairs: number;
}

interface Order {
  name: string;
  places: Map<number, number>;
  /** Whether it goes along with the order of the whole realm: two that do can't contradict each other. */
  straight: boolean;
}

/**
 * Style sheets whose order contradicts itself. Sheets keep the order of their imports (depth first, post-order), and a
 * file holds them in one order only: where two roots want two sheets in different orders, which rule wins depends on
 * which root came first. Of two roots that disagree the first two sheets are told, and each two sheets once.
 */
export function styleConflicts(snapshot: Snapshot, plan: Plan): StyleConflict[] {
  const isStyle = Uint8Array.from(snapshot.modules, (m) => (m.kind === 'style' ? 1 : 0));
  if (!isStyle.includes(1)) return [];
  const index = graphIndex(snapshot);
  const {
    plan: { deferred },
    graph,
  } = planned(snapshot, plan);
  const found = new Map<string, StyleConflict>();
  for (const realm of graph.realms) {
    const roots = graph.roots.filter((r) => r.realm === realm);
    const whole = evaluationOrder(
      index,
      deferred,
      roots.flatMap((r) => r.target),
    );
    const orders = roots.map((root): Order => {
      const sheets = postOrder(index, deferred, root.target).filter((m) => isStyle[m] === 1);
      return {
        name: snapshot.modules[root.target[0]]?.path ?? realm,
        places: new Map(Array.from(sheets, (m, place) => [m, place])),
        straight: sheets.every((m, place) => place === 0 || whole[sheets[place - 1]] < whole[m]),
      };
    });
    orders.forEach((one, at) => {
      for (const other of orders.slice(at + 1)) {
        const pair = one.straight && other.straight ? null : firstConflict(one.places, other.places);
        if (!pair) continue;
        const key = `${realm} ${Math.min(...pair)} ${Math.max(...pair)}`;
        const [first, second] = pair.map((m) => snapshot.modules[m].path);
        const existing = found.get(key);
        if (existing) existing.pairs++;
        else found.set(key, { realm, first, second, asSaid: one.name, reversed: other.name, pairs: 1 });
      }
    });
  }
  return [...found.values()];
}

/** Two sheets that both have, next to each other in one among those, in different orders; null without such. */
function firstConflict(one: Map<number, number>, other: Map<number, number>): [number, number] | null {
  let before = -1;
  for (const m of one.keys()) {
    const place = other.get(m);
    if (place === undefined) continue;
    if (before >= 0 && other.get(before)! > place) return [before, m];
    before = m;
  }
  return null;
}
