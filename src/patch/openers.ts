import { attributeOf, ownName } from '../reader/script/handed-off.ts';
import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../reader/syntax.ts';
import type { Reference, ScriptFile } from './script-file.ts';

const APPROACHED = /^on(?:Mouse|Pointer)(?:Enter|Over)$|^onFocus(?:In)?$/;

/**
 * The elements by which a person gets to a use of something: those whose handlers lead to it, or set the state under which it
 * is drawn. Null where none is found in the file, where one is a component of its own, or watches the pointer or focus already.
 */
export function openersOf(file: ScriptFile, uses: readonly Reference[]): SyntaxNode[] | null {
  const found = new Set<SyntaxNode>();
  for (const use of uses) {
    const direct = handledBy(file, use, new Set());
    const elements =
      direct.length > 0
        ? direct
        : settersOf(file, use).flatMap((setter) =>
            (file.references(setter, 1) ?? []).flatMap((r) => handledBy(file, r, new Set())),
          );
    if (elements.length === 0) return null;
    for (const element of elements) found.add(element);
  }
  return [...found].every(canWatch) ? [...found] : null;
}

/** Elements with a handler that a place stands in, directly or through functions of the file with a name. */
function handledBy(file: ScriptFile, { node, above }: Reference, seen: Set<string>): SyntaxNode[] {
  const places: [SyntaxNode, number][] = [[node, above.length]];
  for (let at = above.length - 1; at >= 0; at--) if (isFunction(above[at])) places.push([above[at], at]);
  for (const [place, at] of places) {
    const attribute = attributeOf(above, at);
    if (attribute && /^on[A-Z]/.test(attribute.name)) return [attribute.element];
    const name = isFunction(place) ? ownName(place, above, at) : null;
    if (name === null || seen.has(name) || /^[A-Z]/.test(name)) continue;
    seen.add(name);
    const through = (file.references(name, 1) ?? []).flatMap((r) => handledBy(file, r, seen));
    if (through.length > 0) return through;
  }
  return [];
}

/** The functions that set the states under which something is drawn: `setOpen` of `const [open, setOpen] = …` for `open && <Part />`. */
function settersOf(file: ScriptFile, { above, node }: Reference): string[] {
  const tests: SyntaxNode[] = [];
  const around = [...above, node];
  for (let at = 0; at + 1 < around.length; at++) {
    const [outer, inner] = [around[at], around[at + 1]];
    if (outer.type === 'LogicalExpression' && outer.right === inner) tests.push(outer.left as SyntaxNode);
    if (/^(?:Conditional|If)/.test(outer.type) && outer.test !== inner) tests.push(outer.test as SyntaxNode);
  }
  const states = new Set<string>();
  for (const test of tests)
    walk({ type: 'Test', start: 0, end: 0, test }, (n) => {
      if (n.type === 'Identifier') states.add(n.name as string);
    });
  const setters: string[] = [];
  walk(file.program, (n) => {
    if (n.type !== 'VariableDeclarator' || (n.id as SyntaxNode).type !== 'ArrayPattern') return;
    const [state, setter] = (n.id as SyntaxNode).elements as (SyntaxNode | null)[];
    if (isNode(state) && isNode(setter) && states.has(nameOf(state) ?? '')) setters.push(nameOf(setter)!);
  });
  return setters;
}

/** Whether an element can be given handlers for pointer and focus: one of the page itself that has none yet. */
function canWatch(element: SyntaxNode): boolean {
  const attributes = element.attributes as SyntaxNode[];
  if (!/^[a-z]/.test(nameOf(element.name) ?? '')) return false;
  return attributes.every((a) => a.type === 'JSXAttribute' && !APPROACHED.test(nameOf(a.name) ?? ''));
}
