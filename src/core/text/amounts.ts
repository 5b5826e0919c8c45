/** Amounts as reports, commands and limits write them: kB are 1000 bytes. */

/** `12.3 kB`, without decimals that say nothing. */
export function kilobytes(bytes: number): string {
  return `${Math.round(bytes / 100) / 10} kB`;
}

/** `12.0 kB`: always with one decimal, for columns of numbers. */
export function alignedKilobytes(bytes: number): string {
  return `${(bytes / 1000).toFixed(1)} kB`;
}

/** `1234 ms`; `never` for what doesn't happen. */
export function milliseconds(ms: number): string {
  return Number.isFinite(ms) ? `${Math.round(ms)} ms` : 'never';
}

/** `12.3 kB`, or `87 bytes` where kB would say nothing: for what changed. */
export function bytesOrKilobytes(bytes: number): string {
  const whole = Math.round(bytes);
  if (whole >= 1000) return kilobytes(whole);
  return whole === 1 ? '1 byte' : `${whole} bytes`;
}
