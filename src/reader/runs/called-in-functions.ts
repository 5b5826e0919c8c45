import type { Module } from '../../core/snapshot/module-types.ts';
import { importedBindings, importedNames } from '../script/imported-bindings.ts';
import { Scopes } from '../script/scopes.ts';
import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';

/** Whether functions do something whenever they are called, or only under a condition or for what is in a list, which mostly means: once data is there. */
export type HowOften = NonNullable<Module['formats']>;

/** Of two, what happens more often. */
export const moreOften = (a: HowOften | undefined, b: HowOften): HowOften => (a === 'always' ? a : b);

/** What functions of a program call, other than to answer an act. */
export interface CalledInFunctions {
  /** Specifiers of static imports of which something is called or constructed. */
  imports: ReadonlyMap<string, HowOften>;
  /** Something that formats numbers, dates or texts of a language is made or used. */
  formats: HowOften | undefined;
}

export function calledInFunctions(program: SyntaxNode): CalledInFunctions {
  const bindings = importedBindings(program);
  const scopes = new Scopes();
  const handlers = namedHandlers(program, scopes);
  const names = importedNames(program);
  const imports = new Map<string, HowOften>();
  let formats: HowOften | undefined;
  walk(program, (node, above) => {
    if (node.type !== 'NewExpression' && node.type !== 'CallExpression') return;
    const name = rootOf(node.callee) ?? '';
    const specifier = bindings.get(name);
    const isFormat = doesFormat(node);
    const isKnown = specifier === undefined || imports.get(specifier) === 'always';
    if ((isKnown && (!isFormat || formats === 'always')) || !above.some(isFunction)) return;
    if (isInHandler(above, handlers, scopes)) return;
    const often = howOften(node, above, names);
    if (isFormat) formats = moreOften(formats, often);
    if (specifier !== undefined && scopes.homeOf(name, above) === null)
      imports.set(specifier, moreOften(imports.get(specifier), often));
  });
  return { imports, formats };
}

const FORMATS =
  /^(NumberFormat|DateTimeFormat|RelativeTimeFormat|DurationFormat|ListFormat|DisplayNames|Segmenter|Collator)$/;

const FORMATS_ITSELF = /^(toLocale(Date|Time)?String|localeCompare)$/;

/** Whether a call or construction formats or orders something as a language does (ECMA-402): `new Intl.NumberFormat()`, `date.toLocaleString()`. */
export function doesFormat({ callee }: SyntaxNode): boolean {
  if (!isNode(callee) || callee.type !== 'MemberExpression') return false;
  const member = nameOf(callee.property) ?? '';
  return nameOf(callee.object) === 'Intl' ? FORMATS.test(member) : FORMATS_ITSELF.test(member);
}

/** The name that a callee begins with: of `L.map` that is `L`. */
function rootOf(callee: unknown): string | null {
  let at = callee;
  while (isNode(at) && at.type === 'MemberExpression') at = at.object;
  return nameOf(at);
}

/** Calls that go through a list, or that wait for something, with a function (language; what compilers of templates make of lists and conditions). */
const LATER =
  /^(map|flatMap|filter|forEach|reduce|reduceRight|some|every|find\w*|sort|toSorted|then|catch|finally|setTimeout|setInterval|_?renderList|each|if|await)$/;

/** How often a place within functions is come to when they are called. */
function howOften(place: SyntaxNode, above: readonly SyntaxNode[], names: ReadonlyMap<string, string>): HowOften {
  let inner = place;
  for (let i = above.length - 1; i >= 0; i--) {
    const node = above[i];
    if (isUnder(node, inner) || (isFunction(inner) && goesThrough(node, names))) return 'with data';
    inner = node;
  }
  return 'always';
}

/** Whether what stands in a node is come to under a condition only. */
function isUnder(node: SyntaxNode, inner: SyntaxNode): boolean {
  switch (node.type) {
    case 'IfStatement':
    case 'ConditionalExpression':
      return node.test !== inner;
    case 'LogicalExpression':
      return node.right === inner;
    case 'SwitchCase':
    case 'CatchClause':
    case 'WhileStatement':
      return true;
    case 'ForStatement':
    case 'ForInStatement':
    case 'ForOfStatement':
      return node.body === inner;
    case 'BlockStatement':
      return returnsBefore(node.body as SyntaxNode[], inner);
    default:
      return false;
  }
}

/** Whether a function may have come back before a statement: `if (!data) return null;`. */
function returnsBefore(statements: readonly SyntaxNode[], statement: SyntaxNode): boolean {
  for (const one of statements) {
    if (one === statement) return false;
    if (one.type !== 'IfStatement') continue;
    const branch = one.consequent as SyntaxNode;
    const last = branch.type === 'BlockStatement' ? (branch.body as SyntaxNode[]).at(-1) : branch;
    if (last?.type === 'ReturnStatement' || last?.type === 'ThrowStatement') return true;
  }
  return false;
}

/** Whether a call goes through a list, or waits, with the function that it is given. `names`: those that imports have where they come from. */
function goesThrough(node: SyntaxNode, names: ReadonlyMap<string, string>): boolean {
  if (node.type !== 'CallExpression') return false;
  const callee = node.callee as SyntaxNode;
  const name = nameOf(callee.type === 'MemberExpression' ? callee.property : callee) ?? '';
  return LATER.test(callee.type === 'Identifier' ? (names.get(name) ?? name) : name);
}

const HANDLES = /^on:?[A-Za-z]/;

/** Names, by what declares them. */
type Names = Map<SyntaxNode | null, Set<string>>;

/** Names of functions that are named as what answers an act: `{ onClick: open }`, `button.addEventListener('click', open)`. */
function namedHandlers(program: SyntaxNode, scopes: Scopes): Names {
  const names: Names = new Map();
  walk(program, (node, above) => {
    const handled =
      node.type === 'Property' && HANDLES.test(nameOf(node.key) ?? '')
        ? node.value
        : isListening(node)
          ? (node.arguments as SyntaxNode[])[1]
          : null;
    if (!isNode(handled) || handled.type !== 'Identifier') return;
    const name = handled.name as string;
    const home = scopes.homeOf(name, above);
    names.set(home, (names.get(home) ?? new Set()).add(name));
  });
  return names;
}

/** Whether a place lies in a function that answers an act. */
function isInHandler(above: readonly SyntaxNode[], handlers: Names, scopes: Scopes): boolean {
  const isHandler = (id: unknown, depth: number) => {
    const name = nameOf(id);
    return name !== null && !!handlers.get(scopes.homeOf(name, above.slice(0, depth)))?.has(name);
  };
  return above.some((node, i) => {
    if (!isFunction(node)) return false;
    if (node.type === 'FunctionDeclaration') return isHandler(node.id, i);
    // A function may be handed through others before it gets its name: `const open = useCallback(() => …)`.
    let at = i - 1;
    while (at > 0 && above[at].type === 'CallExpression') at--;
    const around = above[i - 1];
    if (above[at]?.type === 'VariableDeclarator') return isHandler(above[at].id, at);
    return (around?.type === 'Property' && HANDLES.test(nameOf(around.key) ?? '')) || (!!around && isListening(around));
  });
}

function isListening(node: SyntaxNode): boolean {
  if (node.type !== 'CallExpression' || !isNode(node.callee) || node.callee.type !== 'MemberExpression') return false;
  return /^(addEventListener|on)$/.test(nameOf(node.callee.property) ?? '');
}
