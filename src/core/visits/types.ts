import { named, type Of } from '../form/form.ts';
import { assumed, both, oneField, record, variants } from '../form/records.ts';
import { amountUpTo, choice, FLAG, listOf, PIXELS, TEXT } from '../form/values.ts';

/** A pause in a visit, in ms, of at most a month. */
const PAUSE = assumed(amountUpTo(31 * 86_400_000), 0);
const HOLDS = assumed(listOf(TEXT), []);
/** `dwellMs` passes before the approach to what is done, `leadMs` from there to the act. */
const PAUSES = { dwellMs: PAUSE, leadMs: PAUSE };

/** What a person does next. */
const VISIT_STEP = variants('does', {
  act: record({ part: TEXT, ...PAUSES }),
  scroll: record({ part: TEXT, ...PAUSES }),
  move: record({ to: TEXT, by: assumed(choice(['inside', 'document']), 'inside'), ...PAUSES, holds: HOLDS }),
  /** The pointer or focus rests on what leads to a part or a route, and goes on. */
  approach: both(oneField({ part: TEXT, to: TEXT }), record(PAUSES)),
  resize: record({ width: PIXELS, height: PIXELS, dwellMs: PAUSE }),
  deploy: record({ dwellMs: PAUSE }),
  return: record({ to: TEXT, awayMs: PAUSE, deployed: assumed(FLAG, false), dwellMs: PAUSE, holds: HOLDS }),
});
export type VisitStep = Of<typeof VISIT_STEP>;

/**
 * One visit, as a script: where the person lands, and what they do then. `dwellMs` passes from the end of the moment
 * before (what was asked for shows) until they approach what they do next; `leadMs` from there to the act.
 */
export const VISIT = named(
  'visit',
  record({
    name: TEXT,
    /** Pattern of the route. */
    landing: TEXT,
    /** Ids of the landing's conditional parts whose condition holds. */
    holds: HOLDS,
    steps: listOf(VISIT_STEP, { most: 500, what: 'steps' }),
  }),
);
export type Visit = Of<typeof VISIT>;
