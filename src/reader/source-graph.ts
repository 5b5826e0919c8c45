import fs from 'node:fs';
import path from 'node:path';
import type { Entry, Import, Module, ModuleKind, Package } from '../core/snapshot/module-types.ts';
import type { Failed, Notice, Unresolved } from '../core/snapshot/types.ts';
import type { FoundStart } from './entries/types.ts';
import { filesOfGlob } from './file-globs.ts';
import { readInside, reasonOf, textIfThere, Unreadable } from './folder-files.ts';
import type { FoundImport } from './found-import.ts';
import { Packages } from './packages.ts';
import { type FoundGlob, type ParsedScript, parseScript } from './parse-script.ts';
import { type DrawingModule, type DrawnApp, servicesOf } from './parts/find-parts.ts';
import { shellsOf } from './parts/shells.ts';
import { prunedLinks } from './prune.ts';
import { emptyModule, type ReadModule } from './read-module.ts';
import type { Reexports } from './reexports.ts';
import { type Resolution, Resolver, type ResolverOptions } from './resolve.ts';
import type { RouteModule } from './routes/names.ts';
import { marked, shippedModules, withoutWeight } from './server-only.ts';
import { compileSheet, SHEET_LANGUAGE, type SheetFiles } from './sheets/compile-sheet.ts';
import { isSingleFile } from './single-file.ts';
import { componentsUsed } from './template-imports.ts';
import { componentFile } from './templates/component-file.ts';
import type { ComponentFile } from './templates/types.ts';
import { beginFile, beginStep, leftAside } from './watch.ts';
import { marginalSizes, minifyCommonJs, minifyScript, minifyStyle, weigh } from './weigh.ts';
import { withoutExports } from './without-exports.ts';

/** Called as modules are read: how many so far, and how many are known to come. */
export type ReadProgress = (read: number, known: number) => void;

/** Follows imports from the entries and weighs each module once. */
export class SourceGraph {
  readonly workers = new Set<string>();
  /** Style sheets as written. */
  readonly sheets: { path: string; text: string }[] = [];
  private readonly starts = new Set<string>();
  /** Starts of which only what is marked for the client ships. */
  private readonly onServer = new Set<string>();
  /** Components that templates may use by name: files from the folder that is read. */
  private readonly components = new Map<string, string>();
  /** The same as imports would name them. */
  private readonly componentBindings = new Map<string, string>();
  /** Exports that aren't shipped, by module. */
  private readonly unshipped = new Map<string, readonly string[]>();
  private readonly modules = new Map<string, ReadModule>();
  private readonly open: string[] = [];
  private readonly known = new Set<string>();
  private readonly unresolved: Unresolved[] = [];
  /** Specifiers that compilers add of which is told that they lead nowhere. */
  private readonly toldRuntime = new Set<string>();
  private readonly failed: Failed[] = [];
  private readonly notices: Notice[] = [];
  private readonly resolver: Resolver;
  private readonly packages: Packages;

  private readonly root: string;
  /** The folder around the app whose files may be read too; the app's own where that is all. */
  private readonly bounds: string;

