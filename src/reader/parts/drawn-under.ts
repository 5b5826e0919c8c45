import type { Owners } from './owners.ts';

/** Something that a module draws or asks for, and the top-level names that it stands under; none where the module does whoever draws it. */
type Standing = { under?: string | readonly string[] };

/** The names of a module that are drawn: those that others take of it, or that its own routes draw. */
export type DrawnNames = ReadonlySet<string>;

/** A module that is drawn as a whole: all that it draws but what only its own routes lead to. */
export const WHOLE: DrawnNames = new Set(['']);

/** Whether what stands in a module is drawn where these of its names are. A name that the module doesn't have stands for the whole of it. */
export function isDrawnUnder({ under }: Standing, owners: Owners | null, names: DrawnNames): boolean {
  const stands = under === undefined ? [] : [under].flat();
  if (owners === null || stands.length === 0) return true;
  return [...names].some((name) => {
    const reached = owners.reach[name];
    return stands.some((s) => (reached ? reached.includes(s) : !owners.routed.includes(s)));
  });
}
