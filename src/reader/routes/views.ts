import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import type { Name, View } from './expressions.ts';

/** Attributes by which a guard or a route is given what it draws (public habit of React routers). */
const GIVEN_AS = ['element', 'component', 'Component', 'page', 'render', 'children', 'as'];
const AROUND = /(Layout|Shell|Frame|Template|Chrome)$/;

/**
 * What a value draws, outermost first: components and elements by name, what wrappers, guards and helper functions are
 * given, deferred imports in any form. Empty where it draws nothing that has a name.
 */
export function viewsOf(given: unknown, helpers: ReadonlyMap<string, SyntaxNode> = new Map()): View[] {
  if (!isNode(given)) return [];
  const value = bare(given);
  switch (value.type) {
    case 'Identifier':
    case 'MemberExpression': {
      const name = dottedName(value);
      return name ? [{ by: 'name', name }] : [];
    }
    case 'JSXElement':
      return viewsOfElement(value, helpers);
    case 'JSXFragment':
      return viewsOfAll(value.children as unknown[], helpers);
    case 'ConditionalExpression':
      // The last one counts: what is drawn when the condition holds.
      return [...viewsOf(value.alternate, helpers), ...viewsOf(value.consequent, helpers)];
    case 'LogicalExpression':
      return viewsOf(value.right, helpers);
    case 'ImportExpression':
      return deferred(value);
    case 'NewExpression':
      return viewsOfAll(value.arguments as unknown[], helpers);
    case 'CallExpression':
      return viewsOfCall(value, helpers);
    case 'ObjectExpression':
      return viewsOfObject(value, helpers);
    default:
      return isFunction(value) ? viewsOfFunction(value, helpers) : [];
  }
}

function viewsOfAll(values: readonly unknown[], helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  return values.flatMap((v) => viewsOf(v, helpers));
}

function viewsOfElement(element: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  const opening = element.openingElement as SyntaxNode;
  const name = dottedName(opening.name);
  const own: View[] = name && /^[A-Z]/.test(name.name) ? [{ by: 'name', name }] : [];
  const inside = viewsOfAll(element.children as unknown[], helpers);
  const given = inside.length > 0 ? inside : GIVEN_AS.flatMap((key) => viewsOf(attributeValue(opening, key), helpers));
  if (given.length === 0) return own;
  if (own.length > 0 && name && AROUND.test(name.keys.at(-1) ?? name.name)) return [{ by: 'layout', name }, ...given];
  // A wrapper counts where what it is given turns out to be nobody's page.
  return [...own, ...given];
}

/** The value of an attribute; undefined without it. */
export function attributeValue(opening: SyntaxNode, name: string): unknown {
  for (const attribute of opening.attributes as SyntaxNode[])
    if (attribute.type === 'JSXAttribute' && nameOf(attribute.name) === name) {
      const { value } = attribute;
      return isNode(value) && value.type === 'JSXExpressionContainer' ? value.expression : value;
    }
  return undefined;
}

function viewsOfCall(call: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  const callee = call.callee as SyntaxNode;
  const given = call.arguments as SyntaxNode[];
  const direct = deferredIn(call);
  if (direct) return [direct];
  const helper = helpers.get(nameOf(callee) ?? '');
  const built = helper && filledImport(helper, given);
  if (built) return [built];
  if (callee.type === 'MemberExpression' && nameOf(callee.property) === 'then') return viewsOf(callee.object, helpers);
  // What a component is wrapped by comes later in a chain of calls: withRouter(connect(…)(Page)).
  const views = viewsOfAll(given, helpers);
  return views.length > 0 || callee.type !== 'CallExpression' ? views : viewsOf(callee, helpers);
}

/** An object with the view under a name of its own, such as `{ Component: Page }` or `{ default: Page, aside: Menu }`. */
function viewsOfObject(object: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  for (const key of ['Component', 'component', 'default', 'element'])
    for (const property of object.properties as SyntaxNode[])
      if (property.type === 'Property' && nameOf(property.key) === key) return viewsOf(property.value, helpers);
  return [];
}

function viewsOfFunction(fn: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  const given = returnsOf(fn);
  // What a component asks for while it lives is not what it is.
  const draws = given.some((value) => value.type === 'JSXElement' || value.type === 'JSXFragment');
  const direct = draws ? null : deferredIn(fn);
  return direct ? [direct] : viewsGiven(fn, helpers);
}

/** What a function draws by what it gives. */
export function viewsGiven(fn: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  return withoutLocalNames(
    returnsOf(fn).flatMap((value) => viewsOf(value, helpers)),
    fn,
    helpers,
  );
}

/** The components whose elements stand anywhere in what a function gives, by name. */
export function elementsGiven(fn: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  const found: View[] = [];
  for (const value of returnsOf(fn))
    walk(value, (inner) => {
      const name = inner.type === 'JSXElement' ? dottedName((inner.openingElement as SyntaxNode).name) : null;
      if (name && /^[A-Z]/.test(name.name)) found.push({ by: 'name', name });
    });
  return withoutLocalNames(found, fn, helpers);
}

/** Names that a function gives to things inside of itself say nothing outside: what they stand for is put in their place. */
function withoutLocalNames(views: View[], fn: SyntaxNode, helpers: ReadonlyMap<string, SyntaxNode>): View[] {
  const values = localValues(fn);
  if (values.size === 0) return views;
  const told = (view: View, seen: readonly string[]): View[] => {
    const name = view.by === 'name' && view.name.keys.length === 0 ? view.name.name : null;
    const value = name === null || seen.includes(name) ? undefined : values.get(name);
    const inside = value === undefined ? [] : viewsOf(value, helpers);
    return inside.length === 0 ? [view] : inside.flatMap((v) => told(v, [...seen, name!]));
  };
  return views.flatMap((view) => told(view, []));
}

