import type { Import } from '../core/snapshot/module-types.ts';
import { nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { loaderOf, madeWith, surround } from './as-component.ts';
import { type Found, type PatchContext, targetOf } from './context.ts';
import { noComponent } from './exported.ts';
import type { FileEdits } from './file-edits.ts';
import { pastBarrel } from './past-barrel.ts';
import { bindingsOf, specifierOf } from './script-file.ts';

/**
 * A re-export of components becomes one of deferred components, with boundaries around them in the modules that draw
 * them. Anything else is imported past it by those who use it, as they would get a promise from here.
 */
export function passedOn(context: PatchContext, edits: FileEdits, item: Import, statement: SyntaxNode): Found {
  const { file, out } = edits;
  const { wrapper } = context;
  if (statement.type === 'ExportAllDeclaration') return pastBarrel(context, edits, item, statement);
  const all = (statement.specifiers as SyntaxNode[]).filter((s) => s.exportKind !== 'type');
  const names = all.map((s) => ({ exported: nameOf(s.exported) ?? '', imported: nameOf(s.local) ?? '' }));
  const areComponents = names.every(
    (n) => /^[A-Z]/.test(n.exported) && noComponent(context, item, n.imported, new Set()) === null,
  );
  const hasTypes = all.length < (statement.specifiers as SyntaxNode[]).length;
  if (!areComponents || !wrapper || hasTypes) return pastBarrel(context, edits, item, statement);
  const around: { edits: FileEdits; elements: SyntaxNode[] }[] = [];
  for (const user of usersOf(context, item, new Set(names.map((n) => n.exported)))) {
    const elements = drawnIn(
      context,
      user,
      names.map((n) => n.exported),
    );
    if (typeof elements === 'string') return pastBarrel(context, edits, item, statement);
    around.push(elements);
  }
  return {
    change: () => {
      const made = madeWith(context, edits)!;
      const lines = names.map(
        ({ exported, imported }) =>
          `export const ${exported} = ${made}(${loaderOf(context, edits, item.specifier, imported)});`,
      );
      out.overwrite(statement.start, statement.end, lines.join(file.newline));
      if (wrapper.boundary === null) return;
      const { fallback } = context.settings.get(targetOf(context, item)) ?? {};
      for (const { edits, elements } of around) {
        if (elements.length === 0) continue;
        const boundary = edits.use(wrapper.boundary, wrapper.from) ?? wrapper.boundary;
        for (const element of elements) surround(edits, boundary, element, fallback);
      }
    },
    done: `${names.map((n) => n.exported).join(', ')} passed on as deferred components`,
  };
}

/** Imports of these names from the module that passes them on. */
function usersOf({ snapshot }: PatchContext, item: Import, names: ReadonlySet<string>): Import[] {
  return snapshot.imports.filter(
    (i) => i.to === item.from && (i.names.includes('*') || i.names.some((n) => names.has(n))),
  );
}

/** Where a module draws components that it imports; in words, why it does something else with them. */
function drawnIn(
  context: PatchContext,
  user: Import,
  names: readonly string[],
): { edits: FileEdits; elements: SyntaxNode[] } | string {
  const { path } = context.snapshot.modules[user.from];
  const edits = context.edits(path);
  if (!edits) return `the source of ${path}, which uses it, isn’t at hand`;
  const statement = edits.file.imports().find((s) => specifierOf(s) === user.specifier);
  if (user.kind === 'dynamic' || !statement) return `${path} takes it in a way that isn’t an import statement`;
  const elements: SyntaxNode[] = [];
  for (const bound of bindingsOf(statement)) {
    if (bound.isType || (bound.imported !== '*' && !names.includes(bound.imported))) continue;
    const references = edits.file.references(bound.local);
    const drawn = references?.every((r) => /^JSX(Opening|Closing)Element$/.test(r.above.at(-1)!.type));
    if (!references || !drawn || bound.imported === '*') return `${path} does more with ${bound.local} than to draw it`;
    for (const { above } of references) if (above.at(-1)!.type === 'JSXOpeningElement') elements.push(above.at(-2)!);
  }
  return { edits, elements };
}
