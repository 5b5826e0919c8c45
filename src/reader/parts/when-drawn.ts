import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import type { SetterCall } from './actions.ts';
import { atFirst } from './at-first.ts';
import { type CallSites, nameOfFunction } from './call-sites.ts';
import type { DrawnWhen } from './drawn-when.ts';
import type { Possible } from './dynamic-components.ts';
import { UNKNOWN } from './literals.ts';
import { mediaIn, opposite } from './media.ts';
import { openedBy } from './opened-by.ts';
import { isMeant, plainly } from './sense.ts';
import { type Test, testsOf } from './tests-around.ts';
import type { Values } from './values.ts';
import { inWords, wordsOf } from './words.ts';

/** Everything known of one module while its components are looked at. */
export interface Scope {
  text: string;
  values: Values;
  actions: SetterCall[];
  callSites: CallSites;
  /** When the module's own functions are called, as far as it is known: many may call one another. */
  called: Map<string, DrawnWhen>;
}

const DRAWN: DrawnWhen = { kind: 'drawn' };

/**
 * When the last node of a path is drawn: from the innermost condition around it outwards, the first that tells something decides. Of a
 * function that this module itself calls or draws, the places where it does tell it. `byItself`: an element's own attributes may hide it.
 */
export function whenDrawn(path: readonly SyntaxNode[], scope: Scope, byItself = true): DrawnWhen {
  for (let i = path.length - 1; i >= 0; i--) {
    const said = (path[i].drawnWhen as DrawnWhen | undefined) ?? (i < path.length - 1 ? openedBy(path, i) : null);
    if (said) return said.kind === 'drawn' ? whenDrawn(path.slice(0, i), scope) : said;
    if (path[i].type === 'JSXAttribute' && /^on[A-Z]/.test(nameOf(path[i].name) ?? ''))
      return { kind: 'action', action: wordsOf(path[i], path.slice(0, i)) };
    const listened = listenedTo(path[i], path[i + 1]);
    if (listened) return listened;
    for (const test of byItself || i < path.length - 1 ? testsOf(path[i], path[i + 1]) : []) {
      const when = whenTest(test, scope);
      if (when) return when;
    }
    const name = isFunction(path[i]) ? nameOfFunction(path[i], path[i - 1]) : null;
    const when = name === null ? DRAWN : whenCalled(name, scope);
    if (when.kind !== 'drawn') return when;
  }
  return DRAWN;
}

/** What is done in a listener happens by what a person does, and what an observer does once something is in sight. */
function listenedTo(call: SyntaxNode, child: SyntaxNode | undefined): DrawnWhen | null {
  if (!child || (call.type !== 'CallExpression' && call.type !== 'NewExpression')) return null;
  if (!(call.arguments as unknown[]).includes(child)) return null;
  const name = nameOf(call.callee) ?? nameOf((call.callee as SyntaxNode).property);
  if (name === 'IntersectionObserver') return { kind: 'seen' };
  const event = name === 'addEventListener' ? constantText((call.arguments as SyntaxNode[])[0]) : null;
  if (event === null || /^(load|DOMContentLoaded|readystatechange|pageshow)$/.test(event)) return null;
  const on = nameOf((call.callee as SyntaxNode).object) ?? 'an element';
  return { kind: 'action', action: `${event} in ${on}` };
}

/** When a function of the module draws: as the places do that call it, unless one of them plainly does. */
function whenCalled(name: string, scope: Scope): DrawnWhen {
  const known = scope.called.get(name);
  if (known) return known;
  // Whoever calls itself is asked about only once.
  scope.called.set(name, DRAWN);
  let first: DrawnWhen = DRAWN;
  for (const site of scope.callSites.get(name) ?? []) {
    const when = whenDrawn(site, scope);
    if (when.kind === 'drawn') {
      first = DRAWN;
      break;
    }
    if (first.kind === 'drawn') first = when;
  }
  scope.called.set(name, first);
  return first;
}

function whenTest(given: Test, scope: Scope): DrawnWhen | null {
  const { text, values } = scope;
  const { test, holds } = plainly(given);
  const direct = mediaIn(text.slice(test.start, test.end));
  if (direct) return { kind: 'condition', condition: holds ? direct : opposite(direct) };
  const first = atFirst(test, values);
  if (first !== UNKNOWN && Boolean(first) === holds) return null;
  const names = namesIn(test, values);
  for (const name of names) {
    const condition = values.media.get(name);
    if (condition) {
      const asks = holds === isMeant(test, name, values);
      return { kind: 'condition', condition: asks ? condition : opposite(condition) };
    }
    if (values.sights.has(name)) return { kind: 'seen' };
    const when = setBy(name, test, scope);
    if (when) return when;
  }
  return whoOrWhat({ test, holds }, names, values);
}

/** What sets a name to what a test asks for. */
function setBy(name: string, test: SyntaxNode, { values, actions }: Scope): DrawnWhen | null {
  const state = values.states.get(name);
  const wanted = constantsOf(test, values);
  // Of a state that is an object the field tells one handler from another.
  if (typeof state?.initial === 'object' && state.initial !== null)
    for (const field of Object.keys(state.initial)) if (namesIn(test, values).includes(field)) wanted.add(field);
  const action =
    actionFor(state?.setter ?? name, wanted, state?.initial, actions) ??
    (values.given.has(name) ? relatedAction(name, values, actions) : undefined);
  if (action === undefined) return null;
  return action.words === null ? { kind: 'seen' } : { kind: 'action', action: action.words };
}

