import { isNode, nameOf, type SyntaxNode } from '../syntax.ts';

export interface Test {
  test: SyntaxNode;
  /** Whether something is drawn when the test holds, or when it doesn't. */
  holds: boolean;
}

/** The conditions that a node puts on one of its children; on itself where no child is given. */
export function testsOf(node: SyntaxNode, child: SyntaxNode | undefined): Test[] {
  if (node.type === 'JSXElement') return ofElement(node, child);
  if (child === undefined) return [];
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
    case 'CallExpression':
      return ofCall(node, child);
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

/** `when(open, () => …, () => …)`: a call by which templates decide. */
function ofCall(call: SyntaxNode, child: SyntaxNode): Test[] {
  const [test, yes, no] = call.arguments as SyntaxNode[];
  if (nameOf(call.callee) !== 'when' || !test) return [];
  return child === yes ? [{ test, holds: true }] : child === no ? [{ test, holds: false }] : [];
}

const OPEN = '(?:is)?(?:open|opened|visible|shown|show|expanded|active)';
/** Attributes that say whether an element shows anything, by the habits of dialogs, sheets and sections. */
const OPENS = new RegExp(`^${OPEN}$`, 'i');

/** What a text does that hides something by what it is handed under such a name: it asks for it before it draws, or hands it on. */
const HIDES = new RegExp(
  [
    `\\b${OPEN}\\b\\)?\\s{0,9}(?:&&|\\?(?!\\.))(?!\\s{0,9}['"\`])`,
    `!\\s{0,9}(?:this\\.)?(?:props\\.)?${OPEN}\\b`,
    `[\\s:]${OPEN}=["{]`,
    `\\bv-(?:model|show|if)(?::\\w{1,40})?="[^"]{0,80}\\b${OPEN}\\b`,
    `\\bwhen=\\{[^}]{0,80}\\b${OPEN}\\b`,
    `\\{#if[^}]{0,80}\\b${OPEN}\\b`,
    `\\bdefineModel\\b|\\bmodelValue\\b|\\{\\s{0,9}\\.\\.\\.`,
  ].join('|'),
  'i',
);

/** One of these is in all that hides something so: most texts have none, and looking for words takes a tenth of looking for all of it. */
const MAY_HIDE = /open|visible|show|expanded|active|definemodel|modelvalue|\.\.\./i;

/** Whether a component may hide itself by an attribute that says whether it is open, as far as its text tells. */
export function hidesItself(text: string): boolean {
  return MAY_HIDE.test(text) && HIDES.test(text);
}

/** Elements that draw what is inside of them on a condition, by the names that several libraries use. */
const DECIDES = /^(Show|Match|If|When)$/;

/** What opens an element stays outside of it. */
const OPENER = /(Trigger|Opener|Activator|Toggle)$/;

function ofElement(element: SyntaxNode, child: SyntaxNode | undefined): Test[] {
  const opening = element.openingElement as SyntaxNode;
  if (child === opening) return [];
  const name = nameOf(opening.name) ?? nameOf((opening.name as SyntaxNode).property) ?? '';
  if (OPENER.test(childName(child))) return [];
  const decides = DECIDES.test(name);
  for (const attribute of opening.attributes as SyntaxNode[]) {
    const is = nameOf(attribute.name) ?? '';
    const test = valueIn(attribute);
    if (!test) continue;
    if (decides ? /^(when|if|condition|test)$/.test(is) : OPENS.test(is)) return [{ test, holds: true }];
  }
  return [];
}

function childName(child: SyntaxNode | undefined): string {
  if (child?.type !== 'JSXElement') return '';
  const { name } = child.openingElement as SyntaxNode;
  return nameOf(name) ?? nameOf((name as SyntaxNode).property) ?? '';
}

function valueIn({ value }: SyntaxNode): SyntaxNode | null {
  return isNode(value) && value.type === 'JSXExpressionContainer' && isNode(value.expression) ? value.expression : null;
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
