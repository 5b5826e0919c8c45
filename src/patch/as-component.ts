import type { Fallback } from '../core/plan/types.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import { nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { type ComponentUse, componentUse } from './component-uses.ts';
import { type Found, type PatchContext, targetOf } from './context.ts';
import { NO_COMPONENT, noComponent } from './exported.ts';
import type { FileEdits } from './file-edits.ts';
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
  const settings = context.settings.get(targetOf(context, item));
  // Whoever draws what is handed on can't put a boundary around it, so that one comes with it.
  const ownBoundary = wrapper.boundary !== null && (uses.has('named') || uses.has('handed on'));
  const open = ownBoundary ? [] : references.filter((r) => needsBoundary(r, wrapper.boundary));
  return {
    change: () => {
      const [last] = deferredComponents(file).slice(-1);
      if (last) edits.beside(last.statement);
      const given = { local: binding.local, specifier: item.specifier, imported: binding.imported };
      if (ownBoundary) {
        edits.top(withBoundary(context, edits, given, settings?.fallback).join(file.newline));
        return;
      }
      edits.top(
        `const ${binding.local} = ${madeWith(context, edits)!}(${loaderOf(context, edits, item.specifier, binding.imported)});`,
      );
      if (open.length === 0) return;
      const boundary = edits.use(wrapper.boundary!, wrapper.from) ?? wrapper.boundary!;
      for (const { above } of open) surround(edits, boundary, above.at(-2)!, settings?.fallback);
    },
    done: `${binding.local} becomes a deferred component${ownBoundary || open.length > 0 ? ` inside ${wrapper.boundary}` : ''}`,
  };
}

function needsBoundary({ above }: Reference, boundary: string | null): boolean {
  return boundary !== null && above.at(-1)!.type === 'JSXOpeningElement' && !above.some((n) => isBoundary(n, boundary));
}

/** A deferred component and, by its name, one that draws it inside of its own boundary, as lines. */
export function withBoundary(
  context: PatchContext,
  edits: FileEdits,
  { local, specifier, imported }: { local: string; specifier: string; imported: string },
  fallback?: Fallback,
): string[] {
  const { file } = edits;
  const wrapper = context.wrapper!;
  const inner = file.knows(`${local}Later`) ? `${local}LaterOn` : `${local}Later`;
  const boundary = edits.use(wrapper.boundary!, wrapper.from) ?? wrapper.boundary!;
  const type = /\.[cm]?tsx?$/.test(file.path) ? `: import('${wrapper.from}').ComponentProps<typeof ${inner}>` : '';
  const drawn = file.hasMarkup
    ? `<${boundary} fallback={${fallbackWords(fallback)}}><${inner} {...given} /></${boundary}>`
    : `${edits.use('createElement', wrapper.from) ?? 'createElement'}(${boundary}, { fallback: null }, ${edits.use('createElement', wrapper.from) ?? 'createElement'}(${inner}, given))`;
  return [
    `const ${inner} = ${madeWith(context, edits)!}(${loaderOf(context, edits, specifier, imported)});`,
    `const ${local} = (given${type}) => ${drawn};`,
  ];
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

function isBoundary(node: SyntaxNode, name: string): boolean {
  if (node.type !== 'JSXElement') return false;
  const tag = (node.openingElement as SyntaxNode).name as SyntaxNode;
  return nameOf(tag) === name || (tag.type === 'JSXMemberExpression' && nameOf(tag.property) === name);
}
