import { minifySync } from 'oxc-minify';
import { has } from '../../core/chunks/bits.ts';
import type { ChunkGraph, Root } from '../../core/chunks/types.ts';
import { graphIndex } from '../../core/snapshot/graph-index.ts';
import type { Import } from '../../core/snapshot/module-types.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { builtAddress } from '../../reader/built-address.ts';
import { WORKER_QUERY } from '../../reader/script/calls.ts';
import { type Around, type Taken, writeEsModule } from './es-module.ts';
import { registry } from './runtime.ts';

/** A file that a browser can run, or a sheet. */
export interface AssembledFile {
  /** Index of the chunk that it is. */
  chunk: number;
  address: string;
  kind: 'script' | 'style';
  text: string;
}

export interface Assembled {
  files: AssembledFile[];
  /** What couldn’t be assembled as it is, and what stands in its place. */
  told: { path: string; message: string }[];
}

/**
 * Runnable files of the chunks of an app. `texts`: what ships of each module, by path, as the reader made it; `addressOf`: the address
 * of each chunk’s file; `watched`: modules of which calls of what they export are noted. The files of an entry begin to run once they are
 * all there, in whatever order they come.
 */
export function assemble(
  snapshot: Snapshot,
  graph: ChunkGraph,
  texts: Readonly<Record<string, string>>,
  addressOf: (chunk: number) => string,
  watched: readonly number[] = [],
): Assembled {
  const told: Assembled['told'] = [];
  const app = { ...appOf(snapshot, graph, texts), workerAt: workersOf(snapshot, graph, addressOf) };
  const files = graph.chunks.map((chunk, at): AssembledFile => {
    const head = { chunk: at, address: addressOf(at), kind: chunk.kind };
    if (chunk.kind === 'style')
      return { ...head, text: chunk.modules.map((m) => texts[snapshot.modules[m].path] ?? '').join('\n') };
    const writer = new ScriptFile(app, chunk.realm, told);
    return { ...head, text: writer.write(head.address, chunk.modules) };
  });
  graph.roots.forEach((root) => {
    if (root.kind !== 'entry' && root.kind !== 'worker') return;
    const { scripts, first } = startOf(graph, root);
    if (first === undefined) return;
    const groups = Object.fromEntries(
      graph.roots.flatMap((r, i) => (r.realm === root.realm ? [[i, r.group.map(addressOf)]] : [])),
    );
    const start = `__parts.map(${JSON.stringify(groups)});__parts.watch(${JSON.stringify(watched)});__parts.start(${JSON.stringify(scripts.map(addressOf))},${JSON.stringify(root.target)});`;
    // Nothing but its own script asks for what a worker needs besides.
    const others = root.kind === 'worker' ? scripts.filter((c) => c !== first).map(addressOf) : [];
    const fetched = others.map((file) => `__parts.fetch(${JSON.stringify(file)});`).join('');
    const rest = others.length > 0 ? `__parts.hold();${fetched}` : '';
    files[first].text = `${registryText()}\n${files[first].text}\n${rest}${start}`;
  });
  return { files, told };
}

/** The scripts of what starts by itself, and the one that holds the registry. */
function startOf(graph: ChunkGraph, root: Root): { scripts: number[]; first: number | undefined } {
  const scripts = root.group.filter((c) => graph.chunks[c].kind === 'script');
  return { scripts, first: scripts.at(-1) };
}

/** The addresses of workers by the module and the specifier that start them. */
function workersOf(snapshot: Snapshot, graph: ChunkGraph, addressOf: (chunk: number) => string): App['workerAt'] {
  const at = new Map<string, Map<string, string>>();
  for (const { realm, kind, startedBy = [] } of snapshot.entries) {
    const root = kind === 'worker' ? graph.roots.find((r) => r.kind === 'worker' && r.realm === realm) : undefined;
    const { first } = root ? startOf(graph, root) : { first: undefined };
    if (first === undefined) continue;
    for (const { from, specifier } of startedBy)
      at.set(from, (at.get(from) ?? new Map<string, string>()).set(specifier, addressOf(first)));
  }
  return at;
}

let smallRegistry: string | null = null;

/** The registry as it travels. */
function registryText(): string {
  smallRegistry ??= minifySync('registry.js', `(${registry.toString()})((file)=>import(file));`).code;
  return smallRegistry;
}

/** What files do that come before the one with the registry. */
const QUEUE = 'self.__parts??={early:[],add(f,d){this.early.push([f,d])}};';

