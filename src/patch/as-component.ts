import type { Fallback } from '../core/plan/types.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import { isFunction, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { type Found, type PatchContext, targetOf } from './context.ts';
import { NO_COMPONENT, noComponent } from './exported.ts';
import type { FileEdits } from './file-edits.ts';
import type { Binding, Reference } from './script-file.ts';
import { deferredComponents } from './wrapper.ts';

/** A component that is only drawn, or named for others to draw, becomes a deferred one; null when it is used otherwise. */
export function asComponent(
  context: PatchContext,
  edits: FileEdits,
  item: Import,
  binding: Binding,
  references: readonly Reference[],
  inTypes: readonly Reference[],
): Found | null {
  if (!/^[A-Z]/.test(binding.local) || !references.every((r) => isDrawn(r) || isNamed(r))) return null;
  const trouble = noComponent(context, item, binding.imported, references.some(isDrawn));
  if (trouble === NO_COMPONENT) return null;
  const { wrapper } = context;
  if (!wrapper)
    return {
      reason: `${binding.local} is a component, and the app has no way yet to defer one: no wrapper of its component system is used`,
    };
  if (binding.imported === '*')
    return { reason: 'a component is drawn out of a whole namespace: import it by its name first' };
  if (inTypes.length > 0) return { reason: `${binding.local} is used as a type as well` };
  if (trouble !== null) return { reason: `${binding.local} ${trouble}` };
  const { file } = edits;
  const drawn = references.filter((r) => isDrawn(r) && r.above.at(-1)!.type === 'JSXOpeningElement');
  const open = drawn.filter((r) => wrapper.boundary !== null && !r.above.some((n) => isBoundary(n, wrapper.boundary!)));
  const settings = context.settings.get(targetOf(context, item));
  return {
    change: () => {
      const made = madeWith(context, edits)!;
      const [last] = deferredComponents(file).slice(-1);
      if (last) edits.beside(last.statement);
      edits.top(`const ${binding.local} = ${made}(${loaderOf(context, edits, item.specifier, binding.imported)});`);
      if (open.length === 0) return;
      const boundary = edits.use(wrapper.boundary!, wrapper.from) ?? wrapper.boundary!;
      for (const { above } of open) surround(edits, boundary, above.at(-2)!, settings?.fallback);
    },
    done: `${binding.local} becomes a deferred component${open.length > 0 ? ` inside ${wrapper.boundary}` : ''}`,
  };
}

/** The wrapper's name in a file. */
export function madeWith({ wrapper }: PatchContext, edits: FileEdits): string | null {
  if (!wrapper) return null;
  return edits.use(wrapper.name, wrapper.from) ?? wrapper.name;
}

/**
 * `() => import('./x')`, giving a module whose default is the component. The wrapper of React takes `then` as all its
 * users write it; of other wrappers, which give the component's properties on, the checker of TypeScript finds these
 * only from an async function.
 */
export function loaderOf({ wrapper }: PatchContext, { file }: FileEdits, specifier: string, imported: string): string {
  const load = `import(${file.quoted(specifier)})`;
  if (imported === 'default') return `() => ${load}`;
  return wrapper && wrapper.from !== 'react'
    ? `async () => ({ default: (await ${load}).${imported} })`
    : `() => ${load}.then((m) => ({ default: m.${imported} }))`;
}

/** Puts a boundary with its fallback around an element; a key goes with it. */
export function surround({ file, out }: FileEdits, boundary: string, element: SyntaxNode, fallback?: Fallback): void {
  const opening = element.openingElement as SyntaxNode;
  const key = (opening.attributes as SyntaxNode[]).find((a) => nameOf(a.name) === 'key');
  const keyed = key ? ` ${file.of(key)}` : '';
  // What closes belongs to what stands before, what opens to what comes: elements may touch.
  out.prependRight(element.start, `<${boundary}${keyed} fallback={${fallbackWords(fallback)}}>`);
  out.appendLeft(element.end, `</${boundary}>`);
}

/** What keeps room is an empty element to be given its size; the part's own look is nobody's to invent. */
function fallbackWords(fallback: Fallback | undefined): string {
  return fallback && (fallback.show === 'reserved space' || fallback.show === 'stand-in')
    ? '<div aria-busy="true" />'
    : 'null';
}

function isDrawn({ node, above }: Reference): boolean {
  const parent = above.at(-1)!;
  return (
    (parent.type === 'JSXOpeningElement' || parent.type === 'JSXClosingElement') &&
    parent.name === node &&
    above.some(isFunction)
  );
}

/** Named in a table or as a property: whoever reads it draws it as it is. */
function isNamed({ node, above }: Reference): boolean {
  const parent = above.at(-1)!;
  if (parent.type === 'Property') return parent.value === node && above.at(-2)?.type === 'ObjectExpression';
  return parent.type === 'JSXExpressionContainer' && nameOf(above.at(-2)?.name) === 'component';
}

function isBoundary(node: SyntaxNode, name: string): boolean {
  if (node.type !== 'JSXElement') return false;
  const tag = (node.openingElement as SyntaxNode).name as SyntaxNode;
  return nameOf(tag) === name || (tag.type === 'JSXMemberExpression' && nameOf(tag.property) === name);
}
