import type { EffectivePlan } from '../core/plan/effective.ts';
import type { Import } from '../core/snapshot/module-types.ts';
import type { Trigger } from '../core/vocabulary/triggers.ts';
import { triggerPhrase } from '../core/vocabulary/triggers.ts';
import { constantText, type SyntaxNode, walk } from '../reader/syntax.ts';
import { type PatchContext, targetOf } from './context.ts';
import type { FileEdits } from './file-edits.ts';
import { openersOf } from './openers.ts';
import { inViewLines } from './own-boundary.ts';
import { bindingsOf, type Reference, withoutTypes } from './script-file.ts';
import { isWritten, recipe, writeTrigger } from './triggers.ts';
import { notOpened, type PatchStep } from './types.ts';
import { deferredComponents } from './wrapper.ts';

/** Whether an import is deferred in the code, or by the edits so far. */
export interface Deferring {
  isDeferred(item: Import): boolean;
}

/** What becomes of the trigger of a split point: a step for each import that fetches it. */
export function triggerSteps(
  context: PatchContext & Deferring,
  editsOr: (path: string) => FileEdits | string,
  { deferred }: EffectivePlan,
  splitPoint: string,
  fetch: Trigger,
): Omit<PatchStep, 'decision' | 'words'>[] {
  const { snapshot } = context;
  const asked = snapshot.imports.filter(
    (item, i) => deferred[i] === 1 && snapshot.modules[item.to].path === splitPoint,
  );
  return asked.map((item) => {
    const step = { path: snapshot.modules[item.from].path, line: item.line };
    const own = recipe(item.specifier, item.names, fetch);
    if (fetch.on === 'action')
      return {
        ...step,
        state: 'nothing to do',
        what: 'what is deferred is fetched when it is drawn or used',
        recipe: '',
      };
    if (!context.isDeferred(item))
      return { ...step, state: 'by hand', what: 'it can be begun once its import is deferred, by hand', recipe: own };
    const edits = editsOr(step.path);
    if (typeof edits === 'string') return { ...step, ...notOpened(edits), recipe: own };
    if (isWritten(fetch)) writeTrigger(edits, item.specifier, fetch);
    else if (!writeInComponent(context, edits, item, fetch))
      return {
        ...step,
        state: 'by hand',
        what: `only you know the element or the moment: ${triggerPhrase(fetch)}. The import triggers of the handoff do the same by selectors`,
        recipe: own,
      };
    return { ...step, state: 'edited', what: `begun ${triggerPhrase(fetch)}`, recipe: '' };
  });
}

/** Writes a trigger that hangs on an element into the components that hold it; false where they can't be found, or aren't React's. */
function writeInComponent(context: PatchContext, edits: FileEdits, item: Import, fetch: Trigger): boolean {
  const { wrapper } = context;
  if (wrapper?.from !== 'react') return false;
  if (fetch.on === 'approach') return writeApproach(edits, item);
  // What the same patch defers is written so from the start.
  if (fetch.on === 'visible') return edits.isInView(item.specifier) || wrapInView(context, edits, item);
  return false;
}

/** A component that is deferred already waits until its place is in view. */
function wrapInView(context: PatchContext, edits: FileEdits, item: Import): boolean {
  const { file, out } = edits;
  const found = deferredComponents(file).filter(({ call }) => asksFor(call, item.specifier));
  if (found.length !== 1) return false;
  const [{ local, statement, call, wrapper }] = found;
  if (wrapper.from !== 'react') return false;
  const inner = edits.freeName(`${local}Later`);
  const fallback = context.settings.get(targetOf(context, item))?.fallback;
  const lines = inViewLines(edits, { local, inner, wrapper, fallback });
  const exported = statement.type === 'ExportNamedDeclaration' ? 'export ' : '';
  out.overwrite(statement.start, call.start, `const ${inner} = `);
  out.appendLeft(statement.end, `${file.newline}${exported}${lines.join(file.newline)}`);
  return true;
}

function asksFor(call: SyntaxNode, specifier: string): boolean {
  let found = false;
  walk(call, (node) => {
    found ||= node.type === 'ImportExpression' && constantText(node.source) === specifier;
  });
  return found;
}

/** What opens a part begins its import when the pointer or the focus comes to it. */
function writeApproach(edits: FileEdits, item: Import): boolean {
  const { file, out } = edits;
  const uses = usesOf(edits, item);
  const openers = uses.length === 0 ? null : openersOf(file, uses);
  if (!openers) return false;
  const begin = edits.named(
    'fetchAhead',
    `const NAME = () => void import(${file.quoted(item.specifier)}).catch(() => {});`,
  );
  for (const { name: tag } of openers)
    out.appendLeft((tag as SyntaxNode).end, ` onPointerEnter={${begin}} onFocus={${begin}}`);
  return true;
}

/** Where a file uses what an import brings: names that it binds, components that are made of it, or the deferred import itself. */
function usesOf({ file }: FileEdits, item: Import): Reference[] {
  const statement = file.body.find((s) => s.start === item.start && s.end === item.end);
  const locals =
    statement?.type === 'ImportDeclaration'
      ? bindingsOf(statement)
          .filter((b) => !b.isType)
          .map((b) => b.local)
      : [];
  const made = deferredComponents(file).filter(({ call }) => asksFor(call, item.specifier));
  const named = [
    ...locals.flatMap((l) => file.references(l) ?? []),
    ...made.flatMap((m) => file.references(m.local, 1) ?? []),
  ].filter((r) => r.above.at(-1)?.type !== 'JSXClosingElement');
  const asked: Reference[] = [];
  walk(file.program, (node, above) => {
    if (node.type !== 'ImportExpression' || constantText(node.source) !== item.specifier) return;
    if (!made.some((m) => above.includes(m.call))) asked.push({ node, above: [...above] });
  });
  return [...withoutTypes(named), ...asked];
}
