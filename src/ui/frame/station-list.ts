/** Stations in working order. */
export const STATIONS = [
  { id: 'inventory', name: 'Inventory', key: '1' },
  { id: 'split', name: 'Split', key: '2' },
  { id: 'load-sheet', name: 'Load sheet', key: '3' },
  { id: 'startup', name: 'Startup', key: '4' },
  { id: 'visits', name: 'Visits', key: '5' },
  { id: 'hints', name: 'Hints', key: '6' },
  { id: 'compare', name: 'Compare', key: '7' },
  { id: 'handoff', name: 'Handoff', key: '8' },
] as const;

export type StationId = (typeof STATIONS)[number]['id'];

export function isStation(id: string): id is StationId {
  return STATIONS.some((s) => s.id === id);
}
