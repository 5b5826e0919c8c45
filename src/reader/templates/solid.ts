/** Whether markup is compiled for Solid, by the package that its functions come from (`solid-js`, and ways into it). */
export function isSolid(markupSource: string): boolean {
  return /^solid-js(\/|$)/.test(markupSource);
}

/** Any markup: an element, or a fragment. */
const MARKUP = /<(?:[A-Za-z_$]|>)/;

/** Whether a script may hold markup. */
export const mayHoldMarkup = (code: string): boolean => MARKUP.test(code);
