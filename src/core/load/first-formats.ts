import { measuredOf } from '../chunks/evaluation-cost.ts';
import { fileOf, type Uncompiled } from './compilation.ts';
import { FIRST_FORMATS_MS, formatStarters } from './first-format-cost.ts';

/** The first file of a landing whose code makes such an object as it runs takes that much longer. */
export function addFirstFormats({ snapshot, graph, landing, files }: Uncompiled): void {
  // Where somebody measured what running a module takes, that is in it.
  const makers = formatStarters(snapshot).filter((m) => measuredOf(snapshot.modules[m]) === undefined);
  if (makers.length === 0) return;
  const holders = new Set(makers.map((m) => fileOf(snapshot, graph, landing, files, m)));
  for (const landed of landing.roots)
    for (const at of files.groups[files.groupOf(landed.root)].resources)
      if (holders.has(at)) {
        files.resources[at].cpuMs += FIRST_FORMATS_MS;
        files.resources[at].tabledMs = FIRST_FORMATS_MS + (files.resources[at].tabledMs ?? 0);
        return;
      }
}
