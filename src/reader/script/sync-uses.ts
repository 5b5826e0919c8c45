import type { SourceText } from '../source-text.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { componentUse } from './component-uses.ts';
import { importedBindings, importedNames } from './imported-bindings.ts';

/** Why an import can't simply be deferred: what the module needs of it while it starts. */
export interface SyncUse {
  reason: string;
  line: number;
  /** It is only passed on as it is imported, so that those who use it can import it past this module. */
  passesOn?: true;
  /** It is only handed on, so that it can be deferred if that imported name stands for a component. */
  component?: string;
}

/**
 * Imports that a module needs while it starts, by specifier, each with the first place that says so: passed on, built
 * upon by a class, called, or read. A name that only stands in a list or an object (as in a route table) can be
 * wrapped, and what stands in functions is needed later.
 */
export function syncUses(program: SyntaxNode, source: SourceText): Map<string, SyncUse> {
  const found = new Map<string, SyncUse>();
  const bindings = importedBindings(program);
  const names = importedNames(program);
  const note = (specifier: string | null | undefined, reason: string, at: number, more: Partial<SyncUse> = {}) => {
    const known = specifier ? found.get(specifier) : undefined;
    // What is needed in another way as well counts more than what can be got round.
    const replaces = known && (known.passesOn || known.component !== undefined) && Object.keys(more).length === 0;
    if (specifier && (!known || replaces)) found.set(specifier, { reason, line: source.place(at).line, ...more });
  };
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type === 'ExportAllDeclaration' || statement.type === 'ExportNamedDeclaration') {
      note(constantText(statement.source), 'it is passed on to other modules', statement.start, { passesOn: true });
      for (const item of (statement.specifiers as SyntaxNode[] | undefined) ?? [])
        if (!statement.source)
          note(bindings.get(nameOf(item.local) ?? ''), 'it is passed on to other modules', item.start);
    }
    if (statement.type === 'ImportDeclaration' && (statement.specifiers as unknown[]).length === 0)
      note(constantText(statement.source), 'it is imported for what it does by itself, in this order', statement.start);
  }
  walk(program, (node, above) => {
    if (node.type !== 'Identifier' || !bindings.has(node.name as string)) return;
    if (above.some((n) => isFunction(n) || n.type === 'ImportDeclaration' || /^TS/.test(n.type))) return;
    const reason = reasonOf(node, above);
    const name = node.name as string;
    const isHandedOn = /^[A-Z]/.test(name) && componentUse({ node, above }) !== null;
    if (reason) note(bindings.get(name), reason, node.start, isHandedOn ? { component: names.get(name) ?? name } : {});
  });
  return found;
}

function reasonOf(node: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const parent = above.at(-1);
  if (!parent) return null;
  if (isKey(node, parent)) return null;
  switch (parent.type) {
    case 'ClassDeclaration':
    case 'ClassExpression':
      return parent.superClass === node ? 'a class extends it' : null;
    case 'CallExpression':
    case 'NewExpression':
    case 'TaggedTemplateExpression':
      return parent.callee === node || parent.tag === node ? 'it is called while the module starts' : read(above);
    case 'Decorator':
      return 'a class is marked with it';
    case 'Property':
    case 'ArrayExpression':
    case 'ExportSpecifier':
    case 'JSXExpressionContainer':
      return null;
    default:
      return read(above);
  }
}

function read(above: readonly SyntaxNode[]): string | null {
  // A default export of the name itself, or the bodies of classes, run nothing.
  const isField = above.some((n) => n.type === 'PropertyDefinition' && n.static === true);
  if (above.some((n) => (n.type === 'ClassBody' && !isField) || n.type === 'JSXOpeningElement')) return null;
  return 'it is read while the module starts';
}

function isKey(node: SyntaxNode, parent: SyntaxNode): boolean {
  if (parent.type === 'MemberExpression') return parent.property === node && !parent.computed;
  return (
    (parent.type === 'Property' || parent.type === 'MethodDefinition') &&
    parent.key === node &&
    isNode(parent.value) &&
    parent.value !== node
  );
}
