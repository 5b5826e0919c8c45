import { wordsIn } from '../parts/actions.ts';
import type { DrawnWhen } from '../parts/drawn-when.ts';
import type { SyntaxNode } from '../syntax.ts';
import { angularCompiler } from './compilers.ts';
import { expressionNode, handlerNode } from './expressions.ts';
import {
  assignmentNode,
  attributeNode,
  conditionalNode,
  elementNode,
  equalNode,
  groupNode,
  handlerName,
  type Span,
  shownNode,
  templateRoot,
  textNode,
} from './markup-nodes.ts';

/** What a template draws: as parsed markup, and the elements in it that are asked for later or at once. */
export interface AngularTemplate {
  root: SyntaxNode;
  /** Elements inside of deferred blocks only. */
  later: Set<string>;
  atOnce: Set<string>;
}

type Node = { sourceSpan: { start: { offset: number }; end: { offset: number } } };
type Expression = { source?: string | null; sourceSpan?: { start: number } } | null | undefined;
type Trigger = Record<string, unknown>;

/**
 * A template of Angular as parsed markup: control flow and `*ngIf` as conditions, `(click)` as handlers. A deferred block draws by what
 * triggers it: in sight, by what a person does with what holds its place, when a test holds, else by itself. Null where it can't be parsed.
 */
export function angularMarkup(template: string, offset: number): AngularTemplate | null {
  const c = angularCompiler();
  const parsedTemplate = parsedOf(template);
  if (!parsedTemplate) return null;
  const { nodes } = parsedTemplate;
  const later = new Set<string>();
  const atOnce = new Set<string>();
  const spanOf = ({ sourceSpan }: Node): Span => ({
    start: sourceSpan.start.offset + offset,
    end: sourceSpan.end.offset + offset,
  });
  const parsed = (value: Expression) => expressionOf(value, offset);

  const all = (list: readonly unknown[], deferred: boolean) => list.map((n) => nodeOf(n as Node, deferred));
  const group = (node: (Node & { children: readonly unknown[] }) | null | undefined, deferred: boolean) =>
    node ? groupNode(all(node.children, deferred), spanOf(node)) : null;

  function nodeOf(node: Node, deferred: boolean): SyntaxNode {
    const span = spanOf(node);
    if (node instanceof c.TmplAstText) return textNode(node.value, span);
    if (node instanceof c.TmplAstBoundText) {
      const said = boundText(node.value as Expression);
      return said === null ? textNode('', span) : (shown(said.source, said.start + offset) ?? textNode('', span));
    }
    if (node instanceof c.TmplAstElement) return elementOf(node, node.name, deferred);
    if (node instanceof c.TmplAstTemplate) return templateOf(node, deferred);
    if (node instanceof c.TmplAstContent) return groupNode(all(node.children ?? [], deferred), span);
    if (node instanceof c.TmplAstIfBlock)
      return node.branches.reduceRight<SyntaxNode | null>((no, branch) => {
        const yes = group(branch, deferred)!;
        return branch.expression ? conditionalNode(parsed(branch.expression as Expression), yes, no, span) : yes;
      }, null)!;
    if (node instanceof c.TmplAstForLoopBlock)
      return groupNode(
        [...all(node.children, deferred), ...(node.empty ? all(node.empty.children, deferred) : [])],
        span,
      );
    if (node instanceof c.TmplAstSwitchBlock) {
      const on = parsed(node.expression as Expression);
      return groupNode(
        node.groups.map((g) => {
          const tests = g.cases.flatMap((one) => (on && parsed(one.expression as Expression)) ?? []);
          const yes = group(g, deferred)!;
          return tests.length === 1 ? conditionalNode(equalNode(on!, tests[0], span), yes, null, span) : yes;
        }),
        span,
      );
    }
    if (node instanceof c.TmplAstDeferredBlock) return deferredOf(node, deferred);
    return textNode('', span);
  }

  function elementOf(
    node: Node & {
      attributes: readonly unknown[];
      inputs: readonly unknown[];
      outputs: readonly unknown[];
      children: readonly unknown[];
    },
    name: string,
    deferred: boolean,
  ): SyntaxNode {
    (deferred ? later : atOnce).add(name);
    const attributes = [
      ...(node.attributes as (Node & { name: string; value: string })[]).map((a) =>
        attributeNode(a.name, a.value, spanOf(a)),
      ),
      ...(node.inputs as (Node & { name: string; value: Expression })[]).flatMap((a) => {
        const value = parsed(a.value);
        return value ? [attributeNode(a.name, value, spanOf(a))] : [];
      }),
      ...(node.outputs as (Node & { name: string; handler: Expression })[]).flatMap((a) => handlerOf(a)),
    ];
    return elementNode(name, spanOf(node), attributes, all(node.children, deferred));
  }

  function handlerOf(event: Node & { name: string; handler: Expression }): SyntaxNode[] {
    const span = spanOf(event);
    const does = handlerNode(event.handler?.source ?? '', (event.handler?.sourceSpan?.start ?? 0) + offset);
    if (!does) return [];
    // `[(open)]="open"`: what it is bound to gets what comes.
    const twoWay = event.name.endsWith('Change') && does.type === 'Identifier';
    return [attributeNode(handlerName(event.name), twoWay ? assignmentNode(does, span) : does, span)];
  }

  function templateOf(node: InstanceType<typeof c.TmplAstTemplate>, deferred: boolean): SyntaxNode {
    const span = spanOf(node);
    const inside = groupNode(all(node.children, deferred), span);
    const test = node.templateAttrs.find((a) => a.name === 'ngIf' || a.name === 'ngSwitchCase');
    const value = test && typeof test.value === 'object' ? parsed(test.value as Expression) : null;
    return value ? conditionalNode(value, inside, null, span) : inside;
  }

  function deferredOf(node: InstanceType<typeof c.TmplAstDeferredBlock>, deferred: boolean): SyntaxNode {
    const span = spanOf(node);
    const place = group(node.placeholder, deferred);
    const inside = groupNode(all(node.children, true), span, blockWhen(node.triggers as Trigger, place));
    const when = (node.triggers as { when?: { value: Expression } }).when;
    const test = when ? parsed(when.value) : null;
    const drawn = test ? conditionalNode(test, inside, null, span) : inside;
    const others = [place, group(node.loading, deferred), group(node.error, deferred)].filter((g) => g !== null);
    return groupNode([drawn, ...others], span);
  }

  return { root: templateRoot(all(nodes, false), { start: offset, end: offset + template.length }), later, atOnce };
}

