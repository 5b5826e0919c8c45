import fs from 'node:fs';
import path from 'node:path';
import { importsByName } from '../auto-imports.ts';
import { filesOfGlob } from '../file-globs.ts';
import { textIfThere } from '../folder-files.ts';
import { withSharedEmpties } from '../memory/shared-empties.ts';
import type { Compiling } from '../script/compiling.ts';
import type { FoundGlob, ParsedScript, StartedScript } from '../script/parsed-script.ts';
import { componentsUsed } from '../template-imports.ts';
import type { Findings } from './findings.ts';
import { SCRIPT } from './kinds.ts';
import { emptyModule, type ReadModule } from './read-module.ts';
import { type OutsideOfScript, type ScriptSaid, scriptSaid } from './script-said.ts';
import { type Link, type StyleReader, styleImport } from './style-reader.ts';

/** What the reading of one file asks of the graph around it. */
export interface AroundModule {
  root: string;
  bounds: string;
  compiling: Compiling;
  findings: Findings;
  styles: StyleReader;
  link: Link;
  /** Follows the imports of a script, all of them or those that are asked for. */
  linkScript: (file: string, parsed: ParsedScript, read: ReadModule) => void;
  /** Follows the script of a worker. */
  startWorker: (file: string, started: StartedScript, read: ReadModule) => void;
  /** Whether a specifier leads to a script. */
  isScript: (file: string, specifier: string) => boolean;
  /** Adds a module that is part of a file. */
  add: (module: ReadModule) => void;
  relative: (file: string) => string;
  /** The text of a file; an empty one, and told, where it can't be read. */
  textOf: (file: string) => string;
  /** Style sheets as written. */
  sheets: { path: string; text: string }[];
  /** Components that templates may use by name: files from the folder that is read. */
  components: ReadonlyMap<string, string>;
  /** The same as imports would name them. */
  componentBindings: ReadonlyMap<string, string>;
  /** Names that may be used without an import, with their files. */
  autoImports: ReadonlyMap<string, string>;
  /** Exports that aren't shipped, by module. */
  unshipped: ReadonlyMap<string, readonly string[]>;
}

/** Reads the text of a file into its module: what it ships, what it asks for, and what it says about routes and parts. */
export class ModuleReader {
  constructor(private readonly around: AroundModule) {}

  /** Walkers go down a tree by calling themselves: one that is too deep for them is listed, and weighs what its text does. */
  readText(file: string, text: string, read: ReadModule): void {
    try {
      if (read.kind === 'script') this.readScript(file, text, read);
      else if (read.kind === 'style') this.readStyle(file, text, read);
      else this.readJson(text, read);
    } catch (error) {
      if (!(error instanceof RangeError)) throw error;
      const message = 'not read: it is nested too deeply to be followed';
      this.around.findings.failed.push({ path: read.path, line: 1, message });
      read.code = null;
      read.minified = text;
    }
  }

  private readScript(file: string, text: string, read: ReadModule): void {
    const { findings, link, startWorker, isScript, root } = this.around;
    const { component, parsed, marked, serves } = this.scriptOf(file, read.path, text);
    for (const sheet of [parsed, parsed.asks, parsed.runs, parsed.exports]) if (sheet) withSharedEmpties(sheet);
    if (component?.told) findings.failed.push({ path: read.path, ...component.told });
    if (parsed.error) {
      findings.failed.push({ path: read.path, ...parsed.error });
      read.minified = text;
      return;
    }
    const { code, commonJs, stated } = parsed;
    read.code = { text: code, commonJs, stated, small: null };
    if (component?.rest) read.minified = JSON.stringify(component.rest);
    const { routes, uses, innerActs, owners, asks, images, runs, mounts, elements, later } = parsed;
    Object.assign(read, {
      routes,
      uses,
      innerActs,
      owners,
      asks,
      images,
      runs,
      mounts,
      elements,
      later,
      marked,
      serves,
    });
    for (const told of parsed.told) findings.failed.push({ path: read.path, ...told });
    this.around.linkScript(file, parsed, read);
    for (const started of parsed.workers) startWorker(file, started, read);
    for (const { line } of parsed.waits)
      findings.notices.push({
        kind: 'waiting module',
        path: read.path,
        message: `waits for something at its top level, line ${line}: what imports it starts later than predicted`,
      });
    for (const unclear of parsed.unclear) findings.unresolved.push({ from: read.path, ...unclear });
    for (const asset of parsed.assets) {
      const { start, end, ...started } = asset;
      const { specifier, line } = started;
      // What is named by its address never runs among the modules: it is handed to what runs it beside them.
      if (isScript(file, specifier)) startWorker(file, started, read);
      else link(file, { kind: 'static', specifier, names: ['default'], column: 1, line, start, end }, 'script', read);
    }
    if (this.around.autoImports.size > 0 && !read.path.includes('node_modules/'))
      for (const found of importsByName(text, read.path, this.around.autoImports)) link(file, found, 'script', read);
    if (component) this.readRest(file, component, read);
    for (const { specifier } of parsed.resources) this.takeIn(file, specifier, read);
    for (const glob of parsed.fileGlobs)
      for (const specifier of filesOfGlob(root, read.path, glob))
        link(file, { ...glob.found, specifier }, 'script', read);
    for (const glob of parsed.globs) this.linkGlob(file, glob, read);
  }

