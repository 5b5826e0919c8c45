import { InputError } from '../errors.ts';
import { list, object, oneOf, text } from '../text/fields.ts';
import { DECISION_KINDS, DECISIONS } from './decision-kinds.ts';
import type { Decision, Plan } from './types.ts';

const MOST_DECISIONS = 20_000;

/** Checks a plan that came from outside; throws InputError naming the field. */
export function checkPlan(value: unknown, at: string): Plan {
  const plan = object(value, at);
  return {
    name: text(plan.name, `${at}.name`),
    description: plan.description === undefined ? '' : text(plan.description, `${at}.description`),
    decisions: checkDecisions(plan.decisions, `${at}.decisions`),
    ...(plan.basedOn === undefined || plan.basedOn === null ? {} : { basedOn: text(plan.basedOn, `${at}.basedOn`) }),
  };
}

/** Checks a list of decisions that came from outside; throws InputError naming the field, also where there are too many. */
export function checkDecisions(value: unknown, at: string): Decision[] {
  const all = list(value, at);
  if (all.length > MOST_DECISIONS)
    throw new InputError('Too many decisions', `A plan takes up to ${MOST_DECISIONS}; ${at} has ${all.length}.`, at);
  return all.map((item, i) => checkDecision(item, `${at}[${i}]`));
}

function checkDecision(value: unknown, at: string): Decision {
  const item = object(value, at);
  return DECISIONS[oneOf(item.kind, DECISION_KINDS, `${at}.kind`)].check(item, at);
}
