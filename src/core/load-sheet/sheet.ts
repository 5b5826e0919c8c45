import type { PlannedApp } from '../chunks/planned.ts';
import { planned } from '../chunks/planned.ts';
import { splitPointsOf } from '../chunks/split-points.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { compileLoad } from '../load/compile.ts';
import { followLanding, type LandedRoot, type Landing } from '../load/landing.ts';
import { comesLater } from '../load/trigger-rules.ts';
import { startSums, total } from '../metrics/start.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { RequestRole } from '../sim/types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { shortName } from '../text/short-name.ts';
import type { TriggerKind } from '../vocabulary/triggers.ts';
import { triggerWords } from '../vocabulary/triggers.ts';

/** Which chunk reaches which moment, and how. */
export interface LoadSheet {
  columns: SheetColumn[];
  rows: SheetRow[];
}

export interface SheetColumn {
  /** Id of the chunk. */
  id: string;
  name: string;
  kind: 'script' | 'style';
  /** Compressed. */
  bytes: number;
  /** Moments that it travels for, or that use it once it is there: how much it is shared. */
  used: number;
  /** The first row that asks for it; −1: none does. */
  firstRow: number;
  /** Heaviest modules, to say what it is. */
  holds: string[];
  /** Split points that need it, by their target. */
  splitPoints: string[];
}

export type MomentKind = 'landing' | 'quiet' | 'scroll' | 'approach' | 'action' | 'condition' | 'move';

export interface SheetRow {
  id: string;
  kind: MomentKind;
  /** The route on which the moment is. */
  route: string;
  name: string;
  /** Split point or route that the moment asks for; null for a landing. */
  target: string | null;
  cells: SheetCell[];
  /** Compressed bytes of the app's files that travel for this moment; for a landing the start and what it fetches beside it. */
  bytes: number;
  /** For a landing: the start as it is told everywhere. */
  start: number | null;
}

/**
 * How a chunk reaches a moment: by the role of its request, or `here` when an earlier moment brought it; `ready` when it
 * was fetched in case and is used now.
 */
export interface SheetCell {
  column: number;
  role: Exclude<RequestRole, 'content'> | 'here' | 'ready';
}

/**
 * The load sheet of a plan: a row for the landing on each route (roles as simulated), one for each later moment that
 * asks for code, and one for each move along a link, given what the landing brought.
 */
export function loadSheet(snapshot: Snapshot, plan: Plan, conditions: Conditions): LoadSheet {
  const app = planned(snapshot, plan);
  const { plan: effective, graph } = app;
  const landings = new Map(
    snapshot.routes.map((r) => [`${r.realm} ${r.pattern}`, followLanding(snapshot, effective, graph, r)]),
  );
  const rows: SheetRow[] = [];
  for (const route of snapshot.routes) {
    const landing = landings.get(`${route.realm} ${route.pattern}`)!;
    const { roles, start } = landingRoles(app, route, conditions);
    const own = { id: route.pattern, kind: 'landing' as const, route, name: route.pattern, target: null };
    rows.push(rowOf(graph, own, roles, start));
    for (const landed of momentsOf(landing)) {
      const path = snapshot.modules[graph.roots[landed.root].target[0]].path;
      const cells = asked(graph.roots[landed.root].group, roles);
      const head = { id: `${route.pattern} ${path}`, kind: kindOf(landed), route, target: path };
      rows.push(rowOf(graph, { ...head, name: momentName(route, path, landed) }, cells));
    }
    for (const link of route.links) {
      const to = landings.get(`${route.realm} ${link}`);
      if (!to || link === route.pattern) continue;
      const chunks = to.roots.filter((l) => l.trigger.on === 'at once').flatMap((l) => graph.roots[l.root].group);
      const head = { id: `${route.pattern} to ${link}`, kind: 'move' as const, route, name: link, target: link };
      rows.push(rowOf(graph, head, asked(chunks, roles)));
    }
  }
  return { columns: columnsOf(snapshot, graph, rows), rows };
}

type Roles = Map<number, SheetCell['role']>;

/** The role of every chunk that a landing fetches by itself, and the bytes of its start. */
function landingRoles(app: PlannedApp, route: Route, conditions: Conditions): { roles: Roles; start: number } {
  const program = compileLoad(app, route.pattern);
  const timeline = simulate(program, { ...conditions, cache: 'empty' });
  const roles: Roles = new Map();
  for (const request of timeline.requests) {
    const chunk = request.resource < 0 ? undefined : program.resources[request.resource].chunk;
    if (chunk !== undefined && request.role !== 'content' && !roles.has(chunk)) roles.set(chunk, request.role);
  }
  return { roles, start: total(startSums(program, timeline, conditions).start) };
}

