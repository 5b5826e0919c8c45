import { apportion } from '../chunks/apportion.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { compileLoad } from '../load/compile.ts';
import { readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Module } from '../snapshot/module-types.ts';
import type { Snapshot, StyleRule } from '../snapshot/types.ts';
import { findLeaks, type Leak } from './leaks.ts';
import { type Start, startOf, startsOf } from './starts.ts';

/** Sizes in the three kinds that get confused. */
export interface Sizes {
  source: number;
  minified: number;
  compressed: number;
}

export interface RouteRow {
  pattern: string;
  page: string;
  /**
   * The start, by who else has it at start; loader and wrappers are divided among the modules of their file, so that the
   * three add up to the start as it is told everywhere.
   */
  only: Sizes;
  some: Sizes;
  every: Sizes;
  script: Sizes;
  style: Sizes;
  /** The sums beside the start, and what of the start the first screen doesn't need; compressed. */
  otherScripts: number;
  alsoFetched: number;
  unusedAtStart: number;
  requests: number;
  hops: number;
  interactive: number;
  /** Packages in the start, heaviest first; the app's own code has no name. */
  packages: { name: string | null; sizes: Sizes }[];
}

export interface PackageRow {
  name: string;
  versions: (string | null)[];
  modules: number;
  sizes: Sizes;
  /** Routes that have any of it at start, with what they have. */
  routes: { pattern: string; sizes: Sizes }[];
}

export interface ModuleRow {
  path: string;
  package: string | null;
  kind: Module['kind'];
  sizes: Sizes;
  /** Routes that have it at start. */
  routes: number;
}

export interface Inventory {
  routes: RouteRow[];
  packages: PackageRow[];
  modules: ModuleRow[];
  leaks: Leak[];
  /** Packages that are there in more than one version or folder. */
  doubled: PackageRow[];
  /** Modules that travel in more than one file. */
  copies: CopyRow[];
  /** Style sheets with rules that nothing can use, the most wasteful first. */
  unusedStyles: UnusedStyles[];
}

export interface CopyRow {
  path: string;
  files: string[];
  /** What the copies beside the first cost, in minified bytes. */
  extra: number;
}

export interface UnusedStyles {
  module: string;
  rules: StyleRule[];
  /** Minified bytes of the rules, and of the whole sheet. */
  bytes: number;
  whole: number;
  /** Routes that have the sheet at start. */
  routes: string[];
}

/** What each route's start is made of, what is heavy, and what is in the wrong start. Modules heaviest first. */
export function inventoryOf(snapshot: Snapshot, plan: Plan, conditions: Conditions): Inventory {
  const app = startsOf(snapshot, plan);
  const { graph, plan: effective, starts: onAnyScreen } = app;
  const landed = onAnyScreen.map((start) => {
    const program = compileLoad(app, start.route.pattern);
    const timeline = simulate(program, conditions);
    const reading = readTimeline(program, timeline, conditions);
    const files = reading.sums.start.map((f) => program.resources[timeline.requests[f.request].resource]);
    return { reading, start: { ...start, ...startOf(graph, new Set(files.flatMap((f) => f.chunk ?? []))) } };
  });
  const starts = landed.map((l) => l.start);
  const uses = new Uint32Array(snapshot.modules.length);
  for (const { modules } of starts) for (const m of modules) uses[m]++;
  const routes = landed.map(({ start, reading: { readout, milestones } }): RouteRow => {
    const { requests, hops, otherScripts, alsoFetched, unusedAtStart } = readout;
    return {
      ...shares(snapshot, graph, start, uses, starts.length),
      ...{ requests, hops, otherScripts, alsoFetched, unusedAtStart },
      interactive: milestones.interactive,
    };
  });
  const packages = packageRows(snapshot, routes);
  return {
    routes,
    packages,
    modules: snapshot.modules
      .map((m, i) => ({ path: m.path, package: m.package, kind: m.kind, sizes: sizesOf(m), routes: uses[i] }))
      .sort((a, b) => b.sizes.minified - a.sizes.minified || (a.path < b.path ? -1 : 1)),
    leaks: findLeaks(snapshot, effective, starts),
    doubled: packages.filter((p) => p.versions.length > 1),
    copies: copiesIn(snapshot, graph),
    unusedStyles: unusedStyles(snapshot, starts),
  };
}

