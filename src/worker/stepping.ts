/**
 * Takes steps of a computation for about so many ms; gives the last thing that it told, and its result once it is over. Where
 * others `help`, it stops at work that can be shared; what they found of it (`given`) goes into the first step.
 */
export function stepFor<P extends object, T, F>(
  steps: Generator<P, T, F | undefined>,
  ms: number,
  help = false,
  given?: F,
): { over: true; result: T } | { over: false; progress: P } {
  const until = performance.now() + ms;
  let step = steps.next(given);
  for (;;) {
    if (step.done) return { over: true, result: step.value };
    if ((help && 'ahead' in step.value) || performance.now() >= until) return { over: false, progress: step.value };
    step = steps.next();
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
