import type { Fallback } from '../core/plan/types.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import { type ComponentUse, componentUse } from '../reader/script/component-uses.ts';
import { isFunction, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { type Found, type PatchContext, targetOf } from './context.ts';
import { NO_COMPONENT, noComponent } from './exported.ts';
import type { FileEdits } from './file-edits.ts';
import { boundaryLines, fallbackWords, inViewLines } from './own-boundary.ts';
import type { Binding, Reference } from './script-file.ts';
import { deferredComponents } from './wrapper.ts';

/** A component that is only drawn, named for others to draw, or handed on as one becomes a deferred one; null when it is used otherwise. */
export function asComponent(
  context: PatchContext,
  edits: FileEdits,
  item: Import,
  binding: Binding,
  references: readonly Reference[],
  inTypes: readonly Reference[],
): Found | null {
  if (!/^[A-Z]/.test(binding.local)) return null;
  const used = references.map(componentUse);
  if (used.includes(null)) return null;
  // Markup outside of functions only names its components to React; with other systems it draws them while the module starts.
  const atStart = references.some((r) => /^JSXOpening/.test(r.above.at(-1)!.type) && !r.above.some(isFunction));
  if (atStart && context.wrapper?.from !== 'react') return null;
  const uses = new Set(used as ComponentUse[]);
  const trouble = noComponent(context, item, binding.imported, uses);
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
  const target = targetOf(context, item);
  const fallback = context.settings.get(target)?.fallback;
  const waitsForView = wrapper.from === 'react' && context.triggers.get(target)?.on === 'visible';
  // Whoever draws what is handed on can't put a boundary around it, so that one comes with it.
  const bringsOwn = wrapper.boundary !== null && (waitsForView || uses.has('named') || uses.has('handed on'));
  const open = bringsOwn ? [] : references.filter((r) => needsBoundary(r, wrapper.boundary));
  return {
    change: () => {
      const [last] = deferredComponents(file).slice(-1);
      if (last) edits.beside(last.statement);
      const inner = bringsOwn ? edits.freeName(`${binding.local}Later`) : binding.local;
      const made = `const ${inner} = ${madeWith(context, edits)!}(${loaderOf(context, edits, item.specifier, binding.imported)});`;
      const part = { local: binding.local, inner, wrapper, fallback };
      const around = waitsForView ? inViewLines(edits, part) : bringsOwn ? boundaryLines(edits, part) : [];
      if (waitsForView) edits.waitsForView(item.specifier);
      edits.top([made, ...around].join(file.newline));
      if (open.length === 0) return;
      const boundary = edits.use(wrapper.boundary!, wrapper.from) ?? wrapper.boundary!;
      for (const { above } of open) surround(edits, boundary, above.at(-2)!, fallback);
    },
    done: `${binding.local} becomes a deferred component${bringsOwn || open.length > 0 ? ` inside ${wrapper.boundary}` : ''}`,
  };
}

function needsBoundary({ above }: Reference, boundary: string | null): boolean {
  return boundary !== null && above.at(-1)!.type === 'JSXOpeningElement' && !above.some((n) => isBoundary(n, boundary));
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

function isBoundary(node: SyntaxNode, name: string): boolean {
  if (node.type !== 'JSXElement') return false;
  const tag = (node.openingElement as SyntaxNode).name as SyntaxNode;
  return nameOf(tag) === name || (tag.type === 'JSXMemberExpression' && nameOf(tag.property) === name);
}
