import { bare, isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** More than this no screen draws at once; what is written as longer is taken for so long. */
const MOST = 1000;
/** Calls of a list that give one of the same length. */
const KEEP_LENGTH = new Set('map fill reverse sort toReversed toSorted with keys values entries'.split(' '));
const OF_OBJECT = new Set(['keys', 'values', 'entries']);

/** Lengths of lists and numbers that a module's top-level constants hold, by name. */
type KnownLengths = ReadonlyMap<string, { length: number } | { number: number }>;

/** What the top level of a module says of lengths. A name that something else in the module has too says nothing. */
function knownLengths(program: SyntaxNode): KnownLengths {
  const known = new Map<string, { length: number } | { number: number }>();
  const named = new Map<string, number>();
  const note = (node: unknown) => {
    const name = isNode(node) && node.type === 'Identifier' ? nameOf(node) : null;
    if (name !== null) named.set(name, (named.get(name) ?? 0) + 1);
  };
  walk(program, (node) => {
    if (node.type === 'VariableDeclarator') note(node.id);
    if (isFunction(node)) for (const param of node.params as unknown[]) note(param);
    // Names that are taken out of what is given: `({ items })`, `const [items] = …`.
    if (node.type === 'ObjectPattern')
      for (const p of node.properties as SyntaxNode[]) note(isNode(p.value) ? withoutDefault(p.value) : p.argument);
    if (node.type === 'ArrayPattern')
      for (const e of node.elements as unknown[]) if (isNode(e)) note(withoutDefault(e));
  });
  for (const statement of (program.body as SyntaxNode[] | undefined) ?? []) {
    const declared = statement.type === 'ExportNamedDeclaration' ? statement.declaration : statement;
    if (!isNode(declared) || declared.type !== 'VariableDeclaration' || declared.kind !== 'const') continue;
    for (const { id, init } of declared.declarations as { id: SyntaxNode; init: unknown }[]) {
      const name = nameOf(id);
      if (id.type !== 'Identifier' || name === null || named.get(name) !== 1 || !isNode(init)) continue;
      const value = bare(init);
      const length = lengthOf(value, known);
      if (value.type === 'Literal' && typeof value.value === 'number') known.set(name, { number: value.value });
      else if (length !== null) known.set(name, { length });
      else if (value.type === 'ObjectExpression') {
        const fields = value.properties as SyntaxNode[];
        if (fields.every((f) => f.type === 'Property')) known.set(name, { length: fields.length });
      }
    }
  }
  return known;
}

const withoutDefault = (node: SyntaxNode) => (node.type === 'AssignmentPattern' ? node.left : node);

/** How often lists draw what stands in them. */
export interface Repeats {
  /** As often as those together whose lengths are written in the code. */
  times: number;
  /** How many there are around it whose lengths aren't written: mostly lists of data. */
  open: number;
}

/**
 * Tells how often the lists around a place of a module draw what stands there, as far as their lengths are written in the code: `TABS.map(…)`,
 * `Array.from({ length: 8 }, …)`, `[...Array(3)].map(…)`. It is asked with the place's ancestors, nearest last.
 */
export function repeatsIn(program: SyntaxNode): (above: readonly SyntaxNode[]) => Repeats {
  // Most modules draw nothing in lists.
  let known: KnownLengths | undefined;
  return (above) => timesDrawn(above, () => (known ??= knownLengths(program)));
}

function timesDrawn(above: readonly SyntaxNode[], known: () => KnownLengths): Repeats {
  let times = 1;
  let open = 0;
  for (const [at, call] of above.entries()) {
    const given = above[at + 1];
    const each = given && eachOf(call, given);
    if (each) {
      const length = lengthOf(each, known());
      if (length === null) open++;
      else times *= length;
      continue;
    }
    if (call.type !== 'CallExpression' || !given || !isFunction(given)) continue;
    const [first, second] = call.arguments as SyntaxNode[];
    const callee = call.callee as SyntaxNode;
    if (callee.type !== 'MemberExpression') continue;
    const method = nameOf(callee.property);
    const list =
      given === first && (method === 'map' || method === 'flatMap')
        ? (callee.object as SyntaxNode)
        : given === second && method === 'from' && nameOf(callee.object) === 'Array'
          ? first
          : null;
    if (list === null) continue;
    const length = method === 'from' ? fromLength(list, known()) : lengthOf(list, known());
    if (length === null) open++;
    else times *= length;
  }
  return { times: Math.min(MOST, times), open };
}

/**
 * The list that an element draws what stands in one of its children for each of, by the names that component systems with elements for lists share:
 * `<For each={tides()}>{(tide) => …}</For>`.
 */
export function eachOf(element: SyntaxNode, child: SyntaxNode): SyntaxNode | null {
  if (element.type !== 'JSXElement' || child === element.openingElement) return null;
  const { name, attributes } = element.openingElement as unknown as { name: unknown; attributes: SyntaxNode[] };
  if (!/^(For|Index)$/.test(nameOf(name) ?? '')) return null;
  const value = attributes.find((a) => nameOf(a.name) === 'each')?.value;
  return isNode(value) && value.type === 'JSXExpressionContainer' && isNode(value.expression) ? value.expression : null;
}

/** The length of a list as the code writes it; null where it doesn't. */
function lengthOf(node: SyntaxNode, known: KnownLengths): number | null {
  const value = bare(node);
  if (value.type === 'Identifier') {
    const of = known.get(value.name as string);
    return of && 'length' in of ? of.length : null;
  }
  if (value.type === 'ArrayExpression') {
    // What begins empty is filled later.
    if ((value.elements as unknown[]).length === 0) return null;
    let sum = 0;
    for (const e of value.elements as unknown[]) {
      const more = isNode(e) && e.type === 'SpreadElement' ? lengthOf(e.argument as SyntaxNode, known) : 1;
      if (more === null) return null;
      sum += more;
    }
    return sum;
  }
  return value.type === 'CallExpression' || value.type === 'NewExpression' ? lengthOfCall(value, known) : null;
}

function lengthOfCall(call: SyntaxNode, known: KnownLengths): number | null {
  const callee = call.callee as SyntaxNode;
  const [first, second] = call.arguments as (SyntaxNode | undefined)[];
  if (callee.type === 'Identifier') return callee.name === 'Array' && first ? numberOf(first, known) : null;
  if (callee.type !== 'MemberExpression') return null;
  const method = nameOf(callee.property) ?? '';
  const object = callee.object as SyntaxNode;
  if (object.type === 'Identifier' && object.name === 'Array' && method === 'from')
    return first ? fromLength(first, known) : null;
  if (object.type === 'Identifier' && object.name === 'Object' && OF_OBJECT.has(method))
    return first ? lengthOf(first, known) : null;
  if (method === 'slice') {
    const from = first ? numberOf(first, known) : 0;
    const to = second ? numberOf(second, known) : lengthOf(object, known);
    if (from === null || to === null || from < 0 || to < 0) return null;
    return Math.max(0, Math.min(to, lengthOf(object, known) ?? to) - from);
  }
  return KEEP_LENGTH.has(method) ? lengthOf(object, known) : null;
}

/** The length of `Array.from(…)`: of a list, or of an object that says it. */
function fromLength(node: SyntaxNode, known: KnownLengths): number | null {
  const value = bare(node);
  if (value.type !== 'ObjectExpression') return lengthOf(value, known);
  const length = (value.properties as SyntaxNode[]).find((p) => nameOf(p.key) === 'length');
  return length && isNode(length.value) ? numberOf(length.value, known) : null;
}

function numberOf(node: SyntaxNode, known: KnownLengths): number | null {
  const value = bare(node);
  if (value.type === 'Literal') return typeof value.value === 'number' && value.value >= 0 ? value.value : null;
  const of = value.type === 'Identifier' ? known.get(value.name as string) : undefined;
  return of && 'number' in of ? of.number : null;
}
