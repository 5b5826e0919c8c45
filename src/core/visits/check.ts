import { amount, each, flag, object, oneOf, text } from '../text/fields.ts';
import { STEP_KINDS, type Visit, type VisitStep } from './types.ts';

/** Longest pause in a visit, in ms: a month. */
const LONGEST_MS = 31 * 86_400_000;
const MOST_STEPS = 500;

/** Checks the script of a visit that came from outside; throws InputError naming the field. */
export function checkVisit(value: unknown, at: string): Visit {
  const item = object(value, at);
  const steps = each(item.steps, `${at}.steps`, checkStep);
  if (steps.length > MOST_STEPS) amount(steps.length, `${at}.steps.length`, MOST_STEPS);
  return {
    name: text(item.name, `${at}.name`),
    landing: text(item.landing, `${at}.landing`),
    holds: holds(item.holds, `${at}.holds`),
    steps,
  };
}

function checkStep(value: unknown, at: string): VisitStep {
  const item = object(value, at);
  const does = oneOf(item.does, STEP_KINDS, `${at}.does`);
  const ms = (name: string) => (item[name] === undefined ? 0 : amount(item[name], `${at}.${name}`, LONGEST_MS));
  const dwellMs = ms('dwellMs');
  const leadMs = ms('leadMs');
  switch (does) {
    case 'act':
    case 'scroll':
      return { does, part: text(item.part, `${at}.part`), dwellMs, leadMs };
    case 'move':
      return {
        does,
        to: text(item.to, `${at}.to`),
        by: item.by === undefined ? 'inside' : oneOf(item.by, ['inside', 'document'] as const, `${at}.by`),
        dwellMs,
        leadMs,
        holds: holds(item.holds, `${at}.holds`),
      };
    case 'approach':
      return item.part === undefined
        ? { does, to: text(item.to, `${at}.to`), dwellMs, leadMs }
        : { does, part: text(item.part, `${at}.part`), dwellMs, leadMs };
    case 'resize':
      return { does, width: size(item.width, `${at}.width`), height: size(item.height, `${at}.height`), dwellMs };
    case 'deploy':
      return { does, dwellMs };
    case 'return':
      return {
        does,
        to: text(item.to, `${at}.to`),
        awayMs: ms('awayMs'),
        deployed: item.deployed === undefined ? false : flag(item.deployed, `${at}.deployed`),
        dwellMs,
        holds: holds(item.holds, `${at}.holds`),
      };
  }
}

function size(value: unknown, at: string): number {
  return amount(value, at, 100_000);
}

function holds(value: unknown, at: string): string[] {
  return value === undefined ? [] : each(value, at, text);
}
