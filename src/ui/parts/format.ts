/** Numbers as the workbench writes them: always with their unit, kB = 1000 bytes. */

export function time(ms: number): string {
  if (!Number.isFinite(ms)) return 'never';
  return ms >= 999.5 ? `${(ms / 1000).toFixed(2)} s` : `${Math.round(ms)} ms`;
}

export function size(bytes: number): string {
  const kB = bytes / 1000;
  if (kB >= 1000) return `${(kB / 1000).toFixed(2)} MB`;
  if (kB >= 10) return `${Math.round(kB)} kB`;
  return kB >= 0.1 || kB === 0 ? `${kB.toFixed(kB === 0 ? 0 : 1)} kB` : `${Math.round(bytes)} B`;
}

export function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}

export function count(value: number): string {
  return String(Math.round(value));
}

/** Width of the screen in words of the trade, as in `390 × 844`. */
export function screenSize({ width, height }: { width: number; height: number }): string {
  return `${width} × ${height}`;
}
