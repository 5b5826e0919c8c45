import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';
import type { Reference } from './script-file.ts';

/** How a component is used: drawn as an element, put into a table or property for others to draw, or handed on in another way. */
export type ComponentUse = 'drawn' | 'named' | 'handed on';

/** How a reference uses a component; null where it is more than a component to the code: called, asked for its members, compared. */
export function componentUse({ node, above }: Reference): ComponentUse | null {
  const parent = above.at(-1)!;
  switch (parent.type) {
    case 'JSXOpeningElement':
    case 'JSXClosingElement':
      return parent.name === node && above.some(isFunction) ? 'drawn' : null;
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
    makes ||= node.type === 'CallExpression' && /^(?:createElement|jsxs?)$/.test(calledAs(node) ?? '');
  });
  return makes;
}

function calledAs({ callee }: SyntaxNode): string | null {
  const called = callee as SyntaxNode;
  return nameOf(called.type === 'MemberExpression' ? called.property : called);
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
