import { graphIndex } from '../snapshot/graph-index.ts';
import type { CallBeginning, Route } from '../snapshot/route-types.ts';
import type { Uncompiled } from './compilation.ts';
import type { Drawing } from './drawing.ts';
import type { LandedRoot, LandingWalk } from './landing.ts';
import { entryModules, modulesOfPart } from './part-modules.ts';
import { callsOnLanding } from './places.ts';
import type { Action, ScreenPart } from './types.ts';
import { Waiting } from './waiting.ts';

/** The part that draws each module's components by script as soon as it can, by the module's position; others aren't known to be drawn so. */
export function drawersOf({ snapshot, parts, drawing, landing, files }: Uncompiled): ReadonlyMap<number, number> {
  const drawers = new Map<number, number>();
  // What the entry draws around all comes with the first of them, where that comes with the entry.
  const entry = files.groups[files.groupOf(landing.entry)]?.resources ?? [];
  const shown = parts.findIndex((p) => p.id === 'shell' || p.id === 'page');
  const isOfEntry = parts[shown]?.needs.every((n) => n.state === 'arrived' || entry.includes(n.resource));
  const first = isOfEntry ? shown : -1;
  parts.forEach((part, at) => {
    if (!drawsAtOnce(part)) return;
    const own = modulesOfPart(snapshot, landing.route, part.id);
    for (const module of drawing.reach(at === first ? [...own, ...entryModules(snapshot, landing.route)] : own))
      if (!drawers.has(module)) drawers.set(module, at);
  });
  return drawers;
}

/** What a landing asks for while it draws: each with the part as whose drawing asks. */
export interface AskedWhileDrawn {
  /** Calls for data, by their resource. */
  calls: ReadonlyMap<number, number>;
  /** Deferred components. */
  roots: ReadonlyMap<LandedRoot, number>;
  /** Answers that have to be there before a deferred component is asked for, since nothing of it is drawn without them. */
  answers: ReadonlyMap<LandedRoot, number[]>;
}

/**
 * What the landing asks for while it draws: calls for data of what is drawn, and deferred components. What no part is known to draw is asked for
 * as soon as the code runs that names it, and so is what that part itself waits for, at any remove.
 */
export function askedWhileDrawn(c: Uncompiled, drawers: ReadonlyMap<number, number>): AskedWhileDrawn {
  const waiting = new Waiting(c);
  const { calls, roots, answers } = waiting.asked;
  const { snapshot, landing, files } = c;
  const { moduleAt } = graphIndex(snapshot);
  for (const call of callsOnLanding(landing.route)) {
    const part = call.begins === 'evaluated' ? undefined : drawers.get(moduleAt.get(call.module) ?? -1);
    const resource = files.data(call);
    const meant = { kind: 'file', at: resource } as const;
    if (part !== undefined && !waiting.leadsTo({ kind: 'part', at: part }, meant)) calls.set(resource, part);
  }
  for (const landed of landing.roots) {
    if (!comesByDrawing(landed) || landed.root === landing.entry) continue;
    const meant = { kind: 'group', at: files.groupOf(landed.root) } as const;
    const needed = answersBefore(c, landed).filter((at) => !waiting.leadsTo({ kind: 'file', at }, meant));
    if (needed.length > 0) answers.set(landed, needed);
    const part = drawers.get(landed.askedBy);
    if (part !== undefined && !waiting.leadsTo({ kind: 'part', at: part }, meant)) roots.set(landed, part);
  }
  return waiting.asked;
}

/** Answers without which nothing of a deferred component is drawn, as resources. */
function answersBefore({ landing, files }: Uncompiled, landed: LandedRoot): number[] {
  const path = files.targetPath(landed.root);
  const parts = landing.route.parts.filter((p) => p.module === path);
  const ids = parts.length === 1 ? (parts[0].drawnAfter ?? []) : [];
  return callsOnLanding(landing.route).flatMap((call) => (ids.includes(call.id) ? [files.data(call)] : []));
}

/** Whether a root is a deferred component that whatever draws it asks for, at once. */
function comesByDrawing({ drawn, awaited, trigger }: LandedRoot): boolean {
  return drawn === true && !awaited && trigger.on === 'at once';
}

type Wanted = Pick<Action, 'do' | 'answers'>;

/** An effect as a part is drawn, or once it shows; at once where there is none. */
export function onceDrawn(wanted: Wanted, target: number | undefined, begins?: CallBeginning): Action {
  if (target === undefined) return { when: 'eval', ...wanted };
  const drawn = asDrawn(wanted, target);
  return begins === 'shown' ? { ...drawn, when: 'shown' } : drawn;
}

/** An effect as a part is drawn, whatever else it waited for. */
export function asDrawn({ do: effect, answers }: Wanted, target: number): Action {
  return { when: 'drawn', target, do: effect, ...(answers ? { answers } : {}) };
}

/**
 * The same for a route that is moved to, whose page and parts script draws; nothing where the server's answer lists what it needs. `drawn`: its parts,
 * by their places among all.
 */
export function askedOnMove(
  c: Uncompiled,
  { route, walk, drawn, drawing }: { route: Route; walk: LandingWalk; drawn: ReadonlySet<number>; drawing: Drawing },
): AskedWhileDrawn {
  if (route.rendering === 'server') return { calls: new Map(), roots: new Map(), answers: new Map() };
  const own = { ...c, walk, landing: walk.landing };
  const drawers = new Map<number, number>();
  for (const at of drawn) {
    const part = c.parts[at];
    if (!mayDrawAtOnce(part)) continue;
    for (const module of drawing.reach(modulesOfPart(c.snapshot, route, part.id)))
      if (!drawers.has(module)) drawers.set(module, at);
  }
  const asked = askedWhileDrawn(own, drawers);
  const roots = [...asked.roots].filter(
    ([landed]) => !landed.inChain && !c.plan.settings.get(c.files.targetPath(landed.root))?.run,
  );
  return { ...asked, roots: new Map(roots) };
}

/**
 * Of what a part asks for itself once it was opened, what it asks for while it is drawn: by the part (it, or one of those `nested`
 * inside of it) as whose drawing asks.
 */
export function askedInside(
  { files }: Uncompiled,
  opened: readonly LandedRoot[],
  nested: ReadonlyMap<LandedRoot, number>,
  { part, module }: { part: number; module: string },
  drawing: Drawing,
): Map<LandedRoot, number> {
  const drawers = new Map<number, number>();
  const draws = (path: string, by: number) => {
    for (const m of drawing.reach([path])) if (!drawers.has(m)) drawers.set(m, by);
  };
  draws(module, part);
  const found = new Map<LandedRoot, number>();
  for (const landed of opened) {
    const own = nested.get(landed);
    if (own === undefined) continue;
    const drawer = drawers.get(landed.askedBy);
    if (drawer !== undefined && comesByDrawing(landed)) found.set(landed, drawer);
    // What comes later is drawn inside of it.
    draws(files.targetPath(landed.root), own);
  }
  return found;
}

/** Whether script draws a part as soon as it can: not with others of a group, nor at a moment that may never come. */
function drawsAtOnce(part: ScreenPart): boolean {
  return part.onItsOwn && mayDrawAtOnce(part);
}

/** The same once something asks for it. */
function mayDrawAtOnce({ drawnBy, held, together, showWhen }: ScreenPart): boolean {
  return drawnBy === 'script' && !held && !showWhen && together === undefined;
}
