import type { Weight } from '../../chunks/carried.ts';
import { planned } from '../../chunks/planned.ts';
import { Reacher } from '../../chunks/reach.ts';
import { startModules } from '../../chunks/start-modules.ts';
import { followLanding, type LandedRoot } from '../../load/landing.ts';
import type { Decision } from '../../plan/types.ts';
import { graphIndex, importKey } from '../../snapshot/graph-index.ts';
import type { Route } from '../../snapshot/route-types.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import { shortName } from '../../text/short-name.ts';
import { blocksOf, weightOf } from './blocks.ts';
import { keepersOf } from './keepers.ts';
import { type Band, type ShippedPlan, START, type WeightPicture } from './types.ts';

/** More bands than these nobody compares; lighter ones are summed up. */
const MOST_BANDS = 8;

/**
 * A route as blocks by weight: what its start is made of, and what each of its split points brings besides that. With `tried`, the same app
 * under another plan: where each block goes by that, and what stays although what goes needs it. `open`: packages and folders that are
 * taken apart, as `kind of` (`package dates`, `folder src/crew`). Weights are estimates of bytes, as in the outline.
 */
export function weightPicture(
  now: ShippedPlan,
  pattern: string,
  tried: ShippedPlan | null = null,
  open: ReadonlySet<string> = new Set(),
): WeightPicture {
  const route = now.app.routes.find((r) => r.pattern === pattern);
  if (!route) return { bands: [], lighter: { minified: 0, compressed: 0, count: 0 } };
  const before = placesOf(now, route);
  const after = tried ? placesOf(tried, route) : null;
  const known = new Set(before.map((b) => b.id));
  const added = after?.filter((b) => !known.has(b.id)) ?? [];
  const goes = after && wayOf(after, tried!.app);
  const kept = tried
    ? keepersOf(
        tried,
        route,
        added.map((b) => b.id),
      )
    : new Map<string, string>();
  const bands = before.map(({ modules, ...band }): Band => {
    const to = (m: number) => (goes ? goes(now.app.modules[m].path, band.id) : band.id);
    const keptBy = (m: number) => (band.id === START ? (kept.get(now.app.modules[m].path) ?? null) : null);
    const blocks = blocksOf(now.app, { band: band.id, modules, open, to, keptBy });
    return { ...band, isNew: false, weight: weightOf(now.app, modules), blocks };
  });
  const gets = new Set(bands.flatMap((b) => b.blocks.map((x) => x.to)));
  // One that only shares what comes with another has nothing of its own to show.
  for (const { modules, ...band } of added)
    if (gets.has(band.id)) bands.push({ ...band, isNew: true, weight: weightOf(tried!.app, modules), blocks: [] });
  return told(bands);
}

/** The bands that are shown: the start, those that something comes to or leaves, and of the others the heaviest. */
function told([start, ...later]: Band[]): WeightPicture {
  const gets = new Set([start, ...later].flatMap((b) => b.blocks.flatMap(({ to }) => (to === b.id ? [] : to))));
  const changes = (b: Band) => Number(b.isNew || gets.has(b.id) || b.blocks.some((x) => x.to !== b.id));
  const ordered = [...later].sort((a, b) => changes(b) - changes(a) || b.weight.compressed - a.weight.compressed);
  const rest = ordered.slice(MOST_BANDS);
  const sum = (of: keyof Weight) => rest.reduce((all, b) => all + b.weight[of], 0);
  return {
    bands: [start, ...later.filter((b) => !rest.includes(b))],
    lighter: { minified: sum('minified'), compressed: sum('compressed'), count: rest.length },
  };
}

interface Place extends Pick<Band, 'id' | 'name' | 'trigger' | 'onLanding' | 'joins'> {
  modules: number[];
}

/** Which modules a route's start has, and which each split point that it can ask for brings besides. */
function placesOf({ app, plan }: ShippedPlan, route: Route): Place[] {
  const { plan: effective, graph } = planned(app, plan);
  const landing = followLanding(app, effective, graph, route);
  const start = [...new Reacher(graphIndex(app), effective.deferred).from(startModules(app, route))];
  const inStart = new Set(start);
  const places = new Map<string, Place>([
    [START, { id: START, name: 'start', trigger: null, onLanding: true, joins: [], modules: start }],
  ]);
  const add = ({ root: at, trigger }: LandedRoot, onLanding: boolean) => {
    const root = graph.roots[at];
    const id = app.modules[root.target[0]].path;
    const modules = [...root.need].filter((m) => !inStart.has(m));
    if (at === landing.entry || places.has(id) || modules.length === 0) return;
    const joins = root.askedBy.flatMap(({ import: i }): Decision[] =>
      i < 0 ? [] : [{ kind: 'join', import: importKey(app, app.imports[i]) }],
    );
    places.set(id, { id, name: shortName(id), trigger, onLanding, joins, modules });
  };
  for (const landed of landing.roots) add(landed, true);
  for (const landed of landing.later) add(landed, false);
  return [...places.values()];
}

/** Where a module of a band is by other places: there still, else in the first that has it; null where none has. */
function wayOf(places: readonly Place[], app: Snapshot): (path: string, from: string) => string | null {
  const bandsOf = new Map<string, string[]>();
  for (const { id, modules } of places)
    for (const m of modules) {
      const { path } = app.modules[m];
      const known = bandsOf.get(path);
      if (known) known.push(id);
      else bandsOf.set(path, [id]);
    }
  return (path, from) => {
    const bands = bandsOf.get(path) ?? [];
    return bands.includes(from) ? from : (bands[0] ?? null);
  };
}
