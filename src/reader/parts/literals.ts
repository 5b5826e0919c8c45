import { constantText, isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/** A value that can't be told from the code. */
export const UNKNOWN = Symbol('unknown');

/** The value of a literal, of an object of them as far as they are; UNKNOWN for anything else. */
export function literal(node: SyntaxNode): unknown {
  if (node.type === 'Literal') return node.value;
  if (node.type === 'ArrayExpression' && (node.elements as unknown[]).length === 0) return UNKNOWN;
  if (node.type === 'Identifier' && node.name === 'undefined') return undefined;
  if (node.type !== 'ObjectExpression') return constantText(node) ?? UNKNOWN;
  const fields: Record<string, unknown> = {};
  for (const p of node.properties as SyntaxNode[]) {
    const key = nameOf(p.key);
    if (key !== null && isNode(p.value)) fields[key] = literal(p.value);
  }
  return fields;
}

/** The call that makes a value, awaited or not. */
export function calledIn(init: SyntaxNode): SyntaxNode | null {
  if (init.type === 'CallExpression' || init.type === 'NewExpression') return init;
  return init.type === 'AwaitExpression' && isNode(init.argument) ? calledIn(init.argument) : null;
}
