import type { GraphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** Modules that nothing but some imports bring, with these imports, and their size minified, in bytes. */
export interface Brought {
  imports: number[];
  modules: number[];
  weight: number;
}

/**
 * What a set of modules would be rid of if nothing in it were brought by imports that can wait, in pieces that have nothing in
 * common; each with the imports, from what stays, that bring it. `follows`: the imports that bring what they lead to.
 */
export function broughtOnlyBy(
  { imports, modules: all }: Pick<Snapshot, 'imports' | 'modules'>,
  index: GraphIndex,
  { roots, modules }: { roots: readonly number[]; modules: ReadonlySet<number> },
  follows: (i: number) => boolean,
  waits: (i: number) => boolean,
): Brought[] {
  const brings = function* (m: number) {
    for (let e = index.outStart[m]; e < index.outStart[m + 1]; e++) {
      const i = index.outgoing[e];
      if (follows(i) && modules.has(imports[i].to)) yield i;
    }
  };
  const stays = new Set(roots.filter((m) => modules.has(m)));
  const waiting: number[] = [];
  for (const m of stays)
    for (const i of brings(m))
      if (waits(i)) waiting.push(i);
      else stays.add(imports[i].to);
  const pieces: { imports: number[]; modules: Set<number> }[] = [];
  for (const i of waiting) {
    if (stays.has(imports[i].to)) continue;
    const own = new Set([imports[i].to]);
    for (const m of own) for (const k of brings(m)) if (!stays.has(imports[k].to)) own.add(imports[k].to);
    const alike = pieces.filter((p) => [...own].some((m) => p.modules.has(m)));
    for (const p of alike) pieces.splice(pieces.indexOf(p), 1);
    pieces.push({
      imports: [...alike.flatMap((p) => p.imports), i],
      modules: new Set([...alike.flatMap((p) => [...p.modules]), ...own]),
    });
  }
  return pieces.map((p) => ({
    imports: p.imports,
    modules: [...p.modules],
    weight: [...p.modules].reduce((sum, m) => sum + all[m].bytes.minified, 0),
  }));
}
