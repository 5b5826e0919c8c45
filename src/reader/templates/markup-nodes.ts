import type { SyntaxNode } from '../syntax.ts';

/** Where something stands in its file, as offsets. */
export interface Span {
  start: number;
  end: number;
}

/**
 * Nodes of markup as walkers of scripts know them, made of a template: one way to read components for all styles. Elements stand
 * as JSX elements, conditions as conditional expressions, handlers as attributes named `on…`.
 */
export function elementNode(
  name: string,
  { start, end }: Span,
  attributes: SyntaxNode[],
  children: SyntaxNode[],
  more: { is?: SyntaxNode; drawnWhen?: unknown } = {},
): SyntaxNode {
  const opening = {
    type: 'JSXOpeningElement',
    name: { type: 'JSXIdentifier', name, start, end },
    ...{ attributes, start, end },
  };
  return { type: 'JSXElement', start, end, openingElement: opening, children, ...more };
}

/** An attribute whose value is an expression, or a text. */
export function attributeNode(name: string, value: SyntaxNode | string | null, { start, end }: Span): SyntaxNode {
  const literal = typeof value === 'string' ? { type: 'Literal', value, start, end } : null;
  return {
    ...{ type: 'JSXAttribute', start, end, name: { type: 'JSXIdentifier', name, start, end } },
    value: literal ?? (value === null ? null : shownNode(value as SyntaxNode)),
  };
}

export function textNode(value: string, { start, end }: Span): SyntaxNode {
  return { type: 'JSXText', value, start, end };
}

/** An expression that is shown in a place of the markup. */
export function shownNode(expression: SyntaxNode): SyntaxNode {
  return { type: 'JSXExpressionContainer', expression, start: expression.start, end: expression.end };
}

/** Several nodes without an element of their own. */
export function groupNode(children: SyntaxNode[], { start, end }: Span, drawnWhen?: unknown): SyntaxNode {
  return { type: 'JSXFragment', start, end, children, ...(drawnWhen === undefined ? {} : { drawnWhen }) };
}

/** What is drawn on a condition, and what in its place. A test that can't be parsed leaves both drawn. */
export function conditionalNode(
  test: SyntaxNode | null,
  yes: SyntaxNode,
  no: SyntaxNode | null,
  span: Span,
): SyntaxNode {
  if (!test) return groupNode(no ? [yes, no] : [yes], span);
  const { start, end } = span;
  return { type: 'ConditionalExpression', start, end, test, consequent: yes, alternate: no ?? textNode('', span) };
}

/** What is drawn once for each item of a list, which goes by those names in there: `list.map((item) => …)`. A list that can't be parsed draws it once. */
export function listNode(
  list: SyntaxNode | null,
  names: readonly string[],
  inside: SyntaxNode,
  span: Span,
): SyntaxNode {
  if (!list) return inside;
  const at = { start: span.start, end: span.end };
  const named = (name: string) => ({ type: 'Identifier', name, ...at });
  const callee = { type: 'MemberExpression', object: list, property: named('map'), computed: false, ...at };
  const each = { type: 'ArrowFunctionExpression', params: names.map(named), body: inside, ...at };
  return { type: 'CallExpression', callee, arguments: [each], ...at };
}

/** What is drawn once something that is awaited is there. */
export function awaitedNode(awaited: SyntaxNode, inside: SyntaxNode, { start, end }: Span): SyntaxNode {
  return { type: 'JSXFragment', start, end, children: [inside], awaited };
}

/** `left === right`, for the cases of a switch. */
export function equalNode(left: SyntaxNode, right: SyntaxNode, { start, end }: Span): SyntaxNode {
  return { type: 'BinaryExpression', operator: '===', left, right, start, end };
}

/** Gives a name another value: what a two-way binding does. */
export function assignmentNode(left: SyntaxNode, { start, end }: Span): SyntaxNode {
  return {
    type: 'AssignmentExpression',
    operator: '=',
    left,
    right: { type: 'Literal', value: null, start, end },
    start,
    end,
  };
}

/** The root under which the nodes of a template stand. */
export function templateRoot(children: SyntaxNode[], { start, end }: Span): SyntaxNode {
  const expression = groupNode(children, { start, end });
  return { type: 'Program', start, end, body: [{ type: 'ExpressionStatement', start, end, expression }] };
}

/** The name of a handler's attribute: `onClick` of `click`, `close-menu` or `keydown.enter`. */
export function handlerName(event: string): string {
  const [word] = event.split(/[.:|]/);
  return `on${word.replace(/(^|-)(\w)/g, (_, __, letter: string) => letter.toUpperCase())}`;
}

/** `TarList` of `tar-list`. */
export function pascal(tag: string): string {
  return tag.replace(/(^|-)(\w)/g, (_, __, letter: string) => letter.toUpperCase());
}
