import {
  attributeOf,
  CALL_LATER,
  CALL_ONCE_DRAWN,
  handedTo,
  isDependency,
  ownName,
} from '../reader/script/handed-off.ts';
import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';
import type { FileEdits } from './file-edits.ts';
import type { Reference, ScriptFile } from './script-file.ts';

/** A function that can wait for an import: it is async, or nobody looks at what it gives back. */
export interface Waiter {
  fn: SyntaxNode;
  /** Where it stands among the nodes around the reference. */
  at: number;
  /** It is given what happened, which others could still stop. */
  getsEvent: boolean;
  /** Its answer is what has to be cleaned up, so that it can't be async itself: a part of it is. */
  isEffect: boolean;
}

/** Of these effects the answer is a function that cleans up, by React's convention. */
const ANSWERED_EFFECTS: ReadonlySet<string> = new Set(['useEffect']);

/** Of these an answer is called to clean up, if it is there at once: a promise for one isn't (Svelte's convention). */
const CLEANED_UP_BY_ANSWER: ReadonlySet<string> = new Set(['onMount']);

/** Methods that component systems and the browser call by themselves, without a look at what they give back. */
const CALLED_BY_ITSELF = /^(?:componentDid\w+|componentWillUnmount|connectedCallback|disconnectedCallback)$/;

/** The innermost function around a place that can wait; null when there is none. */
export function waiterOf(file: ScriptFile, above: readonly SyntaxNode[]): Waiter | null {
  for (let at = above.length - 1; at >= 0; at--) {
    const fn = above[at];
    if (!isFunction(fn) || fn.generator === true) continue;
    if (fn.async === true) return { fn, at, getsEvent: false, isEffect: false };
    const by = handedTo(fn, above, at);
    if (by !== null && CLEANED_UP_BY_ANSWER.has(by) && givesBack(fn)) continue;
    if (by !== null && CALL_ONCE_DRAWN.has(by) && fn.returnType == null)
      return { fn, at, getsEvent: false, isEffect: ANSWERED_EFFECTS.has(by) };
    const getsEvent = by === null || by === 'addEventListener';
    if (givesNothing(file, fn, above, at)) return { fn, at, getsEvent, isEffect: false };
  }
  return null;
}

/** Handlers of events, and what is called later: whatever they give back is dropped, or waited for. */
function givesNothing(file: ScriptFile, fn: SyntaxNode, above: readonly SyntaxNode[], at: number): boolean {
  if (isNode(fn.returnType) && (fn.returnType.typeAnnotation as SyntaxNode).type !== 'TSVoidKeyword') return false;
  if (isHandedOff(fn, above, at)) return true;
  const name = ownName(fn, above, at);
  if (name === null) return isCalledByItself(above, at) || isHandlerOfClass(file, above, at);
  const uses = file.references(name, 1);
  const others = uses?.filter((u) => !isDependency(u.above)) ?? [];
  return others.length > 0 && others.every((u) => isHandedOff(u.node, u.above, u.above.length));
}

/** Whether a node is given away as a handler, or taken back; `at`: its place among the nodes around it. */
function isHandedOff(node: SyntaxNode, above: readonly SyntaxNode[], at: number): boolean {
  const attribute = attributeOf(above, at);
  // What a component does with a handler's answer isn't known, an element of the page itself drops it.
  if (attribute) return /^on[A-Z]/.test(attribute.name) && /^[a-z]/.test(nameOf(attribute.element?.name) ?? '');
  const by = handedTo(node, above, at) ?? '';
  return CALL_LATER.has(by) || by === 'removeEventListener';
}

function isCalledByItself(above: readonly SyntaxNode[], at: number): boolean {
  const owner = above[at - 1];
  return owner?.type === 'MethodDefinition' && CALLED_BY_ITSELF.test(nameOf(owner.key) ?? '');
}

/** A member of a class of components that is only ever handed to elements, as `this.name`. */
function isHandlerOfClass(file: ScriptFile, above: readonly SyntaxNode[], at: number): boolean {
  const owner = above[at - 1];
  const name = owner && owner.static !== true && owner.computed !== true ? nameOf(owner.key) : null;
  if (name === null || above[at - 2]?.type !== 'ClassBody') return false;
  let uses = 0;
  let others = 0;
  walk(file.program, (node, around) => {
    if (node.type !== 'MemberExpression' || node.computed === true || nameOf(node.property) !== name) return;
    const isOwn = (node.object as SyntaxNode).type === 'ThisExpression' && around.includes(above[at - 2]);
    if (isOwn && isHandedOff(node, around, around.length)) uses++;
    else others++;
  });
  return uses > 0 && others === 0;
}

/** What of an event is gone, or comes too late, once a handler has waited. */
export const AT_ONCE =
  /\b(currentTarget|preventDefault|stopPropagation|stopImmediatePropagation|dataTransfer|clipboardData)\b/;

/** Where a function waits: before a statement (which is given braces where it has none of its own), or before its only expression. */
export interface WaitingPlace {
  place: Waiter;
  insertAt: SyntaxNode | null;
  braced: boolean;
  body: SyntaxNode;
}

/**
 * Where a function waits for an import that these references, all inside of it, need: before the first statement of
 * the innermost block or branch that holds them all (`insertAt`), or around the one expression that is the function's body.
 */
