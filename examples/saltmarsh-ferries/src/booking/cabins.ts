export const CABINS = [
  { code: 'none', name: 'No cabin', sleeps: 0 },
  { code: 'inner', name: 'Inner cabin', sleeps: 2 },
  { code: 'outer', name: 'Cabin with a porthole', sleeps: 2 },
  { code: 'family', name: 'Family cabin', sleeps: 5 },
];
