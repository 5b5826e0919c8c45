import { optionsOf } from '../data/function-names.ts';
import { mapped } from '../data/messages.ts';
import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/*
 * What components take of the one store of an app, and what they send to it, by the public forms of Redux's bindings, Vuex and Pinia.
 */

/** What stands for all that the one store of an app holds. */
export const STORE = '@store';

/** What stands for all that a hook gives: those that dispatch to a store and those that select of it are of one (public form of their bindings). */
export function storeOf(hook: string): string | null {
  if (!/^use[A-Z]/.test(hook)) return null;
  return /(Dispatch|Selector)$/.test(hook) ? STORE : `@${hook}`;
}

/** The names that a component takes over of the store by a call, or that the call sends something to the store; null of any other. */
export function ofStore(call: SyntaxNode): string[] | 'sent' | null {
  const callee = nameOf(call.callee) ?? nameOf((call.callee as SyntaxNode).property) ?? '';
  const given = call.arguments as SyntaxNode[];
  if (callee === 'connect' || callee === 'createStructuredSelector') return given[0] ? keysGiven(given[0]) : [];
  if (/^map(State|WritableState|Getters)$/.test(callee) && given.length > 0) return namesMapped(given.at(-1)!);
  const { object } = call.callee as SyntaxNode;
  const of = isNode(object) && object.type === 'MemberExpression' ? nameOf(object.property) : nameOf(object);
  return callee === 'dispatch' && of === '$store' ? 'sent' : null;
}

/** Names that functions have by convention which select of the store what a component is handed (documentation of Redux’s bindings). */
const SELECTS = /^mapState(ToProps)?$/;

/** The names under which a component is handed what a function of a usual name selects of the store; null of any other function. */
export function selectedBy(name: unknown, fn: unknown): string[] | null {
  return SELECTS.test(nameOf(name) ?? '') && isNode(fn) && isFunction(fn) ? keysGiven(fn) : null;
}

/** The methods of a component that send something to the store. */
export function methodsSending(root: SyntaxNode, text: string): string[] {
  const found: string[] = [];
  if (!text.includes('mapActions')) return found;
  walk(root, (node) => {
    const names = node.type === 'CallExpression' ? (node.arguments as SyntaxNode[]).at(-1) : undefined;
    if (names && nameOf(node.callee) === 'mapActions') found.push(...namesMapped(names));
  });
  return found;
}

/** The names under which a component is handed what a function, or an object of functions, selects of the store. */
function keysGiven(selects: SyntaxNode): string[] {
  const [object] = isFunction(selects) ? optionsOf(selects) : [selects];
  return object?.type === 'ObjectExpression' ? keysOf(object) : [];
}

function namesMapped(names: SyntaxNode): string[] {
  return names.type === 'ObjectExpression' ? keysOf(names) : mapped(names).map(([local]) => local);
}

const keysOf = ({ properties }: SyntaxNode) => (properties as SyntaxNode[]).flatMap(({ key }) => nameOf(key) ?? []);
