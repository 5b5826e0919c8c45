import type { PartCondition } from '../../core/snapshot/route-types.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { calledIn, literal } from './literals.ts';
import { mediaIn } from './media.ts';
import { dataFieldsOf, fieldState, madeState, type State, writtenState } from './states.ts';

/** What a name in a module stands for, as far as conditions are concerned. */
export interface Values {
  states: Map<string, State>;
  /** Names that hold a media query's answer. */
  media: Map<string, PartCondition>;
  /** Names that a function of another module gave, by that module's specifier. */
  given: Map<string, string>;
  /** Names that hold what a call for data gave. */
  answers: Map<string, string>;
  /** Names that say whether something is in sight. */
  sights: Set<string>;
  /** Names that follow from others: `isMap = tab === 'map'`. */
  derived: Map<string, SyntaxNode>;
  /** Names of tables of components: `{ map: ShelfMap, list: ShelfList }`; in a list the keys are its places. */
  tables: Map<string, Map<string, string>>;
  /** What else the objects of such a table say, by table and key: `{ key: 'map', label: 'The map', Panel: ShelfMap }`. */
  tableTexts: Map<string, Map<string, Map<string, string>>>;
  /** Names that are looked up in such a table: the table's name and what is looked up. */
  lookups: Map<string, Lookup>;
}

export interface Lookup {
  table: string;
  by: SyntaxNode;
}

/** A parsed text that says something about a component: its script, or its template where that is written apart. */
export interface Tree {
  root: SyntaxNode;
  text: string;
}

/** Reads what the variables and fields of a module stand for. */
export function readValues(trees: readonly Tree[], bindings: ReadonlyMap<string, string>): Values {
  const values: Values = {
    states: new Map(),
    media: new Map(),
    given: new Map(),
    answers: new Map(),
    sights: new Set(),
    derived: new Map(),
    tables: new Map(),
    tableTexts: new Map(),
    lookups: new Map(),
  };
  const undeclared = new Set<string>();
  for (const { root, text } of trees)
    walk(root, (node, above) => {
      if (node.type === 'VariableDeclarator') noteVariable(node, above.at(-1)!, text, bindings, values);
      else if (node.type === 'PropertyDefinition') noteField(node, text, bindings, values);
      else if (node.type === 'AssignmentExpression') noteAssigned(node, above, values, undeclared);
      else if (node.type === 'MethodDefinition' || node.type === 'FunctionDeclaration') noteGetter(node, text, values);
      else if (node.type === 'Property') {
        noteGetter(node, text, values);
        for (const [name, value] of dataFieldsOf(node)) {
          noteNamed(name, value, text, bindings, values);
          noteWritten(name, literal(value), values);
        }
      }
    });
  // Fields that are only given a value somewhere begin without one.
  for (const name of undeclared) noteWritten(name, undefined, values);
  return values;
}

/** What a variable stands for, by the pattern that it is written in. */
function noteVariable(
  node: SyntaxNode,
  statement: SyntaxNode,
  text: string,
  bindings: ReadonlyMap<string, string>,
  values: Values,
): void {
  const id = node.id as SyntaxNode;
  const changes = statement.kind === 'let';
  const init = isNode(node.init) ? (node.init.type === 'AwaitExpression' ? node.init : bare(node.init)) : null;
  if (!init) {
    if (changes && id.type === 'Identifier') noteWritten(id.name as string, undefined, values);
    return;
  }
  const call = calledIn(init);
  if (id.type === 'ArrayPattern') noteState(id, call, values);
  else if (id.type === 'Identifier') {
    noteNamed(id.name as string, init, text, bindings, values);
    if (changes) noteWritten(id.name as string, literal(init), values);
  } else if (id.type === 'ObjectPattern' && call) noteFields(id, call, bindings, values);
}

