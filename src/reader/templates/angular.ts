import MagicString from 'magic-string';
import { SourceText } from '../source-text.ts';
import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { type AngularTemplate, angularMarkup } from './angular-markup.ts';
import { angularCompiler } from './compilers.ts';

/** Gives the text of a file that a component names, with its path in the folder; null where it can't be read. */
export type ResourceReader = (specifier: string) => { path: string; text: string } | null;

/** A component as its decorator describes it. */
export interface AngularComponent {
  /** Names of elements that stand for it. */
  elements: string[];
  template: (AngularTemplate & { source: SourceText; file?: string }) | null;
}

export interface AngularScript {
  components: AngularComponent[];
  /** The script as its compiler leaves it: without decorators, with what they come down to. */
  code: string;
  /** Local names of imports that only the descriptions of components mention. */
  onlyDescribed: Set<string>;
  told: { line: number; message: string }[];
}

/** Decorators that the compiler takes away. */
const DECORATORS = new Set([
  ...['Component', 'Directive', 'Injectable', 'NgModule', 'Pipe', 'Input', 'Output', 'HostBinding', 'HostListener'],
  ...[
    'ViewChild',
    'ViewChildren',
    'ContentChild',
    'ContentChildren',
    'Inject',
    'Optional',
    'Self',
    'SkipSelf',
    'Host',
    'Attribute',
  ],
]);

/** Reads the components of a script by their decorators, and compiles their templates as a production build does (public form of Angular). */
export function angularScript(program: SyntaxNode, source: SourceText, resource: ResourceReader): AngularScript {
  const code = new MagicString(source.text);
  const result: AngularScript = { components: [], code: '', onlyDescribed: new Set(), told: [] };
  const described = new Set<string>();
  const elsewhere = new Set<string>();
  const runtime = new Map<string, string>();
  let added = '';
  walk(program, (node, above) => {
    if (node.type === 'Identifier' && !above.some((n) => n.type === 'ImportDeclaration' || /^TS/.test(n.type)))
      (above.some(isComponentDecorator) ? described : elsewhere).add(node.name as string);
    if (node.type !== 'Decorator') return;
    const { name, given } = decorated(node);
    if (name === null || !DECORATORS.has(name)) return;
    code.remove(node.start, node.end);
    const holder = above.at(-1);
    const className = holder && /^Class/.test(holder.type) ? (nameOf(holder.id) ?? '') : '';
    if (name === 'Component' && given) {
      const component = componentOf(given, source, resource, result.told);
      result.components.push(component);
      added += definitionOf(className, holder!, given, component, runtime, source);
    } else if (given && className !== '')
      added += `\n${className}.ɵ${name}=${source.text.slice(given.start, given.end)};`;
  });
  const imports = [...runtime].map(([local, imported]) => `${imported} as ${local}`).join(',');
  if (imports !== '') code.prepend(`import {${imports}} from '@angular/core';`);
  code.append(added);
  result.code = code.toString();
  for (const name of described) if (!elsewhere.has(name)) result.onlyDescribed.add(name);
  return result;
}

function isComponentDecorator(node: SyntaxNode): boolean {
  return node.type === 'Decorator' && decorated(node).name === 'Component';
}

function decorated(node: SyntaxNode): { name: string | null; given: SyntaxNode | null } {
  const call = node.expression as SyntaxNode;
  if (call?.type !== 'CallExpression') return { name: nameOf(call), given: null };
  const [first] = call.arguments as SyntaxNode[];
  return { name: nameOf(call.callee), given: first?.type === 'ObjectExpression' ? first : null };
}

function fieldOf(given: SyntaxNode, name: string): SyntaxNode | null {
  const property = (given.properties as SyntaxNode[]).find((p) => nameOf(p.key) === name);
  return isNode(property?.value) ? property.value : null;
}