/** What is the same for all files. */
interface App {
  snapshot: Snapshot;
  graph: ChunkGraph;
  texts: Readonly<Record<string, string>>;
  /** What isn’t there in browsers, by the module that asks for it. */
  leftOut: ReadonlyMap<string, string[]>;
  /** Split points by realm and module. */
  rootOf: ReadonlyMap<string, number>;
  /** Addresses of workers, by the path of the module that starts them and the specifier. */
  workerAt: ReadonlyMap<string, ReadonlyMap<string, string>>;
}

function appOf(snapshot: Snapshot, graph: ChunkGraph, texts: App['texts']): Omit<App, 'workerAt'> {
  const leftOut = new Map<string, string[]>();
  for (const { from, specifier, leftOut: isLeft } of snapshot.unresolved)
    if (isLeft) leftOut.set(from, [...(leftOut.get(from) ?? []), specifier]);
  const rootOf = new Map(
    graph.roots.flatMap(({ realm, target }, at) => (target.length === 1 ? [[`${realm} ${target[0]}`, at]] : [])),
  );
  return { snapshot, graph, texts, leftOut, rootOf };
}

class ScriptFile {
  private readonly definitions: string[] = [];
  private readonly sheets = new Set<number>();

  constructor(
    private readonly app: App,
    private readonly realm: string,
    private readonly told: Assembled['told'],
  ) {}

  write(address: string, modules: readonly number[]): string {
    for (const m of modules) this.define(m);
    for (const m of this.sheets) if (!modules.includes(m)) this.definitions.push(`${m}:${sheetModule(this.textOf(m))}`);
    return `${QUEUE}__parts.add(${JSON.stringify(address)},{\n${this.definitions.join(',\n')}\n});`;
  }

  private textOf(m: number): string {
    return this.app.texts[this.app.snapshot.modules[m].path] ?? '';
  }

  private define(m: number): void {
    const { path, kind } = this.app.snapshot.modules[m];
    const text = this.textOf(m);
    if (SHEET.test(path) && kind !== 'style') {
      this.definitions.push(`${m}:${sheetInScript(text)}`);
      return;
    }
    try {
      this.definitions.push(`${m}:${this.definition(m, text)}`);
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
      this.told.push({ path, message: `isn’t run: ${error.message}` });
      this.definitions.push(`${m}:{es:function*(){yield}}`);
    }
  }

  /** In brackets, engines compile a function along with the file, as they do with code of flat files. */
  private definition(m: number, text: string): string {
    const { path, kind } = this.app.snapshot.modules[m];
    const links = this.linksOf(m);
    const fields = [...this.laterOf(links), ...(path.endsWith('.mjs') ? ['strict:true'] : [])];
    if (COMMON_JS.test(text)) {
      const required = Object.fromEntries(links.filter((l) => l.kind === 'static').map((l) => [l.specifier, l.to]));
      const empty = this.app.leftOut.get(path) ?? [];
      const known = [`required:${JSON.stringify(required)}`, `empty:${JSON.stringify(empty)}`];
      return `{${[`cjs:(${strictly(text)})`, ...known, ...fields].join(',')}}`;
    }
    const fixed = links.filter((l) => l.kind === 'static');
    const workers = this.app.workerAt.get(path) ?? new Map<string, string>();
    const written = writeEsModule(text, {
      ...aroundOf(fixed),
      makesWorker: (s) => WORKER_QUERY.test(s) && workers.has(s),
    });
    for (const l of fixed)
      if (this.app.snapshot.modules[l.to].kind === 'style' && l.names.length > 0) this.sheets.add(l.to);
    const deps = written.specifiers.flatMap((s) => fixed.filter((l) => l.specifier === s).map((l) => l.to));
    const addressed = fixed
      .filter((l) => this.isAddress(l))
      .map((l): [string, string] => [l.specifier, this.addressOf(l)]);
    const urls = Object.fromEntries([...addressed, ...workers].flatMap(asWritten));
    if (written.waits) fields.push('waits:true');
    if (kind === 'json' || kind === 'asset') fields.push('plain:true');
    if (Object.keys(urls).length > 0) fields.push(`urls:${JSON.stringify(urls)}`);
    return `{${[`es:(${written.text})`, `deps:${JSON.stringify([...new Set(deps)])}`, ...fields].join(',')}}`;
  }

