import { bare, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import type { Test } from './tests-around.ts';
import type { Values } from './values.ts';

/** A test without the negations around it. */
export function plainly({ test, holds }: Test): Test {
  const inner = bare(test);
  if (inner.type !== 'UnaryExpression' || inner.operator !== '!') return { test: inner, holds };
  return plainly({ test: inner.argument as SyntaxNode, holds: !holds });
}

/**
 * Whether a test that holds means that a name in it does: false for `!user`, `user === null`, and for `guest` where that is `!user`.
 * What can't be told (a function that is given the name) means it.
 */
export function isMeant(test: SyntaxNode, name: string, values: Values): boolean {
  return sense(test, name, values, new Set()) ?? true;
}

/** Null where the name isn't in it. */
function sense(test: SyntaxNode, name: string, values: Values, met: Set<string>): boolean | null {
  const node = bare(test);
  const inner = (part: unknown) => (isNode(part) ? sense(part, name, values, met) : null);
  switch (node.type) {
    case 'Identifier': {
      const own = nameOf(node)!;
      if (own === name) return true;
      const from = values.derived.get(own);
      if (!from || met.has(own)) return null;
      met.add(own);
      return inner(from);
    }
    case 'UnaryExpression': {
      const found = inner(node.argument);
      return found === null || node.operator !== '!' ? found : !found;
    }
    case 'LogicalExpression':
      return inner(node.left) ?? inner(node.right);
    case 'BinaryExpression': {
      const [left, right] = [node.left as SyntaxNode, node.right as SyntaxNode];
      const found = inner(left) ?? inner(right);
      if (found === null || !/^[!=]==?$/.test(node.operator as string)) return found;
      const isNothing = [left, right].some(meansNothing);
      return found === (String(node.operator).startsWith('!') === isNothing);
    }
    default: {
      let found: boolean | null = null;
      walk(node, (part) => {
        if (part !== node && part.type === 'Identifier') found ??= sense(part, name, values, met);
      });
      return found;
    }
  }
}

/** `null`, `undefined`, `false`, 0 or an empty text. */
function meansNothing(node: SyntaxNode): boolean {
  return (node.type === 'Literal' && !node.value) || nameOf(node) === 'undefined';
}