  /** What the text of a script says; as an earlier reading found it, where nothing that it rests on is another one. */
  private scriptOf(file: string, path: string, text: string): ScriptSaid {
    const { compiling, componentBindings: bindings, unshipped } = this.around;
    const without = unshipped.get(path) ?? [];
    return scriptSaid(path, text, { compiling, bindings, without, resource: (s) => this.resourceOf(file, s) });
  }

  /** What of a component in one file isn't its script: imports of its markup, components by name, and styles. */
  private readRest(file: string, component: OutsideOfScript, read: ReadModule): void {
    const { link, components } = this.around;
    for (const found of component.imports ?? []) link(file, found, 'script', read);
    if (components.size > 0)
      for (const { file: target, ...found } of componentsUsed(component.markup, components))
        link(file, { ...found, specifier: `/${target}` }, 'script', read);
    for (const { src, line } of component.styles) if (src !== null) link(file, styleImport(src, line), 'style', read);
    const own = component.styles.filter((s) => s.src === null && /\S/.test(s.text));
    if (own.length === 0) return;
    // Builds take styles out of components, into sheets that load beside their scripts.
    const path = `${read.path}?style`;
    const source = own.reduce((sum, s) => sum + Buffer.byteLength(s.text), 0);
    const sheet = emptyModule(path, 'style', read.realm, {
      ...{ path, kind: 'style', package: read.module.package, sideEffects: true },
      bytes: { source, minified: 0, gzip: 0, brotli: 0, marginal: 0 },
    });
    for (const { text, lang, line } of own) this.around.styles.take(file, text, lang, sheet, { path: read.path, line });
    this.around.add(sheet);
    read.imports.push({ found: styleImport(`./${path.slice(path.lastIndexOf('/') + 1)}`, own[0].line), to: path });
  }

  /** A file that a component's description names, with its text. */
  private resourceOf(file: string, specifier: string): { path: string; text: string } | null {
    const full = path.resolve(path.dirname(file), specifier);
    const text = textIfThere(this.around.bounds, full);
    return text === null ? null : { path: this.around.relative(full), text };
  }

  /** Takes the text of a style into the script that names it, as its compiler does. */
  private takeIn(file: string, specifier: string, read: ReadModule): void {
    const full = path.resolve(path.dirname(file), specifier);
    read.minified += this.around.styles.insideScript(full, this.around.textOf(full), this.around.relative(full));
  }

  private readStyle(file: string, text: string, read: ReadModule): void {
    if (file.endsWith('.css')) this.around.sheets.push({ path: read.path, text });
    this.around.styles.take(file, text, path.extname(file).slice(1), read, { path: read.path, line: 1 });
  }

  private readJson(text: string, read: ReadModule): void {
    try {
      read.minified = `export default ${JSON.stringify(JSON.parse(text))};`;
    } catch (error) {
      const message = `broken JSON: ${(error as Error).message}`;
      this.around.findings.failed.push({ path: read.path, line: 1, message });
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
    const { specifier, line } = found;
    const reason = 'no file fits the computed address';
    if (fits.length === 0)
      this.around.findings.unresolved.push({ from: read.path, specifier, line, reason, leftOut: false });
    for (const name of fits) this.around.link(file, { ...found, specifier: `${inside}${name}` }, 'script', read);
  }
}
