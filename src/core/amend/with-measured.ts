import type { Measured } from '../snapshot/measured-types.ts';
import type { Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** A module that grew or shrank by more than this share since it was measured is taken for another one. */
const SAME = 0.1;

/** A snapshot that says of modules and parts what was measured. What notes say of a part counts before it. */
export function withMeasured(
  snapshot: Snapshot,
  { modules = {}, draws = {}, shellWaits = [], browser }: Measured,
): Snapshot {
  return {
    ...snapshot,
    ...(browser === undefined ? {} : { browserShare: browser }),
    modules: snapshot.modules.map((m) => {
      const known = Object.hasOwn(modules, m.path) ? modules[m.path] : undefined;
      if (!known || Math.abs(m.bytes.minified - known.bytes) > SAME * known.bytes) return m;
      return { ...m, evaluationMs: known.ms };
    }),
    routes: snapshot.routes.map((route) => {
      const drawn = Object.hasOwn(draws, route.pattern) ? drawnAs(route, draws[route.pattern]) : route;
      return shellWaits.includes(route.pattern) ? { ...drawn, shellWaits: true } : drawn;
    }),
  };
}

function drawnAs(route: Route, draws: Readonly<Record<string, number>>): Route {
  return {
    ...route,
    draws,
    parts: route.parts.map((p) =>
      p.drawMs === undefined && Object.hasOwn(draws, p.id) ? { ...p, drawMs: draws[p.id] } : p,
    ),
  };
}
