import { has } from '../chunks/bits.ts';
import { type EffectivePlan, tellsFailure } from '../plan/effective.ts';
import type { SplitSettings } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { CallBeginning, Part, Route } from '../snapshot/route-types.ts';
import type { TriggerKind } from '../vocabulary/triggers.ts';
import { fetchedAhead } from './ahead.ts';
import { addGroups, type Compilation, fileOf } from './compilation.ts';
import { DRAWING, type Drawing, type DrawingPrice } from './drawing.ts';
import { type AskedWhileDrawn, asDrawn, askedInside, askedOnMove, onceDrawn } from './drawn-in.ts';
import { hintsOnApproach, routesApproached } from './hints.ts';
import { chunkOf, type LandedRoot, type LandingWalk, walkLanding } from './landing.ts';
import { aroundPage } from './part-modules.ts';
import { callsOnLanding } from './places.ts';
import { drawnPart, needsOf, pricedAt, screenParts, unnamedPart } from './screen-parts.ts';
import { happensOnLanding, momentOf } from './trigger-rules.ts';
import {
  type Interaction,
  type InteractionAction,
  leaveInteraction,
  moveInteraction,
  type Need,
  partInteraction,
  type ScreenPart,
} from './types.ts';

/** A route as it stands in a document that is open: what its landing would ask for, and the parts that script draws. */
interface Stage {
  route: Route;
  walk: LandingWalk;
  /** Index of the page's part; −1 when it has none. */
  page: number;
  /** Of the route's parts, by id. */
  parts: Map<string, number>;
  /** All that leaves the screen when the route does. */
  all: number[];
  /** What of it shows by itself when the person comes. */
  drawn: Set<number>;
  /** The price of what is drawn, with the parts that show by themselves drawn. */
  drawing: Drawing;
}

/** Which later moments of a document are asked for, beside those of its own route's parts: patterns of routes. */
export interface WantedMoments {
  moves: ReadonlySet<string>;
  parts: ReadonlySet<string>;
}

/** Nothing but what can be done on the route itself. */
export const NOTHING_ELSE: WantedMoments = { moves: new Set(), parts: new Set() };

/**
 * What later moments of a visit set off in the document of a landing: moves to every route of the same realm, and for
 * each of these routes its parts behind acts, below the first screen and under conditions. What an interaction lists is asked
 * for; what is there already costs nothing. A realm whose pages share no entry has no moves inside. With `wanted` only
 * moves to these routes, the route's own parts, and those of some that are moved to.
 */
export function interactionsOf(c: Compilation, wanted?: WantedMoments): Interaction[] {
  const { snapshot, plan, graph, landing } = c;
  const stages: Stage[] = [ownStage(c)];
  const inside = landing.entry >= 0 && graph.roots[landing.entry].need.length > 0;
  for (const route of inside ? snapshot.routes : []) {
    if (route === landing.route || route.realm !== landing.route.realm || wanted?.moves.has(route.pattern) === false)
      continue;
    const stage = movedStage(c, route, walkLanding(snapshot, plan, graph, route));
    if (stage) stages.push(stage);
  }
  const isWanted = ({ route }: Stage) => !wanted || route === landing.route || wanted.parts.has(route.pattern);
  const ofParts = stages
    .filter(isWanted)
    .flatMap((stage) => stage.route.parts.flatMap((part) => partOn(c, stage, part) ?? []));
  const left = routesApproached(c).map((route) => leaveFor(c, route));
  if (!inside) return [...ofParts, ...left];
  const hides = stages.flatMap((s) => s.all);
  return [...ofParts, ...left, ...stages.filter((s) => s.page >= 0).map((stage) => ({ ...moveTo(c, stage), hides }))];
}

function ownStage({ landing, parts, walk, drawing }: Compilation): Stage {
  const indexes = new Map(parts.map((p, at) => [p.id, at]));
  const all = parts.map((_, at) => at).filter((at) => parts[at].id !== 'shell');
  return {
    route: landing.route,
    walk,
    page: indexes.get('page') ?? -1,
    parts: indexes,
    all,
    drawn: new Set(all),
    drawing,
  };
}

