import type { Module, Package } from '../snapshot/module-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { weightOf } from './package-weights.ts';
import type { Chunk } from './types.ts';

/** What is known of what running modules costs: measured, or sizes that a device's rate is applied to. */
export type EvaluationCost = Pick<Chunk, 'measuredMs' | 'elsewhereMs' | 'estimatedBytes' | 'tabledBytes'>;

/** What running a module takes by itself, in ms on the reference device, where somebody measured it: of this app, else of others. */
export const measuredOf = ({ evaluationMs, elsewhereMs }: Module): number | undefined => evaluationMs ?? elsewhereMs;

interface Columns {
  measured: Float64Array;
  /** What of that was measured in other apps. */
  elsewhere: Float64Array;
  /** Minified bytes, as many times as the code of the module's package is dearer than code is on average. */
  estimated: Float64Array;
  tabled: Float64Array;
}

const known = new WeakMap<Snapshot, Columns>();

function columnsOf(snapshot: Snapshot): Columns {
  const found = known.get(snapshot);
  if (found) return found;
  const { modules, packages } = snapshot;
  const byName = new Map<string, Package[]>();
  for (const p of packages) byName.set(p.name, [...(byName.get(p.name) ?? []), p]);
  const made = {
    measured: new Float64Array(modules.length),
    elsewhere: new Float64Array(modules.length),
    estimated: new Float64Array(modules.length),
    tabled: new Float64Array(modules.length),
  };
  modules.forEach((module, m) => {
    const { path, bytes, kind, package: name } = module;
    const known = measuredOf(module);
    if (known !== undefined) {
      made.measured[m] = known;
      if (module.evaluationMs === undefined) made.elsewhere[m] = known;
      return;
    }
    if (kind === 'style') return;
    // Code of another major version is nearer to the one that was measured than to the average.
    const tabled = name === null ? null : weightOf(name, versionAt(byName.get(name) ?? [], path));
    made.estimated[m] = bytes.minified * (tabled?.weight ?? 1);
    if (tabled?.isMeasured) made.tabled[m] = made.estimated[m];
  });
  known.set(snapshot, made);
  return made;
}

/** The version that a module is of: of several copies of a package the one in whose folder it lies. */
function versionAt(copies: readonly Package[], path: string): string | null {
  if (copies.length < 2) return copies[0]?.version ?? null;
  const around = copies.filter(({ folder }) => path.startsWith(`${folder}/`));
  return around.sort((a, b) => b.folder.length - a.folder.length)[0]?.version ?? null;
}

/** The sums of some modules. */
export function evaluationCost(snapshot: Snapshot, modules: readonly number[]): EvaluationCost {
  const { measured, elsewhere, estimated, tabled } = columnsOf(snapshot);
  const sum = { measuredMs: 0, elsewhereMs: 0, estimatedBytes: 0, tabledBytes: 0 };
  for (const m of modules) {
    sum.measuredMs += measured[m];
    sum.elsewhereMs += elsewhere[m];
    sum.estimatedBytes += estimated[m];
    sum.tabledBytes += tabled[m];
  }
  return sum;
}
