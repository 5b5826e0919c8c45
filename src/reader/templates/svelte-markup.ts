import { constantText, isNode, nameOf, namesIn, type SyntaxNode, walk } from '../syntax.ts';
import {
  assignmentNode,
  attributeNode,
  awaitedNode,
  conditionalNode,
  elementNode,
  groupNode,
  handlerName,
  listNode,
  shownNode,
  templateRoot,
  textNode,
} from './markup-nodes.ts';

/** A node of the compiler's tree: of the same loose form as those of scripts, whose expressions it holds as they are. */
type Node = SyntaxNode;

/** Markup of Svelte as parsed markup, with the names that `{#await import()}` gives to what came. */
export function svelteMarkup(fragment: unknown): { root: SyntaxNode; bindings: Map<string, string> } {
  const bindings = new Map<string, string>();
  const nodes = fragmentOf(fragment, bindings);
  const last = nodes[nodes.length - 1];
  return { root: templateRoot(nodes, { start: nodes[0]?.start ?? 0, end: last?.end ?? 0 }), bindings };
}

function fragmentOf(fragment: unknown, bindings: Map<string, string>): SyntaxNode[] {
  if (typeof fragment !== 'object' || fragment === null) return [];
  const { nodes } = fragment as { nodes?: Node[] };
  return (nodes ?? []).map((n) => nodeOf(n, bindings));
}

function nodeOf(node: Node, bindings: Map<string, string>): SyntaxNode {
  const inside = (fragment: unknown) => groupNode(fragmentOf(fragment, bindings), node);
  switch (node.type) {
    case 'Text':
      return textNode(String(node.data), node);
    case 'ExpressionTag':
    case 'HtmlTag':
    case 'RenderTag':
      return shownNode(node.expression as Node);
    case 'IfBlock': {
      const no = node.alternate ? inside(node.alternate) : null;
      return conditionalNode(node.test as Node, inside(node.consequent), no, node);
    }
    case 'EachBlock': {
      const each = listNode(node.expression as Node, namesIn(node.context), inside(node.body), node);
      return groupNode([each, inside(node.fallback)], node);
    }
    case 'AwaitBlock':
      return awaitNode(node, bindings);
    case 'KeyBlock':
      return inside(node.fragment);
    case 'SnippetBlock':
      return inside(node.body);
    default:
      return isNode(node) && 'fragment' in node ? elementOf(node, bindings) : textNode('', node);
  }
}

/** What is awaited gives a component its name: `{:then { default: Map }}`. */
function awaitNode(node: Node, bindings: Map<string, string>): SyntaxNode {
  let specifier: string | null = null;
  if (isNode(node.expression))
    walk(node.expression, (n) => {
      if (n.type === 'ImportExpression') specifier ??= constantText(n.source);
    });
  if (specifier !== null && isNode(node.value))
    walk(node.value, (n) => {
      if (n.type === 'Identifier') bindings.set(n.name as string, specifier!);
    });
  const shown = isNode(node.expression) ? [shownNode(node.expression)] : [];
  const then = groupNode(fragmentOf(node.then, bindings), node);
  const came = isNode(node.expression) ? awaitedNode(node.expression, then, node) : then;
  const others = [node.pending, node.catch].flatMap((f) => fragmentOf(f, bindings));
  return groupNode([...shown, came, ...others], node);
}

function elementOf(node: Node, bindings: Map<string, string>): SyntaxNode {
  const children = fragmentOf(node.fragment, bindings);
  const attributes = ((node.attributes ?? []) as Node[]).flatMap(attributesOf);
  const named = String(node.name ?? '');
  if (node.type === 'SvelteComponent')
    return elementNode('component', node, attributes, children, { is: plainOf(node.expression) });
  // `<mod.default />`: what stands before the dot is what was imported.
  return elementNode(named.split('.')[0], node, attributes, children);
}

/** `Map` of `mod.default`, where that is how a component is taken out of what was imported. */
function plainOf(expression: unknown): SyntaxNode | undefined {
  if (!isNode(expression)) return undefined;
  const isDefault = expression.type === 'MemberExpression' && nameOf(expression.property) === 'default';
  return isDefault ? (expression.object as SyntaxNode) : expression;
}

function attributesOf(attribute: Node): SyntaxNode[] {
  const name = String(attribute.name ?? '');
  switch (attribute.type) {
    case 'Attribute': {
      const value = valueIn(attribute.value);
      return [attributeNode(/^on[a-z]/.test(name) ? handlerName(name.slice(2)) : name, value, attribute)];
    }
    case 'OnDirective':
      return isNode(attribute.expression) ? [attributeNode(handlerName(name), attribute.expression, attribute)] : [];
    case 'BindDirective': {
      if (!isNode(attribute.expression)) return [];
      const bound = attributeNode(name, attribute.expression, attribute);
      const writes = /^(value|checked|group|open)$/.test(name);
      return writes
        ? [bound, attributeNode('onInput', assignmentNode(attribute.expression, attribute), attribute)]
        : [bound];
    }
    case 'UseDirective':
      // `use:inView={() => (seen = true)}`: an action of an element, called by its name.
      return isNode(attribute.expression) ? [calledNode(name, attribute)] : [];
    default:
      return [];
  }
}

function calledNode(name: string, { start, end, expression }: Node): SyntaxNode {
  const callee = { type: 'Identifier', name, start, end };
  const call = { type: 'CallExpression', callee, arguments: [expression], start, end };
  return attributeNode('use', call, { start, end });
}

function valueIn(value: unknown): SyntaxNode | string | null {
  const [first] = Array.isArray(value) ? (value as unknown[]) : [value];
  if (!isNode(first)) return null;
  if (first.type === 'Text') return String(first.data);
  return isNode(first.expression) ? first.expression : null;
}
