import type { Import } from '../../core/snapshot/module-types.ts';
import type { FoundImport } from '../found-import.ts';
import type { Act } from '../runs/run-sheet.ts';
import type { ReadModule } from './read-module.ts';
import type { UseTimes } from './times-of-uses.ts';

/**
 * The imports of a snapshot, in the order of its modules, with what somebody does to have one used, by its index. `at`: positions of
 * modules by path; `linksOf`: what a module imports in the end.
 */
export function importColumns(
  sorted: readonly ReadModule[],
  at: ReadonlyMap<string, number>,
  linksOf: (path: string) => readonly { found: FoundImport; to: string }[],
  timed: (from: ReadModule, found: FoundImport, to: string) => UseTimes,
): { imports: Import[]; acts: Map<number, Act[]> } {
  const imports: Import[] = [];
  const acts = new Map<number, Act[]>();
  sorted.forEach((m, from) => {
    const seen = new Map<string, number>();
    for (const { found, to } of linksOf(m.path)) {
      const ordinal = seen.get(found.specifier) ?? 0;
      seen.set(found.specifier, ordinal + 1);
      const { times, acts: doing } = timed(m, found, to);
      if (doing.length > 0) acts.set(imports.length, doing);
      imports.push({ from, to: at.get(to)!, ordinal, ...ofSnapshot(found), ...times });
    }
  });
  return { imports, acts };
}

/** What of a found import a snapshot keeps; whether it can't wait is told with the times of its uses. */
function ofSnapshot(found: FoundImport): Omit<Import, 'from' | 'to' | 'ordinal' | 'sync'> {
  const { required, taken, passesAll, passesOn, component, sync, ...kept } = found;
  return kept;
}
