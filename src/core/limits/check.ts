import { checkPattern } from '../snapshot/check-routes.ts';
import { amount, object, oneOf, text } from '../text/fields.ts';
import { CACHE_STATES } from '../vocabulary/cache-states.ts';
import { ACTION_MEASURES, FORMER_MEASURES, LANDING_MEASURES } from '../vocabulary/measures.ts';
import type { Limit } from './types.ts';

/** Checks a limit that came from outside; throws InputError naming the field. */
export function checkLimit(value: unknown, at: string): Limit {
  const item = object(value, at);
  const ofAction = item.action !== undefined;
  const given = String(item.measure);
  const measure = Object.hasOwn(FORMER_MEASURES, given) ? FORMER_MEASURES[given] : item.measure;
  return {
    route: checkPattern(item.route, `${at}.route`),
    ...(ofAction ? { action: text(item.action, `${at}.action`) } : {}),
    measure: oneOf(measure, ofAction ? ACTION_MEASURES : LANDING_MEASURES, `${at}.measure`),
    most: amount(item.most, `${at}.most`),
    link: text(item.link, `${at}.link`),
    device: text(item.device, `${at}.device`),
    cache: item.cache === undefined ? 'empty' : oneOf(item.cache, CACHE_STATES, `${at}.cache`),
    ...(item.plan === undefined ? {} : { plan: text(item.plan, `${at}.plan`) }),
  };
}
