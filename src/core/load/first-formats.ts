import type { Snapshot } from '../snapshot/types.ts';
import { fileOf, type Uncompiled } from './compilation.ts';

/**
 * What the first object costs on a page that formats numbers, dates or texts of a language, in ms on the reference machine: the browser loads what it knows of
 * languages. Further ones are cheap. Measured in Chromium: 20 to 24 ms in 13 of 14 new pages (docs/SIMULATOR.md).
 */
export const FIRST_FORMATS_MS = 22;

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
