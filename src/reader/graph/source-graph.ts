import path from 'node:path';
import type { Import, Module, Package, WorkerStart } from '../../core/snapshot/module-types.ts';
import type { RouteFont } from '../../core/snapshot/route-types.ts';
import type { Unresolved } from '../../core/snapshot/types.ts';
import { appFonts } from '../app-fonts.ts';
import type { ImageAt } from '../app-images.ts';
import { namesOfFiles } from '../auto-imports.ts';
import { builtAddress } from '../built-address.ts';
import type { FoundEntry, FoundStart } from '../entries/types.ts';
import { readInside, reasonOf, Unreadable } from '../folder-files.ts';
import type { FoundImport } from '../found-import.ts';
import { Packages } from '../packages.ts';
import type { DrawnModules } from '../parts/drawn-app.ts';
import type { DrawingModule } from '../parts/find-parts.ts';
import { type Resolution, Resolver, type ResolverOptions } from '../resolve.ts';
import type { RouteModule } from '../routes/names.ts';
import type { Act } from '../runs/run-sheet.ts';
import type { ParsedScript, StartedScript } from '../script/parsed-script.ts';
import { servedFile } from '../served-files.ts';
import { shippedModules, withoutWeight } from '../server-only.ts';
import { ServerWays } from '../server-ways.ts';
import { beginFile, beginStep, leftAside } from '../watch.ts';
import { ALL, Demand, type Needed } from './demand.ts';
import type { Findings } from './findings.ts';
import { importColumns } from './import-columns.ts';
import { kindOf } from './kinds.ts';
import { missingPackages, otherVersions, outsideOf } from './lacks.ts';
import { keepLive } from './live-graph.ts';
import { ModuleReader } from './module-reader.ts';
import { prunedLinks } from './prune.ts';
import { emptyModule, type ReadModule } from './read-module.ts';
import { reexportsOf } from './reexports.ts';
import { StyleReader } from './style-reader.ts';
import { timesOfUses } from './times-of-uses.ts';
import { weighModules } from './weigh-modules.ts';

/** Called as modules are read: how many so far, and how many are known to come. */
export type ReadProgress = (read: number, known: number) => void;

/** Follows imports from the entries and weighs each module once. */
export class SourceGraph {
  /** Scripts of workers, with what starts each. */
  readonly workers = new Map<string, WorkerStart[]>();
  /** Style sheets as written. */
  readonly sheets: { path: string; text: string }[] = [];
  private readonly starts = new Set<string>();
  /** Starts of which only what is marked for the client ships. */
  private readonly onServer = new Set<string>();
  /** Components that templates may use by name: files from the folder that is read. */
  private readonly components = new Map<string, string>();
  /** The same as imports would name them. */
  private readonly componentBindings = new Map<string, string>();
  /** What comes along with components that pages on the server send, and those components. */
  private readonly brought: NonNullable<FoundEntry['bringsAlong']>[number][] = [];
  private readonly sent = new Set<string>();
  /** Names that may be used without an import, with their files. */
  private readonly autoImports = new Map<string, string>();
  /** Exports that aren't shipped, by module. */
  private readonly unshipped = new Map<string, readonly string[]>();
  private readonly modules = new Map<string, ReadModule>();
  private readonly open: string[] = [];
  private readonly known = new Set<string>();
  private readonly findings: Findings = { unresolved: [], failed: [], notices: [] };
  /** Imports that compilers add and that lead nowhere. */
  private readonly addedLost: Unresolved[] = [];
  private readonly demand = new Demand();
  private readonly resolver: Resolver;
  private readonly packages: Packages;
  private readonly reader: ModuleReader;
  private readonly root: string;
  /** The folder around the app whose files may be read too; the app's own where that is all. */
  private readonly bounds: string;

