import { isFunction, isNode, nameOf, namesIn, type SyntaxNode } from '../syntax.ts';

/** Tells where the names of a program are declared, which in code that was made small are mostly the same few letters (ECMA-262, scopes). */
export class Scopes {
  private readonly known = new Map<SyntaxNode, ReadonlySet<string>>();

  /** What declares a name for a place: the nearest of the nodes around it, or null where that is the module itself. */
  homeOf(name: string, above: readonly SyntaxNode[]): SyntaxNode | null {
    for (let i = above.length - 1; i >= 0; i--) if (this.declaredBy(above[i]).has(name)) return above[i];
    return null;
  }

  private declaredBy(node: SyntaxNode): ReadonlySet<string> {
    if (!isFunction(node) && !SCOPES.has(node.type)) return NONE;
    let found = this.known.get(node);
    if (!found) {
      found = new Set(declaredBy(node));
      this.known.set(node, found);
    }
    return found;
  }
}

const NONE: ReadonlySet<string> = new Set();
const LOOPS = ['ForStatement', 'ForInStatement', 'ForOfStatement'];
const BLOCKS = ['BlockStatement', 'SwitchStatement', 'StaticBlock'];
const SCOPES = new Set([...LOOPS, ...BLOCKS, 'CatchClause', 'ClassExpression']);

function declaredBy(node: SyntaxNode): string[] {
  if (isFunction(node)) {
    const own = node.type === 'FunctionExpression' ? (nameOf(node.id) ?? []) : [];
    return [...(node.params as SyntaxNode[]).flatMap(namesIn), ...[own].flat(), ...varsIn(node.body)];
  }
  if (node.type === 'CatchClause') return namesIn(node.param);
  if (node.type === 'ClassExpression') return [nameOf(node.id) ?? []].flat();
  if (LOOPS.includes(node.type)) return declaredIn(node.init ?? node.left);
  const statements =
    node.type === 'SwitchStatement'
      ? (node.cases as SyntaxNode[]).flatMap((c) => c.consequent as SyntaxNode[])
      : (node.body as SyntaxNode[]);
  return statements.flatMap(declaredIn);
}

/** Names that one statement declares. */
function declaredIn(statement: unknown): string[] {
  if (!isNode(statement)) return [];
  if (statement.type === 'VariableDeclaration')
    return (statement.declarations as SyntaxNode[]).flatMap(({ id }) => namesIn(id));
  if (statement.type === 'FunctionDeclaration' || statement.type === 'ClassDeclaration')
    return [nameOf(statement.id) ?? []].flat();
  return [];
}

/** Names that `var` declares anywhere in a function: they are there in all of it. */
function varsIn(body: unknown): string[] {
  const names: string[] = [];
  const open = [body];
  for (const node of open) {
    if (!isNode(node) || isFunction(node)) continue;
    if (node.type === 'VariableDeclaration' && node.kind === 'var') names.push(...declaredIn(node));
    for (const field of Object.values(node))
      if (Array.isArray(field)) for (const item of field) open.push(item);
      else if (isNode(field)) open.push(field);
  }
  return names;
}
