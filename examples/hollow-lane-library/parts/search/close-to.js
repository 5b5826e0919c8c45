const TITLES = ['A Field Guide to Gutters', 'The Lamplighter’s Ledger', 'Moss and Mortar', 'Tides of a Small Harbour'];

export function closeTo(text) {
  const wanted = text.toLowerCase();
  return TITLES.filter((t) => t.toLowerCase().includes(wanted));
}
