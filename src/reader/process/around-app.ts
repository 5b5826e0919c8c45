import fs from 'node:fs';
import path from 'node:path';

/**
 * The folders outside of an app of which a reading took files: of a package of the workspace the package’s own, of a loose file the one it lies in, but never the
 * workspace itself, in which everything lies. Installed packages are none of them. `root`: the app’s folder; `workspace`: the one around it that may be read; `files`: paths from the app’s folder. All absolute, none of them
 * inside of another.
 */
export function foldersAround(root: string, workspace: string, files: Iterable<string>): string[] {
  const known = new Map<string, string>();
  const folders = new Set<string>();
  for (const file of files) {
    if (!file.startsWith('../') || file.includes('node_modules/')) continue;
    const own = path.dirname(path.join(root, file));
    const found = known.get(own) ?? packageAround(own, workspace) ?? own;
    known.set(own, found);
    if (found !== workspace) folders.add(found);
  }
  return [...folders].filter((f) => ![...folders].some((other) => other !== f && isInside(f, other))).sort();
}

/** The folder of the package that a folder belongs to; null where that is only the workspace itself. */
function packageAround(folder: string, workspace: string): string | null {
  for (let at = folder; isInside(at, workspace); at = path.dirname(at))
    if (fs.existsSync(path.join(at, 'package.json'))) return at;
  return null;
}

function isInside(folder: string, other: string): boolean {
  return folder.startsWith(other === path.sep ? other : other + path.sep);
}
