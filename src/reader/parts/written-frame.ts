import type { Entry, Import, Module } from '../../core/snapshot/module-types.ts';
import type { DrawnApp } from './find-parts.ts';

/** Modules and imports as they are read; `writesAtOnce`: whether a module puts something that shows into the page as soon as it has run. */
export interface Built {
  modules: Module[];
  imports: Import[];
  writesAtOnce: (path: string) => boolean;
}

/**
 * The first module that runs with an entry and puts something that shows into the page by itself, as a plain script does; null where none
 * does. Pages aren't looked at: what they write is theirs.
 */
export function frameWritten(
  { modules: starts }: Pick<Entry, 'modules'>,
  { modules, imports, writesAtOnce }: Built,
  { isPage }: Pick<DrawnApp, 'isPage'>,
): string | null {
  const at = new Map(modules.map((m, i) => [m.path, i]));
  const leads = new Map<number, number[]>();
  for (const { from, to, kind } of imports)
    if (kind === 'static' && modules[to].package === null) leads.set(from, [...(leads.get(from) ?? []), to]);
  const run = new Set(starts.flatMap((path) => at.get(path) ?? []));
  for (const m of run) {
    const { kind, path } = modules[m];
    if (isPage(path)) continue;
    if (kind === 'script' && writesAtOnce(path)) return path;
    for (const to of leads.get(m) ?? []) run.add(to);
  }
  return null;
}
