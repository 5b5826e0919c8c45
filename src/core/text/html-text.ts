import { oneLine } from './one-line.ts';

/** A text as the value of an attribute in double quotes. */
export function escapedAttribute(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');
}

/** A text inside of a comment, where nothing may look like its end. */
export function htmlComment(text: string): string {
  return oneLine(text)
    .replace(/-(?=-)/g, '- ')
    .replace(/>/g, '&gt;')
    .replace(/</g, '&lt;');
}
