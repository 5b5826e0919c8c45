import { loaderAt } from '../routes/expressions.ts';
import { makesParented } from '../routes/parented.ts';
import { bare, constantText, isFunction, isNode, nameOf, type SyntaxNode } from '../syntax.ts';

/** Keys of options under which a library is handed what it calls by itself. */
export const CALLED_KEYS = /^(queryFn|fetcher|loader|fn|request|load|source|handler|get|effect|task)$/;

/** Those of them that tell by themselves that an object is options, where a function gives it: others may be what a store holds. */
const GIVEN_KEYS = /^(queryFn|fetcher|loader)$/;

/** What has a function called for each message that it describes (public form of the listeners of Redux Toolkit). */
export const STARTS_LISTENING = /^(startListening|addListener|startAppListening)$/;

/** The name under which a listener that is written where it is handed over is kept. */
export const listenerAt = ({ start }: SyntaxNode): string => `(listener at ${start})`;

/** Whether a function is a listener that is written where it is handed over. */
function isListener(above: readonly SyntaxNode[]): boolean {
  const [call, , property] = above.slice(-3);
  return (
    call?.type === 'CallExpression' &&
    property?.type === 'Property' &&
    nameOf(property.key) === 'effect' &&
    STARTS_LISTENING.test((dotted(call.callee) ?? '').split('.').at(-1)!)
  );
}

/** What becomes of a function without a name: it runs where it stands, or when somebody acts, or it is only defined. */
export function roleOf(fn: SyntaxNode, above: readonly SyntaxNode[]): 'runs' | 'handler' | 'defined' {
  // What is given to a store runs there, by its convention: `(id) => async (dispatch) => { … }`.
  if (/^_?dispatch$/.test(nameOf((fn.params as unknown[])[0]) ?? '')) return 'runs';
  const parent = above.at(-1);
  if (isGivenBy(parent, above) && /[lL]oader$/.test(nameOf(holderOf(above)) ?? '')) return 'runs';
  const holder = parent?.type === 'JSXExpressionContainer' ? above.at(-2) : parent;
  if (holder?.type === 'JSXAttribute') return /^on[A-Z]/.test(nameOf(holder.name) ?? '') ? 'handler' : 'defined';
  if (holder?.type === 'Property') {
    const key = nameOf(holder.key) ?? '';
    return /^on[A-Z]/.test(key) ? 'handler' : CALLED_KEYS.test(key) ? 'runs' : 'defined';
  }
  if (holder?.type !== 'CallExpression' && holder?.type !== 'NewExpression') {
    // `(async () => { … })()` and `await (…)`.
    return holder?.type === 'ParenthesizedExpression' && above.at(-2)?.type === 'CallExpression' ? 'runs' : 'defined';
  }
  if (holder.callee === fn || !/(^|\.)addEventListener$/.test(dotted(holder.callee) ?? '')) return 'runs';
  const event = constantText((holder.arguments as SyntaxNode[])[0]) ?? '';
  return /^(load|DOMContentLoaded|pageshow)$/.test(event) ? 'runs' : 'handler';
}

/** Whether what stands below a node is what the function around it gives. */
function isGivenBy(node: SyntaxNode | undefined, above: readonly SyntaxNode[]): boolean {
  return node !== undefined && (node.type === 'ReturnStatement' || node === above.findLast(isFunction));
}

/** The name of the innermost function around a place, or of the variable that holds it. */
function holderOf(above: readonly SyntaxNode[]): unknown {
  const at = above.findLastIndex(isFunction);
  return above[at]?.type === 'FunctionDeclaration' ? above[at].id : above[at - 1]?.id;
}

/** The name under which a function is called from elsewhere: its own, with that of its object or class before. */
export function nameOfFunction(fn: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const parent = above.at(-1);
  if (fn.type === 'FunctionDeclaration') {
    const isDefault = parent?.type === 'ExportDefaultDeclaration';
    return nameOf(fn.id) ?? (isDefault ? 'default' : null);
  }
  if (isLoader(above)) return loaderAt(fn);
  if (isListener(above)) return listenerAt(fn);
  if (parent?.type === 'ExportDefaultDeclaration') return 'default';
  // A component that a function gives: `return function WithTide(props) { … }`.
  if (parent?.type === 'ReturnStatement' && /^[A-Z]/.test(nameOf(fn.id) ?? '')) return nameOf(fn.id);
  if (parent?.type === 'VariableDeclarator') return nameOf(parent.id);
  if (parent?.type === 'MethodDefinition' || parent?.type === 'PropertyDefinition') {
    const owner = classAround(above);
    const name = nameOf(parent.key);
    return owner === null || name === null ? null : `${owner}.${name}`;
  }
  if (parent?.type === 'Property') {
    const key = nameOf(parent.key) ?? '';
    const isCalled = CALLED_KEYS.test(key) && isArgument(key, above);
    // What a component hands to a hook is called by that, whatever name it gives to what comes back.
    if (isCalled && above.some(isFunction)) return null;
    const isOption = /^on[A-Z]/.test(key) || isCalled;
    return nameInObject(above) ?? (isOption || key === '' ? null : key);
  }
  // `memo(function …)`, `defineStore('x', () => …)`, `defineComponent({ … })` under a name.
  if (parent?.type === 'CallExpression' && (parent.arguments as unknown[]).includes(fn) && !keysPickedBy(fn).length) {
    if (above.some(isFunction) && runsAtOnce(parent, fn)) return null;
    const holder = above.at(-2);
    if (holder?.type === 'VariableDeclarator') return nameOf(holder.id);
    if (holder?.type === 'ExportDefaultDeclaration') return 'default';
  }
  return null;
}

