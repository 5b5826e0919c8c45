import { holdsUp, keptIn, MAY_HOLD } from '../parts/from-answers.ts';
import { asksEnvironment, environmentOf } from '../script/environment.ts';
import type { SourceText } from '../source-text.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { addressOf } from './address-of.ts';
import type { Address, Ask, AskingFunction, AskSheet, Place } from './ask-sheet.ts';
import { noteEndpoints } from './endpoints.ts';
import {
  CALLED_KEYS,
  calledAs,
  classAround,
  dotted,
  isLoader,
  keysPickedBy,
  nameOfFunction,
  optionsOf,
  roleOf,
} from './function-names.ts';
import { mayLead } from './leads.ts';
import { givenMessage, isSent, noteStoreModule, sentBy } from './messages.ts';
import { noteSpoken, SPEAKS } from './spoken.ts';

/** The type that is stated of what a call gives, as written. `above`: what is around it. */
type Stated = (call: SyntaxNode, above: readonly SyntaxNode[]) => string | null;

/** Reads what a module of the app says about calls for data; null where that is nothing. `told`: what builds put in place of what it asks of its environment; `stated`: of trees with types, what these say. */
export function readAsks(
  program: SyntaxNode,
  source: SourceText,
  told: Readonly<Record<string, string>> = {},
  stated: Stated = () => null,
): AskSheet | null {
  const sheet: AskSheet = {
    ...{
      hasPlaceholder: /<Suspense\b/.test(source.text),
      functions: new Map(),
      top: [],
      constants: new Map(),
      stands: new Map(),
      kept: new Map(),
      imports: new Map(),
      ...{ contexts: new Set(), listens: [], stores: [], bases: new Map() },
    },
  };
  noteImports(program, sheet);
  noteEnvironment(source, told, sheet);
  noteEndpoints(program, source, sheet);
  const { text } = source;
  const read = {
    source,
    sheet,
    stated,
    ...{ speaks: SPEAKS.test(text), sends: SENDS.test(text), holds: MAY_HOLD.test(text) },
  };
  walk(program, (node, above) => {
    noteNames(node, above, sheet);
    if (node.type === 'ObjectExpression') {
      noteStoreModule(node, above, sheet);
      const message = givenMessage(node, above);
      if (message.length > 0) noteGiven(message, node, above, source, sheet);
    }
    if (isFunction(node)) {
      const name = nameOfFunction(node, above);
      if (name !== null && !sheet.functions.has(name)) {
        sheet.functions.set(name, { parameters: parametersOf(node), isTop: !above.some(isFunction), asks: [] });
        noteWrapped(name, node, above, sheet, source);
      }
    }
    // Functions around a call have been met before it.
    if (node.type === 'CallExpression' || node.type === 'NewExpression') noteCall(node, above, read);
  });
  const asks = sheet.top.length > 0 || [...sheet.functions.values()].some((f) => f.asks.length > 0);
  if (!asks && sheet.constants.size === 0 && sheet.stores.length === 0 && sheet.bases.size === 0) return null;
  const kept = asks ? keptIn(program, source) : sheet.kept;
  return { ...withoutIdle(sheet), kept };
}

/** A sheet without the calls that lead nowhere: of most modules that is nearly all of them. */
function withoutIdle(sheet: AskSheet): AskSheet {
  const leads = (ask: Ask) => mayLead(ask, sheet);
  const functions = [...sheet.functions].map(([name, fn]) => [name, { ...fn, asks: fn.asks.filter(leads) }] as const);
  return { ...sheet, top: sheet.top.filter(leads), functions: new Map(functions) };
}

/** Methods that a class has called by what draws it, and components, by their names. */
const RUN_BY_DRAWING = /(^|\.)(componentDidMount|componentWillMount|UNSAFE_componentWillMount|constructor)$|^[A-Z]\w*$/;

/** A component that a function makes runs as what that gives is drawn: `withTide(Board)` gives one that loads. */
function noteWrapped(
  name: string,
  fn: SyntaxNode,
  above: readonly SyntaxNode[],
  sheet: AskSheet,
  source: SourceText,
): void {
  if (!RUN_BY_DRAWING.test(name) || !above.some(isFunction)) return;
  const { asks, onAct } = placeOf(above, sheet);
  if (asks !== sheet.top) asks.push({ callee: name, args: [], line: source.place(fn.start).line, onAct });
}

