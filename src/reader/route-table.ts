import type { SourceText } from './source-text.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from './syntax.ts';

/** One line of a route table: a path with what is drawn there. */
export interface RouteNode {
  path: string;
  /** Specifier of the module that is drawn; null when the entry only groups others. */
  view: string | null;
  isLayout: boolean;
  line: number;
  children: RouteNode[];
}

export type RouteTable = RouteNode[];

/**
 * Finds route tables: lists of objects that have a constant `path` and name something imported (a component, markup
 * of one, or a deferred import), with nested `children`.
 */
export function findRouteTables(program: SyntaxNode, source: SourceText): RouteTable[] {
  const bindings = importedBindings(program);
  const tables: RouteTable[] = [];
  const inside = new Set<SyntaxNode>();
  walk(program, (node) => {
    if (node.type !== 'ArrayExpression' || inside.has(node)) return;
    const table = readTable(node, bindings, source, inside);
    if (table.length > 0) tables.push(table);
  });
  return tables;
}

function readTable(
  list: SyntaxNode,
  bindings: Map<string, string>,
  source: SourceText,
  inside: Set<SyntaxNode>,
): RouteTable {
  const nodes: RouteTable = [];
  for (const element of list.elements as unknown[]) {
    if (!isNode(element) || element.type !== 'ObjectExpression') return [];
    const node = readNode(element, bindings, source, inside);
    if (node) nodes.push(node);
  }
  return nodes;
}

function readNode(
  object: SyntaxNode,
  bindings: Map<string, string>,
  source: SourceText,
  inside: Set<SyntaxNode>,
): RouteNode | null {
  let path: string | null = null;
  let view: string | null = null;
  let isLayout = false;
  let children: RouteNode[] = [];
  for (const property of object.properties as SyntaxNode[]) {
    const key = nameOf(property.key);
    const value = property.value as SyntaxNode | undefined;
    if (!key || !value) continue;
    if (key === 'path') path = constantText(value);
    else if (key === 'index' && value.value === true) path ??= '';
    else if (key === 'children' && value.type === 'ArrayExpression') {
      inside.add(value);
      children = readTable(value, bindings, source, inside);
    } else {
      const found = viewOf(value, bindings);
      if (found === null) continue;
      if (view === null || key === 'layout') view = found;
      if (key === 'layout') isLayout = true;
    }
  }
  if (path === null || (view === null && children.length === 0)) return null;
  return { path, view, isLayout: isLayout || children.length > 0, line: source.place(object.start).line, children };
}

/** Specifier behind a value: an imported name, markup of one, or a deferred import. */
function viewOf(value: SyntaxNode, bindings: Map<string, string>): string | null {
  if (value.type === 'Identifier') return bindings.get(value.name as string) ?? null;
  if (value.type === 'JSXElement') {
    const opening = value.openingElement as SyntaxNode;
    return bindings.get(nameOf(opening.name) ?? '') ?? null;
  }
  if (isFunction(value) || value.type === 'CallExpression')
    return deferredIn(value) ?? (isFunction(value) ? givenBy(value, bindings) : null);
  return null;
}

/** A function may also give a module that is imported at the top: `() => Promise.resolve(page)`. */
function givenBy(fn: SyntaxNode, bindings: Map<string, string>): string | null {
  const body = fn.body as SyntaxNode;
  const call = body.type === 'CallExpression' && nameOf((body.callee as SyntaxNode).property) === 'resolve';
  const given = call ? (body.arguments as SyntaxNode[])[0] : body;
  return given?.type === 'Identifier' ? (bindings.get(given.name as string) ?? null) : null;
}

function deferredIn(value: SyntaxNode): string | null {
  let found: string | null = null;
  walk(value, (node) => {
    if (node.type === 'ImportExpression') found ??= constantText(node.source);
  });
  return found;
}

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
