export const SHIPS = [
  { name: 'Marsh Wren', built: 2004, metres: 48, places: 240 },
  { name: 'Oystercatcher', built: 2011, metres: 62, places: 410 },
  { name: 'Sanderling', built: 2019, metres: 39, places: 180 },
];
