import type { Ask, AskSheet } from './ask-sheet.ts';

/** What asks a server by itself, of the browser and of frameworks that put such functions everywhere. */
const OF_BROWSER = /^((window|self|globalThis)\.)?fetch$|^new EventSource$|^(\$fetch|useFetch|useLazyFetch)$/;
/** `request.open('GET', address)` of the browser's older request. */
const OPENED = /^(xhr|req|request|http)\.open$/i;

/** Whether a call of a name that no module defines asks a server by itself. */
export function asksByItself(callee: string): boolean {
  return OF_BROWSER.test(callee) || OPENED.test(callee);
}

/** The name of a component's property that a callee is, as far as its module tells: of `this.props.load` that is `load`. */
export function propertyOf(callee: string): string | undefined {
  return callee.includes('props.') ? /(?:^|\.)props\.((?:\w+\.)?\w+)$/.exec(callee)?.[1] : undefined;
}

/**
 * Whether a call may lead to a server, whatever other modules say: to a function of its module, to what a name in it stands for or is imported, by
 * itself, by a message, or by what it is given. Most calls do none of that, and nobody has to keep them.
 */
export function mayLead({ callee, message, args }: Ask, sheet: AskSheet): boolean {
  if (message !== undefined || callee === '' || asksByItself(callee)) return true;
  if (sheet.listens.length > 0 || sheet.stores.length > 0 || args.some((a) => a.length > 0)) return true;
  if (propertyOf(callee) !== undefined || sheet.functions.has(callee) || sheet.constants.has(callee)) return true;
  const segments = callee.replace(/^new /, '').split('.');
  return (
    sheet.imports.has(segments[0]) || segments.some((_, i) => sheet.stands.has(segments.slice(0, i + 1).join('.')))
  );
}
