/** The value below which a share of the values lies; NaN without values. */
export function percentile(values: readonly number[], share: number): number {
  const known = values.filter(Number.isFinite).sort((a, b) => a - b);
  return known[Math.min(known.length - 1, Math.floor(share * known.length))] ?? Number.NaN;
}
