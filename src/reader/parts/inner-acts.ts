import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { functionsOf } from './functions-of-module.ts';
import { ANY, type InnerActs, plainName } from './inner-marks.ts';
import { wordsAt } from './words.ts';

/** Functions that tell who draws a component of something, by its name. */
const TELLS = /^(\$?emit|dispatch|\$dispatch|fire|dispatchEvent)$/;
/** What people do in the components of a module. */
export function innerActs(roots: readonly SyntaxNode[]): InnerActs {
  const functions = new Map(roots.flatMap((root) => [...functionsOf(root)]));
  const acts: Record<string, string> = {};
  const note = (events: Iterable<string>, words: () => string | null) => {
    for (const event of events) {
      const said = Object.hasOwn(acts, event) ? null : words();
      if (said !== null) acts[event] = said;
    }
  };
  for (const root of roots)
    walk(root, (node, above) => {
      const words = () => wordsAt(node, above);
      if (node.type === 'JSXSpreadAttribute' && isPressed(above.at(-1))) note([ANY], words);
      if (node.type !== 'JSXAttribute' || !/^on[A-Z]/.test(nameOf(node.name) ?? '')) return;
      note(toldBy(node.value, functions), words);
    });
  return acts;
}

/** What is handed all may be what is pressed: a control, or a component that has one; what only holds others isn't. */
function isPressed(opening: SyntaxNode | undefined): boolean {
  return /^(button|a|input|label|summary|select|option|[A-Z]\w*)$/.test(nameOf(opening?.name) ?? '');
}

/** What a handler calls of who draws its component, itself and in the module's own functions that it names. */
function toldBy(handler: unknown, functions: ReadonlyMap<string, SyntaxNode>): Set<string> {
  const told = new Set<string>();
  const seen = new Set<string>();
  const take = (name: string | null) => {
    if (name !== null && /^on[A-Z]/.test(name)) told.add(plainName(name));
  };
  const look = (node: SyntaxNode) =>
    walk(node, (inner) => {
      if (inner.type === 'MemberExpression') take(nameOf(inner.property));
      if (inner.type === 'CallExpression') {
        const { callee } = inner;
        const name = nameOf(callee) ?? (isNode(callee) ? nameOf(callee.property) : null);
        const event = TELLS.test(name ?? '') ? constantText((inner.arguments as SyntaxNode[])[0]) : null;
        if (event !== null) told.add(plainName(event));
        // An emitter that is a field: `this.add.emit()`.
        if (name === 'emit' && isNode(callee) && isNode(callee.object)) {
          const field = nameOf(callee.object) ?? nameOf(callee.object.property);
          if (field !== null) told.add(plainName(field));
        }
      }
      if (inner.type !== 'Identifier') return;
      const name = inner.name as string;
      take(name);
      const body = functions.get(name);
      if (!body || seen.has(name)) return;
      seen.add(name);
      look(body);
    });
  if (isNode(handler)) look(handler);
  return told;
}
