import { nameOf, type SyntaxNode } from '../syntax.ts';

/** Whether something stands in a description of routes: what a route draws isn't drawn by the module that lists it. */
export function isOfRoutes(above: readonly SyntaxNode[]): boolean {
  return above.some((node, at) => {
    if (node.type === 'JSXAttribute') {
      const opening = above[at - 1];
      return (
        /Route$/.test(nameOf(opening?.name) ?? '') && /^(element|component|render)$/i.test(nameOf(node.name) ?? '')
      );
    }
    if (node.type === 'ObjectExpression') {
      const keys = (node.properties as SyntaxNode[]).map((p) => nameOf(p.key));
      return (
        (keys.includes('path') || keys.includes('index')) && keys.some((k) => /^(element|component)$/i.test(k ?? ''))
      );
    }
    return false;
  });
}