/** The parts of a route that the person moves to inside the app: all drawn by script. */
function movedStage(c: Compilation, route: Route, walk: LandingWalk): Stage | null {
  const { snapshot, plan, graph, files, parts } = c;
  const { landing } = walk;
  addGroups(landing, graph, files, route.page, snapshot);
  const drawing = c.drawing.after(route);
  const drawn = screenParts(snapshot, plan, graph, landing, files, drawing);
  if (!drawn.some((p) => p.id === 'page')) return null;
  const [outer] = aroundPage(snapshot, route);
  const same =
    outer !== undefined && outer === aroundPage(snapshot, c.landing.route)[0]
      ? parts.findIndex((p) => p.id === 'shell')
      : -1;
  const at = drawn.map((p, i) =>
    p.id === 'shell' && same >= 0 ? same : parts.length + i - (same >= 0 && drawn[0].id === 'shell' ? 1 : 0),
  );
  const stage: Stage = { route, walk, page: -1, parts: new Map(), all: [], drawn: new Set(), drawing };
  const answer: Need[] = route.rendering === 'server' ? [{ resource: files.answer(route), state: 'arrived' }] : [];
  drawn.forEach((part, i) => {
    if (at[i] === same) return;
    const { drawnBy, needs } = part;
    const fromAnswer = drawnBy === 'document' && answer.length > 0;
    parts.push({
      ...part,
      route: route.pattern,
      drawnBy: 'script',
      needs: fromAnswer ? answer : needs,
      ...(fromAnswer && part.interactive ? { answerNeeds: needs } : {}),
      after: part.after.map((a) => at[a]),
      onItsOwn: false,
    });
    stage.all.push(at[i]);
    stage.drawn.add(at[i]);
    stage.parts.set(part.id, at[i]);
    if (part.id === 'page') stage.page = at[i];
  });
  keepOldScreen(plan, route, stage, parts);
  return stage;
}

/** Where the old screen stays until the new one is ready, the page comes only when its first screen is complete. */
function keepOldScreen(plan: EffectivePlan, route: Route, stage: Stage, parts: ScreenPart[]): void {
  const { fallback } = plan.settings.get(route.page) ?? {};
  if (fallback?.show !== 'old screen') return;
  const page = parts[stage.page];
  const first = stage.all.map((at) => parts[at]).filter((p) => p.place === 'first screen');
  const all = [
    ...first.flatMap((p) => p.needs),
    ...first.flatMap((p) => p.fill).map((resource): Need => ({ resource, state: 'arrived' })),
  ];
  page.needs = all.filter((n, i) => all.findIndex((o) => o.resource === n.resource && o.state === n.state) === i);
  page.fallback = fallback;
}

function moveTo(c: Compilation, stage: Stage): Omit<Interaction, 'hides'> {
  const { plan, files, landing } = c;
  const { route, walk } = stage;
  const maxAgeMs = plan.settings.get(route.page)?.answerAhead?.keepMs ?? 0;
  const asked = askedOnMove(c, stage);
  const answers = answersOf(c, stage, asked);
  const [answer] = route.rendering === 'server' ? answers : [];
  // What the document drew by itself, script draws when the person comes back to it: once the answer is there.
  const back = answer !== undefined && route === landing.route;
  const act: InteractionAction[] = [];
  for (const { resource, after, drawer, begins } of back ? [] : answers) {
    const fetch = onceDrawn({ do: { kind: 'fetch', resource, maxAgeMs } }, drawer, begins);
    act.push({ ...fetch, ...(after ? { after } : {}) });
  }
  for (const landed of walk.landing.roots) {
    if (landed.root === walk.landing.entry) continue;
    const asks = asking(c, landed, walk, back ? undefined : answer?.resource);
    const drawer = asked.roots.get(landed);
    const needed = asked.answers.get(landed);
    const withAnswers = needed ? asks.map((a) => ({ ...a, answers: needed })) : asks;
    act.push(...(drawer === undefined ? withAnswers : withAnswers.map((a) => asDrawn(a, drawer))));
  }
  for (const item of route.content) {
    if (item.lazy && item.place === 'below') continue;
    const after: Need | undefined =
      item.foundIn === 'document'
        ? answer && { resource: answer.resource, state: 'arrived' }
        : evaluated(c, walk, item.foundIn.module);
    act.push({ when: 'eval', do: { kind: 'img', resource: files.content(item) }, ...(after ? { after } : {}) });
  }
  const shows = [stage.page, ...stage.all.filter((at) => at !== stage.page && stage.drawn.has(at))];
  for (const part of shows) act.push({ when: 'eval', do: { kind: 'render', part } });
  act.push(...fetchedAhead(c, route, stage.page));
  return {
    id: moveInteraction(route.pattern),
    kind: 'move',
    name: `to ${route.pattern}`,
    shows,
    until: 'shown',
    first: back ? [answer.resource] : [],
    approach: [...fetchedAhead(c, route, -1, 'approach'), ...hintsOnApproach(c, route.page)],
    act,
  };
}

