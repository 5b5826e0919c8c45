import { leadToPieces } from '../../core/load/drawn-by-packages.ts';
import { graphIndex } from '../../core/snapshot/graph-index.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import type { FunctionsOf } from '../runs/functions-of.ts';
import { isSingleFile } from '../single-file.ts';

/**
 * Notes of modules what their functions have packages draw: pieces of interface (`new Chart(canvas)`, `L.map(element)`), in their own code or in functions of
 * other modules that they call for it. What only a handler calls is drawn once somebody acts.
 */
export function addMadePieces(snapshot: Snapshot, functions: Pick<FunctionsOf, 'at'>): void {
  const { modules, imports } = snapshot;
  const leads = leadToPieces(snapshot);
  if (leads.size === 0) return;
  const { inStart, incoming } = graphIndex(snapshot);
  // Makers come behind what they are made of.
  const open = [...leads.keys()];
  const makers = new Set(open);
  const makes = new Map<number, Set<number>>();
  for (const made of open) {
    // Compilers have components called by those around them; each is drawn by itself.
    if (isSingleFile(modules[made].path)) continue;
    for (let e = inStart[made]; e < inStart[made + 1]; e++) {
      const { from, kind, specifier } = imports[incoming[e]];
      const { package: name, kind: is, path } = modules[from];
      if (kind !== 'static' || name !== null || is !== 'script' || !functions.at(path).imports.has(specifier)) continue;
      makes.set(from, (makes.get(from) ?? new Set()).add(made));
      if (!makers.has(from)) open.push(from);
      makers.add(from);
    }
  }
  for (const [m, made] of makes) modules[m].makes = [...made].sort((a, b) => a - b);
}
