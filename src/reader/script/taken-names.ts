import { isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';
import { memberNames } from './member-names.ts';

/**
 * Names that are taken of a deferred import where it is made, so that nothing else of it is used: `const { debounce } = await import('kit')`,
 * `(await import('kit')).debounce`, `import('kit').then(({ debounce }) => …)`, `.then((kit) => kit.debounce(…))`. Null where it goes on whole.
 */
export function takenNames(above: readonly SyntaxNode[], at = above.length - 1): string[] | null {
  const parent = above[at];
  if (!parent) return null;
  const outer = above[at - 1];
  if (parent.type === 'AwaitExpression' || parent.type === 'ParenthesizedExpression') return ofAwaited(above, at - 1);
  const then =
    parent.type === 'MemberExpression' && nameOf(parent.property) === 'then' && outer?.type === 'CallExpression';
  if (!then) return null;
  const [done] = outer.arguments as SyntaxNode[];
  return done && isFunction(done) ? ofParameter(done) : null;
}

function ofAwaited(above: readonly SyntaxNode[], at: number): string[] | null {
  const parent = above[at];
  if (parent?.type === 'ParenthesizedExpression' || parent?.type === 'AwaitExpression') return ofAwaited(above, at - 1);
  if (parent?.type === 'MemberExpression' && parent.computed !== true) {
    const name = nameOf(parent.property);
    return name === null ? null : [name];
  }
  return parent?.type === 'VariableDeclarator' ? ofPattern(parent.id) : null;
}

function ofPattern(pattern: unknown): string[] | null {
  if (!isNode(pattern) || pattern.type !== 'ObjectPattern') return null;
  const names: string[] = [];
  for (const property of pattern.properties as SyntaxNode[]) {
    const name = property.type === 'Property' && property.computed !== true ? nameOf(property.key) : null;
    if (name === null) return null;
    names.push(name);
  }
  return names;
}

/** What a function takes of its first parameter. */
function ofParameter(fn: SyntaxNode): string[] | null {
  const [parameter] = fn.params as SyntaxNode[];
  if (!parameter) return [];
  if (parameter.type !== 'Identifier') return ofPattern(parameter);
  return memberNames(fn.body as SyntaxNode, nameOf(parameter)!);
}
