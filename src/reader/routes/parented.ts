import type { SourceText } from '../source-text.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import type { ParentedRoute, View } from './expressions.ts';
import { loading } from './loading.ts';
import { isMarkup } from './markup.ts';
import { textOf } from './texts.ts';
import { dottedName, returnsOf, viewsOf } from './views.ts';

const MAKES = /^create(Root|Lazy|File|LazyFile)?Route(WithContext)?$/;

/** Whether a call makes such a route of the options that it is given. */
export function makesParented(call: SyntaxNode | undefined): boolean {
  return call?.type === 'CallExpression' && makerOf(call) !== null;
}

/** What makes a route, with its id: a call of it, or of what that gives, or of a method of what that gives. */
function makerOf(call: SyntaxNode): { maker: string; id: string | null } | null {
  for (let at: unknown = call, id: string | null = null; isNode(at); ) {
    if (at.type !== 'CallExpression') return null;
    id = constantText((at.arguments as SyntaxNode[])[0]) ?? id;
    const callee = at.callee as SyntaxNode;
    const name = nameOf(callee);
    if (name !== null) return MAKES.test(name) ? { maker: name, id } : null;
    at = callee.type === 'MemberExpression' && nameOf(callee.property) === 'lazy' ? callee.object : callee;
  }
  return null;
}

/** The routes of this kind that a module has at its top. */
export function parentedRoutes(
  program: SyntaxNode,
  source: SourceText,
  helpers: ReadonlyMap<string, SyntaxNode>,
): ParentedRoute[] {
  return (program.body as SyntaxNode[]).flatMap((statement) => {
    const declared = statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement;
    if (!isNode(declared) || declared.type !== 'VariableDeclaration') return [];
    return (declared.declarations as SyntaxNode[]).flatMap(({ id, init, start }) => {
      const name = nameOf(id);
      const call = isNode(init) ? bare(init) : null;
      const made = call?.type === 'CallExpression' ? makerOf(call) : null;
      if (name === null || !call || !made) return [];
      const options = optionsIn(call);
      const field = (key: string) => options.find((p) => nameOf(p.key) === key)?.value;
      const component = field('component');
      const later = laterOf(call);
      const own = viewsOf(component, helpers);
      const views: View[] = [
        ...(own.length === 0 && (isMarkup(component) || component !== undefined) ? [{ by: 'here' } as const] : own),
        ...(later ? viewsOf(later, helpers) : []),
      ];
      const around = field('getParentRoute');
      const parent = isNode(around) && isFunction(around) ? dottedName(returnsOf(around)[0]) : null;
      const isRoot = made.maker.startsWith('createRoot');
      const { line } = source.place(start);
      const place = { id: isRoot ? null : made.id, isRoot, parent, path: textOf(field('path')) };
      const waits = later !== null || /Lazy/.test(made.maker) ? { waits: true as const } : {};
      return [{ name, ...place, views, ...loading(field('loader')), ...waits, line }];
    });
  });
}

/** The options of a route, wherever in the chain of calls they are given. */
function optionsIn(call: SyntaxNode): SyntaxNode[] {
  for (let at: unknown = call; isNode(at) && at.type === 'CallExpression'; ) {
    const [first] = at.arguments as SyntaxNode[];
    if (first?.type === 'ObjectExpression') return first.properties as SyntaxNode[];
    const callee = at.callee as SyntaxNode;
    at = callee.type === 'MemberExpression' ? callee.object : callee;
  }
  return [];
}

/** What is asked for in a deferred way to draw it: `.lazy(() => import('./tides').then((d) => d.Route))`. */
function laterOf({ callee, arguments: given }: SyntaxNode): SyntaxNode | null {
  const method = (callee as SyntaxNode).type === 'MemberExpression' ? nameOf((callee as SyntaxNode).property) : null;
  return method === 'lazy' ? ((given as SyntaxNode[])[0] ?? null) : null;
}
