import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** Where the module's own functions are called or drawn, by their names: each place with what stands around it, outermost first. */
export type CallSites = ReadonlyMap<string, readonly (readonly SyntaxNode[])[]>;

/** Finds the places that call functions of this module, or draw them as components. */
export function callSitesOf(roots: readonly SyntaxNode[]): CallSites {
  const own = new Set<string>();
  for (const root of roots)
    walk(root, (node, above) => {
      const name = isFunction(node) ? nameOfFunction(node, above.at(-1)) : null;
      if (name !== null) own.add(name);
    });
  const sites = new Map<string, SyntaxNode[][]>();
  for (const root of roots)
    walk(root, (node, above) => {
      const name = calledName(node);
      if (name === null || !own.has(name)) return;
      const all = sites.get(name) ?? [];
      all.push([...above, node]);
      sites.set(name, all);
    });
  return sites;
}

/** The name that a function is called by; null for one that is handed on. */
export function nameOfFunction(fn: SyntaxNode, parent: SyntaxNode | undefined): string | null {
  if (fn.type === 'FunctionDeclaration') return nameOf(fn.id);
  if (parent?.type === 'VariableDeclarator') return nameOf(parent.id);
  const holds = parent && /^(MethodDefinition|PropertyDefinition|Property)$/.test(parent.type) && parent.value === fn;
  return holds ? nameOf(parent.key) : null;
}

/** `dialog()`, `this.dialog()`, `<Dialog />`. */
function calledName(node: SyntaxNode): string | null {
  if (node.type === 'JSXElement') return nameOf((node.openingElement as SyntaxNode).name);
  if (node.type !== 'CallExpression' || !isNode(node.callee)) return null;
  const { callee } = node;
  if (callee.type === 'MemberExpression')
    return (callee.object as SyntaxNode).type === 'ThisExpression' ? nameOf(callee.property) : null;
  return nameOf(callee);
}
