export interface Island {
  code: string;
  name: string;
  minutes: number;
  note: string;
}
export const ISLANDS: Island[] = [
  { code: 'gul', name: 'Gullholm', minutes: 35, note: 'beacon and beach' },
  { code: 'ree', name: 'Reedsay', minutes: 50, note: 'no cars' },
  { code: 'tor', name: 'Torsay', minutes: 80, note: 'market on Fridays' },
  { code: 'ebb', name: 'Ebb Skerry', minutes: 25, note: 'at high water only' },
  { code: 'lan', name: 'Langmarsh', minutes: 110, note: 'overnight crossing' },
];
