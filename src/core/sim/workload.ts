/** What the workload takes on the reference machine (one core of 2.5 GHz) in Chromium, in ms: the best of many runs. */
export const REFERENCE_MS = 11;

/**
 * A fixed piece of work of the kind that starting script is: objects and closures made, texts put together and taken
 * apart, maps filled, lists sorted. Gives a number, so that nothing of it can be left out. It names nothing outside of itself, so that it can be handed to a
 * page as a text.
 */
export function workload(): number {
  // Modules that it pretends to start.
  const pieces = 6000;
  const cache = new Map<string, { run: (n: number) => number; text: string }>();
  let seed = 7;
  for (let i = 0; i < pieces; i++) {
    seed = (seed * 1103515245 + 12345) & 0x7fffffff;
    const name = `piece-${seed % pieces}-${i}`;
    cache.set(name, { run: (n) => (n * i + seed) % 9973, text: name.split('-').reverse().join('/') });
  }
  const names = [...cache.keys()].sort();
  let sum = 0;
  for (const name of names) {
    const { run, text } = cache.get(name)!;
    sum = (sum + run(text.length) + JSON.stringify({ name, text, list: [sum % 7, text.length] }).length) % 1_000_003;
  }
  return sum;
}

/** The best time of a piece of work by a clock, in its unit: the first runs are slower, since nothing is compiled yet. It names nothing outside of itself either. */
export function bestTime(piece: () => unknown, now: () => number): number {
  let best = Number.POSITIVE_INFINITY;
  for (let run = 0; run < 25; run++) {
    const began = now();
    piece();
    best = Math.min(best, now() - began);
  }
  return best;
}
