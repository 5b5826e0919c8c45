/** So long something may take before a test gives up, in ms: against hanging, not against slowness. */
const PATIENCE_MS = 240_000;

/** Waits until something holds; a test that follows says what is wrong where it never does. */
export async function until(holds: () => boolean): Promise<void> {
  const end = Date.now() + PATIENCE_MS;
  while (!holds() && Date.now() < end) await new Promise((wake) => setTimeout(wake, 10));
}
