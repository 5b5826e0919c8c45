import { constantText, isNode, nameOf, type SyntaxNode, walk } from './syntax.ts';

/** local name → specifier, for imports and for top-level names that wrap a deferred import. */
export function importedBindings(program: SyntaxNode): Map<string, string> {
  const bindings = new Map<string, string>();
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type === 'ImportDeclaration') {
      const specifier = constantText(statement.source);
      for (const item of statement.specifiers as SyntaxNode[]) {
        const local = nameOf(item.local);
        if (local && specifier) bindings.set(local, specifier);
      }
    } else if (statement.type === 'VariableDeclaration') {
      for (const declarator of statement.declarations as SyntaxNode[]) {
        const local = nameOf(declarator.id);
        const init = declarator.init;
        const specifier = isNode(init) && init.type === 'CallExpression' ? deferredIn(init) : null;
        if (local && specifier) bindings.set(local, specifier);
      }
    }
  }
  return bindings;
}

function deferredIn(value: SyntaxNode): string | null {
  let found: string | null = null;
  walk(value, (node) => {
    if (node.type === 'ImportExpression') found ??= constantText(node.source);
  });
  return found;
}
