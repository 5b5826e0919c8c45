import type { Import } from '../core/snapshot/module-types.ts';
import { shortName } from '../core/text/short-name.ts';
import { isFunction, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import { asComponent } from './as-component.ts';
import { asTableEntry } from './as-table-entry.ts';
import type { Change, Found, PatchContext } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import { handedOn } from './handed-on.ts';
import { passedOn } from './passed-on.ts';
import { type Binding, bindingsOf, type Reference, specifierOf } from './script-file.ts';
import { waiterOf, waitingPlace, writeWaiting } from './waits.ts';

/** How a static import becomes a deferred one: the change of its file, or why that can't be done safely by itself. */
export function detach(context: PatchContext, edits: FileEdits, item: Import): Found {
  const { file } = edits;
  const statement = file.body.find((s) => s.start === item.start && s.end === item.end);
  if (!statement) return { reason: 'it is made by a call or by the compiler, not by an import statement' };
  if (statement.type !== 'ImportDeclaration') return passedOn(context, edits, item, statement);
  const bindings = bindingsOf(statement);
  const values = bindings.filter((b) => !b.isType);
  if (values.length === 0)
    return { reason: 'it is imported for what it does by itself, in this order: only you know when it may run' };
  const changes: Change[] = [];
  const words: string[] = [];
  const types: string[] = bindings.filter((b) => b.isType).map(typeWords);
  const waits = new Map<SyntaxNode, { references: Reference[]; bindings: Set<Binding> }>();
  for (const binding of values) {
    const all = file.references(binding.local);
    if (!all) return { reason: `the name ${binding.local} means something else in a part of the file` };
    const inTypes = all.filter(isInType);
    const references = all.filter((r) => !isInType(r));
    if (references.length === 0) {
      if (inTypes.length > 0) types.push(typeWords(binding));
      continue;
    }
    const found =
      asTableEntry(context, edits, item, binding, references) ??
      asComponent(context, edits, item, binding, references, inTypes);
    if (found) {
      if ('reason' in found) return found;
      changes.push(found.change);
      words.push(found.done);
      continue;
    }
    if (inTypes.length > 0) types.push(typeWords(binding));
    for (const reference of references) {
      const handed = handedOn(context, edits, item, binding, reference);
      if (handed) {
        if ('reason' in handed) return handed;
        changes.push(handed.change);
        words.push(handed.done);
        continue;
      }
      const place = waiterOf(file, reference.above);
      if (!place) return { reason: whyNot(file.source.place(reference.node.start).line, binding, reference) };
      const known = waits.get(place.fn) ?? { references: [], bindings: new Set() };
      known.references.push(reference);
      known.bindings.add(binding);
      waits.set(place.fn, known);
    }
  }
  for (const { references, bindings } of waits.values()) {
    const waiting = waitingPlace(file, references, waiterOf(file, references[0].above)!);
    if ('reason' in waiting) return waiting;
    const text = `${taken([...bindings])} = await import(${file.quoted(item.specifier)});`;
    changes.push(() => writeWaiting(edits, waiting, text));
    words.push(`imported where ${[...bindings].map((b) => b.local).join(', ')} is used`);
  }
  return {
    change: () => {
      if (types.length > 0) replaceByTypes(edits, statement, types);
      else edits.drop(statement);
      for (const change of changes) change();
    },
    done: [...new Set(words)].join('; ') || `nothing of ${shortName(item.specifier)} is used`,
  };
}

/** `const { a, b: c }` or `const all`, as names are taken from an imported module. */
export function taken(bindings: readonly Binding[]): string {
  const whole = bindings.find((b) => b.imported === '*');
  if (whole) return `const ${whole.local}`;
  const names = bindings.map((b) => (b.imported === b.local ? b.local : `${b.imported}: ${b.local}`));
  return `const { ${names.join(', ')} }`;
}

function typeWords({ imported, local }: Binding): string {
  return imported === local ? local : `${imported} as ${local}`;
}

/** Types vanish when the code is compiled, so their import may stay. */
function replaceByTypes({ file, out }: FileEdits, statement: SyntaxNode, types: readonly string[]): void {
  const from = file.quoted(specifierOf(statement)!);
  const whole = types.find((t) => t.startsWith('* as '));
  const text = whole ? `import type ${whole} from ${from};` : `import type { ${types.join(', ')} } from ${from};`;
  out.overwrite(statement.start, statement.end, text);
}

function isInType({ above }: Reference): boolean {
  return above.some((n) =>
    /^TS(TypeReference|TypeQuery|ExpressionWithTypeArguments|InterfaceHeritage|ClassImplements|QualifiedName)$/.test(
      n.type,
    ),
  );
}

function whyNot(line: number, { local }: Binding, { above }: Reference): string {
  if (!above.some(isFunction)) return `line ${line} needs ${local} while the module starts`;
  const fn = [...above].reverse().find(isFunction)!;
  const name = nameOf(fn.id) ?? 'the function around it';
  return `line ${line} uses ${local} at once, and ${name} gives its answer to callers that don’t wait`;
}
