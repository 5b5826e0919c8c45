import { constantText, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { functionsOf } from './functions-of-module.ts';
import { assigned } from './states.ts';
import { wordsOf } from './words.ts';

/** A place where a state is set by what a person does, or once something is in sight. */
export interface SetterCall {
  setter: string;
  /** Texts in what it is set to, which tell one of several values from another. */
  constants: string[];
  /** What the person does, in the words on the element; null where it is being seen that sets it. */
  words: string | null;
}

/** What of a module can be set: functions that set a state, names that are states, and objects whose own functions set them. */
export interface Settable {
  setters: ReadonlySet<string>;
  states: ReadonlyMap<string, { setter: string }>;
  objects: ReadonlySet<string>;
  /** Names of imported components, which calls may be handed: `dialog.open(EditForm)`. */
  components: ReadonlySet<string>;
}

/** What stands for the setter of a component that calls are handed. */
export const handed = (component: string): string => `@${component}`;

/** Calls that show what they are handed, by the names that several libraries use. */
const SHOWS = /^(open|show|present|push|create|display|openDialog|openModal|showModal|openDrawer)$/;

/** Makers of observers that tell when something is in sight. */
const SEES = /^(IntersectionObserver|useIntersectionObserver|inView|whenVisible|onVisible|viewport)$/;

/** Functions of a state's object that give it another value. */
const SETS = /^(set|update|mutate|next|toggle)$/;

/**
 * Finds every event handler that sets a state, be it written on the element, handed to `addEventListener`, or in a function that
 * it names; and what is set once something is in sight.
 */
export function findActions(roots: readonly SyntaxNode[], settable: Settable): SetterCall[] {
  const functions = new Map(roots.flatMap((root) => [...functionsOf(root)]));
  const found: SetterCall[] = [];
  const take = (node: SyntaxNode, words: string | null) => {
    for (const set of setsIn(node, settable, functions, new Set())) found.push({ ...set, words });
  };
  for (const root of roots)
    walk(root, (node, above) => {
      if (node.type === 'JSXAttribute' && /^on[A-Z]/.test(nameOf(node.name) ?? '')) {
        const words = wordsOf(node, above);
        take(node, words);
        for (const set of handedOver(node, settable)) found.push({ ...set, words });
      }
      if (node.type !== 'CallExpression' && node.type !== 'NewExpression') return;
      const name = nameOf(node.callee) ?? (isNode(node.callee) ? nameOf(node.callee.property) : null) ?? '';
      const args = node.arguments as SyntaxNode[];
      if (SEES.test(name)) for (const argument of args) take(argument, null);
      if (name === 'addEventListener' && args[1]) {
        const event = constantText(args[0]) ?? 'event';
        const on = nameOf((node.callee as SyntaxNode).object) ?? 'an element';
        take(args[1], `${event} in ${on}`);
      }
    });
  return found;
}

/** What a node sets, itself and in the module's own functions that it names. */
function setsIn(
  node: SyntaxNode,
  settable: Settable,
  functions: ReadonlyMap<string, SyntaxNode>,
  seen: Set<string>,
): Omit<SetterCall, 'words'>[] {
  const sets: Omit<SetterCall, 'words'>[] = [];
  walk(node, (inner) => {
    if (inner.type === 'CallExpression') sets.push(...setByCall(inner, settable), ...handedTo(inner, settable));
    if (inner.type === 'AssignmentExpression' || inner.type === 'UpdateExpression')
      sets.push(...setByAssignment(inner, settable));
    if (inner.type !== 'Identifier') return;
    const name = inner.name as string;
    const body = functions.get(name);
    if (!body || seen.has(name)) return;
    seen.add(name);
    sets.push(...setsIn(body, settable, functions, seen));
  });
  return sets;
}

/** `dialog.open(EditForm, …)`: a component that a call is handed, which shows it. */
function handedTo({ callee, arguments: given }: SyntaxNode, { components }: Settable): Omit<SetterCall, 'words'>[] {
  const name = nameOf(callee) ?? nameOf((callee as SyntaxNode).property) ?? '';
  const [first] = given as SyntaxNode[];
  const component = SHOWS.test(name) && first?.type === 'Identifier' ? (first.name as string) : null;
  return component !== null && components.has(component) ? [{ setter: handed(component), constants: [] }] : [];
}

/** `setOpen(true)`, `sheet.open()`, `open.set(true)`, `this.open.update(…)`. */
function setByCall(call: SyntaxNode, { setters, states, objects }: Settable): Omit<SetterCall, 'words'>[] {
  const constants = () => constantsIn(call.arguments as SyntaxNode[]);
  const setter = nameOf(call.callee);
  if (setter !== null && (setters.has(setter) || objects.has(setter))) return [{ setter, constants: constants() }];
  if (isSetState(call.callee)) return [{ setter: assigned('state'), constants: constants() }];
  const owner = ownerOf(call.callee);
  if (owner === null) return [];
  if (objects.has(owner)) return [{ setter: owner, constants: constants() }];
  const state = states.get(owner);
  const how = nameOf((call.callee as SyntaxNode).property) ?? '';
  return state && SETS.test(how) ? [{ setter: state.setter, constants: constants() }] : [];
}

/** `this.setState(…)` of a component that is a class. */
function isSetState(callee: unknown): boolean {
  if (!isNode(callee) || callee.type !== 'MemberExpression' || !isNode(callee.object)) return false;
  return callee.object.type === 'ThisExpression' && nameOf(callee.property) === 'setState';
}

/** `open = true`, `open.value = !open.value`, `this.open = true`, `state.open = true`, `step++`. */
function setByAssignment(node: SyntaxNode, { states, objects }: Settable): Omit<SetterCall, 'words'>[] {
  const name = rootOf(node.left ?? node.argument);
  if (name === null) return [];
  const constants = isNode(node.right) ? constantsIn([node.right]) : [];
  const state = states.get(name);
  if (state && state.setter === assigned(name)) return [{ setter: state.setter, constants }];
  return objects.has(name) ? [{ setter: name, constants }] : [];
}

/** The name that an assignment changes: of `this.open.value` it is `open`, of `$sheet.open` `sheet`. */
function rootOf(target: unknown): string | null {
  if (!isNode(target)) return null;
  if (target.type === 'Identifier') return (target.name as string).replace(/^\$/, '');
  if (target.type !== 'MemberExpression' || !isNode(target.object)) return null;
  return target.object.type === 'ThisExpression' ? nameOf(target.property) : rootOf(target.object);
}

/** `onClick={setOpen}` and `onClick={sheet.open}` hand the event over. */
function handedOver({ value }: SyntaxNode, { setters, objects }: Settable): Omit<SetterCall, 'words'>[] {
  const handed = isNode(value) ? value.expression : null;
  const name = nameOf(handed);
  if (name !== null && (setters.has(name) || objects.has(name))) return [{ setter: name, constants: [] }];
  const owner = ownerOf(handed);
  return owner !== null && objects.has(owner) ? [{ setter: owner, constants: [] }] : [];
}

/** `sheet` of `sheet.open`, and of `this.sheet.open`. */
function ownerOf(node: unknown): string | null {
  if (!isNode(node) || node.type !== 'MemberExpression' || !isNode(node.object)) return null;
  if (node.object.type === 'MemberExpression' && (node.object.object as SyntaxNode).type === 'ThisExpression')
    return nameOf(node.object.property);
  return nameOf(node.object)?.replace(/^\$/, '') ?? null;
}

function constantsIn(nodes: readonly SyntaxNode[]): string[] {
  const constants: string[] = [];
  for (const node of nodes)
    walk(node, (inner) => {
      const text = constantText(inner);
      if (text !== null) constants.push(text);
      else if (inner.type === 'Literal') constants.push(String(inner.value));
      else if (inner.type === 'Identifier') constants.push(inner.name as string);
    });
  return constants;
}
