import type { PartCondition } from '../../core/snapshot/route-types.ts';
import { importedBindings } from '../imported-bindings.ts';
import type { SourceText } from '../source-text.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { findActions, type SetterCall } from './actions.ts';
import { atFirst, mediaIn, readValues, UNKNOWN, type Values } from './values.ts';

/** A component that a module draws, and when, as far as the code tells. */
export interface ComponentUse {
  specifier: string;
  line: number;
  when:
    | { kind: 'drawn' }
    | { kind: 'action'; action: string }
    | { kind: 'condition'; condition: PartCondition }
    /** What a function of that module gives decides. */
    | { kind: 'given'; specifier: string };
  /** Modules of the components around it in the same module, innermost first. */
  inside: string[];
}

interface Test {
  test: SyntaxNode;
  /** Whether the component is drawn when the test holds, or when it doesn't. */
  holds: boolean;
}

/** Everything known of one module while its components are looked at. */
interface Scope {
  text: string;
  values: Values;
  actions: SetterCall[];
}

/**
 * Finds the imported components that a module draws. One that stands under a condition is tied to what decides it: a
 * state that an event handler sets (the words on the handler's element name the action), a media query, a call's
 * answer, or who is signed in.
 */
export function findComponentUses(program: SyntaxNode, source: SourceText): ComponentUse[] {
  const bindings = importedBindings(program);
  const values = readValues(program, source.text, bindings);
  const setters = new Set([...values.states.values()].map((s) => s.setter));
  const scope: Scope = {
    text: source.text,
    values,
    actions: findActions(program, setters, new Set(values.given.keys())),
  };
  const uses: ComponentUse[] = [];
  walk(program, (node, above) => {
    if (node.type !== 'JSXElement') return;
    const name = tagOf(node);
    if (name === null) return;
    const { line } = source.place(node.start);
    const inside = above
      .filter((n) => n.type === 'JSXElement')
      .flatMap((n) => bindings.get(tagOf(n) ?? '') ?? [])
      .reverse();
    const specifier = bindings.get(name);
    if (specifier !== undefined) uses.push({ specifier, line, when: whenDrawn([...above, node], scope), inside });
    const lookup = values.lookups.get(name);
    for (const [key, component] of (lookup && values.tables.get(lookup.table)) ?? []) {
      const when = whenLookedUp(lookup!.by, key, scope);
      uses.push({ specifier: bindings.get(component)!, line, when, inside });
    }
  });
  return uses;
}

function tagOf(element: SyntaxNode): string | null {
  return nameOf((element.openingElement as SyntaxNode).name);
}

const DRAWN: ComponentUse['when'] = { kind: 'drawn' };

/** From the innermost condition around a component outwards: the first that tells something decides. */
function whenDrawn(path: readonly SyntaxNode[], scope: Scope): ComponentUse['when'] {
  for (let i = path.length - 2; i >= 0; i--) {
    for (const test of testsOf(path[i], path[i + 1])) {
      const when = whenTest(test, scope);
      if (when) return when;
    }
  }
  return DRAWN;
}

function whenTest({ test, holds }: Test, { text, values, actions }: Scope): ComponentUse['when'] | null {
  const direct = mediaIn(text.slice(test.start, test.end));
  if (direct) return { kind: 'condition', condition: holds ? direct : opposite(direct) };
  const first = atFirst(test, values);
  if (first !== UNKNOWN && Boolean(first) === holds) return null;
  const names = namesIn(test);
  for (const name of names) {
    const condition = values.media.get(name);
    if (condition) return { kind: 'condition', condition: holds ? condition : opposite(condition) };
    const state = values.states.get(name);
    const action = actionFor(state?.setter ?? name, test, actions);
    if (action !== undefined) return { kind: 'action', action };
  }
  return whoOrWhat(test, holds, names, values);
}

