import type { PlannedApp } from '../chunks/planned.ts';
import { InputError } from '../errors.ts';
import { type EffectivePlan } from '../plan/effective.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Hint } from '../vocabulary/hints.ts';
import type { Trigger } from '../vocabulary/triggers.ts';
import { fetchedAhead } from './ahead.ts';
import type { Uncompiled } from './compilation.ts';
import { addGroups, type Compilation, fileOf } from './compilation.ts';
import { Drawing } from './drawing.ts';
import { type AskedWhileDrawn, askedWhileDrawn, drawersOf, onceDrawn } from './drawn-in.ts';
import { Files, preloadOf } from './files.ts';
import { addFirstFormats } from './first-formats.ts';
import { firstScreenOf } from './first-screen.ts';
import { decideHints, hintsByScript, rulesAtOnce } from './hints.ts';
import { interactionsOf, type WantedMoments } from './interactions.ts';
import { type Landing, walkLanding } from './landing.ts';
import { documentOf } from './markup.ts';
import { callsOnLanding } from './places.ts';
import { placeholderOf, screenParts } from './screen-parts.ts';
import { firesOnLanding, happensOnLanding, momentOf } from './trigger-rules.ts';
import type { DocumentLoad, Effect, LinkHint, LoadProgram, Resource, Step } from './types.ts';
import { addWorkers } from './workers.ts';

/**
 * Compiles the landing on a route into a load program: its document, the chunks that it asks for and the rules by
 * which each is discovered; `clicks` ask for split points later. Throws InputError when the snapshot has no such route.
 */
export function compileLoad(
  app: PlannedApp,
  pattern: string,
  clicks: { target: string; atMs: number }[] = [],
): LoadProgram {
  const { c, document } = landingOn(app, pattern);
  const steps = clicks.flatMap((click) => clickOn(c.plan, c.landing, c.files, click));
  return { ...programOf(c, document), steps };
}

/** The same for a document in which a visit goes on: with the interactions of later moments (see interactionsOf for `moves`). */
export function compileWithInteractions(app: PlannedApp, pattern: string, wanted?: WantedMoments): LoadProgram {
  const { c, document } = landingOn(app, pattern);
  const interactions = interactionsOf(c, wanted);
  return { ...programOf(c, document), steps: [], interactions };
}

function programOf({ snapshot, files, parts }: Compilation, document: DocumentLoad): Omit<LoadProgram, 'steps'> {
  const { resources, groups } = files;
  const { placeholders, browserShare } = snapshot;
  return {
    ...{ document, resources, groups, parts },
    ...(placeholders ? { placeholders } : {}),
    ...(browserShare === undefined ? {} : { browserShare }),
  };
}

/** The hints that the document of a landing carries, each with the links that it becomes, and the files that these name. */
export function compileHints(
  app: PlannedApp,
  pattern: string,
): { hints: { hint: Hint; links: LinkHint[] }[]; resources: Resource[] } {
  const { hints, files } = landingOn(app, pattern).c;
  const rules = hints.documents.map((hint) => ({ hint, links: [] }));
  return { hints: [...hints.aimed, ...rules], resources: files.resources };
}

