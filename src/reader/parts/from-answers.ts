import { importedBindings } from '../script/imported-bindings.ts';
import type { SourceText } from '../source-text.ts';
import { bare, isFunction, isNode, nameOf, namesIn, type SyntaxNode, walk } from '../syntax.ts';
import { methodsSending, ofStore, STORE, selectedBy, storeOf } from './store-flows.ts';

/**
 * What something in a module comes from: calls, by the lines on which they stand (which of them ask a server is known only once they are followed),
 * and names that the module itself doesn't explain, such as what a component is given.
 */
export interface Origin {
  lines: number[];
  names: string[];
  /** It is taken of the one store of the app, which other modules fill as well. */
  selected?: true;
  /** What other modules keep under names that are taken of them. */
  imported?: { specifier: string; name: string }[];
}

/** Names that are imported, with where they come from. */
export type ImportedNames = ReadonlyMap<string, { specifier: string; name: string }>;

/** What is given by calls, and what follows from that, in all texts of one module. */
export interface AnswerFlows {
  /** What an expression comes from. `line` tells lines of the text that it stands in. */
  of(node: SyntaxNode, line: LineOf): Origin;
  /** The calls that a function, or a text as it runs, can't go on without: it gives nothing to draw before their answers are there. */
  heldBy(holder: SyntaxNode): Origin;
}

export type LineOf = (node: SyntaxNode) => number;
export const lineIn =
  (source: SourceText): LineOf =>
  ({ start }) =>
    source.place(start).line;

/** Calls whose caller is only drawn once their answer is there, by the names that component systems give them. */
const HOLDS = /^(use|useSuspense\w*|useAsyncValue|createAsync)$/;

