import { type Of } from '../form/form.ts';
import { MARK, optional, record } from '../form/records.ts';
import { MILLIS, TEXT } from '../form/values.ts';

/**
 * For how long a component system keeps a placeholder that it has shown for deferred code before it lets in what comes in its place.
 * Counted from the last placeholder that appeared anywhere on the page.
 */
export const PLACEHOLDERS = record({
  holdMs: MILLIS,
  /** Only what has another placeholder inside of it is held back, and not once that is done with. */
  nested: MARK,
  /** What that is known from, in words. */
  source: optional(TEXT),
});
export type Placeholders = Of<typeof PLACEHOLDERS>;