  constructor(
    resolving: ResolverOptions,
    jsxImportSource: string,
    private readonly progress: ReadProgress,
  ) {
    this.root = resolving.root;
    this.bounds = resolving.bounds ?? resolving.root;
    this.resolver = new Resolver(resolving);
    this.packages = new Packages(this.root, this.bounds);
    const { root, bounds, findings, sheets, components, componentBindings, autoImports, unshipped } = this;
    this.reader = new ModuleReader({
      ...{ root, bounds, jsxImportSource, findings, sheets, components, componentBindings, autoImports, unshipped },
      styles: new StyleReader(bounds, this.resolver, findings, (...link) => this.link(...link)),
      link: (...link) => this.link(...link),
      linkScript: (file, parsed, read) => this.linkScript(file, parsed, read),
      startWorker: (file, started, read) => this.startWorker(file, started, read),
      isScript: (file, specifier) => this.leadsToScript(file, specifier),
      add: (module) => this.modules.set(module.path, module),
      relative: (file) => this.relative(file),
      textOf: (file) => this.bytesOf(file, this.relative(file)).toString('utf8'),
    });
  }

  /** Adds an entry by the address under which the document names it. */
  start({ address, kind, imported }: Pick<FoundStart, 'address' | 'kind' | 'imported'>): Resolution {
    const specifier = imported || address.startsWith('/') || address.startsWith('.') ? address : `./${address}`;
    const found = this.resolver.resolve(path.join(this.root, 'index.html'), specifier, kind);
    if ('reason' in found) return found;
    const start = this.enqueue(found.path);
    this.starts.add(start);
    return { path: start };
  }

  /** Of a start only what is marked for the client ships; that and what else it leads to runs on the server. */
  keepOnServer(path: string): void {
    this.onServer.add(path);
  }

  /** Takes components that templates may use by name. */
  takeComponents(components: ReadonlyMap<string, string>): void {
    for (const [name, file] of components) {
      this.components.set(name, file);
      this.componentBindings.set(name, `/${file}`);
      this.componentBindings.set(`Lazy${name}`, `/${file}`);
    }
  }

  /** Has what a page on the server sends come with what draws it in the browser. */
  bringAlong(rules: NonNullable<FoundEntry['bringsAlong']>): void {
    this.brought.push(...rules);
  }

  /** Takes files whose exports may be used by name. */
  takeAutoImports(files: readonly string[]): void {
    for (const [name, file] of namesOfFiles(this.bounds, this.root, files)) this.autoImports.set(name, file);
  }

  /** Has a module shipped without certain exports and what only they use. */
  shipWithout(path: string, names: readonly string[]): void {
    this.unshipped.set(path, names);
  }

  /** Ties a module to another one that the framework loads along with it. */
  attach(from: string, to: string): void {
    const module = this.modules.get(from);
    if (!module || !this.modules.has(to) || from === to) return;
    const specifier = `/${to}`;
    const found: FoundImport = { kind: 'static', specifier, names: ['default'], line: 1, column: 1, start: 0, end: 0 };
    module.imports.push({ found, to });
  }

  /** Reads all that is open and what it leads to. */
  follow(realm: string): void {
    for (let file = this.open.pop(); file !== undefined; file = this.open.pop()) {
      this.read(file, realm);
      this.progress(this.modules.size, this.known.size);
    }
  }

  /** All modules as far as routes are looked for in them, in the order of their paths. */
  routeModules(): RouteModule[] {
    return this.sorted().map(({ path, realm, routes, resolved, reexports, module }) => ({
      ...{ path, realm, resolved, reexports },
      sheet: routes,
      package: installed({ path, module }),
    }));
  }

  /** What is known of the modules where parts are looked for. */
  drawn(): Pick<DrawnModules, 'moduleAt' | 'reexportsAt' | 'elements'> {
    const elements = new Map<string, string[]>();
    for (const m of this.sorted())
      for (const name of m.elements) elements.set(name, [...(elements.get(name) ?? []), m.path]);
    return {
      elements,
      moduleAt: (path) => this.drawing(path),
      reexportsAt: (path) => this.modules.get(path)?.reexports,
    };
  }

