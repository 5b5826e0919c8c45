/** Takes steps of a computation for about so many ms; gives the last thing that it told, and its result once it is over. */
export function stepFor<P, T>(
  steps: Generator<P, T>,
  ms: number,
): { over: true; result: T } | { over: false; told: P } {
  const until = performance.now() + ms;
  for (;;) {
    const step = steps.next();
    if (step.done) return { over: true, result: step.value };
    if (performance.now() >= until) return { over: false, told: step.value };
  }
}

/** Keeps a value under its key; of too many the oldest go. */
export function keep<T>(of: Map<string, T>, key: string, value: T, most: number): T {
  of.delete(key);
  of.set(key, value);
  for (const [oldest] of of) {
    if (of.size <= most) break;
    of.delete(oldest);
  }
  return value;
}
