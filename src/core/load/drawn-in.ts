import type { Route } from '../snapshot/route-types.ts';
import { fileOf, type Uncompiled } from './compilation.ts';
import type { Drawing } from './drawing.ts';
import type { LandedRoot } from './landing.ts';
import { modulesOfPart } from './part-modules.ts';
import type { Action, ScreenPart } from './types.ts';

/** The part that draws each module's components by script as soon as it can, by the module's position; others aren't known to be drawn so. */
export function drawersOf({ snapshot, parts, drawing, landing }: Uncompiled): ReadonlyMap<number, number> {
  const drawers = new Map<number, number>();
  parts.forEach((part, at) => {
    if (!drawsAtOnce(part)) return;
    for (const module of drawing.reach(modulesOfPart(snapshot, landing.route, part.id)))
      if (!drawers.has(module)) drawers.set(module, at);
  });
  return drawers;
}

/**
 * What the landing asks for while it draws: deferred components, each with the part as whose drawing asks for it. What no part is known to draw
 * is asked for as soon as the code runs that names it, and so is what that part itself waits for, at any remove.
 */
export function askedWhileDrawn(c: Uncompiled, drawers: ReadonlyMap<number, number>): Map<LandedRoot, number> {
  const { landing, files } = c;
  const found = new Map<LandedRoot, number>();
  const groupsWith = new Map<number, number[]>();
  for (const [group, { resources }] of files.groups.entries())
    for (const r of resources) groupsWith.set(r, [...(groupsWith.get(r) ?? []), group]);
  const inGroup = new Map(landing.roots.map((landed) => [files.groupOf(landed.root), landed]));
  for (const landed of landing.roots) {
    if (!comesByDrawing(landed) || landed.root === landing.entry) continue;
    const part = drawers.get(landed.askedBy);
    if (part !== undefined && !waitsFor(c, { asked: found, groupsWith, inGroup }, part, landed))
      found.set(landed, part);
  }
  return found;
}

/** Whether a root is a deferred component that whatever draws it asks for, at once. */
function comesByDrawing({ drawn, awaited, trigger }: LandedRoot): boolean {
  return drawn === true && !awaited && trigger.on === 'at once';
}

/** The same effect as a part is drawn. */
export function asDrawn({ do: effect }: Pick<Action, 'do'>, target: number): Action {
  return { when: 'drawn', target, do: effect };
}

/** Whether a page that script draws on a move asks for a deferred component as it is drawn itself: not where it waits for that. */
export function isAskedByPage(
  { parts, files, plan }: Uncompiled,
  { route, page, drawing }: { route: Route; page: number; drawing: Drawing },
  landed: LandedRoot,
): boolean {
  if (!comesByDrawing(landed) || landed.inChain || route.rendering === 'server' || page < 0) return false;
  if (plan.settings.get(files.targetPath(landed.root))?.run) return false;
  const own = new Set(files.groups[files.groupOf(landed.root)].resources);
  if (parts[page].needs.some((n) => own.has(n.resource))) return false;
  return drawing.reach([...route.layouts.slice(1), route.page]).has(landed.askedBy);
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

/** What asks for what, as far as it is decided. */
interface Asking {
  asked: ReadonlyMap<LandedRoot, number>;
  /** Groups that a file is in. */
  groupsWith: ReadonlyMap<number, readonly number[]>;
  inGroup: ReadonlyMap<number, LandedRoot>;
}

/**
 * Whether a part is drawn only once a root has come: by what it needs, by what comes before it, by what runs before that, and by what asks for
 * any of these.
 */
function waitsFor(c: Uncompiled, { asked, groupsWith, inGroup }: Asking, part: number, meant: LandedRoot): boolean {
  const { snapshot, graph, landing, files, parts } = c;
  const waits: Waited[] = [];
  const seen = new Set<string>();
  const add = (kind: Waited['kind'], at: number) => {
    if (seen.has(`${kind} ${at}`)) return;
    seen.add(`${kind} ${at}`);
    waits.push({ kind, at });
  };
  add('part', part);
  for (const { kind, at } of waits) {
    if (kind === 'part') {
      for (const p of parts[at].after) add('part', p);
      for (const need of parts[at].needs) add('file', need.resource);
    } else if (kind === 'file') {
      for (const group of groupsWith.get(at) ?? []) add('group', group);
    } else {
      for (const group of files.groups[at].after) add('group', group);
      const landed = inGroup.get(at);
      if (landed === meant) return true;
      const by = landed && asked.get(landed);
      if (by !== undefined) add('part', by);
      else if (landed && landed.askedBy >= 0) add('file', fileOf(snapshot, graph, landing, files, landed.askedBy));
    }
  }
  return false;
}

/** What something waits for: a part that is drawn, a file that has come, a group of files that has run; by its position. */
interface Waited {
  kind: 'part' | 'file' | 'group';
  at: number;
}

/** Whether script draws a part as soon as it can: not with others of a group, nor at a moment that may never come. */
function drawsAtOnce({ drawnBy, held, together, showWhen, onItsOwn }: ScreenPart): boolean {
  return drawnBy === 'script' && onItsOwn && !held && !showWhen && together === undefined;
}
