import { isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { isOfRoutes } from './of-routes.ts';

/**
 * Which of a module's top-level names draw what stands under which of them: a file often holds several components, and who imports one of them
 * doesn't draw what the others do.
 */
export interface Owners {
  /** By exported or top-level name: the top-level names whose code it may run, itself among them. What runs with the module is under `*`. */
  reach: { [name: string]: string[] };
  /** Top-level names that only the module's own routes lead to. */
  routed: string[];
}

/** The name of what a module gives by default, where that has none. */
const DEFAULT = 'default';
/** What the module does by itself. */
const ITSELF = '*';

/** The top-level name that a place stands under; null for what the module does by itself. `above`: what stands around it, from the program on. */
export function ownerOf(above: readonly SyntaxNode[]): string | null {
  const [, statement] = above;
  if (!statement) return null;
  if (statement.type === 'ExportDefaultDeclaration') return nameOf((statement.declaration as SyntaxNode).id) ?? DEFAULT;
  const [declaration, declarator] = above.slice(statement.type === 'ExportNamedDeclaration' ? 2 : 1, 4);
  if (declaration?.type === 'VariableDeclaration') return nameOf(declarator?.id) ?? null;
  return declaration && /^(Function|Class)Declaration$/.test(declaration.type) ? nameOf(declaration.id) : null;
}

/** The same as a field of what is found there. */
export function underOf(above: readonly SyntaxNode[]): { under?: string } {
  const under = ownerOf(above);
  return under === null ? {} : { under };
}

/** Reads who draws what in a module: a name leads to all that it mentions, but for what routes draw. `wanted`: the names that are asked about. */
export function readOwners(program: SyntaxNode, wanted: ReadonlySet<string>): Owners {
  const { declared, exported } = namesOf(program);
  const mentions = new Map<string, Set<string>>();
  const byRoutes = new Set<string>();
  const note = (owner: string, name: string) => {
    const all = mentions.get(owner) ?? new Set();
    mentions.set(owner, all.add(name));
  };
  walk(program, (node, above) => {
    const name = node.type === 'Identifier' || node.type === 'JSXIdentifier' ? (node.name as string) : '';
    if (!declared.has(name) || isKey(node, above.at(-1))) return;
    const owner = ownerOf(above) ?? addedTo(above[1], declared) ?? ITSELF;
    if (owner === name) return;
    if (isOfRoutes(above)) byRoutes.add(name);
    else if (owner !== ITSELF || above[1]?.type !== 'ExportNamedDeclaration') note(owner, name);
  });
  const closure = (from: Iterable<string>) => {
    const found = new Set(from);
    for (const name of found) for (const next of mentions.get(name) ?? []) found.add(next);
    return found;
  };
  const kept = (names: ReadonlySet<string>) => [...names].filter((n) => wanted.has(n)).sort();
  const reach: Owners['reach'] = { [ITSELF]: kept(closure(mentions.get(ITSELF) ?? [])) };
  for (const name of declared) if (/^[A-Z]/.test(name)) reach[name] = kept(closure([name]));
  for (const [name, local] of exported) reach[name] = kept(closure([local]));
  const known = closure([...exported.values(), ...(mentions.get(ITSELF) ?? [])]);
  return { reach, routed: kept(closure(byRoutes)).filter((n) => !known.has(n)) };
}

/** What a module declares at its top, and the names under which it gives that to others. */
function namesOf({ body }: SyntaxNode): { declared: Set<string>; exported: Map<string, string> } {
  const declared = new Set<string>();
  const exported = new Map<string, string>();
  const declare = (declaration: SyntaxNode, isExported: boolean) => {
    const names =
      declaration.type === 'VariableDeclaration'
        ? (declaration.declarations as SyntaxNode[]).map((d) => nameOf(d.id))
        : [nameOf(declaration.id)];
    for (const name of names) {
      if (name === null) continue;
      declared.add(name);
      if (isExported) exported.set(name, name);
    }
  };
  for (const statement of body as SyntaxNode[]) {
    if (/^((Function|Class)Declaration|VariableDeclaration)$/.test(statement.type)) declare(statement, false);
    else if (statement.type === 'ExportDefaultDeclaration') {
      const local = nameOf((statement.declaration as SyntaxNode).id);
      if (local !== null) declared.add(local);
      exported.set(DEFAULT, local ?? DEFAULT);
    } else if (statement.type === 'ExportNamedDeclaration' && !isNode(statement.source)) {
      if (isNode(statement.declaration)) declare(statement.declaration, true);
      for (const item of (statement.specifiers ?? []) as SyntaxNode[]) {
        const [local, name] = [nameOf(item.local), nameOf(item.exported)];
        if (local !== null && name !== null) exported.set(name, local);
      }
    }
  }
  return { declared, exported };
}

/** `Form.Field = Field` adds to what stands under `Form`. */
function addedTo(statement: SyntaxNode | undefined, declared: ReadonlySet<string>): string | null {
  const set = statement?.type === 'ExpressionStatement' ? (statement.expression as SyntaxNode) : null;
  const target = set?.type === 'AssignmentExpression' ? (set.left as SyntaxNode) : null;
  const name = target?.type === 'MemberExpression' ? nameOf(target.object) : null;
  return name !== null && declared.has(name) ? name : null;
}

/** A name that only stands for a field: `page.Home`, `{ Home: … }`. */
function isKey(node: SyntaxNode, parent: SyntaxNode | undefined): boolean {
  if (!parent || parent.computed === true) return false;
  if (/^(JSX)?MemberExpression$/.test(parent.type)) return parent.property === node;
  if (parent.type === 'JSXAttribute') return true;
  const named = /^(Property|MethodDefinition|PropertyDefinition)$/.test(parent.type);
  return named && parent.key === node && parent.shorthand !== true;
}
