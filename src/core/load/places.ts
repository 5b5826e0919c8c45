import type { Part, Route } from '../snapshot/route-types.ts';
import type { Screens } from './types.ts';

/** Where a part is when somebody lands: a part of some screens is on the first one there. */
export function placeOf(part: Part): 'first screen' | 'below' | 'later' {
  if (part.place === 'first screen' || part.place === 'below') return part.place;
  return screensOf(part) === null ? 'later' : 'first screen';
}

/** The screens on which a part is there; null for one that doesn't hang on the screen. */
export function screensOf({ place, condition }: Part): Screens | null {
  if (place !== 'conditional' || condition?.kind !== 'media') return null;
  const { minWidth, maxWidth } = condition;
  return { ...(minWidth === undefined ? {} : { minWidth }), ...(maxWidth === undefined ? {} : { maxWidth }) };
}

/** Whether a screen of that width is one of those meant. */
export function fits(screens: Screens | undefined, width: number): boolean {
  return !screens || (width >= (screens.minWidth ?? 0) && width <= (screens.maxWidth ?? Number.POSITIVE_INFINITY));
}

/** Calls that only parts need which aren't there from the start. */
export function lateCalls(route: Route): Set<string> {
  const late = new Set<string>();
  for (const p of route.parts)
    if (p.place === 'action' || p.place === 'conditional') for (const id of p.needs) late.add(id);
  for (const p of route.parts)
    if (p.place === 'first screen' || p.place === 'below') for (const id of p.needs) late.delete(id);
  for (const p of route.parts) if (p.condition?.kind === 'answer') late.delete(p.condition.of);
  return late;
}

/** The calls for data that script makes on a landing. */
export function callsOnLanding(route: Route): Route['data'] {
  if (route.rendering !== 'client') return [];
  const late = lateCalls(route);
  return route.data.filter((call) => !late.has(call.id));
}
