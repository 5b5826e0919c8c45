import fs from 'node:fs';
import path from 'node:path';
import mime from 'mime';
import type { PlannedApp } from '../../core/chunks/planned.ts';
import { addressOfChunk } from '../../core/load/files.ts';
import type { LoadProgram } from '../../core/load/types.ts';
import { DEFAULT_SERVER_MS } from '../../core/snapshot/route-types.ts';
import { addressOfFile, fileOfAddress } from '../../core/text/address.ts';
import { builtAddress } from '../../reader/built-address.ts';
import { assemble } from '../assemble/assemble.ts';
import type { Answer } from '../serve/types.ts';
import { compressed, compressedTo } from './compressed.ts';

/** The files of a site: assembled of an app’s modules, or those of a production build; and whatever else lies in its folder. */
export class SiteFiles {
  /** By address. */
  private readonly made = new Map<string, Answer>();
  /** What was read, by whole path. */
  private readonly read = new Map<string, Answer>();

  /** `root`: the real path of the app’s folder. */
  constructor(
    private readonly root: string,
    private readonly app: PlannedApp,
    /** Whether browsers take any compression: over an encrypted connection. */
    private readonly isSecure: boolean,
  ) {}

  /** Assembles the files of all chunks. `watched`: modules whose calls are noted. Gives what couldn’t be assembled as it is, in words. */
  addChunks(texts: Readonly<Record<string, string>>, { resources }: LoadProgram, watched: readonly number[]): string[] {
    const { graph, snapshot } = this.app;
    const addressOf = (c: number) => addressOfChunk(graph.chunks[c], snapshot.base);
    const { files, told } = assemble(snapshot, graph, texts, addressOf, watched);
    const programmed = new Map(resources.map((r) => [r.address, r]));
    for (const { address, kind, text } of files) {
      const of = programmed.get(address);
      const imports = (of?.imports ?? []).map((r) => `import ${JSON.stringify(resources[r].address)};\n`).join('');
      const type = kind === 'style' ? 'text/css' : 'text/javascript';
      const body = Buffer.from(imports + text);
      const answer: Answer = { type, body, cache: 'immutable', serverMs: of?.serverMs ?? DEFAULT_SERVER_MS };
      // Each module is a function of its own, which a build doesn't write: a better compression makes up for what that adds.
      this.made.set(address, of ? compressedTo(of.bytes, answer, this.isSecure) : compressed(answer));
    }
    return told.map((t) => `${t.path}: ${t.message}`);
  }

  /** Files that code or sheets name: under the address that code knows of, and by their names for what sheets write. */
  addAssets(): void {
    const { modules } = this.app.snapshot;
    for (const { path: file, kind } of modules) {
      const full = path.join(this.root, file);
      if (kind === 'asset' && isFile(full)) this.made.set(builtAddress(file), this.fileAnswer(full));
    }
  }

  /** Scripts and sheets of a production build, made ready before anybody asks: compressing them would take part of what is measured. */
  addBuilt(): void {
    const { base, output } = this.app.snapshot;
    if (!base.startsWith('/')) return;
    for (const { path: file } of output?.files ?? []) {
      const full = path.join(this.root, file);
      if (isFile(full)) this.made.set(`${base}${addressOfFile(file)}`, this.fileAnswer(full));
    }
  }

  /** What is at an address of the app’s own, as far as it was made. */
  at(address: string): Answer | undefined {
    return this.made.get(address) ?? this.made.get(fileOfAddress(address));
  }

  /** All that was made, by address. */
  all(): IterableIterator<[string, Answer]> {
    return this.made.entries();
  }

  /** The file of a production build that is meant by an address of a host (null: the app’s own); null for another one. */
  ofBuild(host: string | null, address: string): Answer | null {
    const { base } = this.app.snapshot;
    const whole = base.startsWith('/') ? address : `https://${host}${address}`;
    if (this.app.snapshot.output === null || !whole.startsWith(base) || (base.startsWith('/') && host !== null))
      return null;
    const full = path.join(this.root, fileOfAddress(whole.slice(base.length)));
    return full.startsWith(this.root + path.sep) && isFile(full) && !/\.html?$/.test(full)
      ? this.fileAnswer(full)
      : null;
  }

  /** Sheets name files from where they stand, which the made address doesn’t tell: found by name. */
  named(address: string): Answer | null {
    return this.made.get(builtAddress(address)) ?? null;
  }

  /** A file of this machine as it is answered. */
  fileAnswer(full: string): Answer {
    const known = this.read.get(full);
    if (known) return known;
    const type = mime.getType(full) ?? 'application/octet-stream';
    const made = compressed({
      ...{ type, body: fs.readFileSync(full), cache: 'immutable' as const, serverMs: DEFAULT_SERVER_MS },
    });
    this.read.set(full, made);
    return made;
  }
}

const isFile = (full: string) => fs.statSync(full, { throwIfNoEntry: false })?.isFile() === true;
