import type { Entry, Import, Module, ModuleKind, Package } from '../../core/snapshot/module-types.ts';
import type { Failed, Unresolved } from '../../core/snapshot/types.ts';
import { kindOf } from '../graph/kinds.ts';
import { reexportsOf } from '../graph/reexports.ts';
import { drawnApp } from '../parts/drawn-app.ts';
import { type DrawingModule, type DrawnApp, type Services, servicesOf } from '../parts/find-parts.ts';
import type { RouteModule } from '../routes/names.ts';
import { parseScript } from '../script/parse-script.ts';
import { type ParsedScript } from '../script/parsed-script.ts';
import { componentFile } from '../templates/component-file.ts';
import { weigh } from '../weigh.ts';
import { addedSizes } from '../weigh-together.ts';
import { MapResolver } from './map-resolver.ts';
import type { OutputFile } from './output-files.ts';
import { packageOf, sourcePath } from './source-names.ts';

/** Sources have to make up this share of a file's mapped bytes for it to count as known inside. */
const KNOWN_SHARE = 0.9;

interface Draft {
  path: string;
  kind: ModuleKind;
  /** Source text; null for a file that counts as one module. */
  content: string | null;
  text: string;
  /** Bytes per file, by the file's number. */
  inFile: Map<number, number>;
}

/** The modules that an output's maps tell of, and the imports between them. */
export class OutputModules {
  readonly modules: Module[] = [];
  readonly imports: Import[] = [];
  readonly packages: Package[] = [];
  readonly unresolved: Unresolved[] = [];
  readonly failed: Failed[] = [];
  readonly texts: Record<string, string> = {};
  /** Per file: its modules with bytes, in the order in which they stand in it. */
  readonly inside: { module: number; bytes: number }[][];
  readonly knowledge: ('sources' | 'names' | 'none')[];
  private readonly at = new Map<string, number>();
  private readonly parsed = new Map<
    string,
    { script: ParsedScript; resolved: Map<string, string>; serves: Services }
  >();

  constructor(private readonly files: OutputFile[]) {
    this.knowledge = files.map(knowledgeOf);
    const drafts = this.drafts();
    this.inside = files.map(() => []);
    for (const draft of drafts) this.add(draft);
    const weighed = drafts.map(({ text }, i) => ({
      ...{ path: this.modules[i].path, text, gzip: this.modules[i].bytes.gzip },
    }));
    addedSizes(weighed).forEach((added, i) => {
      Object.assign(this.modules[i].bytes, added);
    });
    this.linkSources(drafts);
    this.linkFiles();
  }

  /** Modules in a set of files that nothing there imports at once; with the first of every circle that is left. */
  startsOf(files: Iterable<number>): string[] {
    const within = [...files].flatMap((f) => this.inside[f].map((m) => m.module));
    const members = new Set(within);
    const statics = new Map<number, number[]>();
    const imported = new Set<number>();
    for (const { from, to, kind } of this.imports) {
      if (kind === 'dynamic') imported.add(to);
      if (kind !== 'static' || !members.has(from) || from === to) continue;
      imported.add(to);
      statics.set(from, [...(statics.get(from) ?? []), to]);
    }
    const reached = new Set<number>();
    const starts: number[] = [];
    const take = (m: number) => {
      starts.push(m);
      const open = [m];
      for (let next = open.pop(); next !== undefined; next = open.pop()) {
        if (reached.has(next)) continue;
        reached.add(next);
        open.push(...(statics.get(next) ?? []));
      }
    };
    for (const m of members) if (!imported.has(m)) take(m);
    for (const m of members) if (!reached.has(m)) take(m);
    return starts.map((m) => this.modules[m].path);
  }

  /** All modules as far as routes are looked for in them. */
  routeModules(realm: string): RouteModule[] {
    return [...this.parsed].map(([path, { script, resolved }]) => ({
      ...{ path, realm, resolved, sheet: script.routes, reexports: reexportsOf(script.exports, resolved) },
      elements: script.elements,
      package: this.modules[this.at.get(path)!]?.package ?? null,
    }));
  }

  drawing(path: string): DrawingModule | undefined {
    const cached = this.parsed.get(path);
    const at = this.at.get(path);
    if (!cached || at === undefined) return undefined;
    const { script, resolved, serves } = cached;
    const deferred = new Set(
      script.imports.flatMap((i) => (i.kind === 'dynamic' ? (resolved.get(i.specifier) ?? []) : [])),
    );
    const { uses, innerActs, owners, images, mounts, asks } = script;
    return {
      uses,
      innerActs,
      owners,
      images,
      mounts,
      resolved,
      deferred,
      package: this.modules[at].package,
      serves,
      asks,
    };
  }

  /** The app as far as parts are looked for in it. */
  drawn(entries: readonly Entry[], pages: ReadonlySet<string>): DrawnApp {
    const elements = new Map(
      [...this.parsed].flatMap(([path, { script }]) => script.elements.map((e) => [e, [path]] as const)),
    );
    return drawnApp({
      ...{ elements, entries, pages, layouts: new Set<string>(), inDocument: () => [] },
      paths: () => this.parsed.keys(),
      moduleAt: (path) => this.drawing(path),
      reexportsAt: (path) => {
        const read = this.parsed.get(path);
        return read && reexportsOf(read.script.exports, read.resolved);
      },
    });
  }

