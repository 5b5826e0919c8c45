import { html } from 'parse5';
import type { DrawnWhen } from '../parts/drawn-when.ts';
import { widthsIn } from '../parts/media.ts';
import type { SyntaxNode } from '../syntax.ts';
import { expressionNode, handlerNode } from './expressions.ts';
import {
  assignmentNode,
  attributeNode,
  conditionalNode,
  elementNode,
  groupNode,
  handlerName,
  listNode,
  pascal,
  type Span,
  shownNode,
  templateRoot,
  textNode,
} from './markup-nodes.ts';

/** What of the compiler's own tree of a template is looked at. */
interface VueNode {
  type: number;
  tag?: string;
  loc: Loc;
  children?: VueNode[];
  props?: VueProp[];
  content?: unknown;
}

interface VueProp {
  type: number;
  name: string;
  loc: Loc;
  value?: { content: string };
  arg?: { content?: string };
  exp?: { content?: string; loc: Loc };
}

interface Loc {
  start: { offset: number };
  end: { offset: number };
}

/** Elements of the platform, which stand for no component however one is called. */
const OF_PLATFORM = new Set<string>([
  ...Object.values(html.TAG_NAMES),
  ...['circle', 'ellipse', 'g', 'line', 'path', 'polygon', 'polyline', 'rect', 'text', 'tspan', 'use', 'defs', 'mask'],
]);

/** Kinds of nodes and attributes, by the compiler's numbers. */
const [ROOT, ELEMENT, TEXT, SHOWN, ATTRIBUTE, DIRECTIVE] = [0, 1, 2, 5, 6, 7];

/** A template of Vue as parsed markup: `v-if` chains as conditions, `@` as handlers, `:is` as what an element may stand for. */
export function vueMarkup(ast: unknown): SyntaxNode {
  const root = ast as VueNode;
  return templateRoot(childrenOf(root), spanOf(root.loc));
}

const spanOf = ({ start, end }: Loc): Span => ({ start: start.offset, end: end.offset });

const directive = (node: VueNode, name: string): VueProp | undefined =>
  node.props?.find((p) => p.type === DIRECTIVE && p.name === name);

function childrenOf(node: VueNode): SyntaxNode[] {
  const children = (node.children ?? []).filter((c) => c.type !== TEXT || /\S/.test(String(c.content)));
  const made: SyntaxNode[] = [];
  for (let i = 0; i < children.length; i++) {
    const child = children[i];
    if (!directive(child, 'if')) {
      made.push(nodeOf(child));
      continue;
    }
    const chain = [child];
    while (children[i + 1] && (directive(children[i + 1], 'else-if') || directive(children[i + 1], 'else')))
      chain.push(children[++i]);
    made.push(chainNode(chain));
  }
  return made;
}

/** `v-if`, `v-else-if`, `v-else` one after another. */
function chainNode([first, ...others]: VueNode[]): SyntaxNode {
  const condition = directive(first, 'if') ?? directive(first, 'else-if');
  const span = spanOf(first.loc);
  const no = others.length > 0 ? chainNode(others) : null;
  return condition ? conditionalNode(expressionOf(condition), nodeOf(first), no, span) : nodeOf(first);
}

function nodeOf(node: VueNode): SyntaxNode {
  const span = spanOf(node.loc);
  if (node.type === TEXT) return textNode(String(node.content), span);
  if (node.type === SHOWN) {
    const { content, loc } = node.content as { content: string; loc: Loc };
    const shown = expressionNode(content, loc.start.offset);
    return shown ? shownNode(shown) : textNode('', span);
  }
  if (node.type !== ELEMENT && node.type !== ROOT) return textNode('', span);
  const element = elementOf(node, span);
  const show = directive(node, 'show');
  const shown = show ? conditionalNode(expressionOf(show), element, null, span) : element;
  const list = directive(node, 'for');
  return list?.exp?.content === undefined ? shown : listOf(list.exp.content, list.exp.loc.start.offset, shown, span);
}

function elementOf(node: VueNode, span: Span): SyntaxNode {
  const tag = node.tag ?? '';
  const children = childrenOf(node);
  if (tag === 'template' || tag === 'slot') return groupNode(children, span);
  const attributes = (node.props ?? []).flatMap((p) => attributesOf(p, tag));
  if (tag !== 'component') {
    const name = OF_PLATFORM.has(tag) ? tag : pascal(tag);
    const drawnWhen = hydratedWhen(node.props ?? [], tag);
    return elementNode(name, span, attributes, children, drawnWhen ? { drawnWhen } : {});
  }
  const is = node.props?.find((p) => p.type === DIRECTIVE && p.name === 'bind' && p.arg?.content === 'is');
  return elementNode('component', span, attributes, children, { is: (is && expressionOf(is)) ?? undefined });
}

/** `item in items`, `(item, index) of items`: what is drawn for each. */
function listOf(text: string, start: number, inside: SyntaxNode, span: Span): SyntaxNode {
  const [whole, names] = /^([\s\S]*?)\s(?:in|of)\s/.exec(text) ?? [];
  if (whole === undefined) return inside;
  const items = names.match(/[A-Za-z_$][\w$]*/g) ?? [];
  return listNode(expressionNode(text.slice(whole.length), start + whole.length), items, inside, span);
}

/** When a component that is drawn on the server is asked for, where its attributes say so (public form of Nuxt). */
function hydratedWhen(props: readonly VueProp[], tag: string): DrawnWhen | null {
  for (const prop of props) {
    const name = prop.type === DIRECTIVE ? (prop.arg?.content ?? '') : prop.name;
    if (name === 'hydrate-on-visible') return { kind: 'seen' };
    if (name === 'hydrate-on-interaction') return { kind: 'action', action: `interaction with ${tag}` };
    const query = name === 'hydrate-on-media-query' ? (prop.value?.content ?? prop.exp?.content ?? '') : '';
    const condition = widthsIn(query);
    if (condition) return { kind: 'condition', condition };
  }
  return null;
}

function expressionOf({ exp }: VueProp): SyntaxNode | null {
  return exp?.content === undefined ? null : expressionNode(exp.content, exp.loc.start.offset);
}

function attributesOf(prop: VueProp, tag: string): SyntaxNode[] {
  const span = spanOf(prop.loc);
  if (prop.type === ATTRIBUTE) return [attributeNode(prop.name, prop.value?.content ?? null, span)];
  const argument = prop.arg?.content;
  switch (prop.name) {
    case 'on': {
      const does = prop.exp?.content === undefined ? null : handlerNode(prop.exp.content, prop.exp.loc.start.offset);
      return argument && does ? [attributeNode(handlerName(argument), does, span)] : [];
    }
    case 'model': {
      const bound = expressionOf(prop);
      if (!bound) return [];
      const native = /^(input|select|textarea)$/.test(tag);
      return native
        ? [attributeNode('onInput', assignmentNode(bound, span), span)]
        : [attributeNode(argument ?? 'open', bound, span)];
    }
    case 'bind': {
      const bound = expressionOf(prop);
      return argument && bound ? [attributeNode(argument, bound, span)] : [];
    }
    default:
      return [];
  }
}
