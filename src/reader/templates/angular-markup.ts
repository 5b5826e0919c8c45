import type { DrawnWhen } from '../parts/drawn-when.ts';
import { wordsIn } from '../parts/words.ts';
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
  listNode,
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
  const parsedTemplate = parsedOf(template);
  if (!parsedTemplate) return null;
  const markup = new Markup(offset);
  const span = { start: offset, end: offset + template.length };
  const root = templateRoot(markup.all(parsedTemplate.nodes, false), span);
  return { root, later: markup.later, atOnce: markup.atOnce };
}

type Compiler = ReturnType<typeof angularCompiler>;
type Of<K extends keyof Compiler> = Compiler[K] extends abstract new (...args: never) => infer T ? T : never;

/** Nodes of a template as parsed markup. `deferred`: whether they stand in a deferred block. */
class Markup {
  readonly later = new Set<string>();
  readonly atOnce = new Set<string>();
  private readonly c = angularCompiler();

  constructor(private readonly offset: number) {}

  all(list: readonly unknown[], deferred: boolean): SyntaxNode[] {
    return list.map((n) => this.nodeOf(n as Node, deferred));
  }

  private group(
    node: (Node & { children: readonly unknown[] }) | null | undefined,
    deferred: boolean,
  ): SyntaxNode | null {
    return node ? groupNode(this.all(node.children, deferred), this.spanOf(node)) : null;
  }

  private spanOf({ sourceSpan }: Node): Span {
    return { start: sourceSpan.start.offset + this.offset, end: sourceSpan.end.offset + this.offset };
  }

  private parsed(value: Expression): SyntaxNode | null {
    return expressionOf(value, this.offset);
  }

  private nodeOf(node: Node, deferred: boolean): SyntaxNode {
    const { c } = this;
    const span = this.spanOf(node);
    if (node instanceof c.TmplAstText) return textNode(node.value, span);
    if (node instanceof c.TmplAstBoundText) {
      const said = boundText(node.value as Expression);
      return said === null ? textNode('', span) : (shown(said.source, said.start + this.offset) ?? textNode('', span));
    }
    if (node instanceof c.TmplAstElement) return this.elementOf(node, node.name, deferred);
    if (node instanceof c.TmplAstTemplate) return this.templateOf(node, deferred);
    if (node instanceof c.TmplAstContent) return groupNode(this.all(node.children ?? [], deferred), span);
    if (node instanceof c.TmplAstIfBlock) return this.ifOf(node, deferred);
    if (node instanceof c.TmplAstForLoopBlock) {
      const inside = groupNode(this.all(node.children, deferred), span);
      const each = listNode(this.parsed(node.expression as Expression), [node.item.name], inside, span);
      return groupNode([each, ...(node.empty ? this.all(node.empty.children, deferred) : [])], span);
    }
    if (node instanceof c.TmplAstSwitchBlock) return this.switchOf(node, deferred);
    if (node instanceof c.TmplAstDeferredBlock) return this.deferredOf(node, deferred);
    return textNode('', span);
  }

  private ifOf(node: Of<'TmplAstIfBlock'>, deferred: boolean): SyntaxNode {
    return node.branches.reduceRight<SyntaxNode | null>((no, branch) => {
      const yes = this.group(branch, deferred)!;
      if (!branch.expression) return yes;
      return conditionalNode(this.parsed(branch.expression as Expression), yes, no, this.spanOf(node));
    }, null)!;
  }

  private switchOf(node: Of<'TmplAstSwitchBlock'>, deferred: boolean): SyntaxNode {
    const span = this.spanOf(node);
    const on = this.parsed(node.expression as Expression);
    return groupNode(
      node.groups.map((g) => {
        const tests = g.cases.flatMap((one) => (on && this.parsed(one.expression as Expression)) ?? []);
        const yes = this.group(g, deferred)!;
        return tests.length === 1 ? conditionalNode(equalNode(on!, tests[0], span), yes, null, span) : yes;
      }),
      span,
    );
  }

  private elementOf(
    node: Node & {
      attributes: readonly unknown[];
      inputs: readonly unknown[];
      outputs: readonly unknown[];
      children: readonly unknown[];
    },
    name: string,
    deferred: boolean,
  ): SyntaxNode {
    (deferred ? this.later : this.atOnce).add(name);
    const attributes = [
      ...(node.attributes as (Node & { name: string; value: string })[]).map((a) =>
        attributeNode(a.name, a.value, this.spanOf(a)),
      ),
      ...(node.inputs as (Node & { name: string; value: Expression })[]).flatMap((a) => {
        const value = this.parsed(a.value);
        return value ? [attributeNode(a.name, value, this.spanOf(a))] : [];
      }),
      ...(node.outputs as (Node & { name: string; handler: Expression })[]).flatMap((a) => this.handlerOf(a)),
    ];
    return elementNode(name, this.spanOf(node), attributes, this.all(node.children, deferred));
  }

  private handlerOf(event: Node & { name: string; handler: Expression }): SyntaxNode[] {
    const span = this.spanOf(event);
    const does = handlerNode(event.handler?.source ?? '', (event.handler?.sourceSpan?.start ?? 0) + this.offset);
    if (!does) return [];
    // `[(open)]="open"`: what it is bound to gets what comes.
    const twoWay = event.name.endsWith('Change') && does.type === 'Identifier';
    return [attributeNode(handlerName(event.name), twoWay ? assignmentNode(does, span) : does, span)];
  }

  private templateOf(node: Of<'TmplAstTemplate'>, deferred: boolean): SyntaxNode {
    const span = this.spanOf(node);
    const inside = groupNode(this.all(node.children, deferred), span);
    const test = node.templateAttrs.find((a) => a.name === 'ngIf' || a.name === 'ngSwitchCase');
    const value = test && typeof test.value === 'object' ? this.parsed(test.value as Expression) : null;
    if (value) return conditionalNode(value, inside, null, span);
    const list = node.templateAttrs.find((a) => a.name === 'ngForOf');
    if (!list || typeof list.value !== 'object') return inside;
    return listNode(
      this.parsed(list.value as Expression),
      node.variables.slice(0, 1).map((v) => v.name),
      inside,
      span,
    );
  }

  private deferredOf(node: Of<'TmplAstDeferredBlock'>, deferred: boolean): SyntaxNode {
    const span = this.spanOf(node);
    const place = this.group(node.placeholder, deferred);
    const inside = groupNode(this.all(node.children, true), span, blockWhen(node.triggers as Trigger, place));
    const when = (node.triggers as { when?: { value: Expression } }).when;
    const test = when ? this.parsed(when.value) : null;
    const drawn = test ? conditionalNode(test, inside, null, span) : inside;
    const others = [place, this.group(node.loading, deferred), this.group(node.error, deferred)].filter(
      (g) => g !== null,
    );
    return groupNode([drawn, ...others], span);
  }
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
