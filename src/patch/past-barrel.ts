import path from 'node:path';
import type { Import } from '../core/snapshot/module-types.ts';
import { exportedValue } from '../reader/script/exported-value.ts';
import { nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { type Change, type Found, type PatchContext, targetOf } from './context.ts';
import { deferBindings } from './defer-bindings.ts';
import type { FileEdits } from './file-edits.ts';
import { type Binding, bindingsOf } from './script-file.ts';

/**
 * What a module only passes on is deferred by those who use it: each imports it past that module, where it is needed. The module passes on no more than
 * the types; whoever outside of what was read imports values from there (a test) has to import them from where they are.
 */
export function pastBarrel(context: PatchContext, edits: FileEdits, item: Import, statement: SyntaxNode): Found {
  if (statement.type === 'ExportAllDeclaration' && statement.exported)
    return { reason: 'it passes on all in one name: import what is needed of it by its own' };
  const passed = passedNames(context, edits, item, statement);
  const changes: Change[] = [];
  const places: string[] = [];
  for (const user of usersOf(context, item)) {
    const found = userPast(context, item, user, passed);
    if (found === null) continue;
    if ('reason' in found) return { reason: found.reason };
    changes.push(found.change);
    places.push(context.snapshot.modules[user.from].path);
  }
  if (places.length === 0) return { reason: 'nothing that was read imports what it passes on' };
  return {
    change: () => {
      for (const change of changes) change();
      keepTypes(edits, statement);
    },
    done: `imported past ${edits.file.path} by ${places.join(', ')}, where it is used; ${edits.file.isTyped ? 'only its types are' : 'it isn’t'} passed on any more`,
  };
}

/** The name in the module itself of what is passed on by a name; null for what isn't. */
type Passed = (exported: string) => string | null;

function passedNames(context: PatchContext, edits: FileEdits, item: Import, statement: SyntaxNode): Passed {
  if (statement.type === 'ExportAllDeclaration') {
    const target = context.edits(targetOf(context, item))?.file;
    // What a module exports by name goes before what it passes on as a whole (ECMAScript, ResolveExport).
    const named = namesExportedBy(edits);
    return (name) =>
      target && name !== 'default' && !named.has(name) && exportedValue(target.program, name) ? name : null;
  }
  const names = new Map(
    (statement.specifiers as SyntaxNode[]).map((s) => [nameOf(s.exported) ?? '', nameOf(s.local) ?? '']),
  );
  return (name) => names.get(name) ?? null;
}

function namesExportedBy({ file }: FileEdits): Set<string> {
  return new Set(
    file.body.flatMap((statement) => {
      if (statement.type !== 'ExportNamedDeclaration') return [];
      const declared = statement.declaration as SyntaxNode | null;
      const declarators = (declared?.declarations as SyntaxNode[] | undefined) ?? [];
      const listed = ((statement.specifiers as SyntaxNode[] | undefined) ?? []).map((s) => nameOf(s.exported));
      return [nameOf(declared?.id), ...declarators.map((d) => nameOf(d.id)), ...listed].filter((n) => n !== null);
    }),
  );
}

function usersOf({ snapshot }: PatchContext, item: Import): Import[] {
  return snapshot.imports.filter((i) => i.to === item.from && i.kind === 'static');
}

/** How one module that imports what is passed on does without it; null when it takes nothing of it. */
function userPast(
  context: PatchContext,
  item: Import,
  user: Import,
  passed: Passed,
): { change: Change } | { reason: string } | null {
  const { path: from } = context.snapshot.modules[user.from];
  const edits = context.edits(from);
  if (!edits) return { reason: `the source of ${from}, which uses it, isn’t at hand` };
  const statement = edits.file.body.find((s) => s.start === user.start && s.end === user.end);
  if (statement?.type !== 'ImportDeclaration')
    return { reason: `${from} passes it on once more, or takes it in another way than by an import statement` };
  const all = bindingsOf(statement);
  if (all.some((b) => b.imported === '*' && !b.isType))
    return { reason: `${from} takes all that is passed on in one name` };
  const taken = all.flatMap((b): { local: Binding; past: Binding }[] => {
    const imported = b.isType ? null : passed(b.imported);
    return imported === null ? [] : [{ local: b, past: { ...b, imported } }];
  });
  if (taken.length === 0) return null;
  const specifier = specifierPast(context, item, user);
  const deferred = deferBindings(
    context,
    edits,
    { ...item, from: user.from, specifier },
    taken.map((t) => t.past),
  );
  if ('reason' in deferred) return { reason: `${from}: ${deferred.reason}` };
  return {
    change: () => {
      for (const { local } of taken) edits.omit(local.local);
      if (deferred.types.length > 0)
        edits.import(`import type { ${deferred.types.join(', ')} } from ${edits.file.quoted(specifier)};`);
      deferred.change();
    },
  };
}

/** How a user names the module itself: by a relative path where the one that passes it on does so, else as that does. */
function specifierPast({ snapshot }: PatchContext, item: Import, user: Import): string {
  if (!item.specifier.startsWith('.')) return item.specifier;
  const folder = (at: number) => path.posix.dirname(snapshot.modules[at].path);
  const target = path.posix.join(folder(item.from), item.specifier);
  const relative = path.posix.relative(folder(user.from), target);
  return relative.startsWith('.') ? relative : `./${relative}`;
}

/** Of what isn't passed on any more the types are, where there are types. */
function keepTypes(edits: FileEdits, statement: SyntaxNode): void {
  const { file, out } = edits;
  if (!file.isTyped) {
    edits.drop(statement);
    return;
  }
  if (statement.exportKind !== 'type') out.appendLeft(statement.start + 'export'.length, ' type');
}