/** A function that only gives one expression stands for that: a computed property, a getter, a small helper. */
function noteGetter(node: SyntaxNode, text: string, { media, derived }: Values): void {
  const fn = node.type === 'FunctionDeclaration' ? node : node.value;
  const name = nameOf(node.type === 'FunctionDeclaration' ? node.id : node.key);
  const given = isNode(fn) && isFunction(fn) ? onlyGiven(fn) : null;
  if (name === null || !given || !/^(Binary|Logical|Unary|Member|Call|Chain)Expression$/.test(given.type)) return;
  const condition = mediaIn(text.slice(given.start, given.end));
  if (condition) media.set(name, condition);
  else if (given.type !== 'CallExpression') derived.set(name, given);
}

/** The expression that a function gives, where it does nothing else. */
function onlyGiven(fn: SyntaxNode): SyntaxNode | null {
  const body = fn.body as SyntaxNode;
  if (body.type !== 'BlockStatement') return body;
  const [only, ...more] = body.body as SyntaxNode[];
  const given = more.length === 0 && only?.type === 'ReturnStatement' ? only.argument : null;
  return isNode(given) ? given : null;
}

function noteWritten(name: string, initial: unknown, { states }: Values): void {
  if (!states.has(name)) states.set(name, writtenState(name, initial));
}

/** A field of a class: what it begins as, or what a variable would stand for. */
function noteField(node: SyntaxNode, text: string, bindings: ReadonlyMap<string, string>, values: Values): void {
  const name = nameOf(node.key);
  if (name === null || node.static === true) return;
  if (isNode(node.value)) noteNamed(name, node.value, text, bindings, values);
  const state = fieldState(name, node.value);
  if (state && !values.states.has(name)) values.states.set(name, state);
}

/** What a constructor gives a field, and answers that are kept under a name: `this.tide = await loadTide()`. */
function noteAssigned(node: SyntaxNode, above: readonly SyntaxNode[], values: Values, undeclared: Set<string>): void {
  const left = node.left as SyntaxNode;
  const name = left.type === 'Identifier' ? (left.name as string) : fieldOf(left);
  if (name === null || !isNode(node.right)) return;
  const call = calledIn(node.right);
  if (call && isForData(call)) values.answers.set(name, name);
  if (left.type === 'MemberExpression' && (left.object as SyntaxNode).type === 'ThisExpression') undeclared.add(name);
  const builds = above.some((n) => n.type === 'MethodDefinition' && n.kind === 'constructor');
  const known = values.states.get(name);
  if (builds && (!known || known.initial === undefined))
    values.states.set(name, writtenState(name, literal(node.right)));
}

/** `open` of `this.open`, and of `open.value`. */
function fieldOf(node: SyntaxNode): string | null {
  if (node.type !== 'MemberExpression' || !isNode(node.object)) return null;
  if (node.object.type === 'ThisExpression') return nameOf(node.property);
  return nameOf(node.property) === 'value' ? nameOf(node.object) : null;
}

/** `[open, setOpen] = useState(false)`: a state, who sets it, and how it begins. */
function noteState(id: SyntaxNode, call: SyntaxNode | null, { states, sights }: Values): void {
  const [value, setter] = (id.elements as unknown[]).map(nameOf);
  if (call && isForSight(call)) {
    for (const name of [value, setter]) if (name && SIGHT.test(name)) sights.add(name);
    return;
  }
  if (value && setter && call) states.set(value, { setter, initial: initialOf(call) });
}

