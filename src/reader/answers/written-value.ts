import { bare, constantText, isNode } from '../syntax.ts';

/** A value that is written: a text, a number, yes or no; null for anything else. */
export function writtenValue(node: unknown): string | number | boolean | null {
  if (!isNode(node)) return null;
  const value = bare(node);
  const text = constantText(value);
  if (text !== null) return text;
  if (value.type === 'UnaryExpression' && value.operator === '-') {
    const of = writtenValue(value.argument);
    return typeof of === 'number' ? -of : null;
  }
  return value.type === 'Literal' && (typeof value.value === 'number' || typeof value.value === 'boolean')
    ? value.value
    : null;
}
