import type { Import } from '../../core/snapshot/module-types.ts';
import type { FoundImport } from '../found-import.ts';
import { RunTimes } from '../runs/run-times.ts';
import { SourceText } from '../source-text.ts';
import { definitionOf } from './prune.ts';
import type { ReadModule } from './read-module.ts';

/** Why an import can’t be deferred whose uses give their answer at once, though not while the module starts. */
const DRAWING = 'its answer is used at once, by code that can’t wait';

/**
 * Says of links whether they are only used when somebody acts, or once something was drawn. `asked`: modules of which
 * something else than an import may use what they export.
 */
export function timesOfUses(
  modules: ReadonlyMap<string, ReadModule>,
  asked: readonly string[],
): (from: ReadModule, found: FoundImport, to: string) => Pick<Import, 'onActs' | 'onEffects' | 'sync'> {
  const otherwise = new Set(asked);
  for (const { imports, runs } of modules.values())
    for (const { found, to } of imports)
      if (found.kind === 'dynamic' || found.required || runs === null) otherwise.add(to);
  const reexportsAt = (path: string) => modules.get(path)?.reexports;
  const homeOf = (to: string | undefined, name: string) =>
    to === undefined ? null : name === '*' ? { path: to, name } : definitionOf(to, name, reexportsAt);
  const times = new RunTimes(modules.keys(), {
    sheetAt: (path) => modules.get(path)?.runs ?? null,
    definer: (from, specifier, name) => homeOf(modules.get(from)?.resolved.get(specifier), name),
    isAskedOtherwise: (path) => otherwise.has(path),
  });
  return (from, found, to) => {
    if (found.kind === 'dynamic' || found.sync || !from.runs) return {};
    const resolved = from.resolved.get(found.specifier);
    // A link that was led on past what only passes names on is used where the names are that it leads to.
    const counts = (name: string) => to === resolved || homeOf(resolved, name)?.path === to;
    const runs = times.of(from.path, found.specifier, counts);
    if (runs === 'act') return { onActs: true };
    if (runs === 'effect') return { onEffects: true };
    const at = from.source === null ? null : times.neededAt(from.path, found.specifier, counts);
    return at === null ? {} : { sync: { reason: DRAWING, line: new SourceText(from.source!).place(at).line } };
  };
}
