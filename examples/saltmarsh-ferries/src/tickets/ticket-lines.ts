import { leavesAt, onDay } from '../shared/format';
import type { Sailing } from '../shared/types';

export function ticketLines(sailing: Sailing): string[] {
  return [
    `Ship ${sailing.ship}`,
    `${onDay(sailing.leaves)} ${leavesAt(sailing.leaves)}`,
    `Berth ${sailing.berth}`,
    'Be at the slip twenty minutes before.',
  ];
}