/** Modules in several files: real ones of an output, or chunks of one realm. */
function copiesIn(snapshot: Snapshot, graph: ChunkGraph): CopyRow[] {
  const files = new Map<number, Map<string, string>>();
  for (const chunk of graph.chunks) {
    for (const m of chunk.modules) {
      const homes = files.get(m) ?? new Map<string, string>();
      homes.set(`${chunk.file ? '' : chunk.realm} ${chunk.file ?? chunk.id}`, chunk.file ?? chunk.name);
      files.set(m, homes);
    }
  }
  const rows = [...files].flatMap(([m, homes]): CopyRow[] => {
    const realms = new Set([...homes.keys()].map((key) => key.slice(0, key.indexOf(' '))));
    // Two entries of an app, such as site and admin, have files of their own; nobody loads both.
    if (homes.size < 2 || (realms.size === homes.size && !realms.has(''))) return [];
    const { path, bytes } = snapshot.modules[m];
    return [{ path, files: [...homes.values()], extra: bytes.minified * (homes.size - 1) }];
  });
  return rows.sort((a, b) => b.extra - a.extra || (a.path < b.path ? -1 : 1));
}

function unusedStyles(snapshot: Snapshot, starts: Start[]): UnusedStyles[] {
  const { moduleAt } = graphIndex(snapshot);
  const sheets = new Map<string, StyleRule[]>();
  for (const rule of snapshot.unusedRules) {
    const own = sheets.get(rule.module);
    if (own) own.push(rule);
    else sheets.set(rule.module, [rule]);
  }
  const rows = [...sheets].map(([module, rules]): UnusedStyles => {
    const at = moduleAt.get(module) ?? -1;
    return {
      module,
      rules,
      bytes: rules.reduce((sum, r) => sum + r.bytes, 0),
      whole: snapshot.modules[at]?.bytes.minified ?? 0,
      routes: starts.filter((s) => s.modules.has(at)).map((s) => s.route.pattern),
    };
  });
  return rows.sort((a, b) => b.bytes - a.bytes);
}

/** The sizes of a module in the kinds that can be shown, in bytes. */
export function sizesOf({ bytes }: Module): Sizes {
  return { source: bytes.source, minified: bytes.minified, compressed: bytes.marginal };
}

function none(): Sizes {
  return { source: 0, minified: 0, compressed: 0 };
}

function add(to: Sizes, more: Sizes): void {
  to.source += more.source;
  to.minified += more.minified;
  to.compressed += more.compressed;
}

type Shares = Pick<RouteRow, 'pattern' | 'page' | 'only' | 'some' | 'every' | 'script' | 'style' | 'packages'>;

function shares(snapshot: Snapshot, graph: ChunkGraph, start: Start, uses: Uint32Array, routes: number): Shares {
  const row = { only: none(), some: none(), every: none(), script: none(), style: none() };
  const packages = new Map<string | null, Sizes>();
  const parts = [...start.chunks].flatMap((c) => apportion(snapshot, graph.chunks[c]));
  for (const { module: m, minified, compressed } of parts) {
    const module = snapshot.modules[m];
    const sizes = { source: module.bytes.source, minified, compressed };
    add(uses[m] === 1 && routes > 1 ? row.only : uses[m] === routes ? row.every : row.some, sizes);
    add(module.kind === 'style' ? row.style : row.script, sizes);
    const own = packages.get(module.package) ?? none();
    add(own, sizes);
    packages.set(module.package, own);
  }
  return {
    ...row,
    pattern: start.route.pattern,
    page: start.route.page,
    packages: [...packages]
      .map(([name, sizes]) => ({ name, sizes }))
      .sort((a, b) => b.sizes.minified - a.sizes.minified),
  };
}

/** Packages with their whole size, and what of each is in the start of which route. */
function packageRows(snapshot: Snapshot, starts: readonly RouteRow[]): PackageRow[] {
  const rows = new Map<string, PackageRow>();
  snapshot.modules.forEach((m) => {
    if (m.package === null) return;
    let row = rows.get(m.package);
    if (!row) {
      const versions = snapshot.packages.filter((p) => p.name === m.package).map((p) => p.version);
      const routes = starts.flatMap(({ pattern, packages }) => {
        const own = packages.find((p) => p.name === m.package);
        return own ? [{ pattern, sizes: own.sizes }] : [];
      });
      row = { name: m.package, versions, modules: 0, sizes: none(), routes };
      rows.set(m.package, row);
    }
    row.modules++;
    add(row.sizes, sizesOf(m));
  });
  return [...rows.values()].sort((a, b) => b.sizes.minified - a.sizes.minified);
}
