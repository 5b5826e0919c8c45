/** A quantity that was measured several times: the middle, the least and the most. */
export interface Spread {
  median: number;
  least: number;
  most: number;
  runs: number;
}

/** The spread of what was measured; null where it never was. */
export function spreadOf(values: readonly (number | null | undefined)[]): Spread | null {
  const known = values.filter((v): v is number => typeof v === 'number' && Number.isFinite(v)).sort((a, b) => a - b);
  if (known.length === 0) return null;
  const half = known.length >> 1;
  const median = known.length % 2 === 1 ? known[half] : (known[half - 1] + known[half]) / 2;
  return { median, least: known[0], most: known[known.length - 1], runs: known.length };
}

/** Half of how far apart what was measured lies, as it is said behind a figure (“± 5”). */
export function half({ least, most }: Spread): number {
  return (most - least) / 2;
}