/** Hooks by whose names they only keep a function for later, or for an act. */
const KEEPS = /Callback|Event|Mutation|Action|Lazy|Submit|Handler|Debounc|Throttl|Store|Context|Fn$/;

/** Whether what a component calls runs a function that it is handed, whatever name is given to what comes of it: `const tides = useAsync(() => fetchTides())`. */
function runsAtOnce({ callee }: SyntaxNode, fn: SyntaxNode): boolean {
  const name = nameOf(callee) ?? '';
  return optionsOf(fn).length > 0 || (/^(use|create)[A-Z]/.test(name) && !KEEPS.test(name));
}

/** Whether a place is that of the loader of a route, in an object or an element. */
export function isLoader(above: readonly SyntaxNode[]): boolean {
  const parent = above.at(-1);
  if (parent?.type === 'Property')
    return nameOf(parent.key) === 'loader' && (isOfRoute(above.at(-2)) || makesParented(above.at(-3)));
  const attribute = parent?.type === 'JSXExpressionContainer' ? above.at(-2) : undefined;
  return attribute?.type === 'JSXAttribute' && nameOf(attribute.name) === 'loader';
}

/** Whether an object is a route for a router that loads before it draws. */
function isOfRoute(object: SyntaxNode | undefined): boolean {
  if (object?.type !== 'ObjectExpression') return false;
  return (object.properties as SyntaxNode[]).some((p) =>
    /^(path|index|element|[cC]omponent)$/.test(nameOf(p.key) ?? ''),
  );
}

/** Whether the object around a property is handed to a call, by itself or as what a function gives. */
function isArgument(key: string, above: readonly SyntaxNode[]): boolean {
  let given = above.length - 2;
  const fn = above.findLastIndex(isFunction);
  if (GIVEN_KEYS.test(key) && fn >= 0 && optionsOf(above[fn])[0] === above[given]) given = fn;
  const call = above[given - 1];
  const calls = call?.type === 'CallExpression' || call?.type === 'NewExpression';
  return calls && (call.arguments as unknown[]).includes(above[given]);
}

/** `api.tides`, `default.methods.save`: the keys that lead to a function, behind the name of the object, or that of what is made of it. */
export function nameInObject(above: readonly SyntaxNode[]): string | null {
  const keys: string[] = [];
  let at = above.length - 1;
  for (; above[at]?.type === 'Property' || above[at]?.type === 'ObjectExpression'; at--) {
    if (above[at].type !== 'Property') continue;
    const key = nameOf(above[at].key);
    if (key === null) return null;
    keys.unshift(key);
  }
  if (above[at]?.type === 'CallExpression' || above[at]?.type === 'NewExpression') at--;
  const holder = above[at];
  const owner =
    holder?.type === 'ExportDefaultDeclaration'
      ? 'default'
      : holder?.type === 'VariableDeclarator'
        ? nameOf(holder.id)
        : null;
  return owner === null ? null : [owner, ...keys].join('.');
}

/** The class around a place, by its name. */
export function classAround(above: readonly SyntaxNode[]): string | null {
  const owner = above.findLast((n) => n.type === 'ClassDeclaration' || n.type === 'ClassExpression');
  return owner ? (nameOf(owner.id) ?? 'default') : null;
}

/** The object that a function gives where it does nothing else: `() => ({ queryKey, queryFn })`. */
export function optionsOf(fn: SyntaxNode): SyntaxNode[] {
  const body = isNode(fn.body) ? bare(fn.body) : null;
  const only = body?.type === 'BlockStatement' ? (body.body as SyntaxNode[]) : [];
  const given = only.length === 1 && only[0].type === 'ReturnStatement' ? only[0].argument : body;
  return isNode(given) && bare(given).type === 'ObjectExpression' ? [bare(given)] : [];
}

/** The keys that a function takes of what it is given, where it does nothing else. */
export function keysPickedBy(fn: SyntaxNode): string[] {
  const name = nameOf((fn.params as unknown[])[0]);
  const picked = isNode(fn.body) ? dotted(fn.body) : null;
  return name !== null && picked?.startsWith(`${name}.`) ? picked.split('.').slice(1) : [];
}

/** A chain of names as it is written: `a.b.c`; null of anything else. */
export function dotted(node: unknown): string | null {
  if (!isNode(node)) return null;
  const plain = bare(node);
  if (plain.type === 'Identifier') return nameOf(plain);
  if (plain.type === 'ThisExpression') return 'this';
  if (plain.type === 'ChainExpression') return dotted(plain.expression);
  if (plain.type !== 'MemberExpression' || plain.computed) return null;
  const [object, property] = [dotted(plain.object), nameOf(plain.property)];
  return object === null || property === null ? null : `${object}.${property}`;
}

/** What is called, as a dotted name; `this` is the class around, or the methods of a component that is described by an object. */
export function calledAs(callee: unknown, above: readonly SyntaxNode[]): string | null {
  const name = dotted(callee);
  if (name === null || !name.startsWith('this.')) return name;
  const isDescribed = above.some((n) => n.type === 'ExportDefaultDeclaration');
  const owner = classAround(above) ?? (isDescribed ? 'default.methods' : null);
  return owner === null ? null : `${owner}.${name.slice('this.'.length)}`;
}
