import { hasKey, said, shownBy, shownByElement } from '../messages/keyed.ts';
import { isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { innerAct, withoutInnerActs } from './inner-marks.ts';

/** Longer ones are cut. */
const LONGEST = 60;
/** For what no code tells. */
const UNKNOWN = '…';

/** What a person does at an element with a handler, in words. */
export function wordsOf(attribute: SyntaxNode, above: readonly SyntaxNode[]): string {
  return wordsAt(attribute, above) ?? handled(attribute, above);
}

/** The same, as far as words tell: those in the element, that name it, of the label around it, or in the component that it is; null where none do. */
export function wordsAt(attribute: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const [element, opening] = above.slice(-2);
  const inside = element?.type === 'JSXElement' ? wordsIn(element) : '';
  if (inside !== '') return inside;
  for (const name of ['aria-label', 'title', 'label', 'placeholder']) {
    const value = (opening?.attributes as SyntaxNode[] | undefined)?.find((a) => nameOf(a.name) === name)?.value;
    const words = shownBy(isNode(value) && value.type === 'JSXExpressionContainer' ? value.expression : value);
    if (words) return words;
  }
  const label = above.findLast(
    (n) => n.type === 'JSXElement' && nameOf((n.openingElement as SyntaxNode).name) === 'label',
  );
  const around = label ? wordsIn(label) : '';
  if (around !== '') return around;
  const component = nameOf(opening?.name) ?? '';
  const handler = nameOf(attribute.name) ?? 'onClick';
  return /^[A-Z]/.test(component) ? innerAct(component, handler, handled(attribute, above)) : null;
}

/** What happens, and where: `click in VBtn`. */
function handled(attribute: SyntaxNode, above: readonly SyntaxNode[]): string {
  const event = (nameOf(attribute.name) ?? 'onClick').slice(2).toLowerCase();
  return `${event} in ${nameOf(above.at(-1)?.name) ?? 'an element'}`;
}

/** A name as words: `make ticket` of `makeTicket`. */
export function inWords(name: string): string {
  return name.replace(/([A-Z])/g, ' $1').toLowerCase();
}

/** The text in an element; of what it shows besides the message that is named, or the last name, as in `{messages.makeTicket}`, or `…` between words. */
export function wordsIn(element: SyntaxNode): string {
  const words: string[] = [];
  walk(element, (node, above) => {
    if (above.some((n) => n.type === 'JSXAttribute')) return;
    // What stands in an element that names a message is only shown where there is none.
    const named = above.find((n) => n.type === 'JSXElement' && shownByElement(n.openingElement as SyntaxNode) !== null);
    if (named && node !== named.openingElement) return;
    if (node.type === 'JSXText') words.push(String(node.value).replace(/\s+/g, ' ').trim());
    else if (node.type === 'JSXOpeningElement') words.push(shownByElement(node) ?? '');
    else if (node.type === 'JSXExpressionContainer' && isNode(node.expression))
      words.push(inExpression(node.expression));
  });
  const shown = tidy(words.join(' '));
  return hasKey(shown) ? shown : cut(shown);
}

function inExpression(expression: SyntaxNode): string {
  const known = shownBy(expression);
  if (known !== null) return known.trim();
  switch (expression.type) {
    case 'MemberExpression': {
      const name = nameOf(expression.property);
      return name === null ? UNKNOWN : inWords(name);
    }
    case 'TemplateLiteral':
      return (expression.quasis as { value: { cooked: string } }[])
        .map((q) => q.value.cooked.trim())
        .join(` ${UNKNOWN} `);
    case 'Identifier':
    case 'CallExpression':
      return UNKNOWN;
    default:
      return '';
  }
}

/** Without what isn't known at both ends, which says nothing there, and with one sign for several between words. */
function tidy(words: string): string {
  const all = words.split(/\s+/).filter((w, i, of) => w !== '' && !(w === UNKNOWN && of[i - 1] === UNKNOWN));
  const isWord = (w: string) => w !== UNKNOWN;
  return all.slice(Math.max(0, all.findIndex(isWord)), all.findLastIndex(isWord) + 1).join(' ');
}

/** As long as words are kept. */
function cut(words: string): string {
  return words.slice(0, LONGEST);
}

/** Words with all messages whose keys stand in them. `given`: as they were read. */
export function saidIn(given: string, messageOf: (key: string) => string | undefined): string {
  const words = withoutInnerActs(given);
  return hasKey(words) ? cut(tidy(said(words, messageOf))) : words;
}
