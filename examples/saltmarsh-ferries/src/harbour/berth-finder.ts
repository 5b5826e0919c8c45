import { distance, type Place } from '@saltmarsh/mapkeel';
import { BERTHS } from './berths';

/** Name of the berth that is nearest to a point. */
export function nearestBerth(x: number, y: number): string {
  const here: Place = { name: 'here', at: [x, y] };
  return [...BERTHS].sort((a, b) => distance(here, a) - distance(here, b))[0].name;
}
