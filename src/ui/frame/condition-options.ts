import { DEVICES, LINKS } from '../../core/sim/conditions.ts';
import { deviceOf, linkOf } from '../../core/sim/own-conditions.ts';
import type { CacheState } from '../../core/vocabulary/cache-states.ts';
import { CACHE_STATES, CACHES } from '../../core/vocabulary/cache-states.ts';
import type { Option } from '../parts/choice-look.ts';
import { screenSize } from '../parts/format.ts';
import type { Kept } from '../state/own-conditions.ts';

/** Links that can be chosen anywhere in the frame, in words: named ones, and those that somebody has kept. */
export function linkOptions(kept: readonly Kept[]): Option[] {
  return [...LINKS, ...kept.map((k) => ({ ...linkOf(k.id), name: k.name }))].map((l) => ({
    value: l.id,
    label: l.name,
    note: `${l.rttMs} ms, ${(l.downKbps / 1000).toFixed(1)} Mbit/s`,
  }));
}

export function deviceOptions(kept: readonly Kept[]): Option[] {
  return [...DEVICES, ...kept.map((k) => ({ ...deviceOf(k.id), name: k.name }))].map((d) => ({
    value: d.id,
    label: d.name,
    note: `${d.cpuFactor}× slower, ${screenSize(d.viewport)}`,
  }));
}

export const CACHE_OPTIONS: (Option & { value: CacheState })[] = CACHE_STATES.map((value) => ({
  value,
  label: CACHES[value].name,
  note: CACHES[value].note,
}));
