import type { Seen } from '../../core/advise/types.ts';

/** What people see go wrong less often, as in `▾ 0.4 silent failures in a visit`. */
export function seenWords({ moves, flashes, silent }: Seen): string {
  const told = [
    { change: moves, what: 'moves of the screen' },
    { change: flashes, what: 'flashes' },
    { change: silent, what: 'silent failures possible' },
  ].filter((t) => t.change < 0);
  return told.map((t) => `▾ ${(-t.change).toFixed(t.change > -0.1 ? 2 : 1)} ${t.what}`).join(', ');
}