/** Split points that a later moment of the landing asks for, and those that it asks for by itself once it is quiet. */
function momentsOf(landing: Landing): LandedRoot[] {
  return [...landing.roots.filter((l) => !l.inChain && comesLater(l.trigger)), ...landing.later];
}

/** What a moment asks for, beside what the landing has brought already. */
function asked(chunks: readonly number[], landed: Roles): Roles {
  const roles: Roles = new Map([...landed.keys()].map((c) => [c, 'here']));
  for (const c of new Set(chunks)) {
    const had = landed.get(c);
    roles.set(c, had === undefined ? 'on demand' : had === 'in case' || had === 'wasted' ? 'ready' : 'here');
  }
  return roles;
}

const KINDS: Record<TriggerKind, MomentKind> = {
  'at once': 'quiet',
  'after first paint': 'quiet',
  idle: 'quiet',
  after: 'quiet',
  visible: 'scroll',
  approach: 'approach',
  action: 'action',
  media: 'condition',
  answer: 'condition',
  event: 'condition',
};

function kindOf({ trigger }: LandedRoot): MomentKind {
  return KINDS[trigger.on];
}

function momentName(route: Route, path: string, { trigger }: LandedRoot): string {
  const part = route.parts.find((p) => p.module === path);
  const name = part?.name ?? shortName(path);
  if (trigger.on === 'action' && part?.action) return `${part.action}: ${name}`;
  return trigger.on === 'action' || trigger.on === 'visible' ? name : `${name}, ${triggerWords(trigger)}`;
}

function rowOf(
  graph: ChunkGraph,
  head: Omit<SheetRow, 'cells' | 'bytes' | 'start' | 'route'> & { route: Route },
  roles: Roles,
  start: number | null = null,
): SheetRow {
  let bytes = 0;
  const cells = [...roles].map(([column, role]): SheetCell => {
    if (role !== 'here' && role !== 'ready') bytes += graph.chunks[column].bytes.gzip;
    return { column, role };
  });
  return { ...head, route: head.route.pattern, cells: cells.sort((a, b) => a.column - b.column), bytes, start };
}

const MOST_NAMED = 3;

function columnsOf(snapshot: Snapshot, graph: ChunkGraph, rows: readonly SheetRow[]): SheetColumn[] {
  const used = new Array<number>(graph.chunks.length).fill(0);
  const first = new Array<number>(graph.chunks.length).fill(-1);
  rows.forEach((row, at) => {
    for (const { column, role } of row.cells) {
      if (role === 'here') continue;
      used[column]++;
      if (first[column] < 0) first[column] = at;
    }
  });
  return graph.chunks.map((chunk, c) => ({
    id: chunk.id,
    name: chunk.name,
    kind: chunk.kind,
    bytes: chunk.bytes.gzip,
    used: used[c],
    firstRow: first[c],
    splitPoints: splitPointsOf(snapshot, graph, c),
    holds: [...chunk.modules]
      .sort((a, b) => snapshot.modules[b].bytes.minified - snapshot.modules[a].bytes.minified)
      .slice(0, MOST_NAMED)
      .map((m) => snapshot.modules[m].path),
  }));
}

/** Rows and columns in which something else travels, by ids; for showing only what a plan changes. */
export function sheetDifference(now: LoadSheet, before: LoadSheet): { rows: Set<string>; columns: Set<string> } {
  const rows = new Set<string>();
  const columns = new Set<string>();
  const cellsOf = (sheet: LoadSheet) =>
    new Map(
      sheet.rows.map((r) => [
        r.id,
        new Map(r.cells.flatMap((c) => (c.role === 'here' ? [] : [[sheet.columns[c.column].id, c.role]]))),
      ]),
    );
  const [a, b] = [cellsOf(now), cellsOf(before)];
  const sizes = (sheet: LoadSheet) => new Map(sheet.columns.map((c) => [c.id, c.bytes]));
  const [sizeNow, sizeBefore] = [sizes(now), sizes(before)];
  for (const id of new Set([...a.keys(), ...b.keys()])) {
    const [mine, theirs] = [a.get(id) ?? new Map(), b.get(id) ?? new Map()];
    for (const column of new Set([...mine.keys(), ...theirs.keys()])) {
      const same = mine.get(column) === theirs.get(column) && sizeNow.get(column) === sizeBefore.get(column);
      if (same) continue;
      rows.add(id);
      columns.add(column);
    }
  }
  return { rows, columns };
}
