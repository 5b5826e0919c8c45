import { graphIndex } from '../snapshot/graph-index.ts';
import type { Package } from '../snapshot/module-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** Which folder of a package a path lies in: the deepest one that fits. */
function folderOf(packages: readonly Package[], path: string): string | null {
  let found: string | null = null;
  for (const { folder } of packages)
    if (path.startsWith(`${folder}/`) && (found === null || folder.length > found.length)) found = folder;
  return found;
}

/**
 * A snapshot in which all imports of a package lead into one of its versions, named by its folder. Gives the reason in
 * words where that can't be: there is only one, or the kept one lacks a module that is imported from outside.
 */
export function withOneVersion(snapshot: Snapshot, name: string, keep: string): Snapshot | string {
  const own = snapshot.packages.filter((p) => p.name === name);
  if (!own.some((p) => p.folder === keep)) return `no package ${name} in ${keep} in this snapshot`;
  if (own.length < 2) return `${name} is there only once`;
  const { moduleAt } = graphIndex(snapshot);
  const folders = snapshot.modules.map((m) => (m.package === name ? folderOf(own, m.path) : null));
  const imports = [];
  for (const item of snapshot.imports) {
    const into = folders[item.to];
    if (into === null || into === keep || folders[item.from] === into) {
      imports.push(item);
      continue;
    }
    const wanted = keep + snapshot.modules[item.to].path.slice(into.length);
    const to = moduleAt.get(wanted);
    if (to === undefined)
      return `${keep} has no ${wanted.slice(keep.length + 1)}, which ${snapshot.modules[item.from].path} imports`;
    imports.push({ ...item, to });
  }
  return { ...snapshot, imports };
}
