import { nameOfFunction } from '../parts/call-sites.ts';
import { wordsOf } from '../parts/words.ts';
import { componentUse, exportedComponents } from '../script/component-uses.ts';
import { attributeOf, CALL_ONCE_DRAWN, calledName, handedTo, isDependency, KEEPS } from '../script/handed-off.ts';
import { importedBindings, importedNames } from '../script/imported-bindings.ts';
import { constantText, isFunction, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { canBeDeferred } from './can-wait.ts';
import { writesToPage } from './page-writes.ts';
import { isPutOff } from './put-off.ts';
import type { ImportedUse, RunSheet, UsePlace } from './run-sheet.ts';

/** Handlers of what happens by itself, soon after something is drawn. */
const BY_ITSELF = /^on(Load|Loaded|Ready|Mount|Mounted|Init|Error)/;
/** Methods of components that run once it was drawn, or later. */
const AFTER_DRAWING = new Set([
  ...['componentDidMount', 'componentDidUpdate', 'componentWillUnmount', 'ngAfterViewInit', 'ngOnDestroy'],
]);

/**
 * When the code of a module runs, as far as it says so itself: what it imports and its own functions, with the places that
 * use them. A function runs no sooner than whatever makes it; one with a name (bound once) no sooner than something uses
 * that name; one that is given to an `on…` attribute or to `addEventListener` when somebody acts. So nothing is said to run
 * later than it can. `roots`: the script, and its templates as parsed markup; `text`: that of the script.
 */
export function readRuns(program: SyntaxNode, roots: readonly SyntaxNode[], text: string): RunSheet {
  const imports = importedBindings(program);
  const names = importedNames(program);
  const own = ownFunctions(roots);
  const imported: ImportedUse[] = [];
  const deferred: RunSheet['deferred'] = [];
  const writes: UsePlace[] = [];
  const functions = new Map([...own.values()].map(({ name }): [string, UsePlace[]] => [name, []]));
  for (const root of roots)
    walk(root, (node, above) => {
      const place = () => waiting(placeOf(node, above, own), node, above);
      const asked = node.type === 'ImportExpression' ? constantText(node.source) : null;
      if (asked !== null) deferred.push({ specifier: asked, at: place() });
      if (root === program && writesToPage(node, text) && !above.some((n) => n.type === 'ClassBody'))
        writes.push(place());
      const name = usedName(node, above);
      if (name === null || (root === program && isPlainElement(node, above))) return;
      const specifier = node.type === 'MemberExpression' ? undefined : imports.get(name);
      const calls = functions.get(name);
      // Most names are known nowhere, so that what is around them is looked at last.
      if ((specifier === undefined && !calls) || isOnlyNamed(node, above)) return;
      const at = place();
      calls?.push(at);
      if (specifier !== undefined) {
        const whole = names.get(name) ?? '*';
        const taken = whole === '*' ? (memberOf(node, above) ?? '*') : whole;
        const asComponent = /^[A-Z]/.test(name) && componentUse({ node, above }) !== null;
        imported.push({
          specifier,
          name: taken,
          at,
          atOnce: canBeDeferred(node, above) ? null : node.start,
          asComponent,
        });
      }
    });
  // What nobody in the class calls, its component system does.
  for (const { name, isMethod } of own.values())
    if (isMethod && functions.get(name)!.length === 0) functions.set(name, ['now']);
  return {
    imported,
    deferred,
    writes,
    functions,
    exported: exportedFunctions(program, functions),
    components: exportedComponents(program),
  };
}

interface OwnFunction {
  name: string;
  isMethod: boolean;
}

/** The functions of a module that have a name which nothing else in it has. */
function ownFunctions(roots: readonly SyntaxNode[]): Map<SyntaxNode, OwnFunction> {
  const found = new Map<SyntaxNode, OwnFunction>();
  const bound = new Map<string, number>();
  const note = (name: string | null) => name !== null && bound.set(name, (bound.get(name) ?? 0) + 1);
  for (const root of roots)
    walk(root, (node, above) => {
      if (isFunction(node)) {
        const name = boundName(node, above);
        const isMethod = /^(Method|Property)Definition$/.test(above.at(-1)?.type ?? '');
        if (name !== null) note(name);
        if (name !== null && (!isMethod || isOwnMethod(name, above))) found.set(node, { name, isMethod });
        for (const p of node.params as SyntaxNode[]) note(nameOf(p));
      } else if (node.type === 'VariableDeclarator') {
        const value = node.init as SyntaxNode | null;
        if (!value || !(isFunction(value) || isKept(value))) note(nameOf(node.id));
      }
    });
  for (const [node, { name }] of found) if (bound.get(name) !== 1) found.delete(node);
  return found;
}

/** Methods that component systems call by themselves. */
const CALLED_BY_SYSTEM =
  /^(constructor$|render|component|shouldComponent|get(Derived|Snapshot)|UNSAFE_|ng[A-Z]|connected|disconnected|adopted|attributeChanged|updated?$|firstUpdated|willUpdate|setup$)/;

/** Whether only the class itself, and its template, call a method: that of a component, which nobody else holds. */
function isOwnMethod(name: string, above: readonly SyntaxNode[]): boolean {
  const [holder, , method] = above.slice(-3);
  const isComponent = holder?.superClass || ((holder?.decorators as unknown[] | undefined) ?? []).length > 0;
  return Boolean(isComponent) && !method?.static && !CALLED_BY_SYSTEM.test(name);
}

/** The name by which other code runs a function: its own, that of what holds it, or of the variable that keeps it. */
function boundName(fn: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const parent = above.at(-1);
  if (parent && isKept(parent) && (parent.arguments as unknown[])[0] === fn) {
    const holder = above.at(-2);
    return holder?.type === 'VariableDeclarator' ? nameOf(holder.id) : null;
  }
  // What an object holds may be reached in many ways.
  if (parent?.type === 'Property') return null;
  return nameOfFunction(fn, parent);
}

function isKept(node: SyntaxNode): boolean {
  return node.type === 'CallExpression' && KEEPS.has(calledName(node) ?? '');
}

/** The name that a node uses: an identifier or an element's name, or `this.name`; null where it binds or exports. */
function usedName(node: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const parent = above.at(-1);
  if (node.type === 'MemberExpression')
    return (node.object as SyntaxNode).type === 'ThisExpression' && !node.computed ? nameOf(node.property) : null;
  if (node.type !== 'Identifier' && node.type !== 'JSXIdentifier') return null;
  if (!parent) return null;
  switch (parent.type) {
    case 'VariableDeclarator':
    case 'FunctionDeclaration':
    case 'FunctionExpression':
    case 'ClassDeclaration':
      return parent.id === node || (parent.params as unknown[] | undefined)?.includes(node)
        ? null
        : (node.name as string);
    case 'ArrowFunctionExpression':
      return (parent.params as unknown[]).includes(node) ? null : (node.name as string);
    case 'MemberExpression':
      return parent.property === node && !parent.computed ? null : (node.name as string);
    case 'Property':
      return parent.key === node && parent.value !== node && !parent.shorthand ? null : (node.name as string);
    case 'MethodDefinition':
    case 'PropertyDefinition':
      return parent.key === node && !parent.computed ? null : (node.name as string);
    case 'JSXAttribute':
    case 'JSXClosingElement':
    case 'ExportDefaultDeclaration':
      return null;
    default:
      return node.name as string;
  }
}

/** Whether a name only says on what something depends, or stands in an import, in a list of exports or in a type. */
function isOnlyNamed({ type }: SyntaxNode, above: readonly SyntaxNode[]): boolean {
  if (type === 'MemberExpression') return false;
  return (
    isDependency(above) ||
    above.some((n) => n.type === 'ImportDeclaration' || (/^(TS|Export(Named|All))/.test(n.type) && !holdsCode(n)))
  );
}

/** In scripts a small letter begins the name of an element that browsers know. */
function isPlainElement(node: SyntaxNode, above: readonly SyntaxNode[]): boolean {
  return (
    above.at(-1)?.type === 'JSXOpeningElement' && node.type === 'JSXIdentifier' && /^[a-z]/.test(node.name as string)
  );
}

/** Types and lists of exports hold no code that runs; a declaration that is exported, and a value with a type around it, do. */
function holdsCode(node: SyntaxNode): boolean {
  if (/^TS(As|Satisfies|NonNull|Instantiation)Expression$|^TSTypeAssertion$/.test(node.type)) return true;
  return node.type === 'ExportNamedDeclaration' && node.declaration !== null && node.declaration !== undefined;
}

/** `x` of `everything.x`: the one name that is taken of a namespace. */
function memberOf(node: SyntaxNode, above: readonly SyntaxNode[]): string | null {
  const parent = above.at(-1);
  return parent?.type === 'MemberExpression' && parent.object === node && !parent.computed
    ? nameOf(parent.property)
    : null;
}

/** When the code around a place runs. */
function placeOf(node: SyntaxNode, above: readonly SyntaxNode[], own: ReadonlyMap<SyntaxNode, OwnFunction>): UsePlace {
  const handed = timeOf(node, above, above.length);
  if (handed !== null) return handed;
  for (let at = above.length - 1; at >= 0; at--) {
    const fn = above[at];
    if (!isFunction(fn)) continue;
    const time = timeOf(fn, above, at);
    if (time !== null) return time;
    const method = above[at - 1];
    if (method?.type === 'MethodDefinition' && AFTER_DRAWING.has(nameOf(method.key) ?? '')) return 'effect';
    const known = own.get(fn);
    if (known) return { fn: known.name };
  }
  return 'now';
}

/** The same, where the code waits for something before it comes there. */
function waiting(at: UsePlace, node: SyntaxNode, above: readonly SyntaxNode[]): UsePlace {
  const isCode = at === 'now' || (typeof at === 'object' && 'fn' in at);
  if (!isCode || !isPutOff(node, above)) return at;
  return at === 'now' ? 'later' : { ...at, waits: true };
}

/** When a function runs that is handed on at its place; null where that says nothing. */
function timeOf(node: SyntaxNode, above: readonly SyntaxNode[], at: number): 'effect' | { act: string } | null {
  const attribute = attributeOf(above, at)?.name ?? '';
  if (/^on[A-Z]/.test(attribute))
    return BY_ITSELF.test(attribute) ? 'effect' : { act: wordsOf(above[at - 2], above.slice(0, at - 2)) };
  const to = handedTo(node, above, at);
  if (to === 'addEventListener') {
    const call = above[at - 1];
    const event = constantText((call.arguments as SyntaxNode[])[0]) ?? 'event';
    return { act: `${event} in ${nameOf((call.callee as SyntaxNode).object) ?? 'the page'}` };
  }
  return to !== null && CALL_ONCE_DRAWN.has(to) ? 'effect' : null;
}

/** Which functions a module exports, under which names; methods and functions inside of others are nobody else's. */
function exportedFunctions(program: SyntaxNode, functions: ReadonlyMap<string, unknown>): Map<string, string> {
  const exported = new Map<string, string>();
  const note = (as: string | null, local: string | null) => {
    if (as !== null && local !== null && functions.has(local)) exported.set(as, local);
  };
  for (const statement of program.body as SyntaxNode[]) {
    const declared = statement.declaration as SyntaxNode | null | undefined;
    if (statement.type === 'ExportDefaultDeclaration') {
      const value = declared as SyntaxNode;
      note('default', value.type === 'FunctionDeclaration' ? nameOf(value.id) : nameOf(value));
    } else if (statement.type === 'ExportNamedDeclaration' && !statement.source) {
      for (const item of (statement.specifiers as SyntaxNode[] | undefined) ?? [])
        note(nameOf(item.exported), nameOf(item.local));
      if (declared?.type === 'FunctionDeclaration') note(nameOf(declared.id), nameOf(declared.id));
      for (const d of (declared?.declarations as SyntaxNode[] | undefined) ?? []) note(nameOf(d.id), nameOf(d.id));
    }
  }
  return exported;
}
