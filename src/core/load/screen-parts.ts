import type { ChunkGraph } from '../chunks/types.ts';
import type { EffectivePlan } from '../plan/effective.ts';
import { shortName } from '../plan/names.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Part, Route, Snapshot } from '../snapshot/types.ts';
import type { Files } from './files.ts';
import { chunkOf, happensOnLanding, type LandedRoot, type Landing } from './landing.ts';
import { momentOf } from './moment.ts';
import type { Need, ScreenPart } from './types.ts';

/** Cost of drawing or hooking up a part, in ms on the reference device. An assumption, the same for all parts. */
const RENDER_MS = 4;

/** What the person sees of a landing: the shell, the page and the parts whose code the landing loads. */
export function screenParts(
  snapshot: Snapshot,
  plan: EffectivePlan,
  graph: ChunkGraph,
  landing: Landing,
  files: Files,
): ScreenPart[] {
  const { route } = landing;
  const index = graphIndex(snapshot);
  const drawnBy = route.rendering === 'server' ? 'document' : 'script';
  const claimed = new Set(route.parts.flatMap((p) => p.needs));
  const parts: ScreenPart[] = [];
  const add = (id: string, name: string, path: string, place: ScreenPart['place'], more: Partial<ScreenPart>) => {
    const module = index.moduleAt.get(path);
    const home = module === undefined ? undefined : homeOf(graph, landing, module, more.drawnBy ?? drawnBy);
    if (module !== undefined && home === undefined) return;
    const needs = home === undefined ? [] : needsOf(files, files.root(home, []));
    parts.push({ ...drawnPart(id, name, place), drawnBy, needs, ...more });
  };

  const [shell] = route.layouts;
  if (shell) add('shell', 'shell', shell, 'first screen', {});
  const pageFill = route.content.filter((c) => c.place === 'first screen' && !c.lazy && !claimed.has(c.id));
  const pageData =
    drawnBy === 'script'
      ? route.data.filter((d) => !claimed.has(d.id) && loads(snapshot, graph, landing, d.module))
      : [];
  add('page', shortName(route.page), route.page, 'first screen', {
    after: shell ? [0] : [],
    fill: [...pageFill.map((c) => files.content(c)), ...pageData.map((d) => files.data(d))],
  });
  const page = parts.findIndex((p) => p.id === 'page');
  for (const part of route.parts) {
    const place = placeOf(part);
    const { run, show, fallback, together, clientOnly, onError } = plan.settings.get(part.module) ?? {};
    if (place === 'later' || [run, show].some((t) => t && !happensOnLanding(t))) continue;
    if (part.noScript) {
      const images = route.content.filter((c) => part.needs.includes(c.id) && !c.lazy).map((c) => files.content(c));
      parts.push({
        ...drawnPart(part.id, part.name, place),
        interactive: false,
        after: page < 0 ? [] : [page],
        fill: images,
      });
      continue;
    }
    const images = route.content.filter((c) => part.needs.includes(c.id) && !c.lazy).map((c) => files.content(c));
    const calls =
      drawnBy === 'script' ? route.data.filter((d) => part.needs.includes(d.id)).map((d) => files.data(d)) : [];
    add(part.id, part.name, part.module, place, {
      interactive: part.interactive,
      after: page >= 0 ? [page] : [],
      fill: [...images, ...calls],
      ...(clientOnly ? { drawnBy: 'script' as const } : {}),
      ...(fallback ? { fallback } : {}),
      ...(show ? { showWhen: momentOf(show) } : {}),
      ...(together ? { together } : {}),
      ...(onError && onError !== 'nothing' ? { tellsFailure: true } : {}),
    });
  }
  widenFallbacks(plan, route, parts);
  return parts;
}

/** Something that the document draws, that answers, and needs nothing. */
export function drawnPart(id: string, name: string, place: ScreenPart['place']): ScreenPart {
  return {
    id,
    name,
    place,
    drawnBy: 'document',
    needs: [],
    interactive: true,
    after: [],
    fill: [],
    renderMs: RENDER_MS,
    onItsOwn: true,
  };
}

/**
 * A fallback in place of the page or the whole app: those too are drawn only when the part's code is there, and the
 * stand-in is theirs. What the server drew is there anyhow.
 */
function widenFallbacks(plan: EffectivePlan, route: Route, parts: ScreenPart[]): void {
  for (const { id, module } of route.parts) {
    const part = parts.find((p) => p.id === id);
    const { fallback } = plan.settings.get(module) ?? {};
    if (part?.drawnBy !== 'script' || !fallback || (fallback.scope ?? 'part') === 'part') continue;
    const asks = plan.triggers.get(module)?.on ?? 'at once';
    if (asks !== 'at once' && asks !== 'media') continue;
    for (const within of parts) {
      if (within.drawnBy !== 'script' || (within.id !== 'page' && (within.id !== 'shell' || fallback.scope !== 'app')))
        continue;
      within.standInNeeds ??= within.needs;
      within.needs = [
        ...within.needs,
        ...part.needs.filter((n) => !within.needs.some((o) => o.resource === n.resource)),
      ];
      within.fallback = fallback;
    }
    part.fallback = { show: 'nothing', holdMs: 0 };
  }
}

function placeOf(part: Part): ScreenPart['place'] {
  if (part.place === 'first screen' || part.place === 'below') return part.place;
  return part.place === 'conditional' && part.condition?.kind === 'media' ? 'first screen' : 'later';
}

/** Whether a landing loads a module. */
export function loads(snapshot: Snapshot, graph: ChunkGraph, landing: Landing, path: string): boolean {
  const module = graphIndex(snapshot).moduleAt.get(path);
  return module !== undefined && chunkOf(graph, landing.roots, module) >= 0;
}

/**
 * The root whose code makes a module draw: one that the landing asks for, or (where the document draws it already) one
 * that is asked for later, so that it answers only then.
 */
function homeOf(
  graph: ChunkGraph,
  landing: Landing,
  module: number,
  drawnBy: ScreenPart['drawnBy'],
): LandedRoot | undefined {
  const here = landing.roots.find((l) => chunkOf(graph, [l], module) >= 0);
  if (here || drawnBy === 'script') return here;
  return landing.later.find((l) => graph.roots[l.root].target[0] === module);
}

/** Scripts of a group that have to be evaluated, and styles that have to be there, before what it brings can draw. */
export function needsOf(files: Files, group: number): Need[] {
  return files.groups[group].resources.map((resource) => ({
    resource,
    state: files.resources[resource].type === 'script' ? 'evaluated' : 'arrived',
  }));
}