/** A plain name: a media query, a state, something that another function gives, a table of components, a lookup, or an answer. */
function noteNamed(
  name: string,
  init: SyntaxNode,
  text: string,
  bindings: ReadonlyMap<string, string>,
  { media, given, answers, tables, tableTexts, lookups, states, derived, sights }: Values,
): void {
  const call = calledIn(init);
  const condition = mediaIn(text.slice(init.start, init.end));
  const from = call && bindings.get(nameOf(call.callee) ?? '');
  const state = call && madeState(name, call);
  const table = tableOf(init, bindings);
  const lookup = lookupOf(init);
  if (condition && !isFunction(init)) media.set(name, condition);
  else if (state) states.set(name, state);
  else if (call && isForSight(call)) sights.add(name);
  else if (table.size > 0) {
    tables.set(name, table);
    tableTexts.set(name, textsOf(init));
  } else if (lookup) lookups.set(name, lookup);
  else if (from) given.set(name, from);
  const follows = followsFrom(init);
  if (follows) derived.set(name, follows);
  if (call && isForData(call)) answers.set(name, name);
}

/** `{ data, error } = useQuery(…)`: each of them is an answer; `{ ref, inView } = useInView()` says what is in sight. */
function noteFields(
  id: SyntaxNode,
  call: SyntaxNode,
  bindings: ReadonlyMap<string, string>,
  { answers, sights, given }: Values,
): void {
  const names = (id.properties as SyntaxNode[]).flatMap((p) => {
    const value = p.value as SyntaxNode | undefined;
    return nameOf(value?.type === 'AssignmentPattern' ? value.left : value) ?? [];
  });
  const from = bindings.get(nameOf(call.callee) ?? '');
  if (from !== undefined) for (const name of names) given.set(name, from);
  if (isForSight(call)) for (const name of names.filter((n) => SIGHT.test(n))) sights.add(name);
  if (isForData(call)) for (const name of names) answers.set(name, name);
  // What the framework loaded for a page comes as a property of that name.
  if (nameOf(call.callee) === '$props') for (const name of names.filter((n) => n === 'data')) answers.set(name, name);
}

/** `fetch(…)`, `loadLoan(…)`, `useAnswer(…)`, `api.get(…)`: calls that ask a server, by the habits of naming. */
function isForData(call: SyntaxNode): boolean {
  const callee = call.callee as SyntaxNode;
  const name = callee.type === 'MemberExpression' ? nameOf(callee.property) : nameOf(callee);
  return /^(fetch|load|get|query|request)([A-Z]|$)|^use(Query|Answer|Data|Fetch|Load|Loader|Request|AsyncData|LazyFetch|LazyAsyncData)/.test(
    name ?? '',
  );
}

/** Names of what says that something is in sight. */
const SIGHT = /view|visible|sight|seen/i;

function isForSight(call: SyntaxNode): boolean {
  return /InView|Intersect|OnScreen|ElementVisib|InSight/.test(nameOf(call.callee) ?? '');
}

/** What a state begins as: `useState(0)` with its argument, a reducer with its second one. */
function initialOf(call: SyntaxNode): unknown {
  const args = call.arguments as SyntaxNode[];
  const reduces = /reduce/i.test(nameOf(call.callee) ?? '');
  const first = reduces ? args[1] : args[0];
  return first === undefined ? undefined : literal(first);
}

/** A table of components: by key, or a list of objects of which a field holds one. */
function tableOf(init: SyntaxNode, bindings: ReadonlyMap<string, string>): Map<string, string> {
  const table = new Map<string, string>();
  if (init.type === 'ObjectExpression')
    for (const p of init.properties as SyntaxNode[]) {
      const [key, component] = [nameOf(p.key), componentIn(p.value, bindings)];
      if (key && component) table.set(key, component);
    }
  if (init.type === 'ArrayExpression')
    (init.elements as unknown[]).forEach((item, at) => {
      const component = isNode(item) && item.type === 'ObjectExpression' ? componentIn(item, bindings) : null;
      if (component) table.set(keyIn(item as SyntaxNode) ?? String(at), component);
    });
  return table;
}

function componentIn(value: unknown, bindings: ReadonlyMap<string, string>): string | null {
  if (!isNode(value)) return null;
  if (value.type !== 'ObjectExpression') {
    const name = nameOf(value);
    return name !== null && constantText(value) === null && /^[A-Z]/.test(name) && bindings.has(name) ? name : null;
  }
  for (const p of value.properties as SyntaxNode[]) {
    const component = componentIn(p.value, bindings);
    if (component) return component;
  }
  return null;
}

