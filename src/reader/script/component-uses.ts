import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { exportedValue } from './exported-value.ts';
import { calledName } from './handed-off.ts';

/** How a component is used: drawn as an element, put into a table or property for others to draw, or handed on in another way. */
export type ComponentUse = 'drawn' | 'named' | 'handed on';

/** How a reference uses a component; null where it is more than a component to the code: called, asked for its members, compared. */
export function componentUse({ node, above }: { node: SyntaxNode; above: readonly SyntaxNode[] }): ComponentUse | null {
  const parent = above.at(-1)!;
  switch (parent.type) {
    case 'JSXOpeningElement':
    case 'JSXClosingElement':
      return parent.name === node ? 'drawn' : null;
    case 'Property':
      return parent.value === node && above.at(-2)?.type === 'ObjectExpression' ? 'named' : null;
    case 'JSXExpressionContainer':
      return nameOf(above.at(-2)?.name) === 'component' ? 'named' : 'handed on';
    case 'ConditionalExpression':
      return parent.test === node ? null : 'handed on';
    case 'LogicalExpression':
      return parent.right === node ? 'handed on' : null;
    case 'VariableDeclarator':
      return parent.init === node && (parent.id as SyntaxNode).type === 'Identifier' ? 'handed on' : null;
    case 'CallExpression':
    case 'NewExpression':
      return parent.callee === node ? null : 'handed on';
    case 'ReturnStatement':
    case 'ArrayExpression':
    case 'ExportDefaultDeclaration':
    case 'ExportSpecifier':
      return 'handed on';
    case 'ArrowFunctionExpression':
      return parent.body === node ? 'handed on' : null;
    default:
      return null;
  }
}

/** Whether a value is seen to be a component: it makes elements, is a class of components, or is one that is wrapped. */
export function isComponent(value: SyntaxNode): boolean {
  if (/^Class/.test(value.type)) return isClassOfComponents(value);
  if (value.type === 'CallExpression') return wrapsComponent(value);
  if (!isFunction(value)) return false;
  let makes = false;
  walk(value, (node) => {
    makes ||= node.type === 'JSXElement' || node.type === 'JSXFragment';
    makes ||= node.type === 'CallExpression' && /^(?:createElement|jsxs?)$/.test(calledName(node) ?? '');
  });
  return makes;
}

/** Other classes that are named somewhere are made, compared or thrown by whoever gets them. */
export function isClassOfComponents(node: SyntaxNode): boolean {
  const parent = isNode(node.superClass) ? node.superClass : null;
  return /Component$/.test(nameOf(parent?.type === 'MemberExpression' ? parent.property : parent) ?? '');
}

/** `memo(Page)`, `forwardRef((…) => …)`: a call that is given a component. */
export function wrapsComponent(node: SyntaxNode): boolean {
  if (node.type !== 'CallExpression') return false;
  return (node.arguments as SyntaxNode[]).some((a) => isFunction(a) || /^[A-Z].*[a-z]/.test(nameOf(a) ?? ''));
}

/** Names that a module exports which are seen to be components. */
export function exportedComponents(program: SyntaxNode): Set<string> {
  const names = new Set<string>();
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type === 'ExportDefaultDeclaration') names.add('default');
    if (statement.type !== 'ExportNamedDeclaration' || statement.source) continue;
    const declared = statement.declaration as SyntaxNode | null;
    const listed = (statement.specifiers as SyntaxNode[] | undefined) ?? [];
    for (const name of [
      nameOf(declared?.id),
      ...((declared?.declarations as SyntaxNode[] | undefined) ?? []).map((d) => nameOf(d.id)),
      ...listed.map((s) => nameOf(s.exported)),
    ])
      if (name !== null && (name === 'default' || /^[A-Z]/.test(name))) names.add(name);
  }
  return new Set(
    [...names].filter((name) => {
      const value = exportedValue(program, name);
      return value !== null && isComponent(value);
    }),
  );
}
