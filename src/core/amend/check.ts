import { checkLimit } from '../limits/check.ts';
import { checkBase } from '../snapshot/base.ts';
import { checkPattern, checkRouteChange, checkScriptChange, type ScriptChange } from '../snapshot/check-routes.ts';
import { checkVisitorNotes } from '../snapshot/check-visitors.ts';
import { each, flag, object, oneOf, text } from '../text/fields.ts';
import { LONGEST_PATTERN } from '../text/wildcard.ts';
import { checkVisit } from '../visits/check.ts';
import type { Amendments, RouteAmendment } from './types.ts';

/** Checks amendments that came from outside; throws InputError naming the field. Fields left out mean nothing amended. */
export function checkAmendments(value: unknown, at: string): Amendments {
  const item = object(value, at);
  return {
    confirmed: item.confirmed === undefined ? false : flag(item.confirmed, `${at}.confirmed`),
    base: item.base == null ? null : checkBase(item.base, `${at}.base`),
    routes: each(item.routes ?? [], `${at}.routes`, checkRouteAmendment),
    keep: each(item.keep ?? [], `${at}.keep`, (name, where) => text(name, where, LONGEST_PATTERN)),
    ...(item.scripts === undefined ? {} : { scripts: checkScriptChanges(item.scripts, `${at}.scripts`) }),
    ...(item.visitors == null ? {} : { visitors: checkVisitorNotes(item.visitors, `${at}.visitors`) }),
    ...(item.visits === undefined ? {} : { visits: each(item.visits, `${at}.visits`, checkVisit) }),
    ...(item.limits === undefined ? {} : { limits: each(item.limits, `${at}.limits`, checkLimit) }),
  };
}

function checkScriptChanges(value: unknown, at: string): Record<string, ScriptChange> {
  const entries = Object.entries(object(value, at));
  // Null prototype: an id may be any word.
  return Object.assign(
    Object.create(null),
    Object.fromEntries(entries.map(([id, change]) => [id, checkScriptChange(change, `${at}["${id}"]`)])),
  );
}

function checkRouteAmendment(value: unknown, at: string): RouteAmendment {
  const item = object(value, at);
  return {
    realm: text(item.realm, `${at}.realm`),
    pattern: checkPattern(item.pattern, `${at}.pattern`),
    kind: oneOf(item.kind, ['changed', 'added', 'removed'] as const, `${at}.kind`),
    change: checkRouteChange(item.change ?? {}, `${at}.change`),
  };
}
