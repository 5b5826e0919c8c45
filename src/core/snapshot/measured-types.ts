import { named, type Of } from '../form/form.ts';
import { optional, record } from '../form/records.ts';
import { amountUpTo, BYTES, listOf, MILLIS, mapOf, TEXT } from '../form/values.ts';

/** How long a browser takes for its own work (reading documents, painting), as a share of what is reckoned for it. */
export const BROWSER_SHARE = amountUpTo(100);

/** What was measured of an app in a browser, in ms on the reference device (CPU factor 1). */
export const MEASURED = named(
  'measured',
  record({
    /** With what, and when. */
    by: TEXT,
    /** What modules take by themselves when they run, by path, each with its size then (minified): of one that has changed it says nothing. */
    modules: optional(mapOf(record({ ms: MILLIS, bytes: BYTES }))),
    /** What drawing takes for the first time, by route and part; `shell`, `page` and paths of split points besides the parts that routes list. */
    draws: optional(mapOf(mapOf(MILLIS))),
    /** Routes whose shell was seen to show only with the page, though its own code was there before: their router waits for all that it draws. */
    shellWaits: optional(listOf(TEXT)),
    /** Of the browser that it was measured with. */
    browser: optional(BROWSER_SHARE),
  }),
);
export type Measured = Of<typeof MEASURED>;
