import { parse } from './script/parse.ts';
import { isNode, nameOf, type SyntaxNode, walk } from './syntax.ts';

/**
 * A script without some of its exports, and without what only they use: imports, functions and constants at the top. Frameworks take data
 * functions of pages out of what they send to the browser like that. Letters are blanked, so that places stay.
 */
export function withoutExports(path: string, text: string, names: readonly string[]): string {
  if (!names.some((name) => text.includes(name))) return text;
  const { program, errors } = parse(path, text);
  if (errors.some((e) => e.severity === 'Error')) return text;
  const body = program().body as SyntaxNode[];
  const gone = new Set(body.filter((statement) => exportsOnly(statement, names)));
  if (gone.size === 0) return text;
  const uses = new Map(body.map((statement) => [statement, namesUsed(statement)]));
  const declares = new Map(body.flatMap((s) => declaredBy(s).map((name) => [name, s] as const)));
  const users = new Map<string, number>();
  for (const names of uses.values()) for (const name of names) users.set(name, (users.get(name) ?? 0) + 1);
  // What is taken out may have been the last that used something else.
  for (const statement of gone)
    for (const name of uses.get(statement)!) {
      users.set(name, users.get(name)! - 1);
      const other = declares.get(name);
      if (other && declaredBy(other).every((n) => (users.get(n) ?? 0) === 0)) gone.add(other);
    }
  const pieces: string[] = [];
  let at = 0;
  for (const { start, end } of body.filter((s) => gone.has(s))) {
    pieces.push(text.slice(at, start), text.slice(start, end).replace(/[^\n]/g, ' '));
    at = end;
  }
  return pieces.join('') + text.slice(at);
}

function exportsOnly(statement: SyntaxNode, names: readonly string[]): boolean {
  if (statement.type !== 'ExportNamedDeclaration') return false;
  const { declaration } = statement;
  const exported = isNode(declaration)
    ? declaredBy(declaration)
    : (statement.specifiers as SyntaxNode[]).map((s) => nameOf(s.exported) ?? '');
  return exported.length > 0 && exported.every((name) => names.includes(name));
}

/** Names that a statement at the top declares and doesn't export. */
function declaredBy(statement: SyntaxNode): string[] {
  switch (statement.type) {
    case 'ImportDeclaration':
      return (statement.specifiers as SyntaxNode[]).flatMap((s) => nameOf(s.local) ?? []);
    case 'FunctionDeclaration':
    case 'ClassDeclaration':
      return [nameOf(statement.id)].flatMap((name) => name ?? []);
    case 'VariableDeclaration':
      return (statement.declarations as SyntaxNode[]).flatMap((d) => nameOf(d.id) ?? []);
    default:
      return [];
  }
}

function namesUsed(statement: SyntaxNode): Set<string> {
  const names = new Set<string>();
  if (statement.type === 'ImportDeclaration') return names;
  const own = new Set(declaredBy(statement));
  walk(statement, (node, above) => {
    if (node.type !== 'Identifier' && node.type !== 'JSXIdentifier') return;
    const parent = above[above.length - 1];
    const isKey = (parent?.type === 'MemberExpression' || parent?.type === 'Property') && parent.computed !== true;
    if (isKey && parent.type === 'MemberExpression' && parent.property === node) return;
    if (isKey && parent.type === 'Property' && parent.key === node && parent.shorthand !== true) return;
    if (!own.has(node.name as string)) names.add(node.name as string);
  });
  return names;
}
