import fs from 'node:fs';
import path from 'node:path';

const SKIPPED = new Set(['node_modules', '.git']);
const DEEPEST = 12;

/** All files below a folder of the app, as paths from that folder, in order; links are not followed. Empty without the folder. */
export function filesBelow(root: string, folder = '', deepest = DEEPEST): string[] {
  const found: string[] = [];
  const walk = (inside: string, depth: number) => {
    for (const entry of entriesOf(path.join(root, folder, inside))) {
      const name = inside === '' ? entry.name : `${inside}/${entry.name}`;
      if (entry.isFile()) found.push(name);
      else if (entry.isDirectory() && depth < deepest && !SKIPPED.has(entry.name)) walk(name, depth + 1);
    }
  };
  walk('', 0);
  return found.sort();
}

/** What is in a folder; nothing where there is none, or no right to look. */
export function entriesOf(folder: string): fs.Dirent[] {
  try {
    return fs.readdirSync(folder, { withFileTypes: true });
  } catch {
    return [];
  }
}