  /** Fonts in which the text of pages is written; those that nobody can weigh are told with what was found. */
  fonts(): RouteFont[] {
    const styles = this.sorted().filter((m) => m.kind === 'style');
    const { fonts, notices } = appFonts(this.root, styles, (path) => this.modules.get(path));
    this.findings.notices.push(...notices);
    return fonts;
  }

  /** Where an image that a module draws lies; one whose size nobody can find out is told with what was found. */
  readonly imageAt: ImageAt = (path, { source, imported }) => {
    const module = imported ? this.modules.get(this.modules.get(path)?.resolved.get(source) ?? '') : undefined;
    const bytes = module?.module.fileBytes;
    if (module && bytes !== undefined) return { address: builtAddress(module.path), bytes };
    if (imported || /^(data|blob):/i.test(source)) return null;
    const file = servedFile(this.root, source);
    const message = `draws ${source}, whose size isn’t known; add it to the images of its routes, or no prediction counts it`;
    const { notices } = this.findings;
    if (!file && !notices.some((n) => n.path === path && n.message === message))
      notices.push({ kind: 'image', path, message });
    return file;
  };

  private drawing(path: string): DrawingModule | undefined {
    const m = this.modules.get(path);
    if (!m) return undefined;
    const deferred = new Set(m.imports.filter((i) => i.found.kind === 'dynamic').map((i) => i.to));
    const { uses, owners, images, mounts, resolved, serves, asks } = m;
    return { uses, owners, images, mounts, resolved, deferred, package: installed(m), serves, asks };
  }

  /**
   * Says of all modules what they pass on, once all are read; and makes deferred imports of what only blocks of templates ask for that
   * are drawn later, as their compiler does.
   */
  settle(): void {
    for (const path of this.sent) {
      const rule = this.brought.find(({ ends }) => ends.test(path));
      const module = this.modules.get(path);
      if (rule && module) this.link(this.absolute(path), addedImport(rule.specifier), 'script', module);
    }
    const [first] = this.sent;
    if (first !== undefined) this.follow(this.modules.get(first)?.realm ?? 'site');
    for (const m of this.modules.values()) if (m.exports) m.reexports = reexportsOf(m.exports, m.resolved);
    for (const m of this.modules.values()) {
      const { later } = m;
      if (!later) continue;
      for (const one of m.imports) {
        if (one.found.kind !== 'static' || !later.specifiers.has(one.found.specifier)) continue;
        const names = this.elementsBehind(one.to);
        if (names.length === 0 || names.some((n) => later.atOnce.has(n)) || !names.some((n) => later.elements.has(n)))
          continue;
        one.found = { ...one.found, kind: 'dynamic', names: ['*'], context: 'wrapper' };
        delete one.found.sync;
      }
    }
  }

  private elementsBehind(path: string): string[] {
    return this.modules.get(path)?.elements ?? [];
  }

  /** The columns of the snapshot, in canonical order. `asked`: modules whose exports the framework uses, such as pages. */
  finish(asked: readonly string[]): Findings & {
    modules: Module[];
    imports: Import[];
    /** What somebody does to have an import used, by the import's index. */
    acts: ReadonlyMap<number, Act[]>;
    /** Whether a module puts something that shows into the page as soon as it has run. */
    writesAtOnce: (path: string) => boolean;
    packages: Package[];
    texts: Record<string, string>;
    sources: Record<string, string>;
  } {
    beginStep('what imports lead to in the end');
    this.dropServerOnly();
    keepLive(this.modules, [...this.starts, ...this.workers.keys()], asked);
    const links = prunedLinks(this.modules);
    const sorted = this.reached(links);
    const at = new Map(sorted.map((m, i) => [m.path, i]));
    weighModules(sorted);
    const { ofLink, writesAtOnce } = timesOfUses(this.modules, [...this.starts, ...this.workers.keys(), ...asked]);
    const { imports, acts } = importColumns(sorted, at, (path) => links.get(path)!, ofLink);
    // Of files that only were looked into for names nothing is told.
    const ships = (path: string) => !this.modules.has(path) || at.has(path);
    const modules = sorted.map((m) => m.module);
    const packages = this.packages.list();
    const unresolved = this.findings.unresolved.filter((u) => ships(u.from));
    const lacks = [
      ...missingPackages([...unresolved, ...this.addedLost], modules),
      ...outsideOf(this.root, this.resolver.outside, unresolved),
      ...otherVersions(modules, packages),
    ];
    return {
      ...{ modules, imports, packages, unresolved, acts, writesAtOnce },
      failed: this.findings.failed.filter((f) => ships(f.path)),
      notices: [...lacks, ...this.findings.notices.filter((n) => ships(n.path))],
      texts: Object.fromEntries(sorted.map((m) => [m.path, m.minified])),
      sources: Object.fromEntries(sorted.flatMap((m) => (m.source === null ? [] : [[m.path, m.source]]))),
    };
  }

