import path from 'node:path';
import type { Import, Module, Package, WorkerStart } from '../../core/snapshot/module-types.ts';
import type { RouteFont } from '../../core/snapshot/route-types.ts';
import { appFonts } from '../app-fonts.ts';
import type { ImageAt } from '../app-images.ts';
import { namesOfFiles } from '../auto-imports.ts';
import { builtAddress } from '../built-address.ts';
import type { FoundEntry, FoundStart } from '../entries/types.ts';
import { bytesInside, reasonOf, sizedTextInside, Unreadable } from '../folder-files.ts';
import type { FoundImport } from '../found-import.ts';
import type { FileText } from '../memory/files-memory.ts';
import { isInstalled, Packages } from '../packages.ts';
import type { DrawnModules } from '../parts/drawn-app.ts';
import type { DrawingModule } from '../parts/find-parts.ts';
import { pathFrom } from '../path-from.ts';
import { type Resolution, Resolver, type ResolverOptions } from '../resolve.ts';
import type { RouteModule } from '../routes/names.ts';
import type { Act } from '../runs/run-sheet.ts';
import type { Compiling } from '../script/compiling.ts';
import { servedFile } from '../served-files.ts';
import { shippedModules, withoutWeight } from '../server-only.ts';
import { ServerWays } from '../server-ways.ts';
import { beginFile, beginStep, leftAside } from '../watch.ts';
import { ALL } from './demand.ts';
import type { Findings } from './findings.ts';
import { importColumns } from './import-columns.ts';
import { kindOf } from './kinds.ts';
import { missingPackages, otherVersions, outsideOf } from './lacks.ts';
import { Links } from './links.ts';
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
  private inOrder: ReadModule[] = [];
  private readonly open: string[] = [];
  private readonly known = new Set<string>();
  private readonly findings: Findings = { unresolved: [], failed: [], notices: [] };
  private readonly resolver: Resolver;
  private readonly packages: Packages;
  private readonly links: Links;
  private readonly reader: ModuleReader;
  private readonly root: string;
  /** The folder around the app whose files may be read too; the app's own where that is all. */
  private readonly bounds: string;

  constructor(
    resolving: ResolverOptions,
    compiling: Compiling,
    private readonly progress: ReadProgress,
  ) {
    this.root = resolving.root;
    this.bounds = resolving.bounds ?? resolving.root;
    this.resolver = new Resolver(resolving);
    this.packages = new Packages(this.root, this.bounds);
    const { root, bounds, findings, sheets, components, componentBindings, autoImports, unshipped } = this;
    const links = new Links({
      ...{ resolver: this.resolver, findings, modules: this.modules, sent: this.sent },
      enqueue: (file) => this.enqueue(file),
      absolute: (path) => this.absolute(path),
      textOf: (file) => this.textOf(file).text,
    });
    this.links = links;
    this.reader = new ModuleReader({
      ...{ root, bounds, compiling, findings, sheets, components, componentBindings, autoImports, unshipped },
      styles: new StyleReader(bounds, this.resolver, findings, (...link) => links.link(...link)),
      link: (...link) => links.link(...link),
      linkScript: (file, parsed, read) => links.linkScript(file, parsed, read),
      startWorker: (file, started, read) => links.startWorker(file, started, read),
      isScript: (file, specifier) => links.leadsToScript(file, specifier),
      add: (module) => this.modules.set(module.path, module),
      relative: (file) => this.relative(file),
      textOf: (file) => this.textOf(file).text,
    });
  }

  /** Scripts of workers, with what starts each. */
  get workers(): ReadonlyMap<string, readonly WorkerStart[]> {
    return this.links.workers;
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
    return this.sorted().map(({ path, realm, routes, resolved, reexports, elements, module }) => ({
      ...{ path, realm, resolved, reexports, elements },
      sheet: routes,
      package: installed({ path, module }),
    }));
  }

  /** What is known of the modules where parts are looked for. */
  drawn(): Pick<DrawnModules, 'paths' | 'moduleAt' | 'reexportsAt' | 'elements'> {
    const elements = new Map<string, string[]>();
    for (const m of this.sorted())
      for (const name of m.elements) elements.set(name, [...(elements.get(name) ?? []), m.path]);
    return {
      elements,
      paths: () => this.sorted().flatMap((m) => (installed(m) === null ? [m.path] : [])),
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
    const { uses, innerActs, owners, images, mounts, resolved, serves, asks } = m;
    return { uses, innerActs, owners, images, mounts, resolved, deferred, package: installed(m), serves, asks };
  }

  /**
   * Says of all modules what they pass on, once all are read; and makes deferred imports of what only blocks of templates ask for that
   * are drawn later, as their compiler does.
   */
  settle(): void {
    for (const path of this.sent) {
      const rule = this.brought.find(({ ends }) => ends.test(path));
      const module = this.modules.get(path);
      if (rule && module) this.links.link(this.absolute(path), addedImport(rule.specifier), 'script', module);
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
    weighModules(sorted, this.sheets.length > 0);
    beginStep('when what is imported is used');
    const { ofLink, writesAtOnce } = timesOfUses(this.modules, [...this.starts, ...this.workers.keys(), ...asked]);
    beginStep('what modules lead to');
    const { imports, acts } = importColumns(sorted, at, (path) => links.get(path)!, ofLink);
    // Of files that only were looked into for names nothing is told.
    const ships = (path: string) => !this.modules.has(path) || at.has(path);
    const modules = sorted.map((m) => m.module);
    const packages = this.packages.list();
    const unresolved = this.findings.unresolved.filter((u) => ships(u.from));
    const lacks = [
      ...missingPackages([...unresolved, ...this.links.addedLost], modules),
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
    // Modules are only ever added.
    if (this.inOrder.length !== this.modules.size)
      this.inOrder = [...this.modules.values()].sort((a, b) => (a.path < b.path ? -1 : 1));
    return this.inOrder;
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
    return pathFrom(this.root, file);
  }

  private read(file: string, realm: string): void {
    const relative = this.relative(file);
    const kind = kindOf(file);
    beginFile(relative);
    const { text, bytes } = kind === 'asset' ? { text: '', bytes: this.sizeOf(file) } : this.textOf(file);
    const of = this.packages.of(file);
    const read = emptyModule(relative, kind, realm, {
      ...{ path: relative, kind, package: of?.name ?? null },
      bytes: { source: bytes, minified: 0, gzip: 0, brotli: 0, marginal: 0 },
      sideEffects: of?.sideEffects(file) ?? true,
    });
    this.modules.set(relative, read);
    // Packages that were installed are nobody's to edit.
    if ((kind === 'script' || kind === 'style') && !relative.includes('node_modules/')) read.source = text;
    if (kind !== 'asset') this.reader.readText(file, text, read);
    else {
      read.module.fileBytes = bytes;
      read.minified = `export default "${builtAddress(file)}";`;
    }
  }

  private textOf(file: string): FileText {
    return this.orNothing(file, () => sizedTextInside(this.bounds, file), { text: '', bytes: 0 });
  }

  private sizeOf(file: string): number {
    return this.orNothing(file, () => bytesInside(this.bounds, file), 0);
  }

  /** A file that can't be read counts as empty and is listed. */
  private orNothing<T>(file: string, read: () => T, nothing: T): T {
    const relative = this.relative(file);
    try {
      const aside = leftAside(relative);
      if (aside !== undefined) throw new Unreadable(aside);
      return read();
    } catch (error) {
      this.findings.failed.push({ path: relative, line: 1, message: `not read: ${reasonOf(error)}` });
      return nothing;
    }
  }
}

/** An import that a framework adds to a file. */
function addedImport(specifier: string): FoundImport {
  return { kind: 'static', specifier, names: [ALL], line: 1, column: 1, start: 0, end: 0 };
}

const installed = ({ path, module }: Pick<ReadModule, 'path' | 'module'>) =>
  isInstalled(path) ? module.package : null;