export function waitingPlace(
  file: ScriptFile,
  references: readonly Reference[],
  place: Waiter,
): WaitingPlace | { reason: string } {
  const body = place.fn.body as SyntaxNode;
  if (body.type !== 'BlockStatement') {
    const late = lateUse(file, place, body.start);
    if (late) return { reason: late };
    if (place.isEffect) return { reason: 'the effect gives what it calls’s answer back, to clean up with' };
    return { place, insertAt: null, braced: false, body };
  }
  const { statement: insertAt, braced } = common(references, place.at);
  const late = lateUse(file, place, insertAt.start) ?? (place.isEffect ? notInEffect(body, insertAt, braced) : null);
  return late ? { reason: late } : { place, insertAt, braced, body };
}

/** Why what follows in a handler can't come after a wait; null if it can. */
function lateUse(file: ScriptFile, { fn, getsEvent }: Waiter, from: number): string | null {
  if (fn.async === true || !getsEvent) return null;
  const after = file.text.slice(from, (fn.body as SyntaxNode).end);
  const gone = AT_ONCE.exec(after);
  if (gone) return `the handler needs ${gone[1]} at once, which it can’t after waiting for the import`;
  const event = (fn.params as SyntaxNode[])[0];
  const handed = event?.type === 'Identifier' ? handedOnAfter(fn, nameOf(event)!, from) : null;
  return handed === null
    ? null
    : `line ${file.source.place(handed).line} hands the event on, and whoever gets it after a wait can’t stop it any more`;
}

/** Where a parameter is given to somebody else after a place; null where nothing but its members is read. */
function handedOnAfter(fn: SyntaxNode, name: string, from: number): number | null {
  let found: number | null = null;
  walk(fn.body as SyntaxNode, (node, above) => {
    if (found !== null || node.type !== 'Identifier' || node.name !== name || node.start < from) return;
    const parent = above.at(-1);
    if (parent?.type === 'CallExpression' && (parent.arguments as unknown[]).includes(node)) found = node.start;
  });
  return found;
}

/** Why the rest of an effect can't be put off; null if it can: it gives nothing back, and nothing follows it. */
function notInEffect(body: SyntaxNode, insertAt: SyntaxNode, braced: boolean): string | null {
  const statements = body.body as SyntaxNode[];
  const own = statements.findIndex((s) => s.start <= insertAt.start && insertAt.end <= s.end);
  const nested = statements[own] !== insertAt;
  if (nested && own < statements.length - 1) return 'more of the effect follows, which would no longer come after it';
  if (nested && !braced && !isLastOf(statements[own], insertAt))
    return 'more of the effect follows, which would no longer come after it';
  return givesValue(body) ? 'the effect gives back what cleans up after it, at once' : null;
}

/** Whether a function answers with a value: that of its only expression, or one that it returns. */
function givesBack({ body }: SyntaxNode): boolean {
  return (body as SyntaxNode).type !== 'BlockStatement' || givesValue(body as SyntaxNode);
}

function givesValue(block: SyntaxNode): boolean {
  let gives = false;
  walk(block, (node, above) => {
    if (node.type === 'ReturnStatement' && node.argument && !above.some(isFunction)) gives = true;
  });
  return gives;
}

/** Whether all that follows a statement inside of another one is in its own block. */
function isLastOf(outer: SyntaxNode, statement: SyntaxNode): boolean {
  return (
    outer.type === 'IfStatement' &&
    [outer.consequent, outer.alternate].some(
      (b) => isNode(b) && b.type === 'BlockStatement' && (b.body as SyntaxNode[]).includes(statement),
    )
  );
}

/**
 * The statement before which an import is waited for: the first that needs it, in the innermost block or branch of all
 * references. A loop is waited before, not in.
 */
function common(references: readonly Reference[], at: number): { statement: SyntaxNode; braced: boolean } {
  const chains = references.map((r) => statementsOf(r, at));
  let depth = 0;
  while (chains.every((c) => c[depth + 1] && c[depth + 1].inside === chains[0][depth + 1].inside)) depth++;
  const { inside } = chains[0][depth];
  const firsts = chains.map((c) => c[depth]);
  const [first] = firsts.sort((a, b) => a.statement.start - b.statement.start);
  return { statement: first.statement, braced: inside.type !== 'BlockStatement' };
}

/** Statements around a reference inside a function, outermost first, each with what holds it: a block, or a condition's branch. */
function statementsOf({ above, node }: Reference, at: number): { statement: SyntaxNode; inside: SyntaxNode }[] {
  const found: { statement: SyntaxNode; inside: SyntaxNode }[] = [];
  const around = [...above.slice(at + 1), node];
  for (let i = 0; i + 1 < around.length; i++) {
    const [inside, statement] = [around[i], around[i + 1]];
    if (i > 0 && (isFunction(inside) || /^(?:For|While|Do)\w*Statement$/.test(inside.type))) break;
    if (inside.type === 'BlockStatement') found.push({ statement, inside });
    if (inside.type === 'IfStatement' && statement !== inside.test && statement.type !== 'BlockStatement')
      found.push({ statement, inside: statement });
  }
  return found;
}

/** Puts the waiting into the function; `statements` give the names that the references use. */
export function writeWaiting(
  edits: FileEdits,
  { place, insertAt, braced, body }: WaitingPlace,
  statements: readonly string[],
): void {
  const { file, out } = edits;
  if (place.isEffect) {
    edits.waitInEffect(place.fn, body, insertAt!, braced, statements);
    return;
  }
  edits.makeAsync(place.fn);
  if (!insertAt) {
    for (const statement of statements) edits.beforeBody(place.fn, body, statement);
    return;
  }
  const indent = `${file.newline}${file.indentOf(insertAt)}`;
  const inner = braced ? `${indent}  ` : indent;
  const text = statements.map((s) => `${s}${inner}`).join('');
  out.appendLeft(insertAt.start, braced ? `{${inner}${text}` : text);
  if (braced) out.appendRight(insertAt.end, `${indent}}`);
}
