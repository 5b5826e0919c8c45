import type { ShapedAtom } from './shaped-atom.ts';

/**
 * Merges atoms below a size, the smallest first, each with the partner that adds the least expected unneeded bytes:
 * what roots that need only one of the two would then fetch in vain, weighed by how often they are asked for.
 */
export function mergeSmall(atoms: ShapedAtom[], floor: number, weight: readonly number[]): ShapedAtom[] {
  const open = [...atoms];
  const tooSmall = (a: ShapedAtom) => a.bytes < floor && !a.fixed;
  const stuck = new Set<ShapedAtom>();
  for (;;) {
    let smallest: ShapedAtom | null = null;
    for (const a of open) {
      if (tooSmall(a) && !stuck.has(a) && (smallest === null || before(a, smallest))) smallest = a;
    }
    if (smallest === null) return open;
    const partner = cheapest(smallest, open, weight);
    if (partner === null) {
      stuck.add(smallest);
      continue;
    }
    open.splice(open.indexOf(partner), 1);
    open.splice(open.indexOf(smallest), 1, merged(smallest, partner));
  }
}

/** Merges within each root's load group until it has at most so many chunks, the cheapest pair first. */
export function mergeToCeiling(atoms: ShapedAtom[], ceiling: number, weight: readonly number[]): ShapedAtom[] {
  let open = [...atoms];
  for (let root = 0; root < weight.length; root++) {
    for (;;) {
      const group = open.filter((a) => a.roots.includes(root));
      if (group.length <= ceiling) break;
      let best: { a: ShapedAtom; b: ShapedAtom; cost: number } | null = null;
      for (const [i, a] of group.entries()) {
        for (const b of group.slice(i + 1)) {
          if (!canMerge(a, b)) continue;
          const cost = waste(a, b, weight);
          if (best === null || cost < best.cost) best = { a, b, cost };
        }
      }
      if (best === null) break;
      const { a, b } = best;
      open = open.flatMap((o) => (o === a ? [merged(a, b)] : o === b ? [] : [o]));
    }
  }
  return open;
}

function cheapest(atom: ShapedAtom, open: readonly ShapedAtom[], weight: readonly number[]): ShapedAtom | null {
  let best: ShapedAtom | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const other of open) {
    if (other === atom || !canMerge(atom, other)) continue;
    const cost = waste(atom, other, weight);
    if (cost < least || (cost === least && best !== null && before(other, best))) {
      best = other;
      least = cost;
    }
  }
  return best;
}

function canMerge(a: ShapedAtom, b: ShapedAtom): boolean {
  return a.kind === b.kind && !a.fixed && !b.fixed;
}

/** Expected bytes fetched in vain once two atoms are one. */
function waste(a: ShapedAtom, b: ShapedAtom, weight: readonly number[]): number {
  let sum = 0;
  for (const r of a.roots) if (!b.roots.includes(r)) sum += weight[r] * b.bytes;
  for (const r of b.roots) if (!a.roots.includes(r)) sum += weight[r] * a.bytes;
  return sum;
}

/** Any one order that doesn't depend on how the input was sorted. */
function before(a: ShapedAtom, b: ShapedAtom): boolean {
  return a.bytes !== b.bytes ? a.bytes < b.bytes : a.first < b.first;
}

/** Two atoms as one, under the name and marks of the first. */
export function merged(a: ShapedAtom, b: ShapedAtom): ShapedAtom {
  const modules = [...new Set([...a.modules, ...b.modules])];
  const roots = [...new Set([...a.roots, ...b.roots])].sort((x, y) => x - y);
  return { ...a, roots, modules, bytes: a.bytes + b.bytes, first: Math.min(a.first, b.first) };
}
