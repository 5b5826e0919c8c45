import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** A function that gives a file's name for the number or word by which a build's loader asks for it, with its span in the script. */
export interface FileNamer {
  start: number;
  end: number;
  /** The file's name; null where it gives none. */
  nameFor: (id: string | number) => string | null;
}

const LONGEST_NAMER = 200_000;
const ENDS_AS_FILE = /\.(?:m?js|css)["'`]/;
const IS_FILE = /\.(?:m?js|css)([?#].*)?$/;

/**
 * Functions that make a file's name of what they are called with, by texts, tables and conditions alone: `(n) => "a/" + n + "." + { 7: "f3" }[n] + ".js"`.
 * They are followed, not run.
 */
export function namersIn(program: SyntaxNode, code: string): FileNamer[] {
  const found: FileNamer[] = [];
  walk(program, (node) => {
    if (!isFunction(node) || node.end - node.start > LONGEST_NAMER) return;
    const [parameter] = node.params as SyntaxNode[];
    const name = isNode(parameter) && parameter.type === 'Identifier' ? nameOf(parameter) : null;
    if (name === null || !ENDS_AS_FILE.test(code.slice(node.start, node.end))) return;
    if (resultOf(node.body as SyntaxNode, () => true) === null) return;
    const nameFor = (id: string | number) => {
      const text = resultFor(node.body as SyntaxNode, name, id);
      return typeof text === 'string' && IS_FILE.test(text) ? text : null;
    };
    found.push({ start: node.start, end: node.end, nameFor });
  });
  return found;
}

type Constant = string | number | boolean | null | undefined;

/** What a function's body gives for its parameter; undefined where that can't be told. */
function resultFor(body: SyntaxNode, parameter: string, id: string | number): Constant {
  const test = (node: SyntaxNode) => Boolean(expression(node, parameter, id));
  const result = resultOf(body, test);
  return result === null ? undefined : expression(result, parameter, id);
}

/** The expression that a body returns, with conditions before it decided by `test`; null where it does more than that. */
function resultOf(body: SyntaxNode, test: (condition: SyntaxNode) => boolean): SyntaxNode | null {
  if (body.type === 'ReturnStatement') return isNode(body.argument) ? body.argument : null;
  if (body.type !== 'BlockStatement') return body.type.endsWith('Statement') ? null : body;
  for (const statement of body.body as SyntaxNode[]) {
    if (statement.type === 'ReturnStatement') return resultOf(statement, test);
    if (statement.type !== 'IfStatement') return null;
    const branch = test(statement.test as SyntaxNode) ? statement.consequent : statement.alternate;
    if (isNode(branch)) return resultOf(branch, test);
  }
  return null;
}

function expression(node: SyntaxNode, parameter: string, id: string | number): Constant {
  const value = (inner: unknown) => (isNode(inner) ? expression(inner, parameter, id) : undefined);
  switch (node.type) {
    case 'Literal':
      return node.value as Constant;
    case 'Identifier':
      return node.name === parameter ? id : undefined;
    case 'ParenthesizedExpression':
      return value(node.expression);
    case 'TemplateLiteral': {
      const texts = (node.quasis as { value: { cooked: string } }[]).map((q) => q.value.cooked);
      const values = (node.expressions as unknown[]).map(value);
      return texts.reduce((all, text, at) => `${all}${values[at - 1]}${text}`);
    }
    case 'BinaryExpression': {
      const [left, right] = [value(node.left), value(node.right)];
      if (node.operator === '+')
        return typeof left === 'number' && typeof right === 'number' ? left + right : `${left}${right}`;
      if (node.operator === '===' || node.operator === '==') return String(left) === String(right);
      if (node.operator === '!==' || node.operator === '!=') return String(left) !== String(right);
      return undefined;
    }
    case 'LogicalExpression': {
      const left = value(node.left);
      if (node.operator === '||') return left || value(node.right);
      if (node.operator === '&&') return left && value(node.right);
      return left ?? value(node.right);
    }
    case 'ConditionalExpression':
      return value(node.test) ? value(node.consequent) : value(node.alternate);
    case 'MemberExpression':
      return node.computed ? entryOf(node.object, value(node.property), value) : undefined;
    default:
      return undefined;
  }
}

/** What a written table holds under a key. */
function entryOf(table: unknown, key: Constant, value: (node: unknown) => Constant): Constant {
  if (!isNode(table)) return undefined;
  if (table.type === 'ParenthesizedExpression') return entryOf(table.expression, key, value);
  if (table.type === 'ArrayExpression') return value((table.elements as unknown[])[Number(key)]);
  if (table.type !== 'ObjectExpression') return undefined;
  const entry = (table.properties as SyntaxNode[]).find(
    (p) => !p.computed && isNode(p.key) && keyOf(p.key) === String(key),
  );
  return entry && value(entry.value);
}

function keyOf(key: SyntaxNode): string {
  return key.type === 'Literal' ? String(key.value) : (nameOf(key) ?? '');
}
