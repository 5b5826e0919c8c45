import { bare, constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { TextExpression, Texts } from './expressions.ts';
import { dottedName } from './views.ts';

/** A text as far as the syntax tells; null where it is computed. */
export function textOf(given: unknown): TextExpression {
  if (!isNode(given)) return null;
  const node = bare(given);
  const constant = constantText(node);
  if (constant !== null) return constant;
  switch (node.type) {
    case 'Identifier':
    case 'MemberExpression':
      return dottedName(node);
    case 'BinaryExpression':
      return node.operator === '+' ? { joined: [textOf(node.left), textOf(node.right)] } : null;
    case 'TemplateLiteral': {
      const pieces = (node.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked);
      const holes = node.expressions as unknown[];
      return { joined: pieces.flatMap((p, i) => (i < holes.length ? [p, textOf(holes[i])] : [p])) };
    }
    default:
      return null;
  }
}

/** A text, or an object of texts at any depth; null for anything else. */
export function textsOf(from: SyntaxNode): Texts | null {
  const value = bare(from);
  if (value.type === 'CallExpression' && nameOf((value.callee as SyntaxNode).property) === 'freeze') {
    const [frozen] = value.arguments as unknown[];
    return isNode(frozen) ? textsOf(frozen) : null;
  }
  if (value.type === 'ArrayExpression') return textsInList(value);
  if (value.type !== 'ObjectExpression') {
    const text = ['Literal', 'TemplateLiteral', 'BinaryExpression'].includes(value.type) ? textOf(value) : null;
    return text === null ? null : { text };
  }
  const keys: { [key: string]: Texts } = Object.create(null);
  for (const property of value.properties as SyntaxNode[]) {
    const key = nameOf(property.key);
    const { value: given } = property;
    if (key === null || !isNode(given)) continue;
    const name = given.type === 'Identifier' || given.type === 'MemberExpression' ? textOf(given) : null;
    const inner = name === null ? textsOf(given) : { text: name };
    if (inner !== null) keys[key] = inner;
  }
  return Object.keys(keys).length > 0 ? { keys } : null;
}

function textsInList({ elements }: SyntaxNode): Texts | null {
  const keys: { [key: string]: Texts } = Object.create(null);
  for (const [at, element] of (elements as unknown[]).entries()) {
    const text = constantText(element);
    if (text !== null) keys[at] = { text };
  }
  return Object.keys(keys).length > 0 ? { keys } : null;
}
