import { isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/** What is handed to these runs once something has come, or after some time. */
const LATER = /^(then|catch|finally|setTimeout|setInterval|requestIdleCallback)$/;

/** Whether the code around a place waits for something before it comes there: for an answer, or for time to pass. */
export function isPutOff(place: SyntaxNode, above: readonly SyntaxNode[]): boolean {
  return above.some((around, at) => {
    const child = above[at + 1] ?? place;
    if (around.type === 'CallExpression' && isFunction(child) && (around.arguments as unknown[]).includes(child)) {
      const callee = around.callee as SyntaxNode;
      return LATER.test(nameOf(callee) ?? nameOf(callee.property) ?? '');
    }
    const canWait = around.type === 'Program' || (isFunction(around) && around.async === true);
    return canWait && firstWait(around) < place.start;
  });
}

/** Where a function, or a module at its top, waits first; kept, for it is asked for all that stands in it. */
const waits = new WeakMap<SyntaxNode, number>();

function firstWait(scope: SyntaxNode): number {
  const known = waits.get(scope);
  if (known !== undefined) return known;
  let first = Number.POSITIVE_INFINITY;
  const open: SyntaxNode[] = [scope];
  for (const node of open) {
    if (node.type === 'AwaitExpression' || (node.type === 'ForOfStatement' && node.await === true))
      first = Math.min(first, node.start);
    for (const field in node) {
      const value = node[field];
      for (const item of Array.isArray(value) ? value : [value]) if (isNode(item) && !isFunction(item)) open.push(item);
    }
  }
  waits.set(scope, first);
  return first;
}
