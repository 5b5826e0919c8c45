import type { Import } from '../core/snapshot/module-types.ts';
import { isNode, nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';
import { loaderOf } from './as-component.ts';
import type { Found, PatchContext } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import type { Binding, Reference, ScriptFile } from './script-file.ts';
import { LOADS } from './wrapper.ts';

/** A route's own function gives its parts by their names: `async () => ({ Component: (await import(…)).X })`. */
const LOADS_ROUTE = /^async\s*\(\)\s*=>\s*\(\{\s*Component:\s*\(\s*await\s+import\(/;

/**
 * What stands in a table whose other entries are functions that import their module becomes such a function; null
 * when it isn't in a table, or no entry under that key or another of this table is deferred so. Beside routes with a
 * `lazy` function (React Router's convention) `Component: Page` and `element: <Page />` become one as well.
 */
export function asTableEntry(
  context: PatchContext,
  edits: FileEdits,
  item: Import,
  binding: Binding,
  references: readonly Reference[],
): Found | null {
  const { file, out } = edits;
  if (binding.imported === '*') return null;
  const entries = references.map((r) => entryOf(r));
  if (entries.some((e) => e === null)) return null;
  const load = loaderOf(context, edits, item.specifier, binding.imported);
  const written = entries.map((entry) => {
    const key = nameOf(entry!.key);
    if (hasDeferredSibling(file, key)) return { entry: entry!, lazy: false };
    const isPage = key === 'Component' || key === 'element';
    return isPage && context.wrapper?.from === 'react' && hasDeferredSibling(file, 'lazy')
      ? { entry: entry!, lazy: true }
      : null;
  });
  if (written.includes(null)) return null;
  return {
    change: () => {
      for (const found of written) {
        const { entry, lazy } = found!;
        if (lazy)
          out.overwrite(
            entry.start,
            entry.end,
            `lazy: async () => ({ Component: (await import(${file.quoted(item.specifier)})).${binding.imported} })`,
          );
        else if (entry.shorthand === true) out.appendLeft(entry.end, `: ${load}`);
        else out.overwrite((entry.value as SyntaxNode).start, (entry.value as SyntaxNode).end, load);
      }
    },
    done: `${binding.local} is imported by its entry of the table, as its neighbours are`,
  };
}

/** The property of a list's object that is a name, or an element of nothing but that name. */
function entryOf({ node, above }: Reference): SyntaxNode | null {
  const [list, table, property, value, opening] = [-5, -4, -3, -2, -1].map((at) => above.at(at));
  if (opening?.type === 'Property')
    return opening.value === node && value?.type === 'ObjectExpression' && property?.type === 'ArrayExpression'
      ? opening
      : null;
  const isPlain =
    opening?.type === 'JSXOpeningElement' &&
    opening.selfClosing === true &&
    (opening.attributes as unknown[]).length === 0;
  if (!isPlain || property?.type !== 'Property' || property.value !== value || nameOf(property.key) !== 'element')
    return null;
  return table?.type === 'ObjectExpression' && list?.type === 'ArrayExpression' ? property : null;
}

/** Whether the file has another entry under the same key that is a function with nothing but a deferred import. */
function hasDeferredSibling(file: ScriptFile, key: string | null): boolean {
  let found = false;
  walk(file.program, (node, above) => {
    if (node.type !== 'Property' || nameOf(node.key) !== key || above.at(-2)?.type !== 'ArrayExpression') return;
    const { value } = node;
    found ||=
      isNode(value) &&
      value.type === 'ArrowFunctionExpression' &&
      (LOADS.test(file.of(value)) || LOADS_ROUTE.test(file.of(value)));
  });
  return found;
}