/** The name of a component that is given what another one is wrapped into: `export default withTide(Board)`, `const Whole = withTide(Board)`. */
function wrappedAs(node: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const given = node.arguments as SyntaxNode[];
  if (above.some(isFunction) || !given.some((g) => g.type === 'Identifier' && /^[A-Z]/.test(g.name as string)))
    return null;
  const holder = above.at(-1);
  if (holder?.type === 'ExportDefaultDeclaration') return 'default';
  const name = holder?.type === 'VariableDeclarator' ? nameOf(holder.id) : null;
  return name !== null && /^[A-Z]/.test(name) ? name : null;
}

function noteImports(program: SyntaxNode, { imports }: AskSheet): void {
  for (const statement of program.body as SyntaxNode[]) {
    if (statement.type !== 'ImportDeclaration') continue;
    const specifier = constantText(statement.source);
    for (const item of statement.specifiers as SyntaxNode[]) {
      const local = nameOf(item.local);
      const name = item.type === 'ImportDefaultSpecifier' ? 'default' : (nameOf(item.imported) ?? '*');
      if (local && specifier !== null) imports.set(local, { specifier, name });
    }
  }
}

/** What builds put in place of what a module asks of its environment, which is nothing where they are told nothing. */
function noteEnvironment({ text }: SourceText, told: Readonly<Record<string, string>>, { constants }: AskSheet): void {
  if (!asksEnvironment(text)) return;
  for (const [asked, value] of Object.entries(environmentOf(true, text, told))) {
    const name = asked.replace(/^import\.meta\./, '');
    if (/^\w+\.\w/.test(name)) constants.set(name, [{ text: /^"/.test(value) ? (JSON.parse(value) as string) : '' }]);
  }
}

/** Constants, and names that stand for others. */
function noteNames(node: SyntaxNode, above: readonly SyntaxNode[], { constants, stands, bases }: AskSheet): void {
  if (node.type === 'AssignmentExpression') {
    const [, name] = /^(\w+)\.defaults\.baseURL$/.exec(dotted(node.left) ?? '') ?? [];
    if (name !== undefined) bases.set(name, addressOf(node.right, []));
  } else if (node.type === 'VariableDeclarator' && isNode(node.init)) {
    const init = bare(node.init);
    const id = node.id as SyntaxNode;
    const name = id.type === 'Identifier' ? nameOf(id) : null;
    const isOfModule = !above.some(isFunction);
    if (name !== null && isOfModule) noteConstant(name, init, constants);
    const called = init.type === 'CallExpression' || init.type === 'NewExpression' ? dotted(init.callee) : null;
    if (called === null) return;
    const stood = /^(inject|new)$/.test(called) ? nameOf((init.arguments as SyntaxNode[])[0]) : called;
    if (stood === null) return;
    if (name !== null) {
      stands.set(name, [stood, ...pickedBy(init)].join('.'));
      noteBase(name, init, constants);
    }
    if (id.type === 'ObjectPattern')
      for (const p of id.properties as SyntaxNode[]) {
        const [key, local] = [nameOf(p.key), nameOf(p.value)];
        if (key !== null && local !== null) stands.set(local, `${stood}.${key}`);
      }
  } else if (node.type === 'ExportDefaultDeclaration') {
    const given = node.declaration;
    const name = isNode(given) ? (nameOf(given) ?? nameOf(given.id)) : null;
    if (name !== null) stands.set('default', name);
  } else noteField(node, above, stands);
}

/** The keys that are picked of what a hook holds: `useTides((s) => s.load)`. */
function pickedBy({ arguments: given }: SyntaxNode): string[] {
  const [first] = given as SyntaxNode[];
  return first && isFunction(first) ? keysPickedBy(first) : [];
}

/** Fields of classes that hold an instance: `tides = inject(TideService)`, `constructor(private tides: TideService)`. */
function noteField(node: SyntaxNode, above: readonly SyntaxNode[], stands: Map<string, string>): void {
  if (node.type !== 'PropertyDefinition' && node.type !== 'TSParameterProperty') return;
  const owner = classAround(above);
  if (owner === null) return;
  if (node.type === 'PropertyDefinition' && isNode(node.value)) {
    const value = bare(node.value);
    const called = value.type === 'CallExpression' || value.type === 'NewExpression' ? dotted(value.callee) : null;
    const name = nameOf(node.key);
    const of = called === 'inject' ? nameOf((value.arguments as SyntaxNode[])[0]) : called;
    if (name !== null && of !== null) stands.set(`${owner}.${name}`, of);
  } else if (node.type === 'TSParameterProperty' && isNode(node.parameter)) {
    const name = nameOf(node.parameter);
    const type = (node.parameter.typeAnnotation as SyntaxNode | null)?.typeAnnotation as SyntaxNode | undefined;
    const of = type?.type === 'TSTypeReference' ? nameOf(type.typeName) : null;
    if (name !== null && of !== null) stands.set(`${owner}.${name}`, of);
  }
}

function noteConstant(name: string, init: SyntaxNode, constants: Map<string, Address>): void {
  if (init.type === 'ObjectExpression') {
    for (const p of init.properties as SyntaxNode[]) {
      const key = nameOf(p.key);
      if (key !== null && isNode(p.value)) noteConstant(`${name}.${key}`, bare(p.value), constants);
    }
    return;
  }
  const address = addressOf(init, []);
  if (address.some(saysSomething)) constants.set(name, address);
}

/** Whether a piece leads to a text: it is one, or stands for what builds are told, or there is another one in its place. */
function saysSomething(piece: Address[number]): boolean {
  if ('constant' in piece) return piece.or !== undefined || /^(process\.)?env\./.test(piece.constant);
  return 'text' in piece;
}

/** What an instance of a client puts before each address: `create({ baseURL: '/api' })`. */
function noteBase(name: string, { arguments: given }: SyntaxNode, constants: Map<string, Address>): void {
  for (const argument of given as SyntaxNode[]) {
    if (argument.type !== 'ObjectExpression') continue;
    for (const p of argument.properties as SyntaxNode[])
      if (/^(baseU(RL|rl)|prefixUrl|prefix|base)$/.test(nameOf(p.key) ?? '') && isNode(p.value))
        constants.set(`${name}.`, addressOf(bare(p.value), []));
  }
}

const SENDS = /\b(?:dispatch|put\w*|props)\b/;

/** A module while its calls are noted. */
interface Noting {
  source: SourceText;
  sheet: AskSheet;
  stated: Stated;
  /** Whether its text may have something that is looked for by `SPEAKS`, `SENDS` and `MAY_HOLD`. */
  speaks: boolean;
  sends: boolean;
  holds: boolean;
}

function noteCall(node: SyntaxNode, above: readonly SyntaxNode[], noting: Noting): void {
  const { source, sheet, stated, speaks, sends, holds } = noting;
  const callee = calledAs(node.callee, above);
  // What makes a loader for the router doesn't load yet.
  if (callee === null || isLoader(above)) return;
  const wrapped = wrappedAs(node, above);
  const place = wrapped === null ? placeOf(above, sheet) : placeIn(wrapped, sheet);
  const { line } = source.place(node.start);
  const given = node.arguments as SyntaxNode[];
  const sent = sends ? sentBy(callee, given, place.parameters) : null;
  if (sent) place.asks.push({ callee: '', ...sent, line, onAct: place.onAct });
  if (speaks && noteSpoken(node, callee, above, place, noting)) return;
  const args = given.map((a) => addressOf(a, place.parameters));
  const isMade = node.type === 'NewExpression';
  const handed = given.flatMap(handedIn).flatMap((h) => calledAs(h, above) ?? []);
  const kept = madeUnder(node, above);
  if (kept !== null) handed.push(...given.flatMap((g) => writtenIn(g, kept)));
  const isHeld =
    holds && [...above, node].some((n, i, all) => n.type === 'CallExpression' && holdsUp(n, all[i - 1], source));
  const held = isHeld ? { held: true as const } : {};
  const type = stated(node, above);
  const answers = type === null ? {} : { answers: type };
  const made = kept === null ? {} : { made: true as const };
  if (kept !== null) noteMade(kept, handed, line, sheet);
  const sending = sends && isSent(callee, above) ? { sent: true as const } : {};
  const ask = {
    callee: isMade ? `new ${callee}` : callee,
    args,
    line,
    onAct: place.onAct,
    ...held,
    ...answers,
    ...sending,
  };
  place.asks.push(handed.length > 0 ? { ...ask, hands: true } : ask);
  // A function that is handed on is called by whoever takes it: an effect, a query, a life-cycle hook.
  for (const name of handed)
    place.asks.push({ callee: name, args: args.slice(0, 1), line, onAct: place.onAct, ...held, ...answers, ...made });
}

/** What a function gives as a message is sent by whoever calls it. */
function noteGiven(
  message: Address,
  node: SyntaxNode,
  above: readonly SyntaxNode[],
  source: SourceText,
  sheet: AskSheet,
): void {
  const { asks, onAct } = placeOf(above, sheet);
  if (asks !== sheet.top) asks.push({ callee: '', message, args: [], line: source.place(node.start).line, onAct });
}

/** The name at the top of the module under which what a call gives is kept; null where it is kept nowhere. */
function madeUnder(node: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const holder = above.at(-1);
  if (holder?.type !== 'VariableDeclarator' || holder.init !== node || above.some(isFunction)) return null;
  return (holder.id as SyntaxNode).type === 'Identifier' ? nameOf(holder.id) : null;
}

/**
 * What is made of functions and kept at the top of a module runs them once it is called or handed on:
 * `const load = createAsyncThunk('tides', fetchTides)`, `const tides = queryOptions({ queryFn: fetchTides })`.
 */
function noteMade(name: string, handed: readonly string[], line: number, { functions }: AskSheet): void {
  if (handed.length === 0 || functions.has(name)) return;
  const args = [0, 1, 2].map((parameter): Address => [{ parameter }]);
  const asks = handed.map((callee): Ask => ({ callee, args, line, onAct: false }));
  functions.set(name, { parameters: [], isTop: true, asks });
}

/** The functions that are written in an object of options, by the names under which they are kept. */
function writtenIn(options: SyntaxNode, kept: string): string[] {
  const properties = options.type === 'ObjectExpression' ? (options.properties as SyntaxNode[]) : [];
  return properties.flatMap(({ key, value }) => {
    const name = nameOf(key) ?? '';
    return CALLED_KEYS.test(name) && isNode(value) && isFunction(value) ? [`${kept}.${name}`] : [];
  });
}

/** Functions by name among what a call is given, also in an object of options, or in one that a function gives. */
function handedIn(argument: SyntaxNode): SyntaxNode[] {
  if (argument.type === 'Identifier' || argument.type === 'MemberExpression') return [argument];
  if (isFunction(argument)) return optionsOf(argument).flatMap(handedIn);
  if (argument.type !== 'ObjectExpression') return [];
  return (argument.properties as SyntaxNode[]).flatMap(({ key, value }) =>
    /^(queryFn|fetcher|loader|fn|request|load)$/.test(nameOf(key) ?? '') && isNode(value) && !isFunction(value)
      ? [value]
      : [],
  );
}

/** Where a call is made; in a function that is only defined there, without a name, it is made nowhere that is known. */
function placeOf(above: readonly SyntaxNode[], sheet: AskSheet): Place {
  let onAct = false;
  for (let at = above.length - 1; at >= 0; at--) {
    const made = fieldIn(above, at, sheet);
    if (made) return { asks: made.asks, parameters: made.parameters, onAct };
    if (!isFunction(above[at])) continue;
    const around = above.slice(0, at);
    const name = nameOfFunction(above[at], around);
    const own = name === null ? undefined : sheet.functions.get(name);
    if (own) return { asks: own.asks, parameters: own.parameters, onAct };
    const role = roleOf(above[at], around);
    if (role === 'defined') return { asks: [], parameters: [], onAct };
    if (role === 'handler') onAct = true;
  }
  return { asks: sheet.top, parameters: [], onAct };
}

/** What a component does as it is drawn that is made by calling something. */
function placeIn(name: string, { functions }: AskSheet): Place {
  const known = functions.get(name) ?? { parameters: [], isTop: true, asks: [] };
  functions.set(name, known);
  return { asks: known.asks, parameters: [], onAct: false };
}

/** The constructor of the class of whose instances something is a field: what its value calls is called with it. */
function fieldIn(above: readonly SyntaxNode[], at: number, { functions }: AskSheet): AskingFunction | null {
  const { type, static: isStatic } = above[at];
  if (type !== 'PropertyDefinition' || isStatic === true || isFunction(above[at + 1] ?? above[at])) return null;
  const around = above.slice(0, at);
  const name = `${classAround(around) ?? 'default'}.constructor`;
  const known = functions.get(name) ?? { parameters: [], isTop: !around.some(isFunction), asks: [] };
  functions.set(name, known);
  return known;
}

function parametersOf(fn: SyntaxNode): string[] {
  return (fn.params as SyntaxNode[]).map((p) => {
    const inner = p.type === 'TSParameterProperty' ? (p.parameter as SyntaxNode) : p;
    return nameOf(inner.type === 'AssignmentPattern' ? inner.left : inner) ?? '';
  });
}
