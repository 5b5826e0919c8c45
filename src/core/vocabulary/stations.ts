/** The stations in working order: their ids (as in addresses), names, and the keys that lead there. */
export const STATIONS = {
  inventory: { name: 'Inventory', key: '1' },
  split: { name: 'Split', key: '2' },
  'load-sheet': { name: 'Load sheet', key: '3' },
  startup: { name: 'Startup', key: '4' },
  visits: { name: 'Visits', key: '5' },
  advice: { name: 'Advice', key: '6' },
  compare: { name: 'Compare', key: '7' },
  handoff: { name: 'Handoff', key: '8' },
} as const;

export type StationId = keyof typeof STATIONS;

/** Ids that stations had in addresses before, with what they are now: links that people kept still lead there. */
export const FORMER_STATIONS: ReadonlyMap<string, StationId> = new Map([['hints', 'advice']]);

/** Ids of the stations in working order. */
export const STATION_IDS = Object.keys(STATIONS) as StationId[];

/** Whether a text, such as a part of an address, names a station. */
export function isStation(id: string): id is StationId {
  return Object.hasOwn(STATIONS, id);
}
