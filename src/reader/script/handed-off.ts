import { nameOf, type SyntaxNode } from '../syntax.ts';

/** Functions and methods that call what they are given later, and drop what it gives back. */
export const CALL_LATER: ReadonlySet<string> = new Set([
  ...['addEventListener', 'then', 'catch'],
  ...['setTimeout', 'requestIdleCallback', 'requestAnimationFrame', 'queueMicrotask'],
]);

/** Functions whose argument runs once something was drawn, by the public conventions of component systems. */
export const CALL_ONCE_DRAWN: ReadonlySet<string> = new Set([
  ...['useEffect', 'onMounted', 'onMount', 'afterNextRender', 'afterRender'],
]);

/** The attribute of an element or component that a node is the value of; null for any other place. `at`: as below. */
export function attributeOf(above: readonly SyntaxNode[], at: number): { name: string; element: SyntaxNode } | null {
  const attribute = above[at - 2];
  if (above[at - 1]?.type !== 'JSXExpressionContainer' || attribute?.type !== 'JSXAttribute') return null;
  return { name: nameOf(attribute.name) ?? '', element: above[at - 3] };
}

/** The name of the function or method that a node is handed to; null for any other place. `at`: its place among those around. */
export function handedTo(node: SyntaxNode, above: readonly SyntaxNode[], at: number): string | null {
  const parent = above[at - 1];
  if (parent?.type !== 'CallExpression' || !(parent.arguments as unknown[]).includes(node)) return null;
  const callee = parent.callee as SyntaxNode;
  return nameOf(callee.type === 'MemberExpression' ? callee.property : callee);
}

/** The name by which a function can be meant elsewhere in its file; null without one. */
export function ownName(fn: SyntaxNode, parent: SyntaxNode | undefined): string | null {
  if (fn.type === 'FunctionDeclaration') return nameOf(fn.id);
  return parent?.type === 'VariableDeclarator' ? nameOf(parent.id) : null;
}