function leaveFor(c: Compilation, route: Route): Interaction {
  const approach = hintsOnApproach(c, route.page);
  const id = leaveInteraction(route.pattern);
  const name = `to ${route.pattern}`;
  return { id, kind: 'leave', name, hides: [], shows: [], until: 'shown', first: [], approach, act: [] };
}

/** What a route's answer is made of: the server's, or its data calls with what has to have run before each. */
function answersOf(
  c: Compilation,
  { route, walk }: Stage,
  asked: AskedWhileDrawn,
): { resource: number; after?: Need; drawer?: number; begins?: CallBeginning }[] {
  if (route.rendering === 'server') return [{ resource: c.files.answer(route) }];
  const ahead = c.plan.settings.get(route.page)?.answerAhead !== undefined;
  return callsOnLanding(route).map((call) => {
    const resource = c.files.data(call);
    if (ahead) return { resource };
    const after = evaluated(c, walk, call.module);
    return { resource, drawer: asked.calls.get(resource), begins: call.begins, ...(after ? { after } : {}) };
  });
}

/** How a root is asked for: once the code that asks has run, or (listed in a server's answer) once that is there. */
function asking(c: Compilation, landed: LandedRoot, walk: LandingWalk, answer?: number): InteractionAction[] {
  const { plan, files } = c;
  const { askedBy } = landed;
  const group = files.groupOf(landed.root);
  const after: Need | undefined =
    askedBy < 0
      ? undefined
      : answer !== undefined && !landed.inChain
        ? { resource: answer, state: 'arrived' }
        : evaluatedModule(c, walk, askedBy);
  const { run } = plan.settings.get(files.targetPath(landed.root)) ?? {};
  const begin = after ? { after } : {};
  const fetch = { ...momentOf(landed.trigger), ...begin };
  if (!run) return [{ ...fetch, do: { kind: 'import', group } }];
  const ahead = files.groups[group].resources.map(
    (resource): InteractionAction => ({ ...fetch, do: files.ahead(resource, 'modulepreload') }),
  );
  return happensOnLanding(run) ? [...ahead, { ...momentOf(run), ...begin, do: { kind: 'import', group } }] : ahead;
}

function evaluated(c: Compilation, walk: LandingWalk, path: string): Need | undefined {
  const module = graphIndex(c.snapshot).moduleAt.get(path);
  return module === undefined ? undefined : evaluatedModule(c, walk, module);
}

function evaluatedModule(c: Compilation, walk: LandingWalk, module: number): Need | undefined {
  const resource = fileOf(c.snapshot, c.graph, walk.landing, c.files, module);
  return resource < 0 ? undefined : { resource, state: 'evaluated' };
}

/** A part of a route whose moment is compiled, with all that its ways of coming share. */
interface Moment {
  stage: Stage;
  part: Part;
  settings: SplitSettings;
  /** The split point that brings it, with what that asks for itself; none where the landing has its code. */
  opener: LandedRoot | undefined;
  opened: LandedRoot[];
  /** The landing with what the moment has opened. */
  wide: LandingWalk;
  /** Actions that ask for its code, and for what that asks for itself. */
  asks: { landed: LandedRoot; actions: InteractionAction[] }[];
  /** It stands below, but comes only with an act. */
  belowAction: boolean;
}

/** What a part of a route sets off when its moment comes; null for one that needs none or can't come. */
function partOn(c: Compilation, stage: Stage, part: Part): Interaction | null {
  const { snapshot, plan, graph, parts } = c;
  const { walk } = stage;
  const module = graphIndex(snapshot).moduleAt.get(part.module);
  if (module === undefined || (part.place === 'conditional' && part.condition?.kind === 'media')) return null;
  const opener = openerOf(c, walk, module);
  const loaded = chunkOf(graph, walk.landing.roots, module) >= 0;
  if (!opener && !loaded && !part.noScript) return null;
  const planned = plan.triggers.get(part.module)?.on;
  const own = {
    id: partInteraction(stage.route.pattern, part.id),
    name: part.name,
    first: part.submit ? c.files.submit(stage.route, part.id, part.submit) : [],
  };
  const moment = openedBy(c, stage, part, opener);
  const approach = [...approachOf(c, moment, planned), ...hintsOnApproach(c, part.module)];
  const there = stage.parts.get(part.id);
  const stands = part.place === 'first screen' || (part.place === 'below' && !moment.belowAction);
  const missed = there !== undefined && parts[there].held !== undefined && parts[there].drawnBy === 'script';
  const rest = there !== undefined && stands && !missed ? standingOf(c, moment, there) : drawingOf(c, moment, module);
  return rest && { ...own, approach, ...rest };
}

