import type { Import } from '../core/snapshot/module-types.ts';
import { isFunction, isNode, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { type ComponentUse, isClassOfComponents, isComponent, wrapsComponent } from './component-uses.ts';
import { type PatchContext, targetOf } from './context.ts';
import type { ScriptFile } from './script-file.ts';

/** The function, class or other value that a module exports by a name; null where that can't be seen in its own file. */
export function exportedValue(file: ScriptFile, name: string): SyntaxNode | null {
  for (const statement of file.body) {
    if (statement.type === 'ExportDefaultDeclaration' && name === 'default')
      return namedOr(file, statement.declaration as SyntaxNode);
    if (statement.type !== 'ExportNamedDeclaration' || statement.source) continue;
    if (isNode(statement.declaration)) {
      const found = declaredAs(statement.declaration, name);
      if (found) return found;
    }
    const listed = (statement.specifiers as SyntaxNode[]).find((s) => nameOf(s.exported) === name);
    if (listed) return namedOr(file, listed.local as SyntaxNode);
  }
  return null;
}

export const NO_COMPONENT = 'is no component';

/**
 * Why what an import leads to can't be deferred as a component by that name, though it is written like one; null if it can. What is handed on may be
 * anything to whoever gets it, so that it has to be seen to be a component.
 */
export function noComponent(
  context: PatchContext,
  item: Import,
  imported: string,
  uses: ReadonlySet<ComponentUse>,
): string | null {
  const target = context.edits(targetOf(context, item))?.file;
  const found = target ? exportedValue(target, imported) : null;
  if (uses.has('handed on') && !(found && isComponent(found))) return NO_COMPONENT;
  if (!found) return uses.has('drawn') || /[a-z]/.test(imported) ? null : NO_COMPONENT;
  if (!uses.has('drawn') && !isFunction(found) && !isClassOfComponents(found) && !wrapsComponent(found))
    return NO_COMPONENT;
  if (isNode(found.typeParameters))
    return 'takes a type of its own, which a deferred component doesn’t give on to whoever draws it';
  return null;
}

function namedOr(file: ScriptFile, node: SyntaxNode): SyntaxNode | null {
  if (node.type !== 'Identifier') return node;
  const name = nameOf(node) ?? '';
  for (const statement of file.body) {
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
