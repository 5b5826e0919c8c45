import type { PartCondition } from '../core/snapshot/types.ts';
import { importedBindings } from './route-table.ts';
import type { SourceText } from './source-text.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from './syntax.ts';

/** A component that a module draws, and when, as far as the code tells. */
export interface ComponentUse {
  specifier: string;
  line: number;
  when: { kind: 'drawn' } | { kind: 'action'; action: string } | { kind: 'condition'; condition: PartCondition };
}

interface StateVariable {
  setter: string;
  initial: unknown;
}

/**
 * Finds the imported components that a module draws. One that stands under a condition is tied to what sets it: a
 * state that an event handler sets (the words on the handler's element name the action), or a media query.
 */
export function findComponentUses(program: SyntaxNode, source: SourceText): ComponentUse[] {
  const bindings = importedBindings(program);
  const states = new Map<string, StateVariable>();
  const media = new Map<string, PartCondition>();
  const actions = new Map<string, string>();
  walk(program, (node, above) => {
    if (node.type === 'VariableDeclarator') noteVariable(node, source, states, media);
    else if (node.type === 'Identifier') noteSetter(node, above, actions);
  });
  const uses: ComponentUse[] = [];
  walk(program, (node, above) => {
    if (node.type !== 'JSXElement') return;
    const specifier = bindings.get(nameOf((node.openingElement as SyntaxNode).name) ?? '');
    if (specifier === undefined) return;
    const { line } = source.place(node.start);
    uses.push({ specifier, line, when: whenDrawn(node, above, source, states, media, actions) });
  });
  return uses;
}

/** `const [open, setOpen] = hook(false)` is a state; `const narrow = matchMedia('…').matches` a condition. */
function noteVariable(
  node: SyntaxNode,
  source: SourceText,
  states: Map<string, StateVariable>,
  media: Map<string, PartCondition>,
): void {
  const id = node.id as SyntaxNode;
  const init = node.init;
  if (!isNode(init)) return;
  if (id.type === 'ArrayPattern' && init.type === 'CallExpression') {
    const [value, setter] = (id.elements as unknown[]).map(nameOf);
    const [first] = init.arguments as SyntaxNode[];
    if (value && setter) states.set(value, { setter, initial: first?.type === 'Literal' ? first.value : undefined });
  } else if (id.type === 'Identifier') {
    const condition = mediaIn(source.text.slice(init.start, init.end));
    if (condition) media.set(id.name as string, condition);
  }
}

function mediaIn(text: string): PartCondition | null {
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

/** A setter named inside an `on…` attribute: the words on that element say what the person does. */
function noteSetter(node: SyntaxNode, above: readonly SyntaxNode[], actions: Map<string, string>): void {
  const name = node.name as string;
  if (!/^set[A-Z]/.test(name)) return;
  const at = above.findLastIndex((n) => n.type === 'JSXAttribute' && /^on[A-Z]/.test(nameOf(n.name) ?? ''));
  if (at < 0 || actions.has(name)) return;
  const attribute = nameOf(above[at].name)!;
  const opening = above[at - 1];
  const element = above[at - 2];
  const words = element?.type === 'JSXElement' ? wordsIn(element) : '';
  const component = nameOf(opening?.name) ?? '';
  actions.set(name, words || `${attribute.slice(2).toLowerCase()} in ${component}`);
}

/** The text in an element, or the last name of what it shows, as in `{messages.makeTicket}`. */
function wordsIn(element: SyntaxNode): string {
  const words: string[] = [];
  walk(element, (node, above) => {
    if (above.some((n) => n.type === 'JSXAttribute')) return;
    if (node.type === 'JSXText') words.push(String(node.value).trim());
    else if (node.type === 'JSXExpressionContainer' && isNode(node.expression)) {
      const { expression } = node;
      const constant = constantText(expression);
      const shown = expression.type === 'MemberExpression' ? nameOf(expression.property) : null;
      words.push(constant ?? (shown ? shown.replace(/([A-Z])/g, ' $1').toLowerCase() : ''));
    }
  });
  return words
    .filter((w) => w !== '')
    .join(' ')
    .slice(0, 60);
}

function whenDrawn(
  node: SyntaxNode,
  above: readonly SyntaxNode[],
  source: SourceText,
  states: Map<string, StateVariable>,
  media: Map<string, PartCondition>,
  actions: Map<string, string>,
): ComponentUse['when'] {
  const path = [...above, node];
  for (let i = path.length - 2; i >= 0; i--) {
    const test = testOf(path[i], path[i + 1]);
    if (!test) continue;
    const direct = mediaIn(source.text.slice(test.start, test.end));
    if (direct) return { kind: 'condition', condition: direct };
    for (const name of namesIn(test)) {
      const condition = media.get(name);
      if (condition) return { kind: 'condition', condition };
      const state = states.get(name);
      if (!state || holdsAtFirst(test, name, state.initial)) continue;
      const action = actions.get(state.setter);
      if (action !== undefined) return { kind: 'action', action };
    }
  }
  return { kind: 'drawn' };
}

/** The condition under which a child of a node is drawn, where the node is one that chooses. */
function testOf(node: SyntaxNode, child: SyntaxNode): SyntaxNode | null {
  if (node.type === 'ConditionalExpression' && node.consequent === child) return node.test as SyntaxNode;
  if (node.type === 'LogicalExpression' && node.operator === '&&' && node.right === child)
    return node.left as SyntaxNode;
  return null;
}

function namesIn(test: SyntaxNode): string[] {
  const names: string[] = [];
  walk(test, (node) => {
    if (node.type === 'Identifier') names.push(node.name as string);
  });
  return names;
}

/** `step === 0` holds at first when the state begins with 0; a bare name when it begins with something true. */
function holdsAtFirst(test: SyntaxNode, name: string, initial: unknown): boolean {
  if (test.type === 'Identifier') return Boolean(initial);
  if (test.type !== 'BinaryExpression' || !/^===?$/.test(test.operator as string)) return false;
  const [left, right] = [test.left as SyntaxNode, test.right as SyntaxNode];
  const other = nameOf(left) === name && left.type === 'Identifier' ? right : left;
  return other.type === 'Literal' && other.value === initial;
}
