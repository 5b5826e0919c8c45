import { type CacheState, DEVICES, LINKS } from '../../core/sim/conditions.ts';
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

export const CACHE_OPTIONS: (Option & { value: CacheState })[] = [
  { value: 'empty', label: 'Empty', note: 'first visit' },
  { value: 'returning', label: 'Returning', note: 'nothing changed since' },
  { value: 'stale', label: 'Revalidating', note: 'everything is asked about' },
  { value: 'deployed', label: 'After a deploy', note: 'own code changed, packages kept' },
  { value: 'rebuilt', label: 'After a rebuild', note: 'every file of the build is new' },
];