/** What a text has in which some call may do that. */
export const MAY_HOLD = /\buse\s*[<(]|\buseSuspense|\buseAsyncValue\b|\bcreateAsync\b|\bcreateResource\b/;

/**
 * Whether a call holds up the component around it. A resource of Solid does where its value is read without asking first whether it is there
 * (documented by it). `around`: what the call stands in.
 */
export function holdsUp({ callee }: SyntaxNode, around: SyntaxNode | undefined, { text }: SourceText): boolean {
  const called = nameOf(callee) ?? '';
  if (HOLDS.test(called)) return true;
  if (called !== 'createResource' || around?.type !== 'VariableDeclarator') return false;
  const [value] = namesIn(around.id);
  return value !== undefined && !['loading', 'state', 'latest'].some((asked) => text.includes(`${value}.${asked}`));
}

/** Calls that give what they are called on once it is there, and such as go through a list. */
const HANDS_ON = /^(then|finally|catch|subscribe|pipe|map|flatMap|filter|forEach|find|reduce|sort)$/;

interface Flow {
  lines: Set<number>;
  names: Set<string>;
}
const none = (): Flow => ({ lines: new Set(), names: new Set() });
const FROM_STORE: Flow = { lines: new Set(), names: new Set([STORE]) };

/** Finds what the names of a module come from. `states`: what a function sets, by its name; `known`: names that stand for the same whoever draws the module, such as imports. */
export function answerFlows(
  trees: readonly { root: SyntaxNode; source: SourceText }[],
  states: ReadonlyMap<string, string>,
  known: ReadonlySet<string>,
  importedNames: ImportedNames = new Map(),
): AnswerFlows {
  const flows = new Map<string, Flow>();
  const held = new Map<SyntaxNode, Flow>();
  for (const { root, source } of trees) {
    const text: TextFlows = {
      ...{ states, line: lineIn(source), imports: importsOf(root), awaited: new Map() },
      ...{ setters: new Map(), stores: new Map() },
    };
    const { line, awaited } = text;
    // They may stand behind their use.
    for (const name of methodsSending(root, source.text)) text.stores.set(`this.${name}`, STORE);
    walk(root, (node, above) => {
      for (const [names, from] of given(node, above, text)) for (const name of names) takeIn(flows, name, from);
      const holder = node.type === 'VariableDeclarator' && isNode(node.init) ? heldAt(node, above, source) : null;
      if (holder) takeIn(held, holder, mentioned(node.init as SyntaxNode, line));
      const waiting = node.type === 'AwaitExpression' ? above.findLast(isFunction) : undefined;
      if (waiting && isNode(node.argument)) takeIn(awaited, waiting, mentioned(node.argument, line));
    });
  }
  const settled = (direct: Flow): Origin => {
    const found = { lines: new Set(direct.lines), names: new Set<string>() };
    const imported: NonNullable<Origin['imported']> = [];
    const met = new Set(direct.names);
    for (const name of met) {
      const flow = flows.get(name);
      if (!flow) {
        const from = importedNames.get(name);
        if (from) imported.push(from);
        else if (!known.has(name) && !name.startsWith('@')) found.names.add(name);
        continue;
      }
      for (const l of flow.lines) found.lines.add(l);
      for (const n of flow.names) met.add(n);
    }
    return {
      ...{ lines: [...found.lines], names: [...found.names] },
      ...(met.has(STORE) ? { selected: true as const } : {}),
      ...(imported.length > 0 ? { imported } : {}),
    };
  };
  return {
    of: (node, line) => settled(mentioned(node, line)),
    heldBy: (holder) => settled(held.get(holder) ?? none()),
  };
}

/** What is known of a text while it is gone through. */
interface TextFlows {
  /** What a function sets, by its name. */
  states: ReadonlyMap<string, string>;
  line: LineOf;
  /** Names that are imported, the same for all; null in a text that declares none itself. */
  imports: ReadonlySet<string> | null;
  /** What each function has waited for so far. */
  awaited: Map<SyntaxNode, Flow>;
  /** What functions set that set several names at once: `const [{ rows, loading }, dispatch] = useReducer(…)`. */
  setters: Map<string, string[]>;
  /** Functions that hooks gave, with what stands for all that the same hook gives. */
  stores: Map<string, string>;
}

function addTo(flow: Flow, { lines, names }: Flow): void {
  for (const l of lines) flow.lines.add(l);
  for (const n of names) flow.names.add(n);
}

function takeIn<K>(all: Map<K, Flow>, key: K, from: Flow): void {
  const flow = all.get(key) ?? none();
  addTo(flow, from);
  all.set(key, flow);
}

function importsOf(root: SyntaxNode): ReadonlySet<string> | null {
  return root.type === 'Program' ? new Set(importedBindings(root).keys()) : null;
}

/** Calls and names that an expression mentions. */
function mentioned(node: SyntaxNode, line: LineOf): Flow {
  const flow = none();
  const step = (at: SyntaxNode, parent: SyntaxNode | null) => {
    if (at.type === 'CallExpression' || at.type === 'NewExpression') flow.lines.add(line(at));
    if (at.type === 'Identifier' && !isKeyOf(at, parent) && !isGivenMore(at, parent))
      flow.names.add(plain(at.name as string));
    // `this.rows` is a name as well, and `this.state.rows`.
    if (at.type === 'MemberExpression' && (isThis(at.object) || isStateOfClass(at.object)))
      flow.names.add(nameOf(at.property) ?? '');
    if (at.type === 'Identifier' && at.name === '$store') flow.names.add(STORE);
    for (const field in at) {
      const value = at[field];
      if (Array.isArray(value)) {
        for (const item of value) if (isNode(item)) step(item, at);
      } else if (isNode(value)) step(value, at);
    }
  };
  step(node, null);
  flow.names.delete('');
  return flow;
}

const isThis = (node: unknown) => isNode(node) && node.type === 'ThisExpression';
const isStateOfClass = (node: unknown) =>
  isNode(node) && node.type === 'MemberExpression' && isThis(node.object) && nameOf(node.property) === 'state';

/** A name without the mark by which some component systems read a store. */
export const plain = (name: string) => name.replace(/^\$(?=\w)/, '');

/** A function that is given something is no value itself; what is called with nothing may be a signal. */
function isGivenMore(node: SyntaxNode, parent: SyntaxNode | null): boolean {
  return parent?.type === 'CallExpression' && parent.callee === node && (parent.arguments as unknown[]).length > 0;
}

/** The name of a field or key stands for nothing by itself. */
function isKeyOf(node: SyntaxNode, parent: SyntaxNode | null): boolean {
  if (!parent || parent.computed === true) return false;
  return (
    (parent.type === 'MemberExpression' && parent.property === node) ||
    (parent.type === 'Property' && parent.key === node && parent.value !== node)
  );
}

/** Names that a node gives something, and what that comes from. */
function given(node: SyntaxNode, above: readonly SyntaxNode[], text: TextFlows): [names: string[], from: Flow][] {
  const { line } = text;
  switch (node.type) {
    case 'FunctionDeclaration': {
      const names = selectedBy(node.id, node);
      return names ? [[names, FROM_STORE]] : [];
    }
    case 'VariableDeclarator': {
      noteSetter(node.id, text.setters);
      const names = selectedBy(node.id, node.init);
      if (names) return [[names, FROM_STORE]];
      return isNode(node.init) && !isFunction(node.init) ? [[namesIn(node.id), ofInit(node, node.init, text)]] : [];
    }
    case 'PropertyDefinition':
      return isNode(node.value) && !isFunction(node.value)
        ? [[[nameOf(node.key) ?? ''], mentioned(node.value, line)]]
        : [];
    case 'AssignmentExpression': {
      const name = assignedName(node.left as SyntaxNode);
      return name === null ? [] : [[[name], before([node.right], above, text)]];
    }
    case 'Property':
      return isComputed(above) && isNode(node.value) ? [[[nameOf(node.key) ?? ''], mentioned(node.value, line)]] : [];
    case 'ForOfStatement':
      return [[namesIn(declaredIn(node.left)), mentioned(node.right as SyntaxNode, line)]];
    case 'CallExpression':
      return givenByCall(node, above, text);
    default:
      return [];
  }
}

/** Whether a property is one of those that a component works out from others (public form of Vue’s options). */
function isComputed(above: readonly SyntaxNode[]): boolean {
  const [holder, object] = above.slice(-2);
  return holder?.type === 'Property' && object?.type === 'ObjectExpression' && nameOf(holder.key) === 'computed';
}

/** What a variable comes from; of what a hook gives that is what its functions load as well. */
function ofInit({ id }: SyntaxNode, init: SyntaxNode, { line, stores }: TextFlows): Flow {
  const flow = mentioned(init, line);
  const store = init.type === 'CallExpression' ? storeOf(nameOf(init.callee) ?? '') : null;
  if (store === null || (isNode(id) && id.type === 'ArrayPattern')) return flow;
  for (const name of namesIn(id)) stores.set(name, store);
  flow.names.add(store);
  return flow;
}

function givenByCall(node: SyntaxNode, above: readonly SyntaxNode[], text: TextFlows): [names: string[], from: Flow][] {
  const { states, line, imports } = text;
  const callee = node.callee as SyntaxNode;
  const args = node.arguments as SyntaxNode[];
  const taken = ofStore(node);
  if (taken === 'sent') return [[[STORE], { lines: mentioned(node, line).lines, names: new Set() }]];
  if (taken) return [[taken, FROM_STORE]];
  const state = states.get(nameOf(callee) ?? '');
  if (state !== undefined) return [[[state], before(args, above, text)]];
  const several = text.setters.get(nameOf(callee) ?? '');
  if (several !== undefined) return [[several, before(args, above, text)]];
  if (ofThis(callee) === 'this.setState') return setInClass(args[0], above, text);
  const store = text.stores.get(ofThis(callee) ?? nameOf(callee) ?? '');
  if (store !== undefined) return [[[store], { lines: mentioned(node, line).lines, names: new Set() }]];
  if (callee.type !== 'MemberExpression') return [];
  const method = nameOf(callee.property) ?? '';
  const object = callee.object as SyntaxNode;
  // A signal or store is set by a function of its own, and an object that a hook gave may hold what its functions load.
  if (/^(set|update|next)$/.test(method)) {
    const name = assignedName(object) ?? nameOf(object);
    return name === null ? [] : [[[name], before(args, above, text)]];
  }
  if (!HANDS_ON.test(method)) {
    const calls = { lines: new Set([line(node)]), names: new Set<string>() };
    // What is imported is the same for all.
    const own = object.type === 'Identifier' && imports?.has(object.name as string) === false;
    return own ? [[[object.name as string], calls]] : [];
  }
  const from = mentioned(object, line);
  return args.flatMap((argument): [string[], Flow][] => {
    if (isFunction(argument)) return [[(argument.params as unknown[]).flatMap(namesIn), from]];
    const handed = states.get(nameOf(argument) ?? '');
    return handed === undefined ? [] : [[[handed], from]];
  });
}

/** Notes what sets the names of a pattern: `const [{ rows, loading }, dispatch]`. */
function noteSetter(id: unknown, setters: Map<string, string[]>): void {
  if (!isNode(id) || id.type !== 'ArrayPattern') return;
  const [state, setter] = id.elements as unknown[];
  const name = nameOf(setter);
  if (name !== null && isNode(state) && state.type === 'ObjectPattern') setters.set(name, namesIn(state));
}

/** The fields of a component's state that are set, by themselves or as what a function gives (public form of React’s classes). */
function setInClass(
  to: SyntaxNode | undefined,
  above: readonly SyntaxNode[],
  text: TextFlows,
): [names: string[], from: Flow][] {
  const object = to && isFunction(to) ? bare(to.body as SyntaxNode) : to;
  const properties = object?.type === 'ObjectExpression' ? (object.properties as SyntaxNode[]) : [];
  return properties.flatMap(({ key, value }): [string[], Flow][] => {
    const name = nameOf(key);
    return name === null ? [] : [[[name], before([value], above, text)]];
  });
}

/** The name of what is called of the component itself: `this.load`. */
function ofThis(callee: SyntaxNode): string | null {
  const isThis = callee.type === 'MemberExpression' && (callee.object as SyntaxNode).type === 'ThisExpression';
  return isThis ? `this.${nameOf(callee.property)}` : null;
}

/** What something is set to comes from, and what the function around it waited for before. */
function before(values: readonly unknown[], above: readonly SyntaxNode[], { line, awaited }: TextFlows): Flow {
  const flow = none();
  for (const value of values) if (isNode(value) && !isFunction(value)) addTo(flow, mentioned(value, line));
  for (let at = above.length - 1; at >= 0; at--) {
    if (!isFunction(above[at])) continue;
    addTo(flow, awaited.get(above[at]) ?? none());
    const call = above[at - 1];
    const callee = call?.type === 'CallExpression' ? (call.callee as SyntaxNode) : null;
    if (callee?.type !== 'MemberExpression' || !/^(then|finally|subscribe)$/.test(nameOf(callee.property) ?? '')) break;
    addTo(flow, mentioned(callee.object as SyntaxNode, line));
  }
  return flow;
}

function assignedName(left: SyntaxNode): string | null {
  if (left.type === 'Identifier') return plain(left.name as string);
  if (left.type !== 'MemberExpression' || !isNode(left.object)) return null;
  if (left.object.type === 'ThisExpression') return nameOf(left.property);
  return nameOf(left.property) === 'value' ? assignedName(left.object) : null;
}

const declaredIn = (left: unknown): unknown =>
  isNode(left) && left.type === 'VariableDeclaration' ? (left.declarations as SyntaxNode[])[0]?.id : left;

/** What a variable's call holds up until its answer is there: the component around it, or the whole text, which runs as a component's setup may. */
function heldAt(declarator: SyntaxNode, above: readonly SyntaxNode[], source: SourceText): SyntaxNode | null {
  const init = declarator.init as SyntaxNode;
  const around = above.findLast(isFunction) ?? null;
  if (init.type === 'AwaitExpression') return around === null ? above[0] : null;
  return init.type === 'CallExpression' && holdsUp(init, declarator, source) ? around : null;
}

/** What is kept under names at the top of a module, by the lines of the calls that it comes from. */
export function keptIn(program: SyntaxNode, source: SourceText): Map<string, number[]> {
  const names: string[] = [];
  const states = new Map<string, string>();
  for (const statement of program.body as SyntaxNode[]) {
    const declared = statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement;
    if (!isNode(declared) || declared.type !== 'VariableDeclaration') continue;
    for (const { id } of declared.declarations as SyntaxNode[]) {
      const [value, setter] = namesIn(id);
      names.push(...namesIn(id));
      // `const [rows, setRows] = createSignal()`.
      if (isNode(id) && id.type === 'ArrayPattern' && value && setter) states.set(setter, value);
    }
  }
  if (names.length === 0) return new Map();
  const flows = answerFlows([{ root: program, source }], states, new Set());
  const nowhere = { start: 0, end: 0 };
  const kept = names.map((name): [string, number[]] => {
    const { lines } = flows.of({ type: 'Identifier', name, ...nowhere }, () => 0);
    return [name, lines];
  });
  return new Map(kept.filter(([, lines]) => lines.length > 0));
}