function componentOf(
  given: SyntaxNode,
  source: SourceText,
  resource: ResourceReader,
  told: AngularScript['told'],
): AngularComponent {
  const elements = (constantText(fieldOf(given, 'selector')) ?? '')
    .split(',')
    .map((s) => s.trim())
    .filter((s) => /^[a-z][\w-]*$/i.test(s));
  const inline = fieldOf(given, 'template');
  const address = constantText(fieldOf(given, 'templateUrl'));
  const file = address === null ? null : resource(address);
  const text = inline ? constantText(inline) : (file?.text ?? null);
  if (text === null) return { elements, template: null };
  const offset = inline ? inline.start + 1 : 0;
  const template = angularMarkup(text, offset);
  if (!template) {
    const line = inline ? source.place(inline.start).line : 1;
    told.push({
      line,
      message: `the template${file ? ` ${file.path}` : ''} can’t be parsed: what it draws is left out`,
    });
    return { elements, template: null };
  }
  const place = file ? { source: new SourceText(file.text), file: file.path } : { source };
  return { elements, template: { ...template, ...place } };
}

/** Fields of a description that the definition says otherwise, or that don't ship. */
const TEMPLATE_FIELDS = new Set([
  'template',
  'templateUrl',
  'styleUrl',
  'styleUrls',
  'selector',
  'standalone',
  'preserveWhitespaces',
]);

/** The definition that the compiler writes for a component, with what is left of its description. */
function definitionOf(
  className: string,
  holder: SyntaxNode,
  given: SyntaxNode,
  component: AngularComponent,
  runtime: Map<string, string>,
  source: SourceText,
): string {
  const rest = (given.properties as SyntaxNode[])
    .filter((p) => !TEMPLATE_FIELDS.has(nameOf(p.key) ?? ''))
    .map((p) => source.text.slice(p.start, p.end));
  const described = `{${rest.join(',')}}`;
  const compiled = component.template
    ? compiledTemplate(className, holder, component, textOf(given, component), runtime)
    : null;
  const name = className === '' ? 'globalThis' : className;
  return `\n${name}.ɵcmp=[${described},${compiled === null ? 'null' : `(()=>{${compiled}})()`}];`;
}

function textOf(given: SyntaxNode, { template }: AngularComponent): string {
  return constantText(fieldOf(given, 'template')) ?? template?.source.text ?? '';
}

/** The function that draws a template, and its constants, as the compiler writes them; null where it refuses. */
function compiledTemplate(
  className: string,
  holder: SyntaxNode,
  component: AngularComponent,
  template: string,
  runtime: Map<string, string>,
): string | null {
  const compiler = angularCompiler();
  let written: string | null = null;
  class Written extends compiler.JitEvaluator {
    /** Takes the text in place of running it. */
    override evaluateCode(_: string, context: { toSource(): string }, variables: Record<string, unknown>): unknown {
      written = context.toSource();
      for (const [local, value] of Object.entries(variables)) {
        const symbol = (value as { symbol?: string }).symbol;
        if (symbol !== undefined) runtime.set(local, symbol);
      }
      return {};
    }
  }
  const facade = new compiler.CompilerFacadeImpl(new Written());
  const type = () => {};
  const inputs = decoratedMembers(holder, 'Input');
  const outputs = decoratedMembers(holder, 'Output');
  try {
    facade.compileComponent(runtimeNames(), 'component.ts', {
      ...{ name: className || 'Component', type, typeArgumentCount: 0, selector: component.elements.join(',') || null },
      typeSourceSpan: facade.createParseSourceSpan('Component', className, 'component.ts'),
      ...{ queries: [], host: {}, propMetadata: {}, lifecycle: { usesOnChanges: false }, inputs, outputs },
      ...{
        usesInheritance: false,
        exportAs: null,
        providers: null,
        viewQueries: [],
        isStandalone: true,
        isSignal: false,
      },
      ...{ template, preserveWhitespaces: false, animations: null, viewProviders: null, styles: [], encapsulation: 2 },
      ...{ declarations: [], changeDetection: 1, controlCreate: null },
    } as unknown as Parameters<typeof facade.compileComponent>[2]);
  } catch {
    return null;
  }
  return written;
}

/** Stands for whatever the framework's runtime exports: only the names are needed. */
function runtimeNames(): never {
  return new Proxy({}, { get: (_, symbol) => Object.assign(() => {}, { symbol: String(symbol) }) }) as never;
}

function decoratedMembers(holder: SyntaxNode, decorator: string): string[] {
  const members = ((holder.body as SyntaxNode | undefined)?.body ?? []) as SyntaxNode[];
  return members
    .filter((m) => ((m.decorators ?? []) as SyntaxNode[]).some((d) => decorated(d).name === decorator))
    .flatMap((m) => nameOf(m.key) ?? []);
}
