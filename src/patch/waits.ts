import { attributeOf, CALL_LATER, handedTo, ownName } from '../reader/script/handed-off.ts';
import { isFunction, nameOf, type SyntaxNode } from '../reader/syntax.ts';
import type { FileEdits } from './file-edits.ts';
import type { Reference, ScriptFile } from './script-file.ts';

/** A function that can wait for an import: it is async, or nobody looks at what it gives back. */
interface Waiter {
  fn: SyntaxNode;
  /** Where it stands among the nodes around the reference. */
  at: number;
}

/** The innermost function around a place that can wait; null when there is none. */
export function waiterOf(file: ScriptFile, above: readonly SyntaxNode[]): Waiter | null {
  for (let at = above.length - 1; at >= 0; at--) {
    const fn = above[at];
    if (!isFunction(fn)) continue;
    if (fn.generator !== true && (fn.async === true || (fn.returnType == null && givesNothing(file, fn, above, at))))
      return { fn, at };
  }
  return null;
}

/** Handlers of events, and what is called later: whatever they give back is dropped, or waited for. */
function givesNothing(file: ScriptFile, fn: SyntaxNode, above: readonly SyntaxNode[], at: number): boolean {
  if (isHandedOff(fn, above, at)) return true;
  const name = ownName(fn, above[at - 1]);
  if (name === null) return false;
  const uses = file.references(name, 1);
  return uses !== null && uses.length > 0 && uses.every((u) => isHandedOff(u.node, u.above, u.above.length));
}

/** Whether a node is given away as a handler; `at`: its place among the nodes around it. */
function isHandedOff(node: SyntaxNode, above: readonly SyntaxNode[], at: number): boolean {
  const attribute = attributeOf(above, at);
  // What a component does with a handler's answer isn't known, an element of the page itself drops it.
  if (attribute) return /^on[A-Z]/.test(attribute.name) && /^[a-z]/.test(nameOf(attribute.element?.name) ?? '');
  return CALL_LATER.has(handedTo(node, above, at) ?? '');
}

/** What of an event is gone, or comes too late, once a handler has waited. */
export const AT_ONCE =
  /\b(currentTarget|preventDefault|stopPropagation|stopImmediatePropagation|dataTransfer|clipboardData)\b/;

export type Waiting = { place: Waiter; insertAt: SyntaxNode | null; body: SyntaxNode } | { reason: string };

/**
 * Where a function waits for an import that these references, all inside of it, need: before the first statement of
 * the innermost block that holds them all (`insertAt`), or around the one expression that is the function's body.
 */
export function waitingPlace(file: ScriptFile, references: readonly Reference[], place: Waiter): Waiting {
  const body = place.fn.body as SyntaxNode;
  const chains = references.map((r) => blocksOf(r, place.at));
  const insertAt = body.type === 'BlockStatement' ? common(chains, references) : null;
  const from = insertAt ?? body;
  const after = file.text.slice(from.start, body.end);
  if (place.fn.async !== true && AT_ONCE.test(after))
    return {
      reason: `the handler needs ${AT_ONCE.exec(after)![1]} at once, which it can’t after waiting for the import`,
    };
  return { place, insertAt, body };
}

/** Blocks around a reference inside a function, outermost first, up to the next function in between. */
function blocksOf(reference: Reference, at: number): SyntaxNode[] {
  const inside = reference.above.slice(at + 1);
  const next = inside.findIndex(isFunction);
  return (next < 0 ? inside : inside.slice(0, next)).filter((n) => n.type === 'BlockStatement');
}

/** The statement before which an import is waited for: the first that needs it, in the innermost block of all. */
function common(chains: readonly SyntaxNode[][], references: readonly Reference[]): SyntaxNode {
  let depth = 0;
  while (chains.every((c) => c[depth + 1] && c[depth + 1] === chains[0][depth + 1])) depth++;
  const first = Math.min(...references.map((r) => r.node.start));
  return (chains[0][depth].body as SyntaxNode[]).find((s) => s.start <= first && first < s.end)!;
}

/** Puts the waiting into the function; `statement` gives the names that the references use. */
export function writeWaiting(
  edits: FileEdits,
  { place, insertAt, body }: Extract<Waiting, { place: Waiter }>,
  statement: string,
): void {
  const { file, out } = edits;
  edits.makeAsync(place.fn);
  if (insertAt) {
    out.appendLeft(insertAt.start, `${statement}${file.newline}${file.indentOf(insertAt)}`);
    return;
  }
  edits.beforeBody(place.fn, body, statement);
}
