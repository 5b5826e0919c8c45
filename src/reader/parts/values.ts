import type { PartCondition } from '../../core/snapshot/route-types.ts';
import { constantText, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** What a name in a module stands for, as far as conditions are concerned. */
export interface Values {
  /** Names of states with what they begin as; absent values are unknown. */
  states: Map<string, { setter: string; initial: unknown }>;
  /** Names that hold a media query's answer. */
  media: Map<string, PartCondition>;
  /** Names that a function of another module gave, by that module's specifier. */
  given: Map<string, string>;
  /** Names that hold what a call for data gave. */
  answers: Map<string, string>;
  /** Names of tables of components: `{ map: ShelfMap, list: ShelfList }`. */
  tables: Map<string, Map<string, string>>;
  /** Names that are looked up in such a table: the table's name and the name that is looked up. */
  lookups: Map<string, { table: string; by: string }>;
}

/** A value that can't be told from the code. */
export const UNKNOWN = Symbol('unknown');

/** Reads what the variables of a module stand for. */
export function readValues(program: SyntaxNode, text: string, bindings: ReadonlyMap<string, string>): Values {
  const values: Values = {
    states: new Map(),
    media: new Map(),
    given: new Map(),
    answers: new Map(),
    tables: new Map(),
    lookups: new Map(),
  };
  walk(program, (node) => {
    if (node.type === 'VariableDeclarator') noteVariable(node, text, bindings, values);
  });
  return values;
}

/** What a variable stands for, by the pattern that it is written in. */
function noteVariable(node: SyntaxNode, text: string, bindings: ReadonlyMap<string, string>, values: Values): void {
  const id = node.id as SyntaxNode;
  const init = node.init;
  if (!isNode(init)) return;
  const call = calledIn(init);
  if (id.type === 'ArrayPattern') noteState(id, call, values);
  else if (id.type === 'Identifier') noteNamed(id.name as string, init, call, text, bindings, values);
  else if (id.type === 'ObjectPattern' && call && isForData(call)) noteFields(id, values);
}

/** `[open, setOpen] = useState(false)`: a state, who sets it, and how it begins. */
function noteState(id: SyntaxNode, call: SyntaxNode | null, { states }: Values): void {
  const [value, setter] = (id.elements as unknown[]).map(nameOf);
  if (value && setter && call) states.set(value, { setter, initial: initialOf(call) });
}

/** A plain name: a media query, something that another function gives, a table of components, a lookup, or an answer. */
function noteNamed(
  name: string,
  init: SyntaxNode,
  call: SyntaxNode | null,
  text: string,
  bindings: ReadonlyMap<string, string>,
  { media, given, answers, tables, lookups }: Values,
): void {
  const condition = mediaIn(text.slice(init.start, init.end));
  const from = call && bindings.get(nameOf(call.callee) ?? '');
  if (condition && !isFunction(init)) media.set(name, condition);
  else if (from) given.set(name, from);
  else if (init.type === 'ObjectExpression') noteTable(name, init, bindings, tables);
  else if (init.type === 'MemberExpression' && init.computed) {
    const [table, by] = [nameOf(init.object), nameOf(init.property)];
    if (table && by) lookups.set(name, { table, by });
  }
  if (call && isForData(call)) answers.set(name, name);
}

/** `{ data, error } = useQuery(…)`: each of them is an answer. */
function noteFields(id: SyntaxNode, { answers }: Values): void {
  for (const property of id.properties as SyntaxNode[]) {
    const name = nameOf(property.value);
    if (name) answers.set(name, name);
  }
}

/** The call that makes a value, awaited or not. */
function calledIn(init: SyntaxNode): SyntaxNode | null {
  if (init.type === 'CallExpression') return init;
  return init.type === 'AwaitExpression' && isNode(init.argument) ? calledIn(init.argument) : null;
}

/** `fetch(…)`, `loadLoan(…)`, `useAnswer(…)`, `api.get(…)`: calls that ask a server, by the habits of naming. */
function isForData(call: SyntaxNode): boolean {
  const callee = call.callee as SyntaxNode;
  const name = callee.type === 'MemberExpression' ? nameOf(callee.property) : nameOf(callee);
  return /^(fetch|load|get|query|request)([A-Z]|$)|^use(Query|Answer|Data|Fetch|Load|Loader|Request)/.test(name ?? '');
}

/** What a state begins as: `useState(0)` with its argument, a reducer with its second one. */
function initialOf(call: SyntaxNode): unknown {
  const args = call.arguments as SyntaxNode[];
  const reduces = /reduce/i.test(nameOf(call.callee) ?? '');
  const first = reduces ? args[1] : args[0];
  return first === undefined ? undefined : literal(first);
}

function literal(node: SyntaxNode): unknown {
  if (node.type === 'Literal') return node.value;
  if (node.type !== 'ObjectExpression') return constantText(node) ?? UNKNOWN;
  const fields: Record<string, unknown> = {};
  for (const p of node.properties as SyntaxNode[]) {
    const key = nameOf(p.key);
    if (key !== null && isNode(p.value)) fields[key] = literal(p.value);
  }
  return fields;
}

function noteTable(
  name: string,
  init: SyntaxNode,
  bindings: ReadonlyMap<string, string>,
  tables: Values['tables'],
): void {
  const table = new Map<string, string>();
  for (const p of init.properties as SyntaxNode[]) {
    const [key, component] = [nameOf(p.key), nameOf(p.value)];
    if (key && component && bindings.has(component)) table.set(key, component);
  }
  if (table.size > 0) tables.set(name, table);
}

/** The width that a media query in this text asks for. */
export function mediaIn(text: string): PartCondition | null {
  if (!/matchMedia|useMedia/.test(text)) return null;
  const width = (side: string) => Number(new RegExp(`\\(${side}-width:\\s*(\\d+)px\\)`).exec(text)?.[1] ?? Number.NaN);
  const [most, least] = [width('max'), width('min')];
  if (Number.isNaN(most) && Number.isNaN(least)) return null;
  return {
    kind: 'media',
    ...(Number.isNaN(most) ? {} : { maxWidth: most }),
    ...(Number.isNaN(least) ? {} : { minWidth: least }),
  };
}

/** What a test gives when the screen is first drawn: true, false, or UNKNOWN. */
export function atFirst(test: SyntaxNode, values: Values): unknown {
  switch (test.type) {
    case 'Identifier': {
      const state = values.states.get(test.name as string);
      return state ? state.initial : UNKNOWN;
    }
    case 'MemberExpression': {
      const of = isNode(test.object) ? atFirst(test.object, values) : UNKNOWN;
      const field = nameOf(test.property);
      if (of === UNKNOWN || of === null || typeof of !== 'object' || field === null) return UNKNOWN;
      return field in of ? (of as Record<string, unknown>)[field] : undefined;
    }
    case 'UnaryExpression': {
      const value = atFirst(test.argument as SyntaxNode, values);
      return test.operator !== '!' || value === UNKNOWN ? UNKNOWN : !value;
    }
    case 'BinaryExpression': {
      const left = atFirst(test.left as SyntaxNode, values);
      const right = atFirst(test.right as SyntaxNode, values);
      if (left === UNKNOWN || right === UNKNOWN) return UNKNOWN;
      if (/^===?$/.test(test.operator as string)) return left === right;
      return /^!==?$/.test(test.operator as string) ? left !== right : UNKNOWN;
    }
    case 'LogicalExpression': {
      const left = atFirst(test.left as SyntaxNode, values);
      const right = atFirst(test.right as SyntaxNode, values);
      if (test.operator === '&&') return (left !== UNKNOWN && !left) || (right !== UNKNOWN && !right) ? false : UNKNOWN;
      return (left !== UNKNOWN && left) || (right !== UNKNOWN && right) ? true : UNKNOWN;
    }
    default:
      return literal(test);
  }
}