/** What the names that a function declares for itself stand for; functions inside of it aside. */
function localValues(fn: SyntaxNode): Map<string, SyntaxNode> {
  const values = new Map<string, SyntaxNode>();
  const step = (node: SyntaxNode) => {
    const name = node.type === 'VariableDeclarator' ? nameOf(node.id) : null;
    if (name !== null && isNode(node.init)) values.set(name, bare(node.init));
    for (const field in node) {
      const value = node[field];
      for (const item of Array.isArray(value) ? value : [value]) if (isNode(item) && !isFunction(item)) step(item);
    }
  };
  if ((fn.body as SyntaxNode).type === 'BlockStatement') step(fn.body as SyntaxNode);
  return values;
}

/** What a function gives, in the order of its returns; functions inside of it aside. */
export function returnsOf(fn: SyntaxNode): SyntaxNode[] {
  const body = fn.body as SyntaxNode;
  if (body.type !== 'BlockStatement') return [bare(body)];
  const found: SyntaxNode[] = [];
  const step = (node: SyntaxNode) => {
    if (node.type === 'ReturnStatement' && isNode(node.argument)) found.push(bare(node.argument));
    for (const field in node) {
      const value = node[field];
      for (const item of Array.isArray(value) ? value : [value]) if (isNode(item) && !isFunction(item)) step(item);
    }
  };
  step(body);
  return found;
}

/** The first deferred import inside, with the export that is taken from it. */
function deferredIn(node: SyntaxNode): View | null {
  let found: View | null = null;
  walk(node, (inner, above) => {
    if (found || inner.type !== 'ImportExpression') return;
    const specifier = constantText(inner.source);
    if (specifier !== null) found = { by: 'import', specifier, exported: exportTaken(above, node) };
  });
  return found;
}

function deferred(node: SyntaxNode): View[] {
  const specifier = constantText(node.source);
  return specifier === null ? [] : [{ by: 'import', specifier, exported: 'default' }];
}

/** The name taken from a deferred import: by `.then((m) => m.Page)`, `(await import()).Page`, or by taking it apart. */
function exportTaken(above: readonly SyntaxNode[], root: SyntaxNode): string {
  for (let at = above.length - 1; at >= 0; at--) {
    const outer = above[at];
    if (outer.type === 'MemberExpression') {
      const name = nameOf(outer.property);
      if (name !== 'then' && name !== 'catch' && name !== 'finally') return name ?? 'default';
      const call = above[at - 1];
      const handler = call?.type === 'CallExpression' ? (call.arguments as SyntaxNode[])[0] : undefined;
      if (name === 'then' && handler) return takenBy(handler) ?? 'default';
    }
    if (outer.type === 'VariableDeclarator') return takenApart(outer.id, root) ?? 'default';
  }
  return 'default';
}

function takenBy(handler: SyntaxNode): string | null {
  if (!isFunction(handler)) return null;
  const [parameter] = handler.params as SyntaxNode[];
  const [given] = returnsOf(handler);
  if (!parameter || !given) return null;
  if (parameter.type === 'ObjectPattern') return firstKey(parameter);
  const name = nameOf(parameter);
  let taken: string | null = null;
  walk(given, (inner) => {
    if (inner.type === 'MemberExpression' && nameOf(inner.object) === name) taken ??= nameOf(inner.property);
  });
  return taken;
}

function takenApart(pattern: unknown, root: SyntaxNode): string | null {
  if (!isNode(pattern)) return null;
  if (pattern.type === 'ObjectPattern') return firstKey(pattern);
  const name = nameOf(pattern);
  let taken: string | null = null;
  walk(root, (inner) => {
    if (inner.type === 'MemberExpression' && nameOf(inner.object) === name) taken ??= nameOf(inner.property);
  });
  return taken;
}

function firstKey(pattern: SyntaxNode): string | null {
  const [property] = pattern.properties as SyntaxNode[];
  return property ? nameOf(property.key) : null;
}

/** A helper such as `(name) => () => import(`./views/${name}.vue`)`, filled with a constant. */
function filledImport(helper: SyntaxNode, given: readonly SyntaxNode[]): View | null {
  if (!isFunction(helper)) return null;
  const [parameter] = helper.params as SyntaxNode[];
  const text = constantText(given[0]);
  let found: View | null = null;
  walk(helper, (inner) => {
    const source = inner.type === 'ImportExpression' && isNode(inner.source) ? inner.source : null;
    if (source?.type !== 'TemplateLiteral' || text === null) return;
    const holes = source.expressions as SyntaxNode[];
    if (holes.length !== 1 || nameOf(holes[0]) !== nameOf(parameter)) return;
    const [before, after] = (source.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked);
    found = { by: 'import', specifier: `${before}${text}${after}`, exported: 'default' };
  });
  return found;
}

function constantKey(node: unknown): string | null {
  return isNode(node) && typeof node.value === 'number' ? String(node.value) : constantText(node);
}

/** A name with the keys taken from it; null for anything computed. */
export function dottedName(node: unknown): Name | null {
  if (!isNode(node)) return null;
  if (node.type === 'Identifier' || node.type === 'JSXIdentifier') return { name: node.name as string, keys: [] };
  if (node.type !== 'MemberExpression' && node.type !== 'JSXMemberExpression') return null;
  const of = dottedName(node.object);
  const key = node.computed === true ? constantKey(node.property) : nameOf(node.property);
  return of && key !== null ? { name: of.name, keys: [...of.keys, key] } : null;
}
