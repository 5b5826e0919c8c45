import { ACTION_MEASURES, LANDING_MEASURES } from '../compare/measures.ts';
import { CACHE_STATES } from '../sim/conditions.ts';
import { checkPattern } from '../snapshot/check-routes.ts';
import { amount, object, oneOf, text } from '../text/fields.ts';
import type { Limit } from './types.ts';

/** Checks a limit that came from outside; throws InputError naming the field. */
export function checkLimit(value: unknown, at: string): Limit {
  const item = object(value, at);
  const ofAction = item.action !== undefined;
  return {
    route: checkPattern(item.route, `${at}.route`),
    ...(ofAction ? { action: text(item.action, `${at}.action`) } : {}),
    measure: oneOf(item.measure, ofAction ? ACTION_MEASURES : LANDING_MEASURES, `${at}.measure`),
    most: amount(item.most, `${at}.most`),
    link: text(item.link, `${at}.link`),
    device: text(item.device, `${at}.device`),
    cache: item.cache === undefined ? 'empty' : oneOf(item.cache, CACHE_STATES, `${at}.cache`),
    ...(item.plan === undefined ? {} : { plan: text(item.plan, `${at}.plan`) }),
  };
}
