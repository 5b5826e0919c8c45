/** A source of numbers from 0 to below 1 that gives the same ones for the same seed (mulberry32). */
export function seeded(seed: number): () => number {
  let s = seed >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = Math.imul(s ^ (s >>> 15), s | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A number of the standard normal distribution (Box and Muller). */
export function normal(next: () => number): number {
  const radius = Math.sqrt(-2 * Math.log(1 - next()));
  return radius * Math.cos(2 * Math.PI * next());
}
