import { has } from '../chunks/bits.ts';
import { carriedWeights, type Weight } from '../chunks/carried.ts';
import { planned } from '../chunks/planned.ts';
import { startModules } from '../chunks/start-modules.ts';
import type { ChunkGraph, Root } from '../chunks/types.ts';
import { followLanding, type LandedRoot, triggerOf } from '../load/landing.ts';
import { type EffectivePlan } from '../plan/effective.ts';
import { targetName } from '../plan/hints.ts';
import type { Plan, SplitSettings } from '../plan/types.ts';
import { graphIndex, importKey } from '../snapshot/graph-index.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shortName } from '../text/short-name.ts';
import type { Hint } from '../vocabulary/hints.ts';
import type { Trigger } from '../vocabulary/triggers.ts';

/** One import of a landing, as the Split list shows it. */
export interface ImportRow {
  key: string;
  from: string;
  to: string;
  name: string;
  line: number;
  package: string | null;
  /** Both ends lie in one package. */
  inside: boolean;
  own: Weight;
  /** What leaves the start if it is detached. */
  carried: Weight;
  /** Other importers in the start that keep the target there. */
  heldBy: string[];
  /** The part that the target draws, where it is one. */
  part: Part | null;
  /** Differs from the app as built. */
  changed: boolean;
  /** Why detaching alone would break it. */
  sync: { reason: string; line: number } | null;
}

/** A place where loading is deferred, as seen from one route. */
export interface SplitRow {
  key: string;
  /** All imports that lead to it, with whether the plan made them so. */
  imports: { key: string; from: string; line: number; changed: boolean }[];
  target: string;
  name: string;
  own: Weight;
  /** What its load group brings on this route beside what is there already. */
  group: Weight;
  part: Part | null;
  trigger: Trigger;
  planned: boolean;
  settings: SplitSettings;
  hints: Hint[];
  /** Part of the route's own chain: always asked for. */
  inChain: boolean;
  onLanding: boolean;
  /** Ids of the chunks of its load group. */
  chunks: string[];
}

export interface Outline {
  start: Weight;
  imports: ImportRow[];
  splits: SplitRow[];
}

/**
 * What a route's start is made of: its static imports with what each carries, and the split points it can ask for. With
 * `within`, the path of a split point's target: the same of its load group, where what is there already weighs nothing.
 */
export function outlineOf(snapshot: Snapshot, plan: Plan, pattern: string, within: string | null = null): Outline {
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  if (!route) return { start: { minified: 0, compressed: 0 }, imports: [], splits: [] };
  const index = graphIndex(snapshot);
  const { plan: effective, graph } = planned(snapshot, plan);
  const landing = followLanding(snapshot, effective, graph, route);
  const inner = within === null ? null : rootNamed(snapshot, graph, route, within);
  const starts = inner?.target ?? startModules(snapshot, route);
  const carried = carriedWeights(snapshot, index, effective.deferred, starts, inner?.present);
  const inStart = new Uint8Array(snapshot.modules.length);
  for (const m of carried.modules) inStart[m] = 1;
  const partOf = new Map(route.parts.map((p) => [p.module, p]));

  const rows = new Map<string, ImportRow>();
  for (const from of carried.modules) {
    for (let e = index.outStart[from]; e < index.outStart[from + 1]; e++) {
      const i = index.outgoing[e];
      const item = snapshot.imports[i];
      const pair = `${from} ${item.to}`;
      if (effective.deferred[i] || rows.has(pair) || (inner && has(inner.present, item.to))) continue;
      const to = snapshot.modules[item.to];
      rows.set(pair, {
        key: importKey(snapshot, item),
        from: snapshot.modules[from].path,
        to: to.path,
        name: nameOf(to.path, to.package, snapshot.modules[from].package),
        line: item.line,
        package: to.package,
        inside: to.package !== null && to.package === snapshot.modules[from].package,
        own: { minified: to.bytes.minified, compressed: to.bytes.marginal },
        carried: carried.ofImport(from, item.to),
        heldBy: holders(snapshot, effective.deferred, inStart, from, item.to),
        part: partOf.get(to.path) ?? null,
        changed: item.kind === 'dynamic',
        sync: item.sync ?? null,
      });
    }
  }
  return {
    start: carried.start,
    imports: [...rows.values()].sort(
      (a, b) => b.carried.minified - a.carried.minified || b.own.minified - a.own.minified,
    ),
    splits: (inner ? askedFrom(snapshot, effective, graph, route, inner) : [...landing.roots, ...landing.later])
      .filter((l) => l.root !== landing.entry)
      .map((l) => splitRow(snapshot, effective, graph, route, l, landing.roots.includes(l), partOf)),
  };
}