/** Conditions that aren't the person's doing: another module's function, who is signed in, what a call answered. */
function whoOrWhat(test: SyntaxNode, holds: boolean, names: string[], values: Values): ComponentUse['when'] | null {
  const who = names.find((n) => /^(user|session|member|account|isAdmin|(is)?(SignedIn|LoggedIn|Member))$/i.test(n));
  if (who !== undefined) {
    const segment = /admin/i.test(who) ? 'administrators' : holds ? 'signed in' : 'not signed in';
    return { kind: 'condition', condition: { kind: 'segment', segment } };
  }
  for (const name of names) {
    const from = values.given.get(name);
    if (from !== undefined && test.type === 'Identifier' && holds) return { kind: 'given', specifier: from };
    // Whether there is an answer at all is waiting, not deciding; what it says is.
    const of = values.answers.get(name);
    if (of !== undefined && saysSomething(test, name)) return { kind: 'condition', condition: { kind: 'answer', of } };
  }
  return null;
}

function saysSomething(test: SyntaxNode, name: string): boolean {
  let says = false;
  walk(test, (node) => {
    if (node.type !== 'MemberExpression') return;
    const field = nameOf(node.property);
    says ||= nameOf(node.object) === name && field !== null && !/^(length|size|data|ok|error|loading)$/.test(field);
  });
  return says;
}

/** The doing that sets a state to what the test asks for; any that sets it where that can't be told apart. */
function actionFor(setter: string, test: SyntaxNode, actions: SetterCall[]): string | undefined {
  const own = actions.filter((a) => a.setter === setter);
  const wanted = constantsOf(test);
  return (own.find((a) => a.constants.some((c) => wanted.has(c))) ?? own[0])?.words;
}

function constantsOf(test: SyntaxNode): Set<string> {
  const constants = new Set<string>();
  walk(test, (node) => {
    const text = constantText(node);
    if (text !== null) constants.add(text);
  });
  return constants;
}

/** A component from a table, looked up by a state. */
function whenLookedUp(by: string, key: string, { values, actions }: Scope): ComponentUse['when'] {
  const state = values.states.get(by);
  if (!state || state.initial === key || state.initial === UNKNOWN) return DRAWN;
  const own = actions.filter((a) => a.setter === state.setter);
  const action = (own.find((a) => a.constants.includes(key)) ?? own[0])?.words;
  return action === undefined ? DRAWN : { kind: 'action', action };
}

/** The conditions that a node puts on one of its children. */
function testsOf(node: SyntaxNode, child: SyntaxNode): Test[] {
  switch (node.type) {
    case 'ConditionalExpression':
    case 'IfStatement': {
      const test = node.test as SyntaxNode;
      if (node.consequent === child) return [{ test, holds: true }];
      return node.alternate === child ? [{ test, holds: false }] : [];
    }
    case 'LogicalExpression':
      if (node.right !== child || node.operator === '??') return [];
      return [{ test: node.left as SyntaxNode, holds: node.operator === '&&' }];
    case 'SwitchCase':
      return [];
    case 'SwitchStatement': {
      const { test } = child as { test?: unknown };
      if (!isNode(test)) return [];
      const { start, end } = test;
      const equal = { type: 'BinaryExpression', operator: '===', left: node.discriminant, right: test, start, end };
      return [{ test: equal, holds: true }];
    }
    case 'BlockStatement':
      return earlyReturns(node, child);
    default:
      return [];
  }
}

/** `if (!open) return …;` before a statement: it is reached only when the test didn't hold. */
function earlyReturns(block: SyntaxNode, child: SyntaxNode): Test[] {
  const body = block.body as SyntaxNode[];
  return body
    .slice(0, body.indexOf(child))
    .filter((s) => s.type === 'IfStatement' && !s.alternate && returns(s.consequent as SyntaxNode))
    .map((s) => ({ test: s.test as SyntaxNode, holds: false }))
    .reverse();
}

function returns(statement: SyntaxNode): boolean {
  if (statement.type === 'ReturnStatement') return true;
  return statement.type === 'BlockStatement' && (statement.body as SyntaxNode[]).at(-1)?.type === 'ReturnStatement';
}

function opposite(condition: PartCondition): PartCondition {
  if (condition.kind !== 'media') return condition;
  if (condition.maxWidth !== undefined) return { kind: 'media', minWidth: condition.maxWidth + 1 };
  return { kind: 'media', maxWidth: (condition.minWidth ?? 1) - 1 };
}

function namesIn(test: SyntaxNode): string[] {
  const names: string[] = [];
  walk(test, (node) => {
    if (node.type === 'Identifier') names.push(node.name as string);
  });
  return names;
}
