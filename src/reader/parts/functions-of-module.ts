import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** Functions of a module by their name, be they methods of a class or of a description. */
export function functionsOf(root: SyntaxNode): Map<string, SyntaxNode> {
  const functions = new Map<string, SyntaxNode>();
  const note = (key: unknown, value: unknown) => {
    const name = nameOf(key);
    const body = isNode(value) ? functionIn(value) : null;
    if (name && body) functions.set(name, body);
  };
  walk(root, (node) => {
    if (node.type === 'FunctionDeclaration') note(node.id, node);
    else if (node.type === 'VariableDeclarator') note(node.id, node.init);
    else if (/^(MethodDefinition|PropertyDefinition|Property|ObjectProperty)$/.test(node.type))
      note(node.key, node.value);
  });
  return functions;
}

/** A function, or one that is handed to another to be remembered: `useCallback(() => …)`. */
function functionIn(init: SyntaxNode): SyntaxNode | null {
  if (isFunction(init)) return init;
  const [first] = init.type === 'CallExpression' ? (init.arguments as SyntaxNode[]) : [];
  return first && isFunction(first) ? first : null;
}
