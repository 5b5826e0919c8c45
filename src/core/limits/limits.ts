import { actionsOf, PlanFigures } from '../compare/figures.ts';
import { InputError } from '../errors.ts';
import { BASELINE, type Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { deviceOf, linkOf } from '../sim/own-conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { type ActionMeasure, type LandingMeasure, MEASURES } from '../vocabulary/measures.ts';
import type { Limit, LimitState } from './types.ts';
import { limitWords } from './words.ts';

/** The plan that a limit is about: that of its name; throws InputError when there is none. */
export function planOfLimit(limit: Limit, plans: readonly Plan[]): Plan {
  if (limit.plan === undefined) return BASELINE;
  const plan = plans.find((p) => p.name === limit.plan);
  if (plan) return plan;
  const known = plans.map((p) => p.name).join(', ') || 'none but the baseline';
  throw new InputError(
    'A limit for a plan that isn’t there',
    `It was set for the plan ${limit.plan}; there are ${known}. Set the limits again, or name the plan to be checked.`,
    `limit: ${limitWords(limit)}`,
  );
}

/**
 * How each limit stands. Every one is measured under its own conditions, and under `plan` where one is given, else under
 * the plan that it was set for.
 */
export function limitStates(
  app: Snapshot,
  limits: readonly Limit[],
  plans: readonly Plan[],
  plan?: Plan,
): LimitState[] {
  const cache = new Map<Plan, PlanFigures>();
  return limits.map((limit) => {
    const under = plan ?? planOfLimit(limit, plans);
    const figures = cache.get(under) ?? new PlanFigures(app, under);
    cache.set(under, figures);
    return stateOf(app, figures, limit);
  });
}

/** How one limit stands under a plan's figures. */
export function stateOf(app: Snapshot, figures: PlanFigures, limit: Limit): LimitState {
  const value = measured(app, figures, limit);
  if (value === null) return { limit, state: 'missing', value };
  // What never comes is worse than anything.
  const kept = value <= limit.most;
  return { limit, state: kept ? 'kept' : 'broken', value: Number.isFinite(value) ? value : null };
}

function measured(app: Snapshot, figures: PlanFigures, limit: Limit): number | null {
  if (!app.routes.some((r) => r.pattern === limit.route)) return null;
  const conditions = conditionsOfLimit(limit);
  if (limit.action === undefined) return figures.landing(limit.route, conditions)[limit.measure as LandingMeasure];
  return figures.action(limit.route, limit.action, conditions)?.[limit.measure as ActionMeasure] ?? null;
}

/** The conditions that a limit names. Throws InputError for a link or device that there isn’t. */
export function conditionsOfLimit({ link, device, cache }: Limit): Conditions {
  return { link: linkOf(link), device: deviceOf(device), cache };
}

const ROUND = { ms: 10, bytes: 1000, count: 1 };
const PROPOSED: LandingMeasure[] = ['start bytes', 'requests', 'hops', 'interactive'];

/**
 * Limits that a plan keeps at present, with slack (0.1: ten per cent more) for bytes and times, rounded up; requests get
 * one more per ten, hops none. For every landing, and for the wait of every action.
 */
export function proposeLimits(app: Snapshot, plan: Plan, conditions: Conditions, slack: number): Limit[] {
  const figures = new PlanFigures(app, plan);
  const under = {
    link: conditions.link.id,
    device: conditions.device.id,
    cache: conditions.cache,
    ...(plan.decisions.length > 0 ? { plan: plan.name } : {}),
  };
  const most = (measure: Limit['measure'], value: number): number => {
    if (measure === 'hops') return value;
    const step = ROUND[MEASURES[measure].unit];
    return Math.ceil((value * (1 + slack)) / step) * step;
  };
  return app.routes.flatMap(({ pattern }) => {
    const landing = figures.landing(pattern, conditions);
    const ofLanding = PROPOSED.filter((m) => Number.isFinite(landing[m])).map(
      (measure): Limit => ({ route: pattern, measure, most: most(measure, landing[measure]), ...under }),
    );
    const ofActions = actionsOf(app, pattern).flatMap(({ id }): Limit[] => {
      const wait = figures.action(pattern, id, conditions)?.wait ?? Number.NaN;
      return Number.isFinite(wait)
        ? [{ route: pattern, action: id, measure: 'wait', most: most('wait', wait), ...under }]
        : [];
    });
    return [...ofLanding, ...ofActions];
  });
}
