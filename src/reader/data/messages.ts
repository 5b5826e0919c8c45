import type { SourceText } from '../source-text.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import { addressOf } from './address-of.ts';
import type { Address, Ask, AskSheet, StoreModule } from './ask-sheet.ts';
import { dotted, listenerAt, nameInObject, nameOfFunction, STARTS_LISTENING } from './function-names.ts';

/*
 * Much code asks for data by a message: a component says what it wants, and another module, which it doesn't know, listens to that. What is sent and
 * who listens, by the public conventions of Redux (objects with a `type`), Redux-Saga, Redux-Observable, the listeners of Redux Toolkit, and Vuex.
 */

/** What sends a message: `dispatch`, of whatever store, and sagas. */
const SENDS = /(^|\.)(dispatch|put|putResolve)$/;

/** Whether what a call gives is handed to a store: `dispatch(loadTides())`, or what a component is handed to do so, `this.props.loadTides()`. */
export function isSent(callee: string, above: readonly SyntaxNode[]): boolean {
  const around = above.findLast((n) => n.type !== 'AwaitExpression' && n.type !== 'ParenthesizedExpression');
  const taker = around?.type === 'CallExpression' ? dotted(around.callee) : null;
  return (taker !== null && SENDS.test(taker)) || /(^|\.)props\./.test(callee);
}

/** What has a function called for each message, with the place of the message among its arguments. */
const LISTENS: Readonly<Record<string, number>> = {
  takeEvery: 0,
  takeLatest: 0,
  takeLeading: 0,
  throttle: 1,
  debounce: 1,
};

/** What waits for a message in the function around it. */
const WAITS = /^(take|takeMaybe|ofType)$/;

/** What runs a function that it is given, with the place of the function among its arguments. */
const RUNS: Readonly<Record<string, number>> = { call: 0, fork: 0, spawn: 0, apply: 1, retry: 2, cps: 0 };

/** The function that an effect of a saga runs, and what it is given: `call(api.getTides, id)`. */
export function runByEffect(
  callee: string,
  given: readonly SyntaxNode[],
  { imports }: AskSheet,
): { fn: SyntaxNode; args: readonly SyntaxNode[] } | null {
  const from = imports.get(callee.split('.')[0]);
  const name = callee.includes('.') ? callee.split('.').at(-1)! : from?.name;
  const at = from && /saga/.test(from.specifier) && name !== undefined ? RUNS[name] : undefined;
  const fn = at === undefined ? undefined : given[at];
  return fn ? { fn, args: given.slice(at! + 1) } : null;
}

/** The name of a message in code; that of what makes it stands for it as well: `load`, `load.type`. */
function messageIn(value: unknown, parameters: readonly string[]): Address {
  const [piece, ...more] = addressOf(value, parameters);
  if (!piece || more.length > 0 || !('constant' in piece)) return piece ? [piece, ...more] : [];
  return [{ constant: piece.constant.replace(/\.(type|toString)$/, '') }];
}

/** The message that an object with a `type` is. */
function messageOf(value: unknown, parameters: readonly string[]): Address {
  const object = isNode(value) ? bare(value) : null;
  if (object?.type !== 'ObjectExpression') return [];
  const type = (object.properties as SyntaxNode[]).find((p) => nameOf(p.key) === 'type');
  return type ? messageIn(type.value, parameters) : [];
}

/** What a call sends; null where it sends no message. A message that a function makes is sent by that. */
export function sentBy(
  callee: string,
  given: readonly SyntaxNode[],
  parameters: readonly string[],
): Pick<Ask, 'message' | 'args'> | null {
  if (!SENDS.test(callee) || given.length === 0) return null;
  const [first, second] = given;
  const written = messageOf(first, parameters);
  if (written.length > 0) return { message: written, args: [] };
  if (!/^(Literal|TemplateLiteral|Identifier|MemberExpression)$/.test(bare(first).type)) return null;
  const message = messageIn(first, parameters);
  return message.length > 0 ? { message, args: [[], addressOf(second, parameters)] } : null;
}

/** The message that a function gives, where a node is what it gives: `(id) => ({ type: LOAD_TIDE, id })`. */
export function givenMessage(node: SyntaxNode, above: readonly SyntaxNode[]): Address {
  if (node.type !== 'ObjectExpression') return [];
  const around = above.findLast((n) => n.type !== 'ParenthesizedExpression');
  const isGiven = around?.type === 'ReturnStatement' || (around !== undefined && isFunction(around));
  return isGiven ? messageOf(node, []) : [];
}

