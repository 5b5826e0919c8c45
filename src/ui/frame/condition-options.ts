import { DEVICES, LINKS } from '../../core/sim/conditions.ts';
import type { CacheState } from '../../core/vocabulary/cache-states.ts';
import { CACHE_STATES, CACHES } from '../../core/vocabulary/cache-states.ts';
import type { Option } from '../parts/choice.tsx';
import { screenSize } from '../parts/format.ts';

/** Conditions that can be chosen anywhere in the frame, in words. */
export const LINK_OPTIONS: Option[] = LINKS.map((l) => ({
  value: l.id,
  label: l.name,
  note: `${l.rttMs} ms, ${(l.downKbps / 1000).toFixed(1)} Mbit/s`,
}));

export const DEVICE_OPTIONS: Option[] = DEVICES.map((d) => ({
  value: d.id,
  label: d.name,
  note: `${d.cpuFactor}× slower, ${screenSize(d.viewport)}`,
}));

export const CACHE_OPTIONS: (Option & { value: CacheState })[] = CACHE_STATES.map((value) => ({
  value,
  label: CACHES[value].name,
  note: CACHES[value].note,
}));
