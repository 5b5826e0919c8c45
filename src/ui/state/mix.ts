'use client';

import { create } from 'zustand';
import { DEVICES, LINKS } from '../../core/sim/conditions.ts';

/** The mix of visitors that landings are drawn from: weights by id, in any unit. */
export interface MixChoice {
  links: Record<string, number>;
  devices: Record<string, number>;
  /** Per cent. */
  returning: number;
  spread: number;
  visits: number;
}

export const useMix = create<MixChoice>()(() => ({
  links: Object.fromEntries(LINKS.map((l, i) => [l.id, [35, 35, 10, 5, 15][i] ?? 0])),
  devices: Object.fromEntries(DEVICES.map((d, i) => [d.id, [50, 15, 10, 25][i] ?? 0])),
  returning: 30,
  spread: 25,
  visits: 500,
}));
