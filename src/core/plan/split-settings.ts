import { amount, type Fields, flag, object, oneOf } from '../text/fields.ts';
import { checkTrigger, triggerPhrase } from '../vocabulary/triggers.ts';
import { checkName } from './name-check.ts';
import { DATA_MOMENTS, ERROR_STATES, FALLBACK_SCOPES, FALLBACKS, type Fallback, type SplitSettings } from './types.ts';

/** What is decided about a split point, in words. */
export function settingsWords({
  run,
  show,
  fallback,
  onError,
  together,
  clientOnly,
  data,
  answerAhead,
}: SplitSettings): string {
  const said = [
    ...(run ? [`run ${triggerPhrase(run)}`] : []),
    ...(show ? [`show ${triggerPhrase(show)}`] : []),
    ...(fallback ? [fallbackWords(fallback)] : []),
    ...(onError ? [onError === 'nothing' ? 'nothing if it fails' : `${onError} if it fails`] : []),
    ...(together ? [`shown together with “${together}”`] : []),
    ...(clientOnly ? ['client only'] : []),
    ...(data ? [`data ${data}`] : []),
    ...(answerAhead ? [`answer fetched ahead, good for ${answerAhead.keepMs / 1000} s`] : []),
  ];
  return said.join(', ') || 'as it is by itself';
}

const SCOPE_WORDS: Record<NonNullable<Fallback['scope']>, string> = {
  part: '',
  area: ' in place of the page',
  app: ' in place of the whole app',
};

function fallbackWords({ show, holdMs, scope = 'part' }: Fallback): string {
  const held = show === 'stand-in' && holdMs > 0 ? ` for at least ${holdMs} ms` : '';
  const words = { nothing: 'nothing until it shows', 'old screen': 'the old screen until it shows' }[show as string];
  return `${words ?? `${show === 'stand-in' ? 'a stand-in' : show}${held}`}${SCOPE_WORDS[scope]}`;
}

/** Checks settings of a split point that came from outside; throws InputError naming the field. */
export function checkSettings(item: Fields, at: string): SplitSettings {
  return {
    ...(item.run === undefined ? {} : { run: checkTrigger(item.run, `${at}.run`) }),
    ...(item.show === undefined ? {} : { show: checkTrigger(item.show, `${at}.show`) }),
    ...(item.fallback === undefined ? {} : { fallback: checkFallback(item.fallback, `${at}.fallback`) }),
    ...(item.onError === undefined ? {} : { onError: oneOf(item.onError, ERROR_STATES, `${at}.onError`) }),
    ...(item.together === undefined ? {} : { together: checkName(item.together, `${at}.together`) }),
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
