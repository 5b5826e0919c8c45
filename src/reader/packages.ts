import path from 'node:path';
import type { Package } from '../core/snapshot/module-types.ts';
import { LONGEST_PATTERN, wildcard } from '../core/text/wildcard.ts';
import { textInside } from './folder-files.ts';
import { pathFrom } from './path-from.ts';

interface Described extends Package {
  /** Whether importing a file of the package does something by itself. */
  sideEffects: (file: string) => boolean;
}

/** Finds the package that each file belongs to: the nearest folder with a named description, below the app's own. */
export class Packages {
  private readonly byFolder = new Map<string, Described | null>();

  constructor(
    private readonly root: string,
    /** The folder around the app whose files may be read too. */
    private readonly bounds: string,
  ) {}

  of(file: string): Described | null {
    return this.at(path.dirname(file));
  }

  list(): Package[] {
    const all = [...this.byFolder.values()].filter((d) => d !== null);
    const unique = new Map(all.map((d) => [d.folder, { name: d.name, version: d.version, folder: d.folder }]));
    return [...unique.values()].sort((a, b) => (a.folder < b.folder ? -1 : 1));
  }

  private at(folder: string): Described | null {
    if (folder === this.root || folder === this.bounds || !folder.startsWith(this.bounds)) return null;
    const cached = this.byFolder.get(folder);
    if (cached !== undefined) return cached;
    const found = this.describe(folder) ?? this.at(path.dirname(folder));
    this.byFolder.set(folder, found);
    return found;
  }

  private describe(folder: string): Described | null {
    let text: string;
    try {
      text = textInside(this.bounds, path.join(folder, 'package.json'));
    } catch {
      return null;
    }
    let item: { name?: unknown; version?: unknown; sideEffects?: unknown };
    try {
      item = JSON.parse(text) ?? {};
    } catch {
      return null;
    }
    if (typeof item.name !== 'string') return null;
    return {
      name: item.name,
      version: typeof item.version === 'string' ? item.version : null,
      folder: pathFrom(this.root, folder),
      sideEffects: effects(item.sideEffects, folder),
    };
  }
}

function effects(field: unknown, folder: string): (file: string) => boolean {
  if (field === false) return () => false;
  if (!Array.isArray(field)) return () => true;
  const patterns = field.filter((p): p is string => typeof p === 'string').map(matcherOf);
  return (file) => {
    const relative = pathFrom(folder, file);
    return patterns.some((fits) => fits(relative));
  };
}

/** `*.css` matches at any depth, `./src/*.js` only there, `**` crosses folders. */
function matcherOf(pattern: string): (path: string) => boolean {
  const bare = pattern.startsWith('./') ? pattern.slice(2) : pattern;
  return wildcard((bare.includes('/') ? bare : `**/${bare}`).slice(0, LONGEST_PATTERN));
}

/** Whether a module was installed. Packages of the same workspace are the app's own code. */
export function isInstalled(path: string): boolean {
  return path.includes('node_modules/');
}
