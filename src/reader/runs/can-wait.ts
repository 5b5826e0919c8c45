import { attributeOf, CALL_LATER, handedTo } from '../script/handed-off.ts';
import { isFunction, type SyntaxNode } from '../syntax.ts';

/**
 * Whether a use of an imported name can be served by an import that is deferred: it is drawn as a component, named for
 * others to draw or handed to one, or stands in code that can wait. `above`: what stands around it, outermost first.
 */
export function canBeDeferred(node: SyntaxNode, above: readonly SyntaxNode[]): boolean {
  const parent = above.at(-1);
  if (parent?.type === 'JSXOpeningElement' && parent.name === node) return true;
  // Whoever reads a table of components draws what is in there; of functions it wants their answers.
  if (parent?.type === 'Property') return parent.value === node && /^[A-Z]/.test(node.name as string);
  if (attributeOf(above, above.length)) return true;
  return above.some((n, at) => isFunction(n) && (n.async === true || isCalledLater(n, above, at)));
}

function isCalledLater(fn: SyntaxNode, above: readonly SyntaxNode[], at: number): boolean {
  return /^on[A-Z]/.test(attributeOf(above, at)?.name ?? '') || CALL_LATER.has(handedTo(fn, above, at) ?? '');
}
