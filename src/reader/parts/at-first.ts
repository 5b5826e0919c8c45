import { isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import { literal, UNKNOWN } from './literals.ts';
import type { Values } from './values.ts';

/** So deep may names follow from one another. */
const DEEPEST = 8;

/** What a test gives when the screen is first drawn: true, false, or UNKNOWN. */
export function atFirst(test: SyntaxNode, values: Values, depth = 0): unknown {
  const of = (node: unknown) => (isNode(node) ? atFirst(node, values, depth) : UNKNOWN);
  switch (test.type) {
    case 'Identifier':
      return named(test.name as string, values, depth);
    case 'ParenthesizedExpression':
    case 'TSNonNullExpression':
    case 'TSAsExpression':
    case 'ChainExpression':
      return of(test.expression);
    case 'CallExpression':
      // Signals are asked by calling them.
      return (test.arguments as unknown[]).length === 0 ? of(test.callee) : UNKNOWN;
    case 'MemberExpression':
      return member(test, values, depth);
    case 'UnaryExpression': {
      const value = of(test.argument);
      return test.operator !== '!' || value === UNKNOWN ? UNKNOWN : !value;
    }
    case 'BinaryExpression': {
      const [left, right] = [of(test.left), of(test.right)];
      if (left === UNKNOWN || right === UNKNOWN) return UNKNOWN;
      if (/^===?$/.test(test.operator as string)) return left === right;
      return /^!==?$/.test(test.operator as string) ? left !== right : UNKNOWN;
    }
    case 'LogicalExpression': {
      const [left, right] = [of(test.left), of(test.right)];
      if (test.operator === '&&') return (left !== UNKNOWN && !left) || (right !== UNKNOWN && !right) ? false : UNKNOWN;
      return (left !== UNKNOWN && left) || (right !== UNKNOWN && right) ? true : UNKNOWN;
    }
    default:
      return literal(test);
  }
}

function named(name: string, values: Values, depth: number): unknown {
  if (name === 'undefined') return undefined;
  const state = values.states.get(name) ?? values.states.get(name.replace(/^\$/, ''));
  if (state) return state.initial;
  const from = values.derived.get(name);
  return from && depth < DEEPEST ? atFirst(from, values, depth + 1) : UNKNOWN;
}

/** `this.open`, `open.value`, or a field of a state that is an object. */
function member(node: SyntaxNode, values: Values, depth: number): unknown {
  const field = nameOf(node.property);
  if (!isNode(node.object) || field === null) return UNKNOWN;
  if (node.object.type === 'ThisExpression') return named(field, values, depth);
  const of = atFirst(node.object, values, depth);
  if (of === UNKNOWN) return UNKNOWN;
  if (typeof of !== 'object' || of === null) return field === 'value' ? of : UNKNOWN;
  return field in of ? (of as Record<string, unknown>)[field] : undefined;
}
