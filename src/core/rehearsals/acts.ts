import { InputError } from '../errors.ts';
import { modulesOfPart } from '../load/part-modules.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitStep } from '../visits/types.ts';

/** What somebody does once a page has come to rest: presses what brings a part, scrolls to one below, or follows a link to another route. */
export type Act = { does: 'press'; part: Part; words: string } | { does: 'scroll'; part: Part } | { does: 'move' };

/** An act, with the name that it is asked for by (a part’s id, or the pattern of a route), and the route on which the person is after it. */
export type NamedAct = Act & { name: string; on: Route };

type Routes = Pick<Snapshot, 'routes'>;

/** All that can be done by somebody who landed on one route and is on another one now (or still the same): acts on its parts, then moves. */
export function possibleActs({ routes }: Routes, landing: string, pattern: string): NamedAct[] {
  const on = routes.find((r) => r.pattern === pattern);
  if (!on) return [];
  const realm = routes.find((r) => r.pattern === landing)?.realm;
  const ofParts = on.parts.flatMap((part): NamedAct[] => {
    const named = { name: part.id, on, part };
    if (part.action) return [{ does: 'press', ...named, words: part.action }];
    return part.place === 'below' ? [{ does: 'scroll', ...named }] : [];
  });
  const others = routes.filter((r) => r !== on && r.realm === realm);
  return [...ofParts, ...others.map((r): NamedAct => ({ does: 'move', name: r.pattern, on: r }))];
}

/** As many of the acts as can be done one after the other, from a landing on. */
export function doableActs(app: Routes, landing: string, names: readonly string[]): NamedAct[] {
  const done: NamedAct[] = [];
  for (const name of names) {
    const act = actsAfter(app, landing, done).find((a) => a.name === name);
    if (!act) break;
    done.push(act);
  }
  return done;
}

/** What can be done next by somebody who landed on a route and did this. */
export function actsAfter(app: Routes, landing: string, done: readonly NamedAct[]): NamedAct[] {
  return possibleActs(app, landing, done.at(-1)?.on.pattern ?? landing);
}

/** What acts are, one after the other, from a landing on. Throws InputError for one that can’t be done where the person is by then. */
export function actsOf(app: Routes, landing: string, names: readonly string[]): NamedAct[] {
  const done = doableActs(app, landing, names);
  if (done.length === names.length) return done;
  throw noSuchAct(names[done.length], done.at(-1)?.on.pattern ?? landing, actsAfter(app, landing, done));
}

function noSuchAct(name: string, pattern: string, possible: readonly NamedAct[]): InputError {
  const [moves, parts] = [true, false].map(
    (isMove) =>
      possible
        .filter((a) => (a.does === 'move') === isMove)
        .map((a) => a.name)
        .join(', ') || 'none',
  );
  return new InputError(
    'No such act',
    `Parts of ${pattern} behind an act, or below its first screen: ${parts}. Routes that can be moved to: ${moves}.`,
    name,
  );
}

/** The module that draws what an act brings; undefined where the app has none. */
export function moduleOfAct(snapshot: Snapshot, act: NamedAct): number | undefined {
  const path = act.does === 'move' ? act.on.page : modulesOfPart(snapshot, act.on, act.part.id).at(-1);
  return path === undefined ? undefined : graphIndex(snapshot).moduleAt.get(path);
}

/** An act as a step of a visit, after so long a stay, in ms. */
export function stepOf(act: NamedAct, dwellMs: number): VisitStep {
  const pauses = { dwellMs, leadMs: 0 };
  switch (act.does) {
    case 'press':
      return { does: 'act', part: act.part.id, ...pauses };
    case 'scroll':
      return { does: 'scroll', part: act.part.id, ...pauses };
    case 'move':
      return { does: 'move', to: act.on.pattern, by: 'inside', holds: [], ...pauses };
  }
}
