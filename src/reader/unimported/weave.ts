import { nestsTooDeep } from '../nesting.ts';
import { parse } from '../script/parse.ts';
import { isFunction, isNode, nameOf, namesIn, type SyntaxNode, walk } from '../syntax.ts';
import { componentTags } from '../template-imports.ts';
import type { Provided, Unimported } from './unimported.ts';

/** Words of a text: only where one of them may be meant is it looked at more closely. */
const WORDS = /[A-Za-z_$][\w$]*/g;

/** An import that a text lacks. */
export interface Lacking extends Provided {
  as: string;
}

/** Imports that a script lacks for names that it uses, and that it declares nowhere. */
export function lackedByScript(path: string, text: string, { names }: Unimported): Lacking[] {
  const words = new Set(text.match(WORDS));
  const may = Object.keys(names).filter((name) => words.has(name));
  if (may.length === 0) return [];
  const { used, declared } = namesOf(path, text);
  return may.flatMap((as) => (used.has(as) && !declared.has(as) ? [{ as, ...names[as] }] : []));
}

/** Imports that a template lacks for components that it names, and that the script beside it doesn’t declare. */
export function lackedByTemplate(path: string, script: string, markup: string, { components }: Unimported): Lacking[] {
  const may = [...componentTags(markup)].filter((name) => Object.hasOwn(components, name));
  if (may.length === 0) return [];
  const { declared } = namesOf(path, script);
  return may.flatMap((as) => (declared.has(as) ? [] : [{ as, ...components[as] }]));
}

/** The imports as code. They may stand at the end of a script: imports come before all else wherever they stand (ECMA-262), and no place in it changes. */
export function importsOf(lacking: readonly Lacking[]): string {
  return lacking.map(({ as, from, name }) => `import { ${name} as ${as} } from ${JSON.stringify(from)};`).join(' ');
}

function namesOf(path: string, text: string): { used: Set<string>; declared: Set<string> } {
  const [used, declared] = [new Set<string>(), new Set<string>()];
  if (nestsTooDeep(text)) return { used, declared };
  const lang = /\.[mc]?tsx?$/.test(path) ? (path.endsWith('x') ? 'tsx' : 'ts') : 'jsx';
  walk(parse(path, text, { lang }).program(), (node, above) => {
    if (node.type === 'Identifier' || node.type === 'JSXIdentifier') {
      if (!isNameOfField(node, above.at(-1))) used.add(node.name as string);
      return;
    }
    for (const name of declaredBy(node)) declared.add(name);
  });
  return { used, declared };
}

/** Whether a name is that of a field: `a.name`, `{ name: 1 }`. */
function isNameOfField(node: SyntaxNode, parent: SyntaxNode | undefined): boolean {
  if (!parent || parent.computed === true) return false;
  if (parent.type === 'MemberExpression') return parent.property === node;
  return /Property$|Definition$/.test(parent.type) && parent.key === node && parent.shorthand !== true;
}

function declaredBy(node: SyntaxNode): string[] {
  if (isFunction(node)) return [nameOf(node.id) ?? [], ...(node.params as SyntaxNode[]).map(namesIn)].flat();
  if (node.type === 'VariableDeclarator') return namesIn(node.id);
  if (/^Import\w*Specifier$/.test(node.type)) return [nameOf(node.local) ?? []].flat();
  return isNode(node.id) && /^(Class|TSEnum|TSInterface|TSTypeAlias)/.test(node.type)
    ? [nameOf(node.id) ?? []].flat()
    : [];
}
