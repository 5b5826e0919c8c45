import { nameOf, type SyntaxNode, walk } from '../syntax.ts';

/**
 * Names that code takes of an object which it knows as `name` (`kit.debounce`, `<Dialog.Root>`); null where the object goes on
 * whole, is written to, or is asked by a computed name. The same name of something nearer counts as the object: too many
 * names, never too few.
 */
export function memberNames(root: SyntaxNode, name: string): string[] | null {
  const names = new Set<string>();
  let whole = false;
  walk(root, (node, above) => {
    if ((node.type !== 'Identifier' && node.type !== 'JSXIdentifier') || node.name !== name) return;
    const parent = above[above.length - 1];
    if (!parent || BINDS.has(parent.type) || isKey(node, parent)) return;
    const member = isMember(node, parent) && !isWritten(above) ? nameOf(parent.property) : null;
    if (member !== null) names.add(member);
    else whole = true;
  });
  return whole ? null : [...names];
}

/** Where the name itself is given, and types, which don’t ship. */
const BINDS = new Set(['ImportNamespaceSpecifier', 'TSQualifiedName']);

function isMember(node: SyntaxNode, parent: SyntaxNode): boolean {
  const isField = parent.type === 'MemberExpression' && parent.computed !== true;
  return (isField || parent.type === 'JSXMemberExpression') && parent.object === node;
}

/** The same letters as the name of a field. */
function isKey(node: SyntaxNode, parent: SyntaxNode): boolean {
  if (parent.type === 'MemberExpression') return parent.property === node && parent.computed !== true;
  if (parent.type === 'JSXMemberExpression') return parent.property === node;
  if (parent.type === 'JSXAttribute') return parent.name === node;
  return /Property|Method|Definition/.test(parent.type) && parent.key === node && parent.value !== node;
}

/** Whether the member is given a value, or deleted. */
function isWritten(above: readonly SyntaxNode[]): boolean {
  const [holder, member] = above.slice(-2);
  if (holder.type === 'AssignmentExpression') return holder.left === member;
  return holder.type === 'UpdateExpression' || (holder.type === 'UnaryExpression' && holder.operator === 'delete');
}