/** The template's nodes; null where the parser finds mistakes or fails on it. */
function parsedOf(template: string) {
  try {
    const parsed = angularCompiler().parseTemplate(template, 'template.html', { preserveWhitespaces: false });
    return parsed.errors && parsed.errors.length > 0 ? null : parsed;
  } catch (error) {
    if (error instanceof RangeError) throw error;
    return null;
  }
}

/** What draws a deferred block, as far as its triggers say; a test is laid around it apart. */
function blockWhen(triggers: Trigger, place: SyntaxNode | null): DrawnWhen | undefined {
  if (triggers.viewport) return { kind: 'seen' };
  for (const does of ['interaction', 'hover'])
    if (triggers[does]) {
      const words = place ? wordsIn(place) : '';
      return { kind: 'action', action: words === '' ? does : words };
    }
  return undefined;
}

function expressionOf(value: Expression, offset: number): SyntaxNode | null {
  const source = value?.source;
  if (typeof source !== 'string' || source.trim() === '') return null;
  const at = (value?.sourceSpan?.start ?? 0) + offset;
  // What follows a pipe changes how a value is shown, not which one it is.
  return expressionNode(source.replace(/\s\|\s(?!\|)[^|][\s\S]*$/, ''), at);
}

/** The first `{{ … }}` of a text, whose source holds the words around it too. */
function boundText(value: Expression): { source: string; start: number } | null {
  const source = value?.source ?? '';
  const from = source.indexOf('{{');
  const to = source.indexOf('}}', from);
  return from < 0 || to < 0
    ? null
    : { source: source.slice(from + 2, to), start: (value?.sourceSpan?.start ?? 0) + from + 2 };
}

function shown(source: string, at: number): SyntaxNode | null {
  const node = expressionOf({ source, sourceSpan: { start: at } }, 0);
  return node && shownNode(node);
}
