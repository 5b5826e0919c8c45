import { isFunction, isNode, type SyntaxNode } from '../syntax.ts';
import { dottedName, returnsOf } from './views.ts';

/** Markup, or a function that gives some. */
export function isMarkup(value: unknown): boolean {
  if (!isNode(value)) return false;
  return (
    value.type === 'JSXElement' ||
    value.type === 'JSXFragment' ||
    (isFunction(value) && returnsOf(value).some(isMarkup))
  );
}

/** Whether markup is one component, or components around one, without anything of its own. */
export function onlyWraps(value: SyntaxNode): boolean {
  if (value.type !== 'JSXElement') return false;
  const inside = (value.children as SyntaxNode[]).filter((c) => c.type !== 'JSXText' || /\S/.test(String(c.value)));
  return (
    /^[A-Z]/.test(tagOf(value)) && inside.length <= 1 && inside.every((c) => c.type === 'JSXElement' && onlyWraps(c))
  );
}

/** Whether a value is a deferred import, or what comes of one. */
export function isDeferredImport(value: SyntaxNode): boolean {
  if (value.type === 'ImportExpression') return true;
  const inner = value.type === 'CallExpression' ? value.callee : (value.object ?? value.argument);
  return isNode(inner) && isDeferredImport(inner);
}

export function tagOf(element: SyntaxNode): string {
  const name = dottedName((element.openingElement as SyntaxNode).name);
  return name?.keys.at(-1) ?? name?.name ?? '';
}
