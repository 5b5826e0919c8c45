import { constantText, nameOf, type SyntaxNode } from '../syntax.ts';

/** Elements that show something, or usually hold what does (HTML, 4): what only divides (`div`, `main`) may be empty. */
const SHOWING = 'header|nav|footer|aside|h[1-6]|p|span|img|svg|button|ul|ol|a|input|form|label|table';
const MARKUP = new RegExp(`(?<![\\w$)\\]])<(?:${SHOWING})(?=[\\s/>])`);
const ELEMENT = new RegExp(`^(?:${SHOWING})$`);

/** Text that stands right before the end of an element, whatever that is called: components of packages have names of their own. */
const TEXT_INSIDE = />([^<>{}]+)<\/[A-Za-z]/g;

/** Whether a text holds markup that shows something by itself: text, images, controls. */
export function showsContent(text: string): boolean {
  if (MARKUP.test(text)) return true;
  if (!text.includes('</')) return false;
  for (const [, inside] of text.matchAll(TEXT_INSIDE)) if (/[\p{L}\p{N}]/u.test(inside)) return true;
  return false;
}

/** What puts markup, and what puts text into the page (DOM). */
const SETS_MARKUP = /^(innerHTML|outerHTML)$/;
const SETS_TEXT = /^(textContent|innerText)$/;
const ADDS_MARKUP = /^(insertAdjacentHTML|write|setHTMLUnsafe)$/;

/**
 * Whether a place of a script puts something into the page that shows, without a component system: markup or text that is assigned, an element
 * that is made. What is computed counts by the markup that the module holds. `text`: the module's.
 */
export function writesToPage(node: SyntaxNode, text: string): boolean {
  if (node.type === 'AssignmentExpression') {
    const target = node.left as SyntaxNode;
    const field = target.type === 'MemberExpression' && !target.computed ? (nameOf(target.property) ?? '') : '';
    const written = constantText(node.right);
    if (SETS_TEXT.test(field)) return written !== null && written.trim() !== '';
    return SETS_MARKUP.test(field) && showsContent(written ?? text);
  }
  if (node.type !== 'CallExpression') return false;
  const { object, property } = node.callee as SyntaxNode;
  const name = nameOf(property) ?? '';
  const given = node.arguments as SyntaxNode[];
  if (name === 'createElement' && nameOf(object) === 'document') return ELEMENT.test(constantText(given[0]) ?? '');
  return ADDS_MARKUP.test(name) && given.length > 0 && showsContent(constantText(given.at(-1)) ?? text);
}
