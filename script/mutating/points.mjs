// Finds the places of a source at which something can be made wrong, and writes the source with switches at chosen ones.
import { parseSync } from 'oxc-parser';

const OPERATORS = {
  ...{ '<': '<=', '<=': '<', '>': '>=', '>=': '>', '===': '!==', '!==': '===' },
  ...{ '+': '-', '-': '+', '*': '/', '/': '*', '&': '|', '|': '&', '&&': '||', '||': '&&', '??': '&&' },
};
/** Wrappers of TypeScript around expressions; everything else of its own is no code that runs. */
const SEEN_THROUGH = new Set([
  'TSAsExpression',
  'TSNonNullExpression',
  'TSSatisfiesExpression',
  'TSInstantiationExpression',
]);

/** Children of a node that run, with the key they stand under. */
function childrenOf(node) {
  const found = [];
  for (const [key, value] of Object.entries(node)) {
    if (key === 'parent' || key === 'typeAnnotation' || key === 'returnType' || key === 'typeParameters') continue;
    for (const child of Array.isArray(value) ? value : [value])
      if (child && typeof child.type === 'string' && (!child.type.startsWith('TS') || SEEN_THROUGH.has(child.type)))
        found.push({ key, child });
  }
  return found;
}

const isText = (node) => node.type === 'TemplateLiteral' || (node.type === 'Literal' && typeof node.value === 'string');

/** A row of a table, such as measurements by package: a list in a list, of nothing but values. It is data, not code that could be wrong. */
const isRow = (node, parent) =>
  node.type === 'ArrayExpression' &&
  parent.type === 'ArrayExpression' &&
  node.elements.every((e) => e?.type === 'Literal');

/** A set written as keys, `{ a: true, b: true }`: the compiler refuses any other value. */
const isKeySet = (node) =>
  node.type === 'ObjectExpression' &&
  node.properties.length > 1 &&
  node.properties.every((p) => p.type === 'Property' && p.value.type === 'Literal' && p.value.value === true);

/** What a node becomes when it is made wrong: the kind of mistake and its text, given the text of a part of it. */
function mistakeAt(node, key, parent) {
  switch (node.type) {
    case 'BinaryExpression':
    case 'LogicalExpression': {
      const other = OPERATORS[node.operator];
      if (!other || (node.operator === '+' && (isText(node.left) || isText(node.right)))) return null;
      return {
        what: `${node.operator} became ${other}`,
        text: (of) => `((${of(node.left)}) ${other} (${of(node.right)}))`,
      };
    }
    case 'UnaryExpression':
      return node.operator === '!' ? { what: '! was left out', text: (of) => `(${of(node.argument)})` } : null;
    case 'Literal': {
      if ((key === 'key' && !parent.computed) || parent.type === 'ImportExpression') return null;
      if (typeof node.value === 'number')
        return { what: `${node.raw} became one more`, text: () => `(${node.raw} + 1)` };
      return typeof node.value === 'boolean'
        ? { what: `${node.value} became ${!node.value}`, text: () => String(!node.value) }
        : null;
    }
    case 'ConditionalExpression':
      return {
        what: 'the branches changed places',
        text: (of) => `((${of(node.test)}) ? (${of(node.alternate)}) : (${of(node.consequent)}))`,
      };
    case 'ExpressionStatement': {
      const { type } = node.expression;
      return type === 'CallExpression' || type === 'AssignmentExpression' || type === 'UpdateExpression'
        ? { what: 'a statement was left out', statement: true, text: () => '' }
        : null;
    }
    default:
      return key === 'test' && parent.type === 'IfStatement'
        ? { what: 'a condition was turned round', text: (of) => `!(${of(node)})` }
        : null;
  }
}

/** All places of a source, with line and kind of mistake. */
export function pointsOf(name, source) {
  const { program, errors } = parseSync(name, source);
  if (errors.length > 0) throw new Error(`${name} can't be parsed`);
  const points = [];
  const walk = (node, key, parent) => {
    if (isRow(node, parent) || isKeySet(node)) return;
    const mistake = mistakeAt(node, key, parent);
    if (mistake) {
      const line = source.slice(0, node.start).split('\n').length;
      points.push({ node, line, ...mistake });
    }
    for (const { key: own, child } of childrenOf(node)) walk(child, own, node);
  };
  walk(program, 'program', program);
  return points;
}

/** The source in which each of the chosen points is wrong while the mutant of its number is on, and told when it runs. */
export function withSwitches(name, source, chosen) {
  const { program } = parseSync(name, source);
  const byPlace = new Map(chosen.map((c) => [`${c.node.type} ${c.node.start} ${c.node.end}`, c]));
  const plain = (node) => {
    let text = '';
    let at = node.start;
    for (const { child } of childrenOf(node).sort((a, b) => a.child.start - b.child.start)) {
      if (child.start < at) continue;
      text += source.slice(at, child.start) + render(child);
      at = child.end;
    }
    return text + source.slice(at, node.end);
  };
  const render = (node) => {
    const point = byPlace.get(`${node.type} ${node.start} ${node.end}`);
    if (!point) return plain(node);
    const on = `globalThis.__mutantOn(${point.id})`;
    if (point.statement) return `{ if (!${on}) { ${plain(node)} } }`;
    return `(${on} ? ${mistakeText(point, node)} : (${plain(node)}))`;
  };
  const mistakeText = (point, node) =>
    mistakeOf(node, point).text((part) => (part === node ? plain(part) : render(part)));
  const parents = new Map();
  const note = (node) => {
    for (const { key, child } of childrenOf(node)) {
      parents.set(child, { key, parent: node });
      note(child);
    }
  };
  note(program);
  const mistakeOf = (node) => {
    const { key, parent } = parents.get(node);
    return mistakeAt(node, key, parent);
  };
  return source.slice(0, program.start) + plain(program) + source.slice(program.end);
}