  /** What only runs on the server weighs nothing; of its packages nothing is kept. */
  private dropServerOnly(): void {
    if (this.onServer.size === 0) return;
    const whole = [...this.starts].filter((path) => !this.onServer.has(path));
    const shipped = shippedModules(this.modules, [...this.workers.keys(), ...whole]);
    if (shipped.size === this.modules.size) return;
    const ways = new ServerWays(this.modules, shipped);
    const own = [...this.modules.values()].filter((m) => !shipped.has(m.path));
    // All ways are looked for before the first is changed.
    const sent = own.map((m) => ways.from(m));
    for (const [i, m] of own.entries()) {
      withoutWeight(m);
      m.imports = sent[i];
    }
    const stays = <T extends { from: string }>(item: T) => shipped.has(item.from);
    const { unresolved } = this.findings;
    unresolved.splice(0, unresolved.length, ...unresolved.filter(stays));
  }

  /** Modules that the starts still lead to, in canonical order. */
  private reached(links: Map<string, { to: string }[]>): ReadModule[] {
    const seen = new Set([...this.starts, ...this.workers.keys()]);
    for (const path of seen) for (const { to } of links.get(path) ?? []) seen.add(to);
    return this.sorted().filter((m) => seen.has(m.path));
  }

  private sorted(): ReadModule[] {
    return [...this.modules.values()].sort((a, b) => (a.path < b.path ? -1 : 1));
  }

  private enqueue(file: string): string {
    if (!this.known.has(file)) {
      this.known.add(file);
      this.open.push(file);
    }
    return this.relative(file);
  }

  private absolute(relative: string): string {
    return path.resolve(this.root, relative);
  }

  private relative(file: string): string {
    return path.relative(this.root, file).split(path.sep).join('/');
  }

  private read(file: string, realm: string): void {
    const relative = this.relative(file);
    const kind = kindOf(file);
    beginFile(relative);
    const raw = this.bytesOf(file, relative);
    const of = this.packages.of(file);
    const read = emptyModule(relative, kind, realm, {
      ...{ path: relative, kind, package: of?.name ?? null },
      bytes: { source: raw.length, minified: 0, gzip: 0, brotli: 0, marginal: 0 },
      sideEffects: of?.sideEffects(file) ?? true,
    });
    this.modules.set(relative, read);
    // Packages that were installed are nobody's to edit.
    if ((kind === 'script' || kind === 'style') && !relative.includes('node_modules/'))
      read.source = raw.toString('utf8');
    if (kind !== 'asset') this.reader.readText(file, raw.toString('utf8'), read);
    else {
      read.module.fileBytes = raw.length;
      read.minified = `export default "${builtAddress(file)}";`;
    }
  }

  /** A file that can't be read counts as empty and is listed. */
  private bytesOf(file: string, relative: string): Buffer {
    try {
      const aside = leftAside(relative);
      if (aside !== undefined) throw new Unreadable(aside);
      return readInside(this.bounds, file);
    } catch (error) {
      this.findings.failed.push({ path: relative, line: 1, message: `not read: ${reasonOf(error)}` });
      return Buffer.alloc(0);
    }
  }