  constructor(
    resolving: ResolverOptions,
    private readonly jsxImportSource: string,
    private readonly progress: ReadProgress,
  ) {
    this.root = resolving.root;
    this.bounds = resolving.bounds ?? resolving.root;
    this.resolver = new Resolver(resolving);
    this.packages = new Packages(this.root, this.bounds);
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

  /** The app as far as parts are looked for in it. `entries`: what starts each realm; `layouts`: what stands around routes by folders; `pages`: those of all routes. */
  drawn(entries: readonly Entry[], layouts: ReadonlySet<string>, pages: ReadonlySet<string>): DrawnApp {
    const named = new Map<string, string[]>();
    for (const m of this.sorted()) for (const name of m.elements) named.set(name, [...(named.get(name) ?? []), m.path]);
    return {
      shells: shellsOf(entries, layouts, (path) => this.drawing(path)),
      moduleAt: (path) => this.drawing(path),
      isPage: (path) => pages.has(path),
      elementAt: (name, from) => {
        const all = named.get(name) ?? [];
        // One name may stand for several components: what a module imports comes first.
        const near = this.modules.get(from)?.imports.find(({ to }) => all.includes(to));
        return near?.to ?? all[0];
      },
    };
  }

  private drawing(path: string): DrawingModule | undefined {
    const m = this.modules.get(path);
    if (!m) return undefined;
    const deferred = new Set(m.imports.filter((i) => i.found.kind === 'dynamic').map((i) => i.to));
    return { uses: m.uses, mounts: m.mounts, resolved: m.resolved, deferred, package: installed(m), serves: m.serves };
  }

  /** Makes deferred imports of what only blocks of templates ask for that are drawn later, as their compiler does. */
  settleLater(): void {
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

  /** The columns of the snapshot, in canonical order. */
  finish(): {
    modules: Module[];
    imports: Import[];
    packages: Package[];
    unresolved: Unresolved[];
    failed: Failed[];
    notices: Notice[];
    texts: Record<string, string>;
    sources: Record<string, string>;
  } {
    beginStep('what imports lead to in the end');
    this.dropServerOnly();
    const links = prunedLinks(this.modules);
    const sorted = this.reached(links);
    const at = new Map(sorted.map((m, i) => [m.path, i]));
    beginStep('weighing files beside one another');
    for (const style of [true, false]) {
      const alike = sorted.filter((m) => (m.kind === 'style') === style);
      marginalSizes(alike.map((m) => m.minified)).forEach((size, i) => {
        alike[i].module.bytes.marginal = size;
      });
    }
    const imports: Import[] = [];
    sorted.forEach((m, from) => {
      const seen = new Map<string, number>();
      for (const { found, to } of links.get(m.path)!) {
        const ordinal = seen.get(found.specifier) ?? 0;
        seen.set(found.specifier, ordinal + 1);
        const { required: _, ...item } = found;
        imports.push({ from, to: at.get(to)!, ordinal, ...item });
      }
    });
    return {
      modules: sorted.map((m) => m.module),
      imports,
      packages: this.packages.list(),
      unresolved: this.unresolved,
      failed: this.failed,
      notices: this.notices,
      texts: Object.fromEntries(sorted.map((m) => [m.path, m.minified])),
      sources: Object.fromEntries(sorted.flatMap((m) => (m.source === null ? [] : [[m.path, m.source]]))),
    };
  }

  /** What only runs on the server weighs nothing; of its packages nothing is kept. */
  private dropServerOnly(): void {
    if (this.onServer.size === 0) return;
    const whole = [...this.starts].filter((path) => !this.onServer.has(path));
    const shipped = shippedModules(this.modules, [...this.workers, ...whole]);
    if (shipped.size === this.modules.size) return;
    for (const m of this.modules.values()) {
      if (shipped.has(m.path)) continue;
      withoutWeight(m);
      m.imports = m.imports.filter(({ to }) => shipped.has(to) || this.modules.get(to)?.module.package === null);
    }
    const stays = <T extends { from: string }>(item: T) => shipped.has(item.from);
    this.unresolved.splice(0, this.unresolved.length, ...this.unresolved.filter(stays));
  }

  /** Modules that the starts still lead to, in canonical order. */
  private reached(links: Map<string, { to: string }[]>): ReadModule[] {
    const seen = new Set([...this.starts, ...this.workers]);
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
      ...{ path: relative, kind, package: of?.name ?? null, sideEffects: of?.sideEffects(file) ?? true },
      bytes: { source: raw.length, minified: 0, gzip: 0, brotli: 0, marginal: 0 },
    });
    this.modules.set(relative, read);
    // Packages that were installed are nobody's to edit.
    if ((kind === 'script' || kind === 'style') && !relative.includes('node_modules/'))
      read.source = raw.toString('utf8');
    if (kind === 'script' || kind === 'style' || kind === 'json') this.readText(file, raw.toString('utf8'), read);
    else {
      read.module.fileBytes = raw.length;
      read.minified = `export default "/assets/${path.basename(file)}";`;
    }
    read.module.bytes = { ...weigh(raw.length, read.minified), marginal: 0 };
  }

