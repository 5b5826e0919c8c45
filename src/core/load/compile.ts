import { has } from '../chunks/bits.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { InputError } from '../errors.ts';
import { type EffectivePlan, effectivePlan } from '../plan/effective.ts';
import type { Hint, Plan } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { Files, preloadOf } from './files.ts';
import { chunkOf, followLanding, happensOnLanding, type LandedRoot, type Landing } from './landing.ts';
import { documentOf } from './markup.ts';
import { momentOf } from './moment.ts';
import { screenParts } from './screen-parts.ts';
import type { LoadProgram, Resource, Step } from './types.ts';

/**
 * Compiles the landing on a route into a load program: its document, the chunks that it asks for and the rules by
 * which each is discovered; `clicks` ask for split points later. Throws InputError when the snapshot has no such route.
 */
export function compileLoad(
  snapshot: Snapshot,
  plan: Plan,
  graph: ChunkGraph,
  pattern: string,
  clicks: { target: string; atMs: number }[] = [],
): LoadProgram {
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  if (!route) {
    const known = snapshot.routes.map((r) => r.pattern).join(', ');
    throw new InputError(
      'No such route',
      known ? `The snapshot has these routes: ${known}.` : 'The snapshot has no routes.',
      pattern,
    );
  }
  const effective = effectivePlan(snapshot, plan);
  const landing = followLanding(snapshot, effective, graph, route);
  const files = new Files(snapshot, graph, effective.loader);
  addGroups(landing, graph, files, route.page, snapshot);
  addRequests(snapshot, effective, graph, landing, files);
  const parts = screenParts(snapshot, effective, graph, landing, files);
  addContent(snapshot, graph, landing, files);
  const hints = aims(snapshot, effective, graph, landing, files);
  const document = documentOf(snapshot, effective, landing, files, parts, hints);
  const steps = clicks.flatMap((c) => clickOn(effective, landing, files, c));
  return { document, resources: files.resources, groups: files.groups, parts, steps };
}

/** A click that asks for a split point's code; none for one that the landing fetches by itself or never asks for. */
function clickOn(
  plan: EffectivePlan,
  landing: Landing,
  files: Files,
  { target, atMs }: { target: string; atMs: number },
): Step[] {
  const { run } = plan.settings.get(target) ?? {};
  const waiting = run && !happensOnLanding(run) ? landing.roots : [];
  const landed = [...landing.later, ...waiting].find((l) => files.targetPath(l.root) === target);
  if (!landed) return [];
  const group = files.root(landed, []);
  // Scripts run only once the group's styles are there as well.
  const ready = files.groups[group].resources.filter((r) => files.resources[r].type === 'script');
  return [{ id: target, kind: 'click', atMs, do: [{ kind: 'import', group }], ready }];
}

/** A page runs after the layouts of its chain, though they travel at the same time; not after those that it asks for. */
function addGroups(landing: Landing, graph: ChunkGraph, files: Files, page: string, snapshot: Snapshot): void {
  const pageModule = graphIndex(snapshot).moduleAt.get(page);
  const pageRoot = landing.roots.find(
    (l) => l.inChain && l.root !== landing.entry && graph.roots[l.root].target[0] === pageModule,
  );
  const before: number[] = [];
  for (const landed of landing.roots) {
    if (landed === pageRoot) continue;
    const group = files.root(landed, []);
    if (landed.inChain && !(pageRoot && leadsTo(graph, landing, pageRoot, landed))) before.push(group);
  }
  if (pageRoot) files.root(pageRoot, before);
}

/** Whether one root is asked for because of another one's code, at any remove. */
function leadsTo(graph: ChunkGraph, landing: Landing, cause: LandedRoot, landed: LandedRoot): boolean {
  const seen = new Set<LandedRoot>();
  for (let at: LandedRoot | undefined = landed; at && !seen.has(at); ) {
    seen.add(at);
    const asker: number = at.askedBy;
    if (asker < 0) return false;
    at = landing.roots.find((l) => has(graph.roots[l.root].reach, asker));
    if (at === cause) return true;
  }
  return false;
}

