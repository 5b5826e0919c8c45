import { InputError } from '../errors.ts';
import { SCRIPT_PLACEMENTS } from '../snapshot/types.ts';
import { amount, bytesOf, each, type Fields, flag, list, object, oneOf, text } from '../text/fields.ts';
import { LONGEST_PATTERN } from '../text/wildcard.ts';
import { checkHint } from './hint-check.ts';
import { checkTrigger } from './trigger-check.ts';
import {
  DATA_MOMENTS,
  type Decision,
  ERROR_STATES,
  FALLBACK_SCOPES,
  FALLBACKS,
  type Fallback,
  type ImportChoice,
  type Match,
  type Plan,
  type SplitSettings,
} from './types.ts';

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

export function checkDecisions(value: unknown, at: string): Decision[] {
  const all = list(value, at);
  if (all.length > MOST_DECISIONS)
    throw new InputError('Too many decisions', `A plan takes up to ${MOST_DECISIONS}; ${at} has ${all.length}.`, at);
  return all.map((item, i) => checkDecision(item, `${at}[${i}]`));
}

const KINDS = [
  ...([
    'detach',
    'join',
    'trigger',
    'split',
    'hint',
    'script',
    'loader',
    'put aside',
    'drop link',
    'one version',
    'move',
  ] as const),
  ...(['no script', 'trim', 'style in script'] as const),
  ...(['gather', 'together', 'apart', 'floor', 'ceiling', 'copy', 'grain', 'chunk name'] as const),
] as const;

function checkSettings(item: Fields, at: string): SplitSettings {
  return {
    ...(item.run === undefined ? {} : { run: checkTrigger(item.run, `${at}.run`) }),
    ...(item.show === undefined ? {} : { show: checkTrigger(item.show, `${at}.show`) }),
    ...(item.fallback === undefined ? {} : { fallback: checkFallback(item.fallback, `${at}.fallback`) }),
    ...(item.onError === undefined ? {} : { onError: oneOf(item.onError, ERROR_STATES, `${at}.onError`) }),
    ...(item.together === undefined ? {} : { together: named(item.together, `${at}.together`) }),
    ...(item.clientOnly === undefined ? {} : { clientOnly: flag(item.clientOnly, `${at}.clientOnly`) }),
    ...(item.data === undefined ? {} : { data: oneOf(item.data, DATA_MOMENTS, `${at}.data`) }),
    ...(item.answerAhead === undefined ? {} : { answerAhead: checkAhead(item.answerAhead, `${at}.answerAhead`) }),
  };
}

function checkAhead(value: unknown, at: string): { keepMs: number } {
  return { keepMs: amount(object(value, at).keepMs, `${at}.keepMs`, 86_400_000) };
}

function checkFallback(value: unknown, at: string): Fallback {
  const item = object(value, at);
  return {
    show: oneOf(item.show, FALLBACKS, `${at}.show`),
    holdMs: item.holdMs === undefined ? 0 : amount(item.holdMs, `${at}.holdMs`, 60_000),
    ...(item.scope === undefined ? {} : { scope: oneOf(item.scope, FALLBACK_SCOPES, `${at}.scope`) }),
  };
}

function checkChoice(item: Fields, at: string): ImportChoice {
  if (item.module !== undefined) return { module: text(item.module, `${at}.module`) };
  if (item.package !== undefined) return { package: text(item.package, `${at}.package`) };
  return { import: text(item.import, `${at}.import`) };
}

function checkMatch(value: unknown, at: string): Match {
  const item = object(value, at);
  if (item.package !== undefined) return { package: text(item.package, `${at}.package`) };
  return { path: text(item.path, `${at}.path`, LONGEST_PATTERN) };
}

function named(value: unknown, at: string): string {
  const name = text(value, at).trim();
  if (name !== '' && name.length <= 80) return name;
  throw new InputError('Not a name', 'Give a name of 1 to 80 letters.', at);
}

function checkDecision(value: unknown, at: string): Decision {
  const item = object(value, at);
  const kind = oneOf(item.kind, KINDS, `${at}.kind`);
  switch (kind) {
    case 'detach':
    case 'join':
      return { kind, ...checkChoice(item, at) };
    case 'gather':
      return { kind, name: named(item.name, `${at}.name`), match: checkMatch(item.match, `${at}.match`) };
    case 'together':
      return { kind, modules: each(item.modules, `${at}.modules`, text) };
    case 'apart':
      return { kind, match: checkMatch(item.match, `${at}.match`) };
    case 'floor':
      return { kind, bytes: bytesOf(item.bytes, `${at}.bytes`) };
    case 'ceiling':
      return { kind, requests: Math.max(1, Math.round(amount(item.requests, `${at}.requests`, 10_000))) };
    case 'copy':
      return { kind, below: bytesOf(item.below, `${at}.below`) };
    case 'grain':
      return { kind };
    case 'chunk name':
      return { kind, chunk: text(item.chunk, `${at}.chunk`), name: named(item.name, `${at}.name`) };
    case 'trigger':
      return {
        kind,
        splitPoint: text(item.splitPoint, `${at}.splitPoint`),
        fetch: checkTrigger(item.fetch, `${at}.fetch`),
      };
    case 'split':
      return { kind, splitPoint: text(item.splitPoint, `${at}.splitPoint`), ...checkSettings(item, at) };
    case 'hint':
      return { kind, hint: checkHint(item.hint, `${at}.hint`) };
    case 'script':
      return {
        kind,
        script: text(item.script, `${at}.script`),
        placement: oneOf(item.placement, SCRIPT_PLACEMENTS, `${at}.placement`),
      };
    case 'no script':
    case 'trim':
      return { kind, module: text(item.module, `${at}.module`) };
    case 'move':
      return { kind, import: text(item.import, `${at}.import`), to: text(item.to, `${at}.to`) };
    case 'one version':
      return { kind, package: text(item.package, `${at}.package`), keep: text(item.keep, `${at}.keep`) };
    case 'drop link':
      return { kind, rel: text(item.rel, `${at}.rel`), address: text(item.address, `${at}.address`) };
    case 'style in script':
      return { kind, match: checkMatch(item.match, `${at}.match`) };
    case 'put aside':
      return {
        kind,
        finding: text(item.finding, `${at}.finding`),
        reason: item.reason === undefined ? '' : text(item.reason, `${at}.reason`),
      };
    case 'loader':
      return { kind, loader: oneOf(item.loader, ['listed', 'discovered'] as const, `${at}.loader`) };
  }
}
