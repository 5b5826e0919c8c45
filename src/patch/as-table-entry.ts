import type { Import } from '../core/snapshot/module-types.ts';
import { isNode, nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';
import { loaderOf } from './as-component.ts';
import type { Found, PatchContext } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import type { Binding, Reference, ScriptFile } from './script-file.ts';
import { LOADS } from './wrapper.ts';

/**
 * What stands in a table whose other entries are functions that import their module becomes such a function; null
 * when it isn't in a table, or no entry under that key or another of this table is deferred so.
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
  if (!entries.every((e) => hasDeferredSibling(file, nameOf(e!.key)))) return null;
  return {
    change: () => {
      for (const entry of entries) {
        const text = loaderOf(context, edits, item.specifier, binding.imported);
        if (entry!.shorthand === true) out.appendLeft(entry!.end, `: ${text}`);
        else out.overwrite((entry!.value as SyntaxNode).start, (entry!.value as SyntaxNode).end, text);
      }
    },
    done: `${binding.local} is imported by its entry of the table, as its neighbours are`,
  };
}

function entryOf({ node, above }: Reference): SyntaxNode | null {
  const parent = above.at(-1)!;
  const inList = above.at(-2)?.type === 'ObjectExpression' && above.at(-3)?.type === 'ArrayExpression';
  return parent.type === 'Property' && parent.value === node && inList ? parent : null;
}

/** Whether the file has another entry under the same key that is a function with nothing but a deferred import. */
function hasDeferredSibling(file: ScriptFile, key: string | null): boolean {
  let found = false;
  walk(file.program, (node, above) => {
    if (node.type !== 'Property' || nameOf(node.key) !== key || above.at(-2)?.type !== 'ArrayExpression') return;
    const { value } = node;
    found ||= isNode(value) && value.type === 'ArrowFunctionExpression' && LOADS.test(file.of(value));
  });
  return found;
}
