import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** The route that is moved to once a landing has come to rest; undefined where a part is acted on. `act`: the pattern of a route, or the id of a part. */
export function movedTo({ routes }: Pick<Snapshot, 'routes'>, landing: string, act: string): Route | undefined {
  const landed = routes.find((r) => r.pattern === landing);
  if (landed?.parts.some((p) => p.id === act)) return undefined;
  return routes.find((r) => r.pattern === act && r.pattern !== landing && r.realm === landed?.realm);
}
