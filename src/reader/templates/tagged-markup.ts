import { type DefaultTreeAdapterTypes as Html, parseFragment } from 'parse5';
import { isNode, nameOf, type SyntaxNode, walk, walkAndChange } from '../syntax.ts';
import { attributeNode, elementNode, groupNode, handlerName, shownNode, textNode } from './markup-nodes.ts';

/** What stands for a place of a template that is filled in: as long as it, so that all places stay where they are. */
const FILLER = '\u0001';

/**
 * Puts parsed markup in place of the tagged templates of a script (``html`<tide-map .open=${open}>` ``, the public form of lit and others that
 * write markup in that way), so that they are read as any other markup is. Changes the tree that it is given.
 */
export function markupOfTaggedTemplates(program: SyntaxNode, text: string): void {
  walkAndChange(program, (node) => {
    if (node.type === 'TaggedTemplateExpression' && /^(html|svg|mathml)$/.test(nameOf(node.tag) ?? '')) {
      node.drawn = markupOf(node.quasi as SyntaxNode, text);
      node.quasi = null;
    } else if (node.type === 'AssignmentExpression' && /^(inner|outer)HTML$/.test(propertyOf(node.left))) {
      node.drawn = markupOfText(node.right, text);
      if (node.drawn) node.right = null;
    } else if (
      node.type === 'CallExpression' &&
      /^(insertAdjacentHTML|setHTMLUnsafe|setHTML)$/.test(propertyOf(node.callee))
    ) {
      node.drawn = markupOfText((node.arguments as SyntaxNode[]).at(-1), text);
      if (node.drawn) node.arguments = [];
    }
  });
}

/** Whether a script may hold markup in texts. */
export const MAY_HOLD_MARKUP = /\b(html|svg|mathml)`|(inner|outer)HTML|insertAdjacentHTML|setHTML/;

function propertyOf(node: unknown): string {
  return (isNode(node) && node.type === 'MemberExpression' && nameOf(node.property)) || '';
}

/** Markup that a script puts into the document as a text; undefined for what is no text. */
function markupOfText(value: unknown, text: string): SyntaxNode | undefined {
  if (!isNode(value)) return undefined;
  if (value.type === 'TemplateLiteral') return markupOf(value, text);
  if (value.type !== 'Literal' || typeof value.value !== 'string') return undefined;
  const { start, end } = value;
  const piece = { type: 'TemplateElement', start: start + 1, end: end - 1 };
  return markupOf({ type: 'TemplateLiteral', start, end, quasis: [piece], expressions: [] }, text);
}

function markupOf(quasi: SyntaxNode, text: string): SyntaxNode {
  const holes = quasi.expressions as SyntaxNode[];
  let markup = '';
  (quasi.quasis as SyntaxNode[]).forEach((piece, i) => {
    // Between the texts stands `${…}`, of which the texts' own places leave out the signs.
    markup += text.slice(piece.start, piece.end);
    const next = (quasi.quasis as SyntaxNode[])[i + 1];
    if (next) markup += FILLER.repeat(Math.max(0, next.start - piece.end));
  });
  const offset = (quasi.quasis as SyntaxNode[])[0].start;
  const fragment = parseFragment(markup, { sourceCodeLocationInfo: true });
  const inside = (from: number, to: number) => holes.filter((h) => h.start >= from + offset && h.end <= to + offset);
  return groupNode(childrenOf(fragment, offset, inside), quasi);
}

type Inside = (from: number, to: number) => SyntaxNode[];

function childrenOf(parent: Html.ParentNode, offset: number, inside: Inside): SyntaxNode[] {
  return parent.childNodes.flatMap((child) => {
    const at = child.sourceCodeLocation;
    if (!at) return 'childNodes' in child ? childrenOf(child, offset, inside) : [];
    const span = { start: at.startOffset + offset, end: at.endOffset + offset };
    if (child.nodeName === '#text') {
      const { value } = child as Html.TextNode;
      const words = value.replaceAll(FILLER, '').trim();
      const shown = inside(at.startOffset, at.endOffset).map(shownNode);
      return words === '' ? shown : [textNode(words, span), ...shown];
    }
    if (!('tagName' in child)) return [];
    const attributes = child.attrs.flatMap((a) => {
      const place = child.sourceCodeLocation?.attrs?.[a.name];
      return place ? attributesOf(a, { start: place.startOffset, end: place.endOffset }, offset, inside) : [];
    });
    const content = child.tagName === 'template' ? (child as Html.Template).content : child;
    return [elementNode(child.tagName, span, attributes, childrenOf(content, offset, inside))];
  });
}

/** `@click=${…}` is a handler, `.open=${…}` and `?open=${…}` are what the element is given. */
function attributesOf(
  { name, value }: { name: string; value: string },
  place: { start: number; end: number },
  offset: number,
  inside: Inside,
): SyntaxNode[] {
  const span = { start: place.start + offset, end: place.end + offset };
  const [filled] = inside(place.start, place.end);
  if (name.startsWith('@')) return filled ? [attributeNode(handlerName(name.slice(1)), filled, span)] : [];
  const plain = name.replace(/^[.?]/, '');
  return [attributeNode(plain, filled && isNode(filled) ? filled : value, span)];
}

/** Names under which a script defines elements: `customElements.define('tide-map', …)`, or a decorator that does so. */
export function definedElements(program: SyntaxNode): string[] {
  const found: string[] = [];
  walk(program, (node) => {
    if (node.type !== 'CallExpression') return;
    const callee = node.callee as SyntaxNode;
    const [first] = node.arguments as SyntaxNode[];
    const defines =
      nameOf(callee) === 'customElement' ||
      (callee.type === 'MemberExpression' &&
        nameOf(callee.property) === 'define' &&
        /customElements$/.test(nameOf(callee.object) ?? nameOf((callee.object as SyntaxNode).property) ?? ''));
    const name = defines && first?.type === 'Literal' ? first.value : null;
    if (typeof name === 'string' && name.includes('-')) found.push(name);
  });
  return found;
}