/** Notes whom a call has listen to messages. `handed`: functions by name among what it is given, and such as are written there. */
export function noteListening(
  node: SyntaxNode,
  callee: string,
  above: readonly SyntaxNode[],
  { listens }: AskSheet,
): void {
  const name = callee.split('.').at(-1)!;
  const given = node.arguments as SyntaxNode[];
  const add = (messages: readonly SyntaxNode[], fn: string | null) => {
    if (fn === null) return;
    for (const message of messages.map((m) => messageIn(m, [])))
      if (message.length > 0) listens.push({ message, callee: fn });
  };
  const at = Object.hasOwn(LISTENS, name) ? LISTENS[name] : undefined;
  if (at !== undefined && given.length > at + 1) add(listed(given[at]), dotted(given[at + 1]));
  else if (WAITS.test(name) && given.length > 0) add(given.flatMap(listed), nameAround(above));
  else if (STARTS_LISTENING.test(name)) {
    const options = given[0]?.type === 'ObjectExpression' ? (given[0].properties as SyntaxNode[]) : [];
    const of = (key: string) => options.find((p) => nameOf(p.key) === key)?.value;
    const effect = of('effect');
    const message = of('actionCreator') ?? of('type');
    const fn = isNode(effect) && isFunction(effect) ? listenerAt(effect) : dotted(effect);
    if (isNode(message)) add([message], fn);
  }
}

/** Several messages, or one. */
function listed(value: SyntaxNode): SyntaxNode[] {
  return value.type === 'ArrayExpression' ? (value.elements as unknown[]).filter(isNode) : [value];
}

/** The innermost function with a name around a place. */
function nameAround(above: readonly SyntaxNode[]): string | null {
  for (let at = above.length - 1; at >= 0; at--) {
    const name = isFunction(above[at]) ? nameOfFunction(above[at], above.slice(0, at)) : null;
    if (name !== null) return name;
  }
  return null;
}

const OF_STORE = /^(state|mutations|getters|namespaced|plugins|strict)$/;

/** Notes an object that describes a store of Vuex, or a module of one. */
export function noteStoreModule(node: SyntaxNode, above: readonly SyntaxNode[], sheet: AskSheet): void {
  if (node.type !== 'ObjectExpression') return;
  const properties = (node.properties as SyntaxNode[]).filter((p) => p.type === 'Property');
  const keys = properties.map((p) => nameOf(p.key) ?? '');
  const has = (key: string) => keys.includes(key);
  if (
    !(has('actions') || has('modules')) ||
    !(keys.some((k) => OF_STORE.test(k)) || (has('actions') && has('modules')))
  )
    return;
  const name = nameInObject(above);
  if (name === null) return;
  const call = above.at(-1);
  const made = call?.type === 'CallExpression' || call?.type === 'NewExpression' ? dotted(call.callee) : null;
  // Stores of Pinia are described in much the same way, but are asked by their own names.
  if (made !== null && !/(^|\.)(createStore|Store)$/.test(made)) return;
  const fieldOf = (key: string) => properties.find((p) => nameOf(p.key) === key)?.value as SyntaxNode | undefined;
  const namedAs = (value: SyntaxNode | undefined, at: string) =>
    value === undefined ? null : value.type === 'ObjectExpression' ? at : dotted(value);
  const modules = fieldOf('modules');
  const inner = modules?.type === 'ObjectExpression' ? (modules.properties as SyntaxNode[]) : [];
  const store: StoreModule = {
    ...{ name, isRoot: made !== null, actions: namedAs(fieldOf('actions'), `${name}.actions`) },
    isNamespaced: fieldOf('namespaced')?.value === true,
    modules: inner.flatMap(({ key, value }) => {
      const as = nameOf(key);
      const to = isNode(value) ? namedAs(value, `${name}.modules.${as}`) : null;
      return as === null || to === null ? [] : [{ key: as, name: to }];
    }),
  };
  sheet.stores.push(store);
}

/**
 * Notes the methods that a component takes over from a store: `mapActions('tides', ['load'])`, `mapActions({ load: 'tides/load' })` (Vuex), and
 * `mapActions(useTides, ['load'])` (Pinia).
 */
export function noteMappedActions(
  callee: string,
  given: readonly SyntaxNode[],
  source: SourceText,
  { functions }: AskSheet,
): void {
  if (!/(^|\.)mapActions$/.test(callee)) return;
  const names = given.at(-1);
  const [first] = given;
  if (!names || !first) return;
  const space = given.length > 1 ? constantText(first) : null;
  const store = given.length > 1 ? dotted(first) : null;
  const { line } = source.place(names.start);
  for (const [local, action] of mapped(names)) {
    const message: Address = [{ text: space === null ? action : `${space}/${action}` }];
    const args: Address[] = store === null ? [[], [{ parameter: 0 }]] : [[{ parameter: 0 }]];
    const to = store === null ? { callee: '', message } : { callee: `${store}.${action}` };
    functions.set(`default.methods.${local}`, {
      ...{ parameters: ['given'], isTop: true, asks: [{ ...to, args, line, onAct: false }] },
    });
  }
}

/** Local names of what a component takes over of a store, with the names there. */
export function mapped(names: SyntaxNode): [local: string, there: string][] {
  if (names.type === 'ArrayExpression')
    return (names.elements as unknown[]).flatMap((e): [string, string][] => {
      const text = constantText(e);
      return text === null ? [] : [[text.split('/').at(-1)!, text]];
    });
  if (names.type !== 'ObjectExpression') return [];
  return (names.properties as SyntaxNode[]).flatMap(({ key, value }): [string, string][] => {
    const [local, there] = [nameOf(key), constantText(value)];
    return local === null || there === null ? [] : [[local, there]];
  });
}