/** The constant fields of the objects in a table, by their keys. */
function textsOf(init: SyntaxNode): Map<string, Map<string, string>> {
  const texts = new Map<string, Map<string, string>>();
  const note = (key: string, item: unknown) => {
    if (!isNode(item) || item.type !== 'ObjectExpression') return;
    const fields = (item.properties as SyntaxNode[]).flatMap((p): [string, string][] => {
      const [name, text] = [nameOf(p.key), constantText(p.value)];
      return name !== null && text !== null ? [[name, text]] : [];
    });
    texts.set(key, new Map(fields));
  };
  if (init.type === 'ArrayExpression')
    (init.elements as unknown[]).forEach((item, at) => {
      note(isNode(item) && item.type === 'ObjectExpression' ? (keyIn(item) ?? String(at)) : String(at), item);
    });
  else for (const p of init.properties as SyntaxNode[]) note(nameOf(p.key) ?? '', p.value);
  return texts;
}

/** What the objects of a list are told apart by. */
function keyIn(item: SyntaxNode): string | null {
  for (const p of item.properties as SyntaxNode[])
    if (/^(key|id|name|value|tab|slug|type|kind)$/.test(nameOf(p.key) ?? '')) return constantText(p.value);
  return null;
}

/** `TABLE[tab]`, `TABLE[tab].Panel`, `TABLE.find((t) => t.key === tab).Panel`. */
export function lookupOf(value: SyntaxNode): Lookup | null {
  if (value.type === 'ChainExpression' || value.type === 'TSNonNullExpression')
    return isNode(value.expression) ? lookupOf(value.expression) : null;
  if (value.type === 'LogicalExpression' && isNode(value.left)) return lookupOf(value.left);
  if (value.type === 'CallExpression') {
    const callee = value.callee as SyntaxNode;
    const [test] = value.arguments as SyntaxNode[];
    const table =
      callee.type === 'MemberExpression' && nameOf(callee.property) === 'find' ? nameOf(callee.object) : null;
    const compared = table && test && isFunction(test) && isNode(test.body) ? test.body : null;
    return compared?.type === 'BinaryExpression' ? { table: table!, by: otherSide(compared, test) } : null;
  }
  if (value.type !== 'MemberExpression' || !isNode(value.object)) return null;
  if (value.computed !== true) return lookupOf(value.object);
  const table = nameOf(value.object) ?? fieldOf(value.object);
  return table && isNode(value.property) ? { table, by: value.property } : null;
}

/** Of a comparison inside of a function the side that isn't about what the function is given. */
function otherSide(compared: SyntaxNode, fn: SyntaxNode): SyntaxNode {
  const given = nameOf((fn.params as unknown[])[0]);
  let isOfGiven = false;
  walk(compared.right as SyntaxNode, (n) => {
    isOfGiven ||= n.type === 'Identifier' && n.name === given;
  });
  return (isOfGiven ? compared.left : compared.right) as SyntaxNode;
}

/** What a name follows from: an expression over others, be it computed anew each time or remembered. */
function followsFrom(init: SyntaxNode): SyntaxNode | null {
  if (/^(Binary|Logical|Unary|Conditional)Expression$/.test(init.type)) return init;
  if (init.type === 'MemberExpression' && init.computed !== true) return init;
  if (init.type !== 'CallExpression') return null;
  const [first] = init.arguments as SyntaxNode[];
  if (
    first === undefined ||
    !/^(computed|createMemo|useMemo|\$derived|Boolean|useComputed)$/.test(nameOf(init.callee) ?? '')
  )
    return null;
  const body = isFunction(first) ? first.body : first;
  return isNode(body) && body.type !== 'BlockStatement' ? body : null;
}
