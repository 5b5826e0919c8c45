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
    return node.type === 'ObjectExpression' && isRoute(node);
  });
}

/** Which objects are routes: each is asked about for everything inside of it. */
const routes = new WeakMap<SyntaxNode, boolean>();

function isRoute(object: SyntaxNode): boolean {
  const known = routes.get(object);
  if (known !== undefined) return known;
  const keys = new Set((object.properties as SyntaxNode[]).map((p) => nameOf(p.key)));
  const draws = ['element', 'Element', 'component', 'Component'].some((k) => keys.has(k));
  const is = draws && (keys.has('path') || keys.has('index'));
  routes.set(object, is);
  return is;
}
