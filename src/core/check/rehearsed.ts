import { conditionsOfLimit, planOfLimit } from '../limits/limits.ts';
import type { Limit } from '../limits/types.ts';
import { limitWords } from '../limits/words.ts';
import type { Plan } from '../plan/types.ts';
import type { Spread } from '../rehearsals/spread.ts';
import { MEASURED_AS, spreadIn } from '../rehearsals/summary.ts';
import type { Rehearsal } from '../rehearsals/types.ts';
import type { Conditions } from '../sim/conditions.ts';

/** One landing to be run in a browser, for the limits that it judges. */
export interface LandingToRun {
  plan: Plan;
  route: string;
  /** Id of the part that is acted on once the landing has come to rest. */
  act?: string;
  conditions: Conditions;
  limits: Limit[];
}

/** What a browser measured of what a limit is about. */
export interface RehearsedLimit {
  limit: Limit;
  words: string;
  /** In ms; null where no run came to it. */
  measured: Spread | null;
}

/**
 * The landings that have to be run so that all limits on times that a browser can tell are judged by it: each once, however many limits it has.
 * `plan` in place of those that limits were set for.
 */
export function landingsToRun(limits: readonly Limit[], plans: readonly Plan[], plan?: Plan): LandingToRun[] {
  const landings = new Map<string, LandingToRun>();
  for (const limit of limits) {
    if (MEASURED_AS[limit.measure] === undefined) continue;
    const { route, action: act, link, device, cache } = limit;
    const under = plan ?? planOfLimit(limit, plans);
    const key = JSON.stringify([under.name, route, act, link, device, cache]);
    const known = landings.get(key);
    if (known) known.limits.push(limit);
    else
      landings.set(key, {
        ...{ plan: under, route, conditions: conditionsOfLimit(limit), limits: [limit] },
        ...(act === undefined ? {} : { act }),
      });
  }
  return [...landings.values()];
}

/** What a rehearsal of a landing says to each of its limits. */
export function rehearsedLimits({ limits }: LandingToRun, { runs }: Rehearsal): RehearsedLimit[] {
  return limits.map((limit) => ({
    limit,
    words: limitWords(limit),
    measured: spreadIn(runs, MEASURED_AS[limit.measure]!),
  }));
}