/** Asks for the code of a part, and for what that asks for itself. */
function openedBy(c: Compilation, stage: Stage, part: Part, opener: LandedRoot | undefined): Moment {
  const { plan, files } = c;
  const { walk } = stage;
  const opened = opener ? walk.open(opener) : [];
  for (const landed of opened) files.root(landed, []);
  const wide: LandingWalk = { ...walk, landing: { ...walk.landing, roots: [...walk.landing.roots, ...opened] } };
  const asks: Moment['asks'] = opener
    ? [
        { landed: opener, actions: [{ when: 'eval', do: { kind: 'import', group: files.groupOf(opener.root) } }] },
        ...opened.slice(1).map((landed) => ({ landed, actions: asking(c, landed, wide) })),
      ]
    : [];
  const planned = plan.triggers.get(part.module)?.on;
  const belowAction = part.place === 'below' && (planned === 'action' || planned === 'approach');
  return { stage, part, settings: plan.settings.get(part.module) ?? {}, opener, opened, wide, asks, belowAction };
}

/** What the approach begins already: the code, or (where that runs later) its files. */
function approachOf(c: Compilation, { opener, settings, asks }: Moment, planned?: TriggerKind): InteractionAction[] {
  if (!opener || planned !== 'approach') return [];
  if (!settings.run) return asks.flatMap((a) => a.actions);
  return c.files.groups[c.files.groupOf(opener.root)].resources.map(
    (r): InteractionAction => ({ when: 'eval', do: c.files.ahead(r, 'modulepreload') }),
  );
}

type Rest = Pick<Interaction, 'kind' | 'hides' | 'shows' | 'until' | 'act'>;

/** It stands there already: scrolling brings it into view, or (an island) its use waits until it answers. */
function standingOf(c: Compilation, { stage, part, opener, asks }: Moment, there: number): Rest | null {
  const answers = opener !== undefined && part.interactive;
  if (part.place === 'first screen' && !answers) return null;
  const scroll: InteractionAction[] =
    part.place === 'below' ? [{ when: 'eval', do: { kind: 'scroll', part: there } }] : [];
  return {
    kind: part.place === 'below' ? 'scroll' : 'act',
    act: [...scroll, ...asks.flatMap((a) => a.actions), ...lazyImages(c, stage.route, part)],
    hides: [],
    shows: [there],
    until: answers ? 'answering' : 'shown',
  };
}

