import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { ChunkBytes } from './types.ts';

/** Modules that travel together. Roots are numbered within their realm. */
export interface Atom {
  kind: 'script' | 'style';
  roots: number[];
  /** In evaluation order. */
  modules: number[];
  /** A name that a plan gives it. */
  name?: string;
  /** The real file that they lie in, for a production output; `unmapped`: bytes of it that belong to no module. */
  file?: { path: string; bytes: ChunkBytes; unmapped: number };
}

/** Refines the set of all modules root by root: two modules stay together while the same roots need both. */
export function atomsOf(snapshot: Snapshot, need: Uint32Array[], order: Int32Array): Atom[] {
  const { isStyle } = graphIndex(snapshot);
  const cell = new Int32Array(snapshot.modules.length);
  const touched: number[] = [];
  const rootsOfCell: number[][] = [[]];
  need.forEach((members, r) => {
    const next = new Map<number, number>();
    for (const m of members) {
      const old = cell[m];
      let now = next.get(old);
      if (now === undefined) {
        now = rootsOfCell.length;
        rootsOfCell.push([...rootsOfCell[old], r]);
        next.set(old, now);
      }
      if (old === 0) touched.push(m);
      cell[m] = now;
    }
  });
  // In the order of evaluation, so that the atoms need no sorting.
  const sequence = new Int32Array(snapshot.modules.length).fill(-1);
  for (const m of touched) sequence[order[m]] = m;
  const atoms = new Map<number, Atom>();
  for (const m of sequence) {
    if (m < 0) continue;
    const style = isStyle[m] === 1;
    const key = cell[m] * 2 + isStyle[m];
    let atom = atoms.get(key);
    if (!atom) {
      atom = { kind: style ? 'style' : 'script', roots: rootsOfCell[cell[m]], modules: [] };
      atoms.set(key, atom);
    }
    atom.modules.push(m);
  }
  return [...atoms.values()].sort(
    (a, b) =>
      (a.kind === b.kind ? 0 : a.kind === 'style' ? -1 : 1) ||
      b.roots.length - a.roots.length ||
      order[a.modules[0]] - order[b.modules[0]],
  );
}