  /** Walkers go down a tree by calling themselves: one that is too deep for them is listed, and weighs what its text does. */
  private readText(file: string, text: string, read: ReadModule): void {
    try {
      if (read.kind === 'script') this.readScript(file, text, read);
      else if (read.kind === 'style') this.readStyle(file, text, read);
      else this.readJson(text, read);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      this.failed.push({ path: read.path, line: 1, message: 'not read: it is nested too deeply to be followed' });
      read.minified = text;
    }
  }

  /** A file that can't be read counts as empty and is listed. */
  private bytesOf(file: string, relative: string): Buffer {
    try {
      const aside = leftAside(relative);
      if (aside !== undefined) throw new Unreadable(aside);
      return readInside(this.bounds, file);
    } catch (error) {
      this.failed.push({ path: relative, line: 1, message: `not read: ${reasonOf(error)}` });
      return Buffer.alloc(0);
    }
  }

  private readScript(file: string, text: string, read: ReadModule): void {
    const component = componentFile(read.path, text);
    if (component?.told) this.failed.push({ path: read.path, ...component.told });
    const parsed = parseScript(
      component?.scriptPath ?? read.path,
      component?.script ?? this.shippedText(read.path, text),
      {
        jsxImportSource: this.jsxImportSource,
        usedElsewhere: component !== null,
        compiled: component?.compiled,
        drawn: component?.drawn,
        bindings: new Map([...this.componentBindings, ...(component?.bindings ?? [])]),
        resource: (specifier) => this.resourceOf(file, specifier),
      },
    );
    if (parsed.error) {
      this.failed.push({ path: read.path, ...parsed.error });
      read.minified = text;
      return;
    }
    read.marked = marked(text);
    const minify = parsed.commonJs ? minifyCommonJs : minifyScript;
    read.minified = minify(`${read.path}.js`, parsed.code) + (component?.rest ? JSON.stringify(component.rest) : '');
    read.routes = parsed.routes;
    read.uses = parsed.uses;
    read.mounts = parsed.mounts;
    read.elements = parsed.elements;
    read.later = parsed.later;
    for (const told of parsed.told) this.failed.push({ path: read.path, ...told });
    read.serves = servicesOf(text);
    for (const found of parsed.imports) this.link(file, found, 'script', read);
    for (const { specifier, line } of parsed.workers) {
      const target = this.resolver.resolve(file, specifier, 'script');
      if ('reason' in target) this.unresolved.push({ from: read.path, specifier, line, ...target });
      else this.workers.add(this.enqueue(target.path));
    }
    for (const { line } of parsed.waits)
      this.notices.push({
        kind: 'waiting module',
        path: read.path,
        message: `waits for something at its top level, line ${line}: what imports it starts later than predicted`,
      });
    for (const unclear of parsed.unclear) this.unresolved.push({ from: read.path, ...unclear, leftOut: false });
    for (const { specifier, ...place } of parsed.assets) {
      this.link(file, { kind: 'static', specifier, names: ['default'], column: 1, ...place }, 'script', read);
    }
    if (component) this.readRest(file, component, read);
    for (const { specifier } of parsed.resources) this.takeIn(file, specifier, read);
    for (const glob of parsed.fileGlobs)
      for (const specifier of filesOfGlob(this.root, read.path, glob))
        this.link(file, { ...glob.found, specifier }, 'script', read);
    for (const glob of parsed.globs) this.linkGlob(file, glob, read);
    read.reexports = reexportsOf(parsed, read.resolved);
  }

