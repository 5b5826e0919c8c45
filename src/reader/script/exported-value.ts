import { isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/** The function, class or other value that a module exports by a name; null where that can't be seen in its own file. */
export function exportedValue(program: SyntaxNode, name: string): SyntaxNode | null {
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type === 'ExportDefaultDeclaration' && name === 'default')
      return namedOr(program, statement.declaration as SyntaxNode);
    if (statement.type !== 'ExportNamedDeclaration' || statement.source) continue;
    if (isNode(statement.declaration)) {
      const found = declaredAs(statement.declaration, name);
      if (found) return found;
    }
    const listed = (statement.specifiers as SyntaxNode[]).find((s) => nameOf(s.exported) === name);
    if (listed) return namedOr(program, listed.local as SyntaxNode);
  }
  return null;
}

function namedOr(program: SyntaxNode, node: SyntaxNode): SyntaxNode | null {
  if (node.type !== 'Identifier') return node;
  const name = nameOf(node) ?? '';
  for (const statement of program.body as SyntaxNode[]) {
    const declared = statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement;
    const found = isNode(declared) ? declaredAs(declared, name) : null;
    if (found) return found;
  }
  return null;
}

function declaredAs(declared: SyntaxNode, name: string): SyntaxNode | null {
  if (declared.type === 'FunctionDeclaration' || declared.type === 'ClassDeclaration')
    return nameOf(declared.id) === name ? declared : null;
  if (declared.type !== 'VariableDeclaration') return null;
  const found = (declared.declarations as SyntaxNode[]).find((d) => nameOf(d.id) === name);
  return found && isNode(found.init) ? found.init : null;
}
