/** What the workload takes on the reference machine (one core of 2.5 GHz) in Chromium, in ms: the middle one of many runs; the best is 11. */
export const REFERENCE_MS = 12.5;

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

/**
 * What a piece of work usually takes by a clock, in its unit: the middle one of 25 runs. On a machine that others use too the best one tells what it can do, not
 * what a page meets there. It names nothing outside of itself either.
 */
export function usualTime(piece: () => unknown, now: () => number): number {
  const took: number[] = [];
  for (let run = 0; run < 25; run++) {
    const began = now();
    piece();
    took.push(now() - began);
  }
  return took.sort((a, b) => a - b)[12];
}
