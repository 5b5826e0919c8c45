import type { Import } from '../core/snapshot/module-types.ts';
import { isFunction, isNode, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import type { Change, Found, PatchContext } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import { type Binding, bindingsOf, type Reference, type ScriptFile, specifierOf } from './script-file.ts';
import { AT_ONCE, waiterOf } from './waits.ts';

/**
 * A function that is handed to a component as a property can be deferred where that component only calls it in
 * handlers, which then wait for it. Null when the name isn't handed on so; the component's file is edited as well.
 */
export function handedOn(
  context: PatchContext,
  edits: FileEdits,
  item: Import,
  binding: Binding,
  { node, above }: Reference,
): Found | null {
  const attribute = above.at(-2);
  const opening = above.at(-3);
  if (above.at(-1)?.type !== 'JSXExpressionContainer' || attribute?.type !== 'JSXAttribute' || !opening) return null;
  const property = nameOf(attribute.name);
  const component = nameOf(opening.name);
  if (!property || !component || binding.imported === '*') return null;
  const write = () => {
    const load = `(await import(${edits.file.quoted(item.specifier)})).${binding.imported}`;
    edits.out.overwrite(node.start, node.end, `async (...args) => ${load}(...args)`);
  };
  if (!/^[A-Z]/.test(component)) return null;
  const found = receiver(context, edits.file, item, component);
  if ('reason' in found) return { reason: `${binding.local} is handed to ${component}, and ${found.reason}` };
  const waits = waitingCalls(found.edits, found.name, property);
  if ('reason' in waits)
    return {
      reason: `${binding.local} is handed to ${component} as ${property}, and ${found.edits.file.path} ${waits.reason}`,
    };
  return {
    change: () => {
      write();
      for (const change of waits.changes) change();
    },
    done: `${binding.local} is imported when ${component} calls ${property}, which waits for it in ${found.edits.file.path}`,
  };
}

/** The file that a component comes from, and its name there. */
function receiver(
  context: PatchContext,
  file: ScriptFile,
  item: Import,
  component: string,
): { edits: FileEdits; name: string } | { reason: string } {
  const { snapshot } = context;
  for (const statement of file.imports()) {
    const bound = bindingsOf(statement).find((b) => b.local === component && !b.isType);
    if (!bound || bound.imported === '*') continue;
    const link = snapshot.imports.find(
      (i) => i.from === item.from && i.kind === 'static' && i.specifier === specifierOf(statement),
    );
    const target = link && snapshot.modules[link.to].path;
    const edits = target === undefined ? null : context.edits(target);
    if (!edits) return { reason: 'its source isn’t at hand' };
    return { edits, name: bound.imported };
  }
  return { reason: 'it isn’t imported by its name here' };
}

/** The changes that make a component wait for a function it is given; or the place where it can't. */
function waitingCalls(
  edits: FileEdits,
  component: string,
  property: string,
): { changes: Change[] } | { reason: string } {
  const { file } = edits;
  const fn = functionNamed(file, component);
  const given = (fn?.params as SyntaxNode[] | undefined)?.[0];
  if (given?.type !== 'ObjectPattern') return { reason: 'doesn’t take its properties by name' };
  const own = (given.properties as SyntaxNode[]).find((p) => p.type === 'Property' && nameOf(p.key) === property);
  const local = own && isNode(own.value) && own.value.type === 'Identifier' ? nameOf(own.value) : null;
  if (local === null) return { reason: `doesn’t take ${property} by its name` };
  const uses = file.references(local, 1);
  if (!uses || uses.length === 0) return { reason: `means several things by ${local}` };
  const changes: Change[] = [];
  for (const use of uses) {
    const call = use.above.at(-1)!;
    const { line } = file.source.place(use.node.start);
    if (call.type !== 'CallExpression' || call.callee !== use.node) return { reason: `hands it on in line ${line}` };
    const nearest = [...use.above].reverse().find(isFunction);
    const waiter = waiterOf(file, use.above);
    // The answer of an effect is what cleans up after it: it can't be a promise.
    if (!waiter || waiter.isEffect || waiter.fn !== nearest)
      return { reason: `uses its answer at once in line ${line}` };
    if (waiter.fn.async !== true && AT_ONCE.test(file.of(waiter.fn)))
      return { reason: `handles an event in line ${line} in a way that can’t wait` };
    const open =
      ['MemberExpression', 'CallExpression'].includes(use.above.at(-2)!.type) && isHead(call, use.above.at(-2)!);
    changes.push(() => {
      edits.makeAsync(waiter.fn);
      edits.out.appendLeft(call.start, open ? '(await ' : 'await ');
      if (open) edits.out.appendRight(call.end, ')');
    });
  }
  const type = typeChange(edits, given, property);
  if (type === 'unknown') return { reason: `doesn’t say the type of ${property}` };
  return { changes: type ? [...changes, type] : changes };
}

/** What is called, or whose member is read, rather than an argument. */
function isHead(call: SyntaxNode, parent: SyntaxNode): boolean {
  return parent.callee === call || parent.object === call;
}

/** The component itself, declared at the top of its module. */
function functionNamed(file: ScriptFile, name: string): SyntaxNode | null {
  const declared = file.body.map((s) =>
    (s.type === 'ExportNamedDeclaration' || s.type === 'ExportDefaultDeclaration') && isNode(s.declaration)
      ? { node: s.declaration, whole: s.type === 'ExportDefaultDeclaration' }
      : { node: s, whole: false },
  );
  let wanted = name;
  if (name === 'default') {
    const given = declared.find((d) => d.whole)?.node;
    if (given && isFunction(given)) return given;
    wanted = nameOf(given) ?? '';
  }
  for (const { node } of declared) {
    if (node.type === 'FunctionDeclaration' && nameOf(node.id) === wanted) return node;
    if (node.type !== 'VariableDeclaration') continue;
    const made = (node.declarations as SyntaxNode[]).find((d) => nameOf(d.id) === wanted)?.init;
    if (isNode(made) && isFunction(made)) return made;
  }
  return null;
}

/** The type of a function that may now answer later; null where there are no types to change. */
function typeChange(edits: FileEdits, given: SyntaxNode, property: string): Change | null | 'unknown' {
  const { file, out } = edits;
  const written = given.typeAnnotation as SyntaxNode | null;
  if (!written) return file.isTyped ? 'unknown' : null;
  let type = written.typeAnnotation as SyntaxNode;
  if (type.type === 'TSTypeReference') {
    const name = nameOf(type.typeName);
    const named = file.body
      .map((s) => (isNode(s.declaration) ? s.declaration : s))
      .find((s) => /^TS(InterfaceDeclaration|TypeAliasDeclaration)$/.test(s.type) && nameOf(s.id) === name);
    if (!named) return 'unknown';
    type = (named.body ?? named.typeAnnotation) as SyntaxNode;
  }
  const members = (type.members ?? type.body) as SyntaxNode[] | undefined;
  const member = members?.find((m) => nameOf(m.key) === property)?.typeAnnotation as SyntaxNode | undefined;
  const fn = member?.typeAnnotation as SyntaxNode | undefined;
  if (fn?.type !== 'TSFunctionType') return 'unknown';
  const answer = (fn.returnType as SyntaxNode).typeAnnotation as SyntaxNode;
  if (answer.type === 'TSFunctionType' || answer.type === 'TSTypePredicate') return 'unknown';
  const text = file.of(answer);
  if (/\bPromise\b/.test(text) || text === 'void' || text === 'unknown') return null;
  return () => out.appendLeft(answer.end, ` | Promise<${text}>`);
}
