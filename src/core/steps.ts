/** Runs a computation in steps to its end, and gives what it returns. */
export function finish<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