  private linkScript(file: string, { imports, exports }: ParsedScript, read: ReadModule): void {
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
    if (needed.length > 0) this.followNeeded(this.absolute(path!), this.modules.get(path!)!, needed);
  }

  private startWorker(file: string, { line, ...started }: StartedScript, read: ReadModule): void {
    const { specifier } = started;
    const target = this.resolver.resolve(file, specifier, 'script');
    if ('reason' in target) this.findings.unresolved.push({ from: read.path, specifier, line, ...target });
    else this.noteStart(target.path, { from: read.path, ...started });
  }

  /** Notes what starts the worker whose script a file is; in the place of an import of it that says nothing of when. */
  private noteStart(file: string, start: WorkerStart): void {
    const path = this.enqueue(file);
    const known = this.workers.get(path) ?? [];
    const { from, specifier } = start;
    const vague = known.findIndex((k) => k.from === from && k.specifier === specifier && k.context === 'function');
    known.splice(vague < 0 ? known.length : vague, vague < 0 ? 0 : 1, start);
    this.workers.set(path, known);
  }

  private leadsToScript(file: string, specifier: string): boolean {
    const target = this.resolver.resolve(file, specifier, 'script');
    return !('reason' in target) && kindOf(target.path) === 'script';
  }

  private link(
    file: string,
    found: FoundImport,
    kind: 'script' | 'style',
    read: ReadModule,
    names = found.taken ?? found.names,
  ): void {
    const written = this.resolver.resolve(file, found.specifier, found.required ? 'required' : kind);
    const former = 'reason' in written && isAdded(found) ? formerRuntime(found.specifier) : null;
    const target = former === null ? written : this.resolver.resolve(file, former, kind);
    if ('reason' in target) {
      // What compilers add is the same in every file: that it isn't there is told once.
      const lost = { from: read.path, specifier: found.specifier, line: found.line, ...target };
      if (!isAdded(found) || !this.addedLost.some((l) => l.specifier === found.specifier))
        this.findings.unresolved.push(lost);
      if (isAdded(found)) this.addedLost.push(lost);
      return;
    }
    if (this.takenOtherwise(target.path, found, read)) return;
    const to = this.enqueue(target.path);
    if (read.path.endsWith('.astro')) this.sent.add(to);
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
        read.minified += JSON.stringify(this.bytesOf(file, this.relative(file)).toString('utf8'));
        return true;
      case 'url':
        if (kindOf(file) === 'asset') return false;
        this.findings.unresolved.push({
          from: read.path,
          specifier,
          line,
          reason: 'only its address is used',
          leftOut: true,
        });
        return true;
      case 'inline':
        if (kindOf(file) !== 'style') return false;
        read.minified += JSON.stringify(this.bytesOf(file, this.relative(file)).toString('utf8'));
        return true;
      default:
        return false;
    }
  }
}

/** An import that a framework adds to a file. */
function addedImport(specifier: string): FoundImport {
  return { kind: 'static', specifier, names: [ALL], line: 1, column: 1, start: 0, end: 0 };
}

/** An import that isn't written in the file: its compiler adds it. */
function isAdded({ start, end }: FoundImport): boolean {
  return start === 0 && end === 0;
}

/** Where the runtime lies of the version before the one whose compiler is used here: Svelte 4 has one file for it. */
function formerRuntime(specifier: string): string | null {
  return specifier.startsWith('svelte/internal/') ? 'svelte/internal' : null;
}

/** Whether a module was installed. Packages of the same workspace are the app's own code. */
function isInstalled(path: string): boolean {
  return path.includes('node_modules/');
}

const installed = ({ path, module }: Pick<ReadModule, 'path' | 'module'>) =>
  isInstalled(path) ? module.package : null;
