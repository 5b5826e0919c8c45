import type { Entry } from '../../core/snapshot/module-types.ts';
import { importedBindings } from '../script/imported-bindings.ts';
import { isSingleFile } from '../single-file.ts';
import { nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { drawsOf } from './draws.ts';
import type { DrawingModule, DrawnApp } from './find-parts.ts';
import { isOfRoutes } from './of-routes.ts';

/** Calls that mount a component as a whole app, by the names that frameworks have for it. */
const MOUNTS = /^(createApp|createSSRApp|bootstrapApplication|mount|hydrate|hydrateRoot|render)$/;

/**
 * Specifiers of components that a module mounts as a whole app: `createApp(App)`, `bootstrapApplication(Root)`,
 * `root.render(<Tides><App /></Tides>)`.
 */
export function mountedBy(program: SyntaxNode): string[] {
  const found = new Set<string>();
  let bindings: ReadonlyMap<string, string> | null = null;
  walk(program, (node) => {
    const isNew = node.type === 'NewExpression';
    if (!isNew && (node.type !== 'CallExpression' || !MOUNTS.test(calledName(node) ?? ''))) return;
    if (isNew && !givesPlace(node)) return;
    bindings ??= importedBindings(program);
    const made = bindings.get(nameOf(node.callee) ?? '');
    if (isNew && made !== undefined) found.add(made);
    for (const argument of node.arguments as SyntaxNode[])
      walk(argument, (inner, above) => {
        const names = inner === argument || above.at(-1)?.type === 'CallExpression' || inner.type === 'JSXIdentifier';
        const name = names && /Identifier$/.test(inner.type) && !isOfRoutes(above) ? (inner.name as string) : '';
        const specifier = bindings!.get(name);
        if (specifier !== undefined) found.add(specifier);
      });
  });
  return [...found];
}

/** `new App({ target })` and `new Vue({ el, render })`: an app that is made is told where it stands, or how it is drawn. */
function givesPlace({ arguments: given }: SyntaxNode): boolean {
  const [first] = given as SyntaxNode[];
  if (first?.type !== 'ObjectExpression') return false;
  return (first.properties as SyntaxNode[]).some((p) => /^(target|el|render)$/.test(nameOf(p.key) ?? ''));
}

function calledName({ callee }: SyntaxNode): string | null {
  return nameOf(callee) ?? nameOf((callee as SyntaxNode).property);
}

/**
 * Modules that an entry draws around all of its routes: its own, but for layouts, and what they mount. What these draw is there on each route
 * of it.
 */
export function shellsOf(
  entries: readonly Entry[],
  layouts: ReadonlySet<string>,
  moduleAt: (path: string) => DrawingModule | undefined,
): (realm: string) => readonly string[] {
  const shells = new Map<string, readonly string[]>();
  for (const { realm, modules } of entries) {
    const found = new Set<string>();
    for (const path of modules) {
      const module = moduleAt(path);
      if (!module || module.package !== null || layouts.has(path)) continue;
      found.add(path);
      for (const specifier of module.mounts) {
        const target = module.resolved.get(specifier);
        if (target !== undefined && moduleAt(target)?.package === null) found.add(target);
      }
    }
    shells.set(realm, [...found]);
  }
  return (realm) => shells.get(realm) ?? [];
}

/**
 * The module that shows something around all routes of a realm as soon as the entry runs, be it of itself or by what it draws at once; null
 * where pages are all that shows. `shells`: what the entry draws around its routes, the outermost first.
 */
export function frameOf(shells: readonly string[], app: DrawnApp): string | null {
  const shows = (path: string) => {
    const { hasContent = false, failures } = app.moduleAt(path)?.serves ?? {};
    // What only catches failures shows something of its own when there are some.
    return hasContent && !(failures?.catches && !isSingleFile(path));
  };
  const isOwn = (path: string) => app.moduleAt(path)?.package === null && !app.isPage(path);
  const own = shells.filter(isOwn);
  const drawsWhatShows = (path: string) =>
    [...drawsOf(path, app).keys()].some((drawn) => isOwn(drawn) && !shells.includes(drawn) && shows(drawn));
  return own.find(shows) ?? own.find(drawsWhatShows) ?? null;
}
