import type { FileMap } from '../handoff/addresses.ts';
import type { BuiltOutput } from '../snapshot/output-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** Where modules lie in a production output, by the paths of the app's own snapshot. */
export class BuiltFiles {
  readonly output: BuiltOutput;
  private readonly byPath = new Map<string, number[]>();
  /** For modules whose path begins otherwise in the build: by their end. */
  private readonly byEnd = new Map<string, string | null>();

  constructor(private readonly built: Snapshot) {
    this.output = built.output!;
    this.output.files.forEach(({ modules }, file) => {
      for (const { module } of modules) {
        const { path } = built.modules[module];
        this.byPath.set(path, [...(this.byPath.get(path) ?? []), file]);
      }
    });
    for (const path of this.byPath.keys()) {
      for (const end of endsOf(path)) this.byEnd.set(end, this.byEnd.has(end) ? null : path);
    }
  }

  /** The path that a module of the app has in the build; null when it isn't there. */
  pathOf(path: string): string | null {
    if (this.byPath.has(path)) return path;
    const end = endsOf(path)[0];
    return (end === undefined ? undefined : this.byEnd.get(end)) ?? null;
  }

  /** Files that hold a module of the app, by index. */
  holding(path: string): number[] {
    const own = this.pathOf(path);
    return own === null ? [] : this.byPath.get(own)!;
  }

  /** Files with all that they import at once. */
  closure(from: Iterable<number>): Set<number> {
    const all = new Set(from);
    for (const file of all)
      for (const { to, kind } of this.output.files[file].imports) if (kind === 'static') all.add(to);
    return all;
  }

  /** Built file of each module, for addresses. */
  map(): FileMap {
    const { files } = this.output;
    return Object.fromEntries([...this.byPath].map(([path, [file]]) => [path, files[file].path]));
  }

  moduleAt(path: string): number | undefined {
    const own = this.pathOf(path);
    const at = own === null ? -1 : this.built.modules.findIndex((m) => m.path === own);
    return at < 0 ? undefined : at;
  }
}

/** The file with two folders above it: enough to tell modules apart, whatever root the build counts from. */
function endsOf(path: string): string[] {
  const parts = path.split('/');
  return parts.length >= 3 ? [parts.slice(-3).join('/')] : [];
}
