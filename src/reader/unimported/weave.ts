import { nestsTooDeep } from '../nesting.ts';
import { parse } from '../script/parse.ts';
import { isFunction, isNode, nameOf, namesIn, type SyntaxNode, walk } from '../syntax.ts';
import { componentTags } from '../template-imports.ts';
import type { Provided, Unimported } from './unimported.ts';

/** Words of a text. */
const WORDS = /[A-Za-z_$][\w$]*/g;

/** An import that a text lacks. */
export interface Lacking extends Provided {
  as: string;
}

/** What of all that a build imports a text may mean by its words; undefined where that is nothing. */
export function mayMean(text: string, { names, components }: Unimported): Unimported | undefined {
  const words = new Set(text.match(WORDS));
  const tags = componentTags(text);
  const among = (of: Record<string, Provided>, said: ReadonlySet<string>) =>
    Object.fromEntries(Object.entries(of).filter(([name]) => said.has(name)));
  const may = { names: among(names, words), components: among(components, tags) };
  return Object.keys(may.names).length + Object.keys(may.components).length === 0 ? undefined : may;
}

/** Imports that a script lacks, for names that it uses and components that the markup beside it names, as far as it declares neither. */
export function lackedBy(path: string, script: string, { names, components }: Unimported, markup = ''): Lacking[] {
  const tags = [...componentTags(markup)].filter((name) => Object.hasOwn(components, name));
  if (tags.length === 0 && Object.keys(names).length === 0) return [];
  const { used, declared } = namesOf(path, script);
  const lacking = (as: string, of: Record<string, Provided>) => (declared.has(as) ? [] : [{ as, ...of[as] }]);
  return [
    ...Object.keys(names).flatMap((as) => (used.has(as) ? lacking(as, names) : [])),
    ...tags.flatMap((as) => lacking(as, components)),
  ];
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
