import type { Route } from './route-types.ts';

/**
 * The share of landings that each of some routes has, by pattern; they add up to 1. A route that doesn't say counts as
 * much as the middle one of those that do, and all count alike where none says.
 */
export function landingShares(routes: readonly Pick<Route, 'pattern' | 'landings'>[]): Map<string, number> {
  const said = routes.flatMap((r) => r.landings ?? []).sort((a, b) => a - b);
  const usual = said.length === 0 ? 1 : said[Math.floor(said.length / 2)];
  const all = routes.reduce((sum, r) => sum + (r.landings ?? usual), 0);
  return new Map(routes.map((r) => [r.pattern, all === 0 ? 1 / routes.length : (r.landings ?? usual) / all]));
}