/**
 * What a function of the same origin does by its name: `showToast` sets `toast`, `openSheet` `isSheetOpen`, and `dispatch(openSheet())` as
 * well. What is kept elsewhere gives the state and what sets it by names alone.
 */
function relatedAction(name: string, values: Values, actions: SetterCall[]): SetterCall | undefined {
  const stem = name.replace(/^(is|has|show|should)(?=[A-Z])|(Open|Shown|Visible|Active)$/g, '').toLowerCase();
  return actions.find(({ setter, constants }) => {
    if (setter === name || values.given.get(setter) !== values.given.get(name)) return false;
    return [setter, ...constants].some((word) => {
      const does = /^(open|show|toggle|set|start|begin|add|select|pick|choose)/i.test(word);
      return does && (word.toLowerCase().includes(stem) || /^(open|shown|visible|active)$/.test(stem));
    });
  });
}

/** Conditions that aren't the person's doing: another module's function, who is signed in, what a call answered. */
function whoOrWhat({ test, holds }: Test, names: string[], values: Values): DrawnWhen | null {
  const who = names.find((n) => /^(user|session|member|account|isAdmin|(is)?(SignedIn|LoggedIn|Member))$/i.test(n));
  if (who !== undefined) {
    const asks = holds === isMeant(test, who, values);
    const segment = /admin/i.test(who) ? 'administrators' : asks ? 'signed in' : 'not signed in';
    return { kind: 'condition', condition: { kind: 'segment', segment } };
  }
  for (const name of names) {
    const from = values.given.get(name);
    if (from !== undefined && isName(test)) return { kind: 'given', specifier: from, holds };
    // Whether there is an answer at all is waiting, not deciding; what it says is.
    const of = values.answers.get(name);
    if (of !== undefined && saysSomething(test, name)) return { kind: 'condition', condition: { kind: 'answer', of } };
  }
  return null;
}

/** A name alone, or one that is asked by calling it or by its value. */
function isName(test: unknown): boolean {
  if (!isNode(test)) return false;
  if (test.type === 'CallExpression') return isName(test.callee);
  if (test.type === 'MemberExpression') return nameOf(test.property) === 'value' && isName(test.object);
  return test.type === 'Identifier';
}

/** Fields of an answer that tell that it is there, not what it says. */
const THERE = /^(length|size|data|ok|error|loading|pending|value|status|isLoading)$/;

function saysSomething(test: SyntaxNode, name: string): boolean {
  let says = false;
  walk(test, (node) => {
    if (node.type !== 'MemberExpression') return;
    const field = nameOf(node.property);
    says ||= rootNameOf(node.object) === name && field !== null && !THERE.test(field);
  });
  return says;
}

/** `tide` of `tide`, `tide.value`, `this.tide` and `tide()`. */
function rootNameOf(node: unknown): string | null {
  if (!isNode(node)) return null;
  if (node.type === 'CallExpression') return rootNameOf(node.callee);
  if (node.type !== 'MemberExpression') return nameOf(node)?.replace(/^\$/, '') ?? null;
  if ((node.object as SyntaxNode).type === 'ThisExpression') return nameOf(node.property);
  return THERE.test(nameOf(node.property) ?? '') ? rootNameOf(node.object) : null;
}

/** What sets a state to what is wanted; else anything that doesn't set it to what it begins as; else any. */
function actionFor(
  setter: string,
  wanted: ReadonlySet<string>,
  initial: unknown,
  actions: SetterCall[],
): SetterCall | undefined {
  const own = actions.filter((a) => a.setter === setter);
  const first = String(initial);
  return (
    own.find((a) => a.constants.some((c) => wanted.has(c))) ??
    own.find((a) => !(a.constants.length === 1 && (a.constants[0] === first || a.constants[0] === 'null'))) ??
    own[0]
  );
}

function constantsOf(test: SyntaxNode, values: Values): Set<string> {
  const constants = new Set<string>();
  eachIn(test, values, (node) => {
    const text = constantText(node);
    if (text !== null) constants.add(text);
    else if (node.type === 'Literal') constants.add(String(node.value));
  });
  return constants;
}

/** A component from a table, looked up by a state; or the one that a state holds. */
export function whenLookedUp({ by, key, component, texts }: Possible & { by: SyntaxNode }, scope: Scope): DrawnWhen {
  const first = atFirst(by, scope.values);
  if (first === UNKNOWN || String(first) === key) return DRAWN;
  for (const name of namesIn(by, scope.values)) {
    const state = scope.values.states.get(name);
    const action = state && actionFor(state.setter, new Set([key, component]), state.initial, scope.actions);
    if (!action) continue;
    if (action.words === null) return { kind: 'seen' };
    // A button of a list shows a field of the item that it stands for.
    const field = [...(texts ?? [])].find(([name]) => inWords(name) === action.words);
    return { kind: 'action', action: field?.[1] ?? action.words };
  }
  return DRAWN;
}

function namesIn(test: SyntaxNode, values: Values): string[] {
  const names = new Set<string>();
  eachIn(test, values, (node) => {
    if (node.type === 'Identifier') names.add((node.name as string).replace(/^\$(?=\w)/, ''));
  });
  return [...names];
}

/** Visits the nodes of a test, and of what its names follow from. */
function eachIn(test: SyntaxNode, values: Values, visit: (node: SyntaxNode) => void, met = new Set<string>()): void {
  walk(test, (node) => {
    visit(node);
    if (node.type !== 'Identifier' || met.has(node.name as string)) return;
    met.add(node.name as string);
    const from = values.derived.get(node.name as string);
    if (from && from !== test) eachIn(from, values, visit, met);
  });
}
