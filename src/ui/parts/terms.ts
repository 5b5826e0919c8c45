import { MEASURES } from '../../core/vocabulary/measures.ts';

/** The words of the workbench, each in a sentence. */
export const TERMS = {
  baseline: 'the app as it was built, without any decision',
  predicted:
    'simulated for the chosen link, device and cache from what the files weigh and what running and drawing them takes; Startup › Rehearsed runs the same in a browser',
  plan: 'a named set of decisions over the app: imports detached or joined, triggers, files, scripts, hints',
  'split point': 'a place where loading is deferred: one target, asked for by one or several imports',
  detach: 'make an import deferred, so that what only it brings leaves the start',
  join: 'make a deferred import static, so that its code travels with whoever imports it',
  'self size': 'compressed bytes of the module itself',
  'retained size':
    'compressed bytes that would leave the start if this import were detached: what nothing else there needs',
  start: MEASURES['start bytes'].about,
  'other scripts': MEASURES['other scripts'].about,
  'also fetched': MEASURES['also fetched'].about,
  'not used at start': MEASURES['unused bytes'].about,
  'load group': 'the files that one route or split point needs; they travel in parallel, and run once all are there',
  hop: 'a stair of the load: a request that could only be found when the one before had come',
  'first content': MEASURES['first content'].about,
  'largest content': MEASURES['largest content'].about,
  'first screen complete': MEASURES['first screen'].about,
  interactive: MEASURES.interactive.about,
  'time to interactive': MEASURES['time to interactive'].about,
  blocked: MEASURES.blocked.about,
  waste: MEASURES['wasted bytes'].about,
  'lower bound': 'what no plan can beat for this landing: connecting, round trips and the bare bytes at line rate',
  trigger:
    'the moment at which a split point is fetched: at once, when idle, in view, on hover or focus, on the action …',
  'hover or focus': 'the pointer or focus rests on what is acted upon; on touch there is nearly none',
  lead: 'the time between hover or focus and the act',
  placeholder: 'what shows in the place of something until it is there',
  hint: 'a line that asks for something ahead: preload, prefetch, preconnect, fetch priority, early hint, speculation rule',
  finding: 'something worth changing, with the measured effect of changing it',
  cost: 'expected ms per visit: landings and waits by how often they happen, and a price for bytes fetched for nothing',
  reconcile: 'lay what a plan promised beside what the next build delivered',
  limit: 'the most that a landing or an action may come to under named conditions',
} as const;

export type TermName = keyof typeof TERMS;
