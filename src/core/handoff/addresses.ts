import type { ChunkGraph } from '../chunks/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { addressOfFile } from '../text/address.ts';
import { FreeNames } from '../text/free-names.ts';
import { oneLine } from '../text/one-line.ts';

/** Which built file holds a module, by the module's path. */
export type FileMap = Readonly<Record<string, string>>;

/**
 * Addresses of chunks as they are handed over: of the real file, where the snapshot is of an output or a map tells it;
 * otherwise a named stand-in such as `{{tide-chart}}`, which is to be replaced.
 */
export class Addresses {
  /** Stand-ins that were given out. */
  readonly standIns = new Set<string>();
  private readonly names = new FreeNames();
  private readonly cache = new Map<number, string>();
  private readonly ofModules = new Map<string, string>();

  constructor(
    private readonly snapshot: Snapshot,
    private readonly graph: ChunkGraph,
    private readonly files: FileMap | null,
  ) {}

  of(chunk: number): string {
    const cached = this.cache.get(chunk);
    if (cached !== undefined) return cached;
    const file = this.fileOf(chunk);
    const address = file === null ? this.standIn(chunk) : `${this.snapshot.base}${addressOfFile(file)}`;
    this.cache.set(chunk, address);
    return address;
  }

  /** The address of a file that is no chunk, by the module that it is: of the real file where a map tells it. */
  ofFile(module: string): string {
    if (this.files && Object.hasOwn(this.files, module))
      return `${this.snapshot.base}${addressOfFile(this.files[module].replace(/^\//, ''))}`;
    const known = this.ofModules.get(module) ?? this.given(module.slice(module.lastIndexOf('/') + 1), (name) => name);
    this.ofModules.set(module, known);
    return known;
  }

  private fileOf(chunk: number): string | null {
    const { file, modules } = this.graph.chunks[chunk];
    if (file !== undefined) return file;
    for (const m of modules) {
      const path = this.snapshot.modules[m].path;
      if (this.files && Object.hasOwn(this.files, path)) return this.files[path].replace(/^\//, '');
    }
    return null;
  }

  private standIn(chunk: number): string {
    const { name, kind } = this.graph.chunks[chunk];
    return this.given(name, (clean) => (kind === 'style' && !clean.endsWith('styles') ? `${clean} styles` : clean));
  }

  private given(name: string, called: (clean: string) => string): string {
    // What it is made of must neither end it nor be read as anything else where it stands.
    const bare = called(oneLine(name).replace(/[{}<>"'`&\\]/g, '-'));
    const given = this.names.give(`{{${bare}}}`, (n) => `{{${bare} ${n}}}`);
    this.standIns.add(given);
    return given;
  }
}