/** Compiles a landing from top to bottom: what it asks for, its files and parts, its hints, and at last its document. */
function landingOn(app: PlannedApp, pattern: string): { c: Compilation; document: DocumentLoad } {
  const { snapshot, plan, graph } = app;
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  if (!route) {
    const known = snapshot.routes.map((r) => r.pattern).join(', ');
    throw new InputError(
      'No such route',
      known ? `The snapshot has these routes: ${known}.` : 'The snapshot has no routes.',
      pattern,
    );
  }
  const walk = walkLanding(snapshot, plan, graph, route);
  const { landing } = walk;
  const files = new Files(snapshot, graph, plan, firstScreenOf(snapshot, plan, graph, landing));
  addGroups(landing, graph, files, route.page, snapshot);
  const drawing = Drawing.onLanding(snapshot, graph, landing);
  const parts = screenParts(snapshot, plan, graph, landing, files, drawing);
  const landed = { ...app, walk, landing, files, parts, drawing };
  const drawers = drawersOf(landed);
  const asked = askedWhileDrawn(landed, drawers);
  addRequests(landed, asked);
  addFirstFormats(landed);
  const c: Compilation = { ...landed, hints: decideHints(landed) };
  addWhenSeen(c);
  addContent(landed, drawers, asked);
  addWorkers(landed, drawers, (asker, trigger, path, effect) => begin(landed, asker, trigger, path, effect));
  const document = documentOf(c, rulesAtOnce(c));
  files.noteIdle();
  return { c, document };
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

/** Each deferred import of the landing becomes an action of the file that holds it. */
function addRequests(c: Uncompiled, asked: AskedWhileDrawn): void {
  const { snapshot, plan, graph, landing, files } = c;
  for (const landed of landing.roots) {
    if (landed.root === landing.entry) continue;
    // What only code asks for that the landing doesn't bring is asked for by the entry: a route's own page or layout has to come.
    const asker =
      files.resources[landed.askedBy < 0 ? -1 : fileOf(snapshot, graph, landing, files, landed.askedBy)] ??
      entryFile(landing, files);
    const group = files.groupOf(landed.root);
    const path = files.targetPath(landed.root);
    const { run } = plan.settings.get(path) ?? {};
    if (landed.awaited && asker) asker.awaits = [...(asker.awaits ?? []), group];
    if (!run) {
      const target = asked.roots.get(landed);
      const answers = asked.answers.get(landed);
      const effect = { kind: 'import', group } as const;
      if (target === undefined && answers === undefined) begin(c, asker, landed.trigger, path, effect);
      else asker?.follow.push(onceDrawn({ do: effect, ...(answers ? { answers } : {}) }, target));
      continue;
    }
    // Fetched now, run later: the files come as a preload brings them.
    for (const resource of files.groups[group].resources) {
      const hint = { ...preloadOf(files, resource, 'modulepreload'), chosen: false };
      begin(c, asker, landed.trigger, path, { kind: 'link', hint });
    }
    if (firesOnLanding(run, landing.route, path)) begin(c, asker, run, path, { kind: 'import', group });
  }
}

/** Lets an effect happen at a trigger that fires on the landing: from the file that asks, or from an answer that comes. */
function begin(c: Uncompiled, asker: Resource | undefined, trigger: Trigger, path: string, effect: Effect): void {
  const { landing, files, parts } = c;
  const { route } = landing;
  const call = trigger.on === 'answer' ? route.data.find((d) => d.id === trigger.of) : undefined;
  if (call && route.rendering === 'client') files.resources[files.data(call)].follow.push({ when: 'eval', do: effect });
  else if (trigger.on === 'visible')
    asker?.follow.push({ when: 'visible', target: placeholderOf(route, parts, path), do: effect });
  else asker?.follow.push({ ...momentOf(trigger), do: effect });
}

/**
 * What begins when something comes into view: the code of what the document drew already (an island), code that the
 * plan asks for as soon as what leads to it is seen, and the code of linked routes that is fetched ahead.
 */
function addWhenSeen(c: Compilation): void {
  const { plan, landing, files, parts } = c;
  const { route } = landing;
  const entry = entryFile(landing, files);
  const page = parts.findIndex((p) => p.id === 'page');
  for (const landed of landing.later) {
    const path = files.targetPath(landed.root);
    if (landed.trigger.on !== 'visible') continue;
    const part = route.parts.find((p) => p.module === path);
    const target =
      part?.place === 'below' || part?.place === 'first screen' ? parts.findIndex((p) => p.id === part.id) : page;
    if (target < 0 || (target === page && !plan.triggers.has(path))) continue;
    entry?.follow.push({ when: 'visible', target, do: { kind: 'import', group: files.root(landed, []) } });
  }
  entry?.follow.push(...fetchedAhead(c, route, page), ...hintsByScript(c, page));
}

/** Calls and images that a module starts become actions of the file that holds the module. */
function addContent(c: Uncompiled, drawers: ReadonlyMap<number, number>, asked: AskedWhileDrawn): void {
  const { snapshot, graph, landing, files } = c;
  const { route } = landing;
  const index = graphIndex(snapshot);
  const at = (path: string): Resource | undefined => {
    const module = index.moduleAt.get(path);
    return module === undefined ? undefined : files.resources[fileOf(snapshot, graph, landing, files, module)];
  };
  for (const call of callsOnLanding(route)) {
    const resource = files.data(call);
    at(call.module)?.follow.push(
      onceDrawn({ do: { kind: 'fetch', resource } }, asked.calls.get(resource), call.begins),
    );
  }
  for (const item of route.content) {
    if (item.foundIn === 'document' || (item.lazy && item.place === 'below')) continue;
    const resource = files.content(item);
    const target = drawers.get(index.moduleAt.get(item.foundIn.module) ?? -1);
    const moment = target === undefined ? ({ when: 'eval' } as const) : ({ when: 'drawn', target } as const);
    at(item.foundIn.module)?.follow.push({ ...moment, do: { kind: 'img', resource } });
  }
}

function entryFile(landing: Landing, files: Files): Resource | undefined {
  return files.resources[files.groups[files.groupOf(landing.entry)]?.resources.at(-1) ?? -1];
}
