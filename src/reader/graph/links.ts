import type { WorkerStart } from '../../core/snapshot/module-types.ts';
import type { Unresolved } from '../../core/snapshot/types.ts';
import type { FoundImport } from '../found-import.ts';
import { isInstalled } from '../packages.ts';
import type { Resolver } from '../resolve.ts';
import type { ParsedScript, StartedScript } from '../script/parsed-script.ts';
import { ALL, Demand, type Needed } from './demand.ts';
import type { Findings } from './findings.ts';
import { kindOf } from './kinds.ts';
import type { ReadModule } from './read-module.ts';

/** What following an import asks of the graph around it. */
export interface AroundLinks {
  resolver: Resolver;
  findings: Findings;
  modules: ReadonlyMap<string, ReadModule>;
  /** Components that pages on the server send. */
  sent: Set<string>;
  /** Has a file be read, if it wasn't yet; gives its path from the folder that is read. */
  enqueue: (file: string) => string;
  /** The file of such a path. */
  absolute: (path: string) => string;
  /** The text of a file; an empty one, and told, where it can't be read. */
  textOf: (file: string) => string;
}

/** Follows what modules ask for to the modules that it leads to. */
export class Links {
  /** Scripts of workers, with what starts each. */
  readonly workers = new Map<string, WorkerStart[]>();
  /** Imports that compilers add and that lead nowhere. */
  readonly addedLost: Unresolved[] = [];
  private readonly demand = new Demand();

  constructor(private readonly around: AroundLinks) {}

  linkScript(file: string, { imports, exports }: ParsedScript, read: ReadModule): void {
    read.exports = exports;
    const waits = isInstalled(read.path) && !read.module.sideEffects;
    const isHeld = (i: FoundImport) => waits && i.kind === 'static' && !i.required;
    for (const found of imports) if (!isHeld(found)) this.link(file, found, 'script', read);
    if (waits) this.followNeeded(file, read, this.demand.hold(read.path, imports.filter(isHeld), exports));
  }

  private followNeeded(file: string, read: ReadModule, needed: readonly Needed[]): void {
    for (const { found, names, isNew } of needed) {
      if (isNew) this.link(file, found, 'script', read, names);
      else this.want(read.resolved.get(found.specifier), names);
    }
  }

  /** Names that are needed of a module, which may need others for them. */
  private want(path: string | undefined, names: readonly string[]): void {
    const needed = path === undefined ? [] : this.demand.want(path, names);
    if (needed.length > 0) this.followNeeded(this.around.absolute(path!), this.around.modules.get(path!)!, needed);
  }

  startWorker(file: string, { line, ...started }: StartedScript, read: ReadModule): void {
    const { specifier } = started;
    const target = this.around.resolver.resolve(file, specifier, 'script');
    if ('reason' in target) this.around.findings.unresolved.push({ from: read.path, specifier, line, ...target });
    else this.noteStart(target.path, { from: read.path, ...started });
  }

  /** Notes what starts the worker whose script a file is; in the place of an import of it that says nothing of when. */
  private noteStart(file: string, start: WorkerStart): void {
    const path = this.around.enqueue(file);
    const known = this.workers.get(path) ?? [];
    const { from, specifier } = start;
    const vague = known.findIndex((k) => k.from === from && k.specifier === specifier && k.context === 'function');
    known.splice(vague < 0 ? known.length : vague, vague < 0 ? 0 : 1, start);
    this.workers.set(path, known);
  }

  leadsToScript(file: string, specifier: string): boolean {
    const target = this.around.resolver.resolve(file, specifier, 'script');
    return !('reason' in target) && kindOf(target.path) === 'script';
  }

  link(
    file: string,
    found: FoundImport,
    kind: 'script' | 'style',
    read: ReadModule,
    names = found.taken ?? found.names,
  ): void {
    const written = this.around.resolver.resolve(file, found.specifier, found.required ? 'required' : kind);
    const former = 'reason' in written && isAdded(found) ? formerRuntime(found.specifier) : null;
    const target = former === null ? written : this.around.resolver.resolve(file, former, kind);
    if ('reason' in target) {
      // What compilers add is the same in every file: that it isn't there is told once.
      const lost = { from: read.path, specifier: found.specifier, line: found.line, ...target };
      if (!isAdded(found) || !this.addedLost.some((l) => l.specifier === found.specifier))
        this.around.findings.unresolved.push(lost);
      if (isAdded(found)) this.addedLost.push(lost);
      return;
    }
    if (this.takenOtherwise(target.path, found, read)) return;
    const to = this.around.enqueue(target.path);
    if (read.path.endsWith('.astro')) this.around.sent.add(to);
    read.imports.push({ found, to });
    read.resolved.set(found.specifier, to);
    if (isInstalled(to)) this.want(to, found.required ? [ALL] : names);
  }

  /** What a query after the address asks for in place of the module: a worker, its text, or only its address (shared by several builds). */
  private takenOtherwise(file: string, { specifier, line }: FoundImport, read: ReadModule): boolean {
    const query = /\?(worker|sharedworker|raw|url|inline)\b/.exec(specifier)?.[1];
    switch (query) {
      case 'worker':
      case 'sharedworker':
        this.noteStart(file, { from: read.path, specifier, context: 'function' });
        return true;
      case 'raw':
        read.minified += JSON.stringify(this.around.textOf(file));
        return true;
      case 'url':
        if (kindOf(file) === 'asset') return false;
        this.around.findings.unresolved.push({
          from: read.path,
          specifier,
          line,
          reason: 'only its address is used',
          leftOut: true,
        });
        return true;
      case 'inline':
        if (kindOf(file) !== 'style') return false;
        read.minified += JSON.stringify(this.around.textOf(file));
        return true;
      default:
        return false;
    }
  }
}

/** An import that isn't written in the file: its compiler adds it. */
function isAdded({ start, end }: FoundImport): boolean {
  return start === 0 && end === 0;
}

/** Where the runtime lies of the version before the one whose compiler is used here: Svelte 4 has one file for it. */
function formerRuntime(specifier: string): string | null {
  return specifier.startsWith('svelte/internal/') ? 'svelte/internal' : null;
}
