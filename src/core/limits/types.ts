import { converted, named, type Of, refined } from '../form/form.ts';
import { assumed, optional, record } from '../form/records.ts';
import { AMOUNT, choice, TEXT } from '../form/values.ts';
import { ADDRESS_PATTERN } from '../snapshot/route-types.ts';
import { oneOf } from '../text/fields.ts';
import { CACHE_STATES } from '../vocabulary/cache-states.ts';
import { ACTION_MEASURES, FORMER_MEASURES, LANDING_MEASURES, MEASURES, type Measure } from '../vocabulary/measures.ts';

/** A measure, by its own name or a former one. */
const MEASURE = converted(
  choice([...Object.keys(MEASURES), ...Object.keys(FORMER_MEASURES)]),
  (name): Measure => FORMER_MEASURES[name] ?? (name as Measure),
);

const withFormer = (measures: readonly Measure[]) => [
  ...measures,
  ...Object.keys(FORMER_MEASURES).filter((name) => measures.includes(FORMER_MEASURES[name])),
];

/** The most that a landing or an action may come to, under named conditions. */
export const LIMIT = named(
  'limit',
  refined(
    record({
      route: ADDRESS_PATTERN,
      /** Id of the part behind the action; without it the landing is meant. */
      action: optional(TEXT),
      measure: MEASURE,
      /** In ms, bytes, or a count. */
      most: AMOUNT,
      /** Ids of link and device. */
      link: TEXT,
      device: TEXT,
      cache: assumed(choice(CACHE_STATES), 'empty'),
      /** Name of the plan that it was set for; without one, the app as built. */
      plan: optional(TEXT),
    }),
    ({ action, measure }, at) => {
      oneOf(measure, action === undefined ? LANDING_MEASURES : ACTION_MEASURES, `${at}.measure`);
    },
    {
      if: { required: ['action'] },
      // biome-ignore lint/suspicious/noThenProperty: a keyword of JSON Schema
      then: { properties: { measure: { enum: withFormer(ACTION_MEASURES) } } },
      else: { properties: { measure: { enum: withFormer(LANDING_MEASURES) } } },
    },
  ),
);
export type Limit = Of<typeof LIMIT>;

/** `missing`: the app has no such route or action any more. */
export interface LimitState {
  limit: Limit;
  state: 'kept' | 'broken' | 'missing';
  /** Null when it is missing, or never comes to that. */
  value: number | null;
}