  /** What of a component in one file isn't its script: imports of its markup, components by name, and styles. */
  private readRest(file: string, component: ComponentFile, read: ReadModule): void {
    for (const found of component.imports ?? []) this.link(file, found, 'script', read);
    if (this.components.size > 0)
      for (const { file: target, ...found } of componentsUsed(component.markup, this.components))
        this.link(file, { ...found, specifier: `/${target}` }, 'script', read);
    const own = component.styles.filter((s) => s.src === null && /\S/.test(s.text));
    for (const { src, line } of component.styles)
      if (src !== null) this.link(file, styleImport(src, line), 'style', read);
    if (own.length === 0) return;
    // Builds take styles out of components, into sheets that load beside their scripts.
    const path = `${read.path}?style`;
    const bytes = { source: 0, minified: 0, gzip: 0, brotli: 0, marginal: 0 };
    const sheet = emptyModule(path, 'style', read.realm, {
      path,
      kind: 'style',
      package: read.module.package,
      sideEffects: true,
      bytes,
    });
    for (const style of own) {
      const { css, failed } = this.compiledSheet(style.lang, style.text, file);
      if (failed) this.failed.push({ path: read.path, line: style.line + failed.line - 1, message: failed.message });
      this.takeStyle(file, css, sheet, failed !== null);
    }
    const written = own.reduce((sum, s) => sum + Buffer.byteLength(s.text), 0);
    sheet.module.bytes = { ...weigh(written, sheet.minified), marginal: 0 };
    this.modules.set(path, sheet);
    read.imports.push({ found: styleImport(`./${path.slice(path.lastIndexOf('/') + 1)}`, own[0].line), to: path });
  }

  /** A file that a component's description names, with its text. */
  private resourceOf(file: string, specifier: string): { path: string; text: string } | null {
    const full = path.resolve(path.dirname(file), specifier);
    const text = textIfThere(this.bounds, full);
    return text === null ? null : { path: this.relative(full), text };
  }

  /** Takes the text of a template or a style into the script that names it, as its compiler does. */
  private takeIn(file: string, specifier: string, read: ReadModule): void {
    const full = path.resolve(path.dirname(file), specifier);
    const relative = this.relative(full);
    const text = this.bytesOf(full, relative).toString('utf8');
    const { css, failed } = this.compiledSheet(path.extname(full).slice(1), text, full);
    if (failed) this.failed.push({ path: relative, ...failed });
    read.minified += JSON.stringify(this.smallStyle(css));
  }

  private smallStyle(css: string): string {
    try {
      return minifyStyle('style.css', css).code;
    } catch {
      return css.split(/\s+/).join(' ');
    }
  }

  /** What a query after the address asks for in place of the module: a worker, its text, or only its address (shared by several builds). */
  private takenOtherwise(file: string, { specifier, line }: FoundImport, read: ReadModule): boolean {
    const query = /\?(worker|sharedworker|raw|url|inline)\b/.exec(specifier)?.[1];
    switch (query) {
      case 'worker':
      case 'sharedworker':
        this.workers.add(this.enqueue(file));
        return true;
      case 'raw':
        read.minified += JSON.stringify(this.bytesOf(file, this.relative(file)).toString('utf8'));
        return true;
      case 'url':
        if (kindOf(file) === 'asset') return false;
        this.unresolved.push({ from: read.path, specifier, line, reason: 'only its address is used', leftOut: true });
        return true;
      case 'inline':
        if (kindOf(file) !== 'style') return false;
        read.minified += JSON.stringify(this.bytesOf(file, this.relative(file)).toString('utf8'));
        return true;
      default:
        return false;
    }
  }

  private shippedText(path: string, text: string): string {
    const names = this.unshipped.get(path);
    return names ? withoutExports(path, text, names) : text;
  }

  private readStyle(file: string, text: string, read: ReadModule): void {
    if (file.endsWith('.css')) this.sheets.push({ path: read.path, text });
    const { css, failed } = this.compiledSheet(path.extname(file).slice(1), text, file);
    if (failed) this.failed.push({ path: read.path, ...failed });
    this.takeStyle(file, css, read, failed !== null);
  }

