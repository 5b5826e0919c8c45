import { bare, isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { RouteExpression, View } from './expressions.ts';
import { returnsOf, viewsOf } from './views.ts';

const REDIRECTS = /^(Navigate|Redirect|\w*Redirect\w*)$/;

/** Names by which routes without others inside of them call what they draw. */
export function pagesNamedIn(expression: RouteExpression): string[] {
  switch (expression.is) {
    case 'list':
      return expression.items.flatMap(pagesNamedIn);
    case 'prefix':
      return pagesNamedIn(expression.inner);
    case 'route':
      if (expression.children) return pagesNamedIn(expression.children);
      return expression.views.flatMap((v) => (v.by === 'name' && v.name.keys.length === 0 ? [v.name.name] : []));
    case 'name':
    case 'module':
    case 'unclear':
      return [];
  }
}

/** Whether all that is drawn is a way elsewhere. */
export function onlyRedirects(views: readonly View[]): boolean {
  return views.length === 1 && views[0].by === 'name' && REDIRECTS.test(views[0].name.name);
}

/** Whether a value is, or gives, something that is imported deferred. */
export function importsDeferred(value: SyntaxNode): boolean {
  return (isFunction(value) || value.type === 'CallExpression') && viewsOf(value).some((v) => v.by === 'import');
}

/** Fields under which routers take a function that they call for a component, and wait for (Vue Router, Angular). */
const ASKED_BY_ROUTER = ['component', 'components', 'loadComponent', 'loadChildren'];

/** Whether a router itself asks for code of a route, and draws nothing of it before: it is given a function that imports, and no component that does. */
export function isAwaited(
  fields: ReadonlyMap<string, SyntaxNode>,
  functions: ReadonlyMap<string, SyntaxNode>,
): boolean {
  const gives = (given: unknown): boolean => {
    if (!isNode(given)) return false;
    const value = bare(given);
    if (value.type === 'ObjectExpression') return (value.properties as SyntaxNode[]).some((p) => gives(p.value));
    if (value.type === 'CallExpression')
      return returnsIn(functions.get(nameOf(value.callee) ?? '')).some((r) => isFunction(r) && givesImport(r));
    return givesImport(isFunction(value) ? value : functions.get(nameOf(value) ?? ''));
  };
  return ASKED_BY_ROUTER.some((key) => gives(fields.get(key)));
}

const returnsIn = (fn: SyntaxNode | undefined): SyntaxNode[] => (fn ? returnsOf(fn) : []);

/** Whether a function gives nothing but what it imports. */
const givesImport = (fn: SyntaxNode | undefined): boolean =>
  returnsIn(fn).some((r) => r.type === 'ImportExpression' || isThen(r));

/** `import('./page').then((m) => m.Page)`. */
function isThen(node: SyntaxNode): boolean {
  const callee = node.type === 'CallExpression' ? (node.callee as SyntaxNode) : null;
  return callee?.type === 'MemberExpression' && (callee.object as SyntaxNode).type === 'ImportExpression';
}

/** The same, or names routes by a name that says so. */
export function mayHold(expression: RouteExpression): boolean {
  if (expression.is === 'name') return /route/i.test([expression.name.name, ...expression.name.keys].join(' '));
  return expression.is === 'list' ? expression.items.some(mayHold) : hasEntries(expression);
}

/** Whether an expression says of at least one route what it is. */
export function hasEntries(expression: RouteExpression): boolean {
  switch (expression.is) {
    case 'route':
    case 'module':
      return true;
    case 'list':
      return expression.items.some(hasEntries);
    case 'prefix':
      return hasEntries(expression.inner);
    case 'name':
    case 'unclear':
      return false;
  }
}
