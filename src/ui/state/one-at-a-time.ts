/**
 * Makes a piece of work run one at a time: asked again while it runs, it runs once more right after, however often it
 * was asked. The promise is fulfilled when nothing is left to do.
 */
export function oneAtATime(work: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | null = null;
  let again = false;
  const run = async () => {
    do {
      again = false;
      await work();
    } while (again);
    running = null;
  };
  return () => {
    if (running) again = true;
    else running = run();
    return running;
  };
}
