import { isUnshaped, type Shaping } from '../../plan/shaping.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import type { Atom } from '../atoms.ts';
import { mergeSmall, mergeToCeiling } from './merge.ts';
import type { ShapedAtom } from './shaped-atom.ts';

/**
 * Puts atoms into files as a plan wishes, in this order: one file per module, keep apart, gather, keep together, copy
 * instead of share, size floor, request ceiling. Real files of an output stay as they are. No module is lost, and none
 * is in two files unless it was copied. `weight`: how often each root is asked for.
 */
export function shapeAtoms(
  snapshot: Snapshot,
  atoms: Atom[],
  shaping: Shaping,
  weight: readonly number[],
  order: Int32Array,
): Atom[] {
  if (isUnshaped(shaping)) return atoms;
  const real = atoms.filter((a) => a.file);
  const sized = (atom: Atom, fixed = false): ShapedAtom => ({
    ...atom,
    fixed,
    bytes: atom.modules.reduce((sum, m) => sum + snapshot.modules[m].bytes.minified, 0),
    first: Math.min(...atom.modules.map((m) => order[m])),
  });
  let open = atoms.filter((a) => !a.file).map((a) => sized(a));
  if (shaping.eachModule) open = open.flatMap((a) => runs(a, snapshot, shaping.floor)).map((a) => sized(a));
  for (const members of shaping.apart) open = apart(open, members, sized);
  for (const { name, modules } of shaping.gather) open = gathered(open, modules, sized, name);
  for (const modules of shaping.together) open = gathered(open, modules, sized);
  if (shaping.copyBelow > 0) open = copied(open, shaping.copyBelow, sized);
  if (shaping.floor > 0) open = mergeSmall(open, shaping.floor, weight);
  if (shaping.ceiling < Number.POSITIVE_INFINITY) open = mergeToCeiling(open, shaping.ceiling, weight);
  const made = open.map(({ bytes: _, first: __, fixed: ___, ...atom }): Atom => {
    return { ...atom, modules: [...atom.modules].sort((a, b) => order[a] - order[b]) };
  });
  return [...real, ...made].sort(
    (a, b) =>
      (a.kind === b.kind ? 0 : a.kind === 'style' ? -1 : 1) ||
      b.roots.length - a.roots.length ||
      order[a.modules[0]] - order[b.modules[0]],
  );
}

type Sized = (atom: Atom, fixed?: boolean) => ShapedAtom;

/** An atom cut into its modules; with a floor, into runs of neighbours that reach it. */
function runs(atom: Atom, snapshot: Snapshot, floor: number): Atom[] {
  const cut: Atom[] = [];
  let bytes = Number.POSITIVE_INFINITY;
  for (const m of atom.modules) {
    if (bytes >= floor) {
      cut.push({ ...atom, modules: [] });
      bytes = 0;
    }
    cut.at(-1)!.modules.push(m);
    bytes += snapshot.modules[m].bytes.minified;
  }
  return cut;
}

function apart(atoms: ShapedAtom[], members: ReadonlySet<number>, sized: Sized): ShapedAtom[] {
  return atoms.flatMap((a) => {
    const inside = a.modules.filter((m) => members.has(m));
    if (inside.length === 0) return [a];
    const outside = a.modules.filter((m) => !members.has(m));
    const own = sized({ ...a, modules: inside }, true);
    return outside.length === 0 ? [own] : [own, sized({ ...a, modules: outside }, a.fixed)];
  });
}

/** Matching modules of all atoms in one, scripts and styles each; whoever needs one of them gets all. */
function gathered(atoms: ShapedAtom[], members: ReadonlySet<number>, sized: Sized, name?: string): ShapedAtom[] {
  const out: ShapedAtom[] = [];
  const made = new Map<Atom['kind'], { roots: Set<number>; modules: number[] }>();
  for (const a of atoms) {
    const inside = a.modules.filter((m) => members.has(m));
    if (inside.length === 0) {
      out.push(a);
      continue;
    }
    const one = made.get(a.kind) ?? { roots: new Set<number>(), modules: [] };
    for (const r of a.roots) one.roots.add(r);
    one.modules.push(...inside);
    made.set(a.kind, one);
    const outside = a.modules.filter((m) => !members.has(m));
    if (outside.length > 0) out.push(sized({ ...a, modules: outside }, a.fixed));
  }
  for (const [kind, { roots, modules }] of made) {
    const atom: Atom = { kind, roots: [...roots].sort((a, b) => a - b), modules, ...(name ? { name } : {}) };
    out.push(sized(atom, name !== undefined));
  }
  return out;
}

/** Shared scripts below a size go into the own chunk of each root that needs them. */
function copied(atoms: ShapedAtom[], below: number, sized: Sized): ShapedAtom[] {
  const isCopied = (a: ShapedAtom) => a.kind === 'script' && !a.fixed && a.roots.length > 1 && a.bytes < below;
  const extra = new Map<number, number[]>();
  for (const a of atoms) {
    if (!isCopied(a)) continue;
    for (const r of a.roots) extra.set(r, [...(extra.get(r) ?? []), ...a.modules]);
  }
  const kept = atoms.filter((a) => !isCopied(a));
  const out = kept.map((a) => {
    const [only, ...others] = a.roots;
    const more = a.kind === 'script' && !a.fixed && others.length === 0 ? extra.get(only) : undefined;
    if (!more) return a;
    extra.delete(only);
    return sized({ ...a, modules: [...a.modules, ...more] });
  });
  for (const [r, modules] of extra) out.push(sized({ kind: 'script', roots: [r], modules }));
  return out;
}