/** It is drawn when its moment comes, once its code, its data and its condition are there. */
function drawingOf(c: Compilation, moment: Moment, module: number): Rest {
  const { snapshot, graph, files, parts } = c;
  const { stage, part, settings, opener, opened, wide, asks, belowAction } = moment;
  const { route, walk } = stage;
  const home = opener ?? walk.landing.roots.find((l) => chunkOf(graph, [l], module) >= 0);
  const needs = part.noScript ? [] : needsOf(files, files.groupOf(home!.root));
  for (const call of callsOnLanding(route))
    if (part.drawnAfter?.includes(call.id)) needs.push({ resource: files.data(call), state: 'arrived' });
  const calls = route.data.filter((d) => part.needs.includes(d.id));
  const images = route.content.filter((i) => part.needs.includes(i.id));
  // Whoever acts may be the first who has it drawn.
  const drawing = stage.drawing.after();
  const condition = conditionOf(c, stage, part);
  const shown = images.map((image): InteractionAction => {
    // An image that code puts there is found once that has run.
    const after = image.foundIn === 'document' ? undefined : evaluated(c, wide, image.foundIn.module);
    return { when: 'eval', do: { kind: 'img', resource: files.content(image) }, ...(after ? { after } : {}) };
  });
  const at =
    parts.push({
      ...drawnPart(part.id, part.name, 'later'),
      ...pricedAt(apart(drawing.ofPart(part), part.drawMs !== undefined)),
      route: route.pattern,
      drawnBy: 'script',
      interactive: part.interactive,
      needs: condition ? [...needs, condition] : needs,
      after: stage.page >= 0 ? [stage.page] : [],
      fill: [...images.map((i) => files.content(i)), ...calls.map((d) => files.data(d))],
      onItsOwn: false,
      ...(settings.fallback ? { fallback: settings.fallback } : {}),
      ...(settings.show ? { showWhen: momentOf(settings.show) } : {}),
      ...(tellsFailure(c.plan, part.module) ? { tellsFailure: true } : {}),
    }) - 1;
  stage.all.push(at);
  const nested = nestedParts(c, stage, opened.slice(1), at, drawing);
  const shows = [at, ...nested.values()];
  const byDrawing = askedInside(c, opened.slice(1), nested, { part: at, module: part.module }, drawing);
  const asked = asks.flatMap(({ landed, actions }) => {
    const drawer = byDrawing.get(landed);
    return actions.map((a) => (drawer === undefined ? a : asDrawn(a, drawer)));
  });
  const own = drawing.reach([part.module]);
  const act = calls.map((call): InteractionAction => {
    const effect = { kind: 'fetch' as const, resource: files.data(call), maxAgeMs: 0 };
    if (settings.data === 'with the code') return { when: 'eval', do: effect };
    const after = evaluated(c, wide, call.module);
    const byDrawing = call.begins !== 'evaluated' && own.has(graphIndex(snapshot).moduleAt.get(call.module) ?? -1);
    return { ...onceDrawn({ do: effect }, byDrawing ? at : undefined, call.begins), ...(after ? { after } : {}) };
  });
  act.push(...asked.map((a) => ({ ...(condition ? { after: condition } : {}), ...a })), ...shown);
  for (const part of shows) act.push({ when: 'eval', do: { kind: 'render', part } });
  const kind = part.place === 'conditional' ? 'condition' : part.place === 'below' && !belowAction ? 'scroll' : 'act';
  // What was scrolled to stays; what was opened is closed before it can be opened again.
  return { kind, act, hides: kind === 'scroll' ? [] : shows, shows, until: 'shown' };
}

/** What an act opens is drawn by itself. */
const apart = (price: DrawingPrice, measured: boolean): DrawingPrice =>
  measured ? price : { ...price, ms: price.ms + DRAWING.apart };

/** What split points inside a part draw, as soon as that is drawn: it belongs to the part. */
function nestedParts(
  c: Compilation,
  stage: Stage,
  opened: readonly LandedRoot[],
  parent: number,
  drawing: Drawing,
): Map<LandedRoot, number> {
  const { snapshot, files, parts } = c;
  const { moduleAt } = graphIndex(snapshot);
  const nested = new Map<LandedRoot, number>();
  for (const landed of opened) {
    const path = files.targetPath(landed.root);
    if (!landed.drawn || snapshot.modules[moduleAt.get(path) ?? -1]?.kind !== 'script') continue;
    const needs = needsOf(files, files.groupOf(landed.root));
    const part = { ...unnamedPart(path, needs, parent), ...pricedAt(drawing.of([path])) };
    const at = parts.push({ ...part, place: 'later', route: stage.route.pattern, onItsOwn: false }) - 1;
    stage.all.push(at);
    nested.set(landed, at);
  }
  return nested;
}

/** The split point that brings a module, where the landing doesn't, or doesn't run it. */
function openerOf(
  { graph, plan, files }: Compilation,
  { landing }: LandingWalk,
  module: number,
): LandedRoot | undefined {
  const isTarget = (l: LandedRoot) => graph.roots[l.root].target[0] === module;
  const landed = landing.roots.find(isTarget);
  const { run } = (landed && plan.settings.get(files.targetPath(landed.root))) ?? {};
  if (landed && run && !happensOnLanding(run)) return landed;
  const later = landing.later.find(isTarget);
  if (later || chunkOf(graph, landing.roots, module) >= 0) return later;
  return landing.later.find((l) => has(graph.roots[l.root].reach, module));
}

/** What has to be known before a conditional part is asked for: the answer that says so, or that the page runs. */
function conditionOf(c: Compilation, { route, walk }: Stage, part: Part): Need | undefined {
  if (part.place !== 'conditional') return undefined;
  const { condition } = part;
  const call = condition?.kind === 'answer' ? route.data.find((d) => d.id === condition.of) : undefined;
  return call ? { resource: c.files.data(call), state: 'arrived' } : evaluated(c, walk, route.page);
}

function lazyImages({ files }: Compilation, route: Route, part: Part): InteractionAction[] {
  return route.content
    .filter((i) => i.lazy && i.place === 'below' && part.needs.includes(i.id))
    .map((i) => ({ when: 'eval', do: { kind: 'img', resource: files.content(i) } }));
}