/** Each deferred import of the landing becomes an action of the file that holds it. */
function addRequests(snapshot: Snapshot, plan: EffectivePlan, graph: ChunkGraph, landing: Landing, files: Files): void {
  for (const landed of landing.roots) {
    if (landed.root === landing.entry) continue;
    const asker =
      landed.askedBy < 0 ? entryFile(landing, files) : fileOf(snapshot, graph, landing, files, landed.askedBy);
    const group = files.groupOf(landed.root);
    const { run } = plan.settings.get(files.targetPath(landed.root)) ?? {};
    if (landed.awaited && asker) asker.awaits = [...(asker.awaits ?? []), group];
    if (!run) {
      asker?.follow.push({ ...momentOf(landed.trigger), do: { kind: 'import', group } });
      continue;
    }
    // Fetched now, run later: the files come as a preload brings them.
    for (const resource of files.groups[group].resources) {
      const hint = { ...preloadOf(files, resource, 'modulepreload'), chosen: false };
      asker?.follow.push({ ...momentOf(landed.trigger), do: { kind: 'link', hint } });
    }
    if (happensOnLanding(run)) asker?.follow.push({ ...momentOf(run), do: { kind: 'import', group } });
  }
}

/** Calls and images that a module starts become actions of the file that holds the module. */
function addContent(snapshot: Snapshot, graph: ChunkGraph, landing: Landing, files: Files): void {
  const { route } = landing;
  const index = graphIndex(snapshot);
  const at = (path: string): Resource | undefined => {
    const module = index.moduleAt.get(path);
    return module === undefined ? undefined : fileOf(snapshot, graph, landing, files, module);
  };
  if (route.rendering === 'client') {
    for (const call of route.data) {
      at(call.module)?.follow.push({ when: 'eval', do: { kind: 'fetch', resource: files.data(call) } });
    }
  }
  for (const item of route.content) {
    if (item.foundIn === 'document' || (item.lazy && item.place === 'below')) continue;
    at(item.foundIn.module)?.follow.push({ when: 'eval', do: { kind: 'img', resource: files.content(item) } });
  }
}

function entryFile(landing: Landing, files: Files): Resource | undefined {
  return files.resources[files.groups[files.groupOf(landing.entry)]?.resources.at(-1) ?? -1];
}

/** The script file in which the landing finds a module; for a style, the script that asks for its group. */
function fileOf(
  snapshot: Snapshot,
  graph: ChunkGraph,
  landing: Landing,
  files: Files,
  module: number,
): Resource | undefined {
  if (snapshot.modules[module].kind === 'style') return entryFile(landing, files);
  const chunk = chunkOf(graph, landing.roots, module);
  return chunk < 0 ? undefined : files.resources[files.chunk(chunk, 'later')];
}

/** The hints that this landing's document carries, with the files that they mean here. */
function aims(
  snapshot: Snapshot,
  plan: EffectivePlan,
  graph: ChunkGraph,
  landing: Landing,
  files: Files,
): { hint: Hint; resources: number[]; origin?: string }[] {
  const { route } = landing;
  const out: { hint: Hint; resources: number[]; origin?: string }[] = [];
  for (const hint of plan.hints) {
    if (hint.routes.length > 0 && !hint.routes.includes(route.pattern)) continue;
    const { target } = hint;
    if (target.kind === 'origin') {
      out.push({ hint, resources: [], origin: target.origin });
      continue;
    }
    if (target.kind === 'asset') {
      const item = route.content.find((c) => c.address === target.address);
      const call = route.data.find((d) => d.address === target.address);
      if (item) out.push({ hint, resources: [files.content(item)] });
      else if (call) out.push({ hint, resources: [files.data(call)] });
      continue;
    }
    const wanted = target.kind === 'split point' ? [target.module] : chainOf(snapshot, target.pattern);
    const resources = wanted.flatMap((path) =>
      rootFiles(snapshot, graph, landing, files, path, hint.routes.length > 0 || target.kind === 'route'),
    );
    if (resources.length > 0) out.push({ hint, resources: [...new Set(resources)] });
  }
  return out;
}

function chainOf(snapshot: Snapshot, pattern: string): string[] {
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  return route ? [...route.layouts, route.page] : [];
}

/** Files of a split point. A hint without routes only goes into documents whose route can come to use it. */
function rootFiles(
  snapshot: Snapshot,
  graph: ChunkGraph,
  landing: Landing,
  files: Files,
  path: string,
  anywhere: boolean,
): number[] {
  const module = graphIndex(snapshot).moduleAt.get(path);
  const root = graph.roots.findIndex(
    (r) => r.realm === landing.route.realm && r.kind !== 'entry' && r.target[0] === module,
  );
  if (root < 0) return [];
  const here = [...landing.roots, ...landing.later].some((l) => l.root === root);
  if (!here && !anywhere) return [];
  return graph.roots[root].group.map((c) => files.chunk(c, 'later'));
}
