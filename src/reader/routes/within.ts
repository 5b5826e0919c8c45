import { isFunction, type SyntaxNode } from '../syntax.ts';
import type { RouteExpression, View } from './expressions.ts';
import { viewsOf } from './views.ts';

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
