import type { Conditions } from '../core/sim/conditions.ts';
import { deviceOf, linkOf } from '../core/sim/own-conditions.ts';
import { CACHE_STATES, type CacheState } from '../core/vocabulary/cache-states.ts';

/** What an address asks to be shown; what it doesn't say is left open. */
export interface Wishes {
  planId: string | null;
  route: string | undefined;
  linkId: string | undefined;
  deviceId: string | undefined;
  cache: CacheState | undefined;
}

/** What is shown of an app: one of its plans (null: the baseline), a route, and conditions by their ids. */
export interface Choice {
  planId: string | null;
  route: string;
  linkId: string;
  deviceId: string;
  cache: CacheState;
}

/** Reads what an address asks for off its query. */
export function wishesOf(search: string): Wishes {
  const wishes = new URLSearchParams(search);
  const read = (name: string) => wishes.get(name) ?? undefined;
  return {
    planId: read('plan') ?? null,
    route: read('route'),
    linkId: read('link'),
    deviceId: read('device'),
    cache: CACHE_STATES.find((c) => c === read('cache')),
  };
}

/** What is shown of an app by what was wished: for what it doesn't have, or nobody asked for, the first of its kind. */
export function choiceOf(
  wished: Partial<Wishes>,
  plans: readonly { id: string }[],
  routes: readonly { pattern: string }[],
): Choice {
  const plan = wished.planId === 'baseline' ? null : (plans.find((p) => p.id === wished.planId) ?? plans[0] ?? null);
  return {
    planId: plan?.id ?? null,
    route: (routes.find((r) => r.pattern === wished.route) ?? routes[0])?.pattern ?? '',
    linkId: linkOf(wished.linkId ?? '').id,
    deviceId: deviceOf(wished.deviceId ?? '').id,
    cache: wished.cache ?? 'empty',
  };
}

/** The conditions of a choice. */
export function conditionsOf({ linkId, deviceId, cache }: Pick<Choice, 'linkId' | 'deviceId' | 'cache'>): Conditions {
  return { link: linkOf(linkId), device: deviceOf(deviceId), cache };
}