  /** Modules by name, in canonical order. */
  private drafts(): Draft[] {
    const drafts = new Map<string, Draft>();
    this.files.forEach((file, f) => {
      const whole = this.knowledge[f] !== 'sources';
      const parts = whole
        ? [{ path: file.path, content: null, text: file.text, bytes: file.bytes.minified }]
        : file.map!.sources.map((s) => ({ ...s, path: moduleName(file, s.source) }));
      for (const { path, content, text, bytes } of parts) {
        const cached = drafts.get(path);
        if (cached) {
          cached.inFile.set(f, (cached.inFile.get(f) ?? 0) + bytes);
          if (text.length > cached.text.length) cached.text = text;
        } else {
          const kind = file.kind === 'style' ? 'style' : whole ? wholeKind(path) : scriptKind(path);
          drafts.set(path, { path, kind, content, text, inFile: new Map([[f, bytes]]) });
        }
      }
    });
    return [...drafts.values()].sort((a, b) => (a.path < b.path ? -1 : 1));
  }

  private add(draft: Draft): void {
    const owner = packageOf(draft.path);
    if (owner && !this.packages.some((p) => p.folder === owner.folder)) this.packages.push({ ...owner, version: null });
    const module = this.modules.length;
    this.at.set(draft.path, module);
    this.texts[draft.path] = draft.text;
    this.modules.push({
      path: draft.path,
      kind: draft.kind,
      package: owner?.name ?? null,
      bytes: { source: Buffer.byteLength(draft.content ?? draft.text), ...weigh(draft.text), marginal: 0 },
      sideEffects: true,
    });
    for (const [file, bytes] of draft.inFile) this.inside[file].push({ module, bytes });
  }

  private linkSources(drafts: Draft[]): void {
    const resolver = new MapResolver(new Set(this.at.keys()));
    for (const { path, kind, content } of drafts) {
      if (content === null || kind !== 'script') continue;
      const component = componentFile(path, content);
      const script = parseScript(component?.scriptPath ?? path, component?.script ?? content, {
        ...{ jsxImportSource: 'react', usedElsewhere: component !== null },
        ...{ drawn: component?.drawn, bindings: component?.bindings },
      });
      if (script.error) {
        this.failed.push({ path, ...script.error });
        continue;
      }
      const resolved = new Map<string, string>();
      const seen = new Map<string, number>();
      for (const { required: _, taken: __, passesAll: ___, ...found } of script.imports) {
        const to = resolver.resolve(path, found.specifier);
        if (to === null) {
          const reason = 'no map holds it: the build left it out or put it under another name';
          this.unresolved.push({ from: path, specifier: found.specifier, line: found.line, reason, leftOut: true });
          continue;
        }
        resolved.set(found.specifier, to);
        const ordinal = seen.get(found.specifier) ?? 0;
        seen.set(found.specifier, ordinal + 1);
        this.imports.push({ from: this.at.get(path)!, to: this.at.get(to)!, ordinal, ...found });
      }
      this.parsed.set(path, { script, resolved, serves: servicesOf(path, content) });
    }
  }

  /**
   * Files without known insides ask for others as they are. What a build lists beside an import is needed with its
   * target; where sources are known only files that no source leads to are, such as sheets without maps.
   */
  private linkFiles(): void {
    const numbered = new Map(this.files.map((file, f) => [file.path, f]));
    const lastIn = (path: string) => this.inside[numbered.get(path) ?? -1]?.at(-1)?.module;
    const isUnknown = (path: string) => this.knowledge[numbered.get(path) ?? -1] !== 'sources';
    const linked = new Set<string>();
    this.files.forEach((file, f) => {
      for (const [ordinal, { to, kind, line, besides }] of file.asked.imports.entries()) {
        const target = lastIn(to);
        if (target === undefined) continue;
        const place = { line, column: 1, start: ordinal, end: ordinal };
        const found = { specifier: to, ordinal: 0, names: [], ...place };
        const context = kind === 'dynamic' ? { context: 'function' as const } : {};
        if (this.knowledge[f] !== 'sources')
          this.imports.push({ from: this.at.get(file.path)!, to: target, kind, ...found, ...context });
        for (const other of besides) {
          const needed = lastIn(other);
          if (needed === undefined || needed === target || (!isUnknown(to) && !isUnknown(other))) continue;
          if (linked.has(`${to}\n${other}`)) continue;
          linked.add(`${to}\n${other}`);
          this.imports.push({ ...{ from: target, to: needed, kind: 'static' }, ...found, specifier: other, line: 1 });
        }
      }
    });
  }
}

function knowledgeOf({ map }: OutputFile): 'sources' | 'names' | 'none' {
  if (!map || map.sources.length === 0) return 'none';
  const mapped = map.sources.reduce((sum, s) => sum + s.bytes, 0);
  const known = map.sources.filter((s) => s.content !== null).reduce((sum, s) => sum + s.bytes, 0);
  return known >= mapped * KNOWN_SHARE ? 'sources' : 'names';
}

/** What a script holds of a style sheet are the names in it, and not the rules, which lie in a file of their own. */
function moduleName(file: OutputFile, source: string): string {
  const path = sourcePath(source);
  return file.kind === 'script' && path.endsWith('.css') ? `${path} (names)` : path;
}

function wholeKind(path: string): ModuleKind {
  return path.endsWith('.json') ? 'json' : 'script';
}

function scriptKind(path: string): ModuleKind {
  const kind = kindOf(path);
  return kind === 'style' || kind === 'asset' ? 'script' : kind;
}