function rootNamed(snapshot: Snapshot, graph: ChunkGraph, route: Route, path: string): Root | null {
  return graph.roots.find((r) => r.realm === route.realm && snapshot.modules[r.target[0]].path === path) ?? null;
}

/** The split points that a root's own code asks for. */
function askedFrom(
  snapshot: Snapshot,
  effective: EffectivePlan,
  graph: ChunkGraph,
  route: Route,
  from: Root,
): LandedRoot[] {
  const at = graph.roots.indexOf(from);
  return graph.roots.flatMap((root, r) => {
    const by = root.askedBy.find((a) => a.root === at);
    if (!by) return [];
    const trigger = triggerOf(snapshot, effective, route, root.target[0], by.import);
    return [{ root: r, askedBy: by.import < 0 ? -1 : snapshot.imports[by.import].from, trigger, inChain: false }];
  });
}

function splitRow(
  snapshot: Snapshot,
  effective: EffectivePlan,
  graph: ChunkGraph,
  route: Route,
  landed: LandedRoot,
  onLanding: boolean,
  partOf: Map<string, Part>,
): SplitRow {
  const root = graph.roots[landed.root];
  const target = snapshot.modules[root.target[0]];
  const group = { minified: 0, compressed: 0 };
  for (const c of root.group) {
    group.minified += graph.chunks[c].bytes.minified;
    group.compressed += graph.chunks[c].bytes.gzip;
  }
  return {
    key: target.path,
    imports: root.askedBy
      .filter((a) => a.import >= 0)
      .map(({ import: i }) => {
        const item = snapshot.imports[i];
        return {
          key: importKey(snapshot, item),
          from: snapshot.modules[item.from].path,
          line: item.line,
          changed: item.kind === 'static',
        };
      }),
    target: target.path,
    name: nameOf(target.path, target.package, null),
    own: { minified: target.bytes.minified, compressed: target.bytes.marginal },
    group,
    part: partOf.get(target.path) ?? null,
    trigger: landed.trigger,
    planned: effective.triggers.has(target.path),
    settings: effective.settings.get(target.path) ?? {},
    hints: effective.hints.filter(
      (h) =>
        h.target.kind === 'split point' &&
        targetName(h.target) === target.path &&
        (h.routes.length === 0 || h.routes.includes(route.pattern)),
    ),
    inChain: landed.inChain,
    onLanding,
    chunks: root.group.map((c) => graph.chunks[c].id),
  };
}

/** Importers in the start, beside the given one, that keep a module there. */
function holders(snapshot: Snapshot, deferred: Uint8Array, inStart: Uint8Array, from: number, to: number): string[] {
  const index = graphIndex(snapshot);
  const found = new Set<string>();
  for (let e = index.inStart[to]; e < index.inStart[to + 1]; e++) {
    const i = index.incoming[e];
    const other = snapshot.imports[i].from;
    if (!deferred[i] && other !== from && inStart[other]) found.add(snapshot.modules[other].path);
  }
  return [...found];
}

/** A package by its name when it is entered from outside; anything else by its file. */
function nameOf(path: string, of: string | null, from: string | null): string {
  return of !== null && of !== from && /(^|\/)index\.[a-z]+$/.test(path) ? of : shortName(path);
}
