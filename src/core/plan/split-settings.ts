import { triggerPhrase } from '../vocabulary/triggers.ts';
import type { Fallback, SplitSettings } from './types.ts';

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
