export function linear(from: number, to: number, at: number): number {
  return from + (to - from) * Math.min(1, Math.max(0, at));
}