  private linksOf(m: number): Import[] {
    const { outStart, outgoing } = graphIndex(this.app.snapshot);
    return Array.from(outgoing.subarray(outStart[m], outStart[m + 1]), (e) => this.app.snapshot.imports[e]);
  }

  private laterOf(links: readonly Import[]): string[] {
    const deferred = links.filter((l) => l.kind === 'dynamic');
    const later = [...new Set(deferred.map((l) => l.specifier))].map((specifier) => {
      const own = deferred.filter((l) => l.specifier === specifier);
      const roots = own.map((l) => this.rootOf(l.to));
      // Of several that take different parts of one module, the one that brings all of them answers for each.
      const widest = own.findIndex((_, a) =>
        own.every((l, b) => a === b || roots[a] === roots[b] || this.brings(roots[a], l.to)),
      );
      const { to, renamed } = own[Math.max(0, widest)];
      const others = renamed?.map(({ as, name }) => [as, name]);
      return [specifier, [to, roots[Math.max(0, widest)], ...(others ? [others] : [])]];
    });
    return later.length > 0 ? [`later:${JSON.stringify(Object.fromEntries(later))}`] : [];
  }

  private rootOf(module: number): number {
    return this.app.rootOf.get(`${this.realm} ${module}`) ?? -1;
  }

  private brings(root: number, module: number): boolean {
    return root >= 0 && has(this.app.graph.roots[root].reach, module);
  }

  private isAddress({ to }: Import): boolean {
    return this.app.snapshot.modules[to].kind === 'asset';
  }

  private addressOf({ to }: Import): string {
    return builtAddress(this.app.snapshot.modules[to].path);
  }
}

/** An address is relative, with a dot at its beginning or without: both mean the same. */
const asWritten = ([specifier, address]: [string, string]): [string, string][] =>
  specifier.startsWith('./')
    ? [
        [specifier, address],
        [specifier.slice(2), address],
      ]
    : [[specifier, address]];

const COMMON_JS = /^function\(/;
/** Such a module runs as module scripts do, and as it was made small for. */
const strictly = (text: string) => text.replace('{', '{"use strict";');
const SHEET = /\.(css|scss|sass|less)$/;

/** The modules around one, as its static imports say. */
function aroundOf(links: readonly Import[]): Omit<Around, 'makesWorker'> {
  const at = (specifier: string) => links.filter((l) => l.specifier === specifier);
  const tableOf = (of: readonly Import[]): Record<string, Taken> => {
    const table: Record<string, Taken> = {};
    for (const { to, names, renamed = [] } of of) {
      const others = new Set(renamed.map((r) => r.name));
      for (const name of names) if (!others.has(name) && name !== '*') table[name] = { module: to, name };
      for (const { as, name } of renamed) table[as] = { module: to, name };
    }
    return table;
  };
  return {
    taken(specifier, name) {
      const found = at(specifier);
      const known = tableOf(found)[name];
      if (known) return known;
      const whole = found.find((l) => l.names.includes('*')) ?? (found.length === 1 ? found[0] : undefined);
      return whole ? { module: whole.to, name } : null;
    },
    members(specifier) {
      const found = at(specifier);
      return found.length === 0 || found.some((l) => l.names.includes('*') && !l.renamed) ? null : tableOf(found);
    },
    passed(specifier) {
      const found = at(specifier);
      return {
        whole: found.filter((l) => l.names.includes('*')).map((l) => l.to),
        names: tableOf(found.filter((l) => !l.names.includes('*'))),
      };
    },
  };
}

/** A sheet as a module: what script gets of one with names of its own, these by the names as written. `first`: what it does before. */
function sheetModule(text: string, first = ''): string {
  return `{es:function*(own){own.has("default");yield;${first}own.out("default",${namesIn(text)})},plain:true}`;
}

/** A sheet that travels in script: it is put into the page as it runs. */
function sheetInScript(text: string): string {
  const element = `Object.assign(document.createElement("style"),{textContent:${JSON.stringify(text)}})`;
  return sheetModule(text, `document.head.append(${element});`);
}

/** Names of classes are made unlike all others by an underscore and six characters after them, which can be underscores themselves. */
function namesIn(text: string): string {
  const names = [...text.matchAll(/\.(-?[A-Za-z_][\w-]*)/g)].map(([, name]) => name);
  return JSON.stringify(Object.fromEntries(names.map((name) => [name.replace(/_[\w-]{6}$/, ''), name])));
}
