import type { Snapshot } from '../snapshot/types.ts';
import { fileOf, type Uncompiled } from './compilation.ts';
import { FIRST_FORMATS_MS } from './first-format-cost.ts';

/** The first file of a landing whose code makes such an object as it runs takes that much longer. */
export function addFirstFormats({ snapshot, graph, landing, files }: Uncompiled): void {
  const makers = makersIn(snapshot);
  if (makers.length === 0) return;
  const holders = new Set(makers.map((m) => fileOf(snapshot, graph, landing, files, m)));
  for (const landed of landing.roots)
    for (const at of files.groups[files.groupOf(landed.root)].resources)
      if (holders.has(at)) {
        files.resources[at].cpuMs += FIRST_FORMATS_MS;
        files.resources[at].tabledMs = FIRST_FORMATS_MS;
        return;
      }
}

const known = new WeakMap<Snapshot, number[]>();

/** Modules that make one as they run; where somebody measured what running them takes, that is in it. */
function makersIn(snapshot: Snapshot): number[] {
  let found = known.get(snapshot);
  if (!found) {
    found = snapshot.modules.flatMap((m, at) => (m.startsFormats && m.evaluationMs === undefined ? [at] : []));
    known.set(snapshot, found);
  }
  return found;
}