  /** Minifies style text into a module and follows what it asks for. Text of another language that wasn't compiled counts as it is. */
  private takeStyle(file: string, css: string, read: ReadModule, asWritten: boolean): void {
    if (asWritten) {
      read.minified += css.split(/\s+/).join(' ');
      return;
    }
    try {
      const { code, imports, urls } = minifyStyle(file, css);
      read.minified += code;
      const files = urls.filter((u) => !/^(data:|#|https?:|\/\/)/.test(u.specifier));
      for (const { specifier, line } of [...imports, ...files])
        this.link(file, styleImport(specifier, line), 'style', read);
    } catch (error) {
      const { message, loc } = error as Error & { loc?: { line: number } };
      this.failed.push({ path: read.path, line: loc?.line ?? 1, message });
      read.minified += css;
    }
  }

  /** What a sheet of another language comes down to; its own text where it can't be compiled. */
  private compiledSheet(
    lang: string,
    text: string,
    file: string,
  ): { css: string; failed: { line: number; message: string } | null } {
    const compiled = compileSheet(lang, text, file, this.sheetFiles);
    return 'css' in compiled ? { css: compiled.css, failed: null } : { css: text, failed: compiled.error };
  }

  private readonly sheetFiles: SheetFiles = {
    read: (file) => textIfThere(this.bounds, file),
    resolve: (from, specifier) => {
      const found = this.resolver.resolve(from, specifier, 'style');
      return 'path' in found ? found.path : null;
    },
  };

  private readJson(text: string, read: ReadModule): void {
    try {
      read.minified = `export default ${JSON.stringify(JSON.parse(text))};`;
    } catch (error) {
      this.failed.push({ path: read.path, line: 1, message: `broken JSON: ${(error as Error).message}` });
      read.minified = text;
    }
  }

  /** A computed deferred import can lead to any file that fits between its constant beginning and end. */
  private linkGlob(file: string, { prefix, suffix, found }: FoundGlob, read: ReadModule): void {
    const inside = prefix.slice(0, prefix.lastIndexOf('/') + 1);
    const begins = prefix.slice(inside.length);
    const folder = path.join(path.dirname(file), inside);
    const names = fs.existsSync(folder) ? fs.readdirSync(folder).sort() : [];
    const ends = (name: string) => (suffix === '' ? SCRIPT.test(name) : name.endsWith(suffix));
    const fits = names.filter((n) => n.startsWith(begins) && ends(n) && path.join(folder, n) !== file);
    if (fits.length === 0) {
      const reason = 'no file fits the computed address';
      this.unresolved.push({ from: read.path, specifier: found.specifier, line: found.line, reason, leftOut: false });
    }
    for (const name of fits) this.link(file, { ...found, specifier: `${inside}${name}` }, 'script', read);
  }

  private link(file: string, found: FoundImport, kind: 'script' | 'style', read: ReadModule): void {
    const target = this.resolver.resolve(file, found.specifier, kind);
    if ('reason' in target) {
      // What compilers add is the same in every file: that it isn't there is told once.
      if (isAdded(found) && this.toldRuntime.has(found.specifier)) return;
      if (isAdded(found)) this.toldRuntime.add(found.specifier);
      this.unresolved.push({ from: read.path, specifier: found.specifier, line: found.line, ...target });
      return;
    }
    if (this.takenOtherwise(target.path, found, read)) return;
    const to = this.enqueue(target.path);
    read.imports.push({ found, to });
    read.resolved.set(found.specifier, to);
  }
}

/** An import that a sheet makes, or that leads to one. */
function styleImport(specifier: string, line: number): FoundImport {
  return { kind: 'static', specifier, names: [], line, column: 1, start: line, end: line };
}

/** An import that isn't written in the file: its compiler adds it. */
function isAdded({ start, end }: FoundImport): boolean {
  return start === 0 && end === 0;
}

/** The package of a module that was installed. Packages of the same workspace are the app's own code. */
function installed({ path, module }: Pick<ReadModule, 'path' | 'module'>): string | null {
  return path.includes('node_modules/') ? module.package : null;
}

const SCRIPT = /\.([mc]?[jt]sx?)$/;

export function reexportsOf({ exports }: ParsedScript, resolved: ReadonlyMap<string, string>): Reexports {
  const named: Reexports['named'] = new Map();
  for (const { name, specifier, imported } of exports.named) {
    const to = resolved.get(specifier);
    if (to !== undefined) named.set(name, { to, name: imported });
  }
  return { named, stars: exports.stars.flatMap((s) => resolved.get(s) ?? []), own: new Set(exports.own) };
}

export function kindOf(file: string): ModuleKind {
  if (SCRIPT.test(file) || isSingleFile(file)) return 'script';
  if (file.endsWith('.css') || SHEET_LANGUAGE.test(file)) return 'style';
  return file.endsWith('.json') ? 'json' : 'asset';
}
