import { isFunction, nameOf, type SyntaxNode } from '../syntax.ts';

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
  return calledName(parent);
}

/** Functions that give back the function that they are given. */
export const KEEPS: ReadonlySet<string> = new Set(['useCallback', 'useEvent', 'useEffectEvent', 'markRaw']);

/** The name of what a call calls: a function, or a member. */
export function calledName({ callee }: SyntaxNode): string | null {
  const called = callee as SyntaxNode;
  return nameOf(called.type === 'MemberExpression' ? called.property : called);
}

/** The name by which a function can be meant elsewhere in its file: its own, or that of the variable that keeps it; null without one. */
export function ownName(fn: SyntaxNode, above: readonly SyntaxNode[], at: number): string | null {
  if (fn.type === 'FunctionDeclaration') return nameOf(fn.id);
  const parent = above[at - 1];
  const isKept = parent?.type === 'CallExpression' && parent.callee !== fn && KEEPS.has(calledName(parent) ?? '');
  const holder = isKept ? above[at - 2] : parent;
  return holder?.type === 'VariableDeclarator' ? nameOf(holder.id) : null;
}

/** Whether a name only says on what something depends: in the list after a function that is given to a hook. */
export function isDependency(above: readonly SyntaxNode[]): boolean {
  const [call, list] = above.slice(-2);
  if (list?.type !== 'ArrayExpression' || call?.type !== 'CallExpression') return false;
  const given = call.arguments as SyntaxNode[];
  return given.length > 1 && given.at(-1) === list && isFunction(given[0]) && /^use[A-Z]/.test(calledName(call) ?? '');
}
