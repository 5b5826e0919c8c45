/** A computation in steps, some of which name work that others may do meanwhile (`ahead`) and take what these found. */
export type Shared<P, T, A, F> = Generator<P & { ahead?: A }, T, F | undefined>;

/** Runs a computation in steps to its end, and gives what it returns. */
export function finish<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
