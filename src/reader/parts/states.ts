import { isFunction, isNode, nameOf, type SyntaxNode, walk } from '../syntax.ts';
import { calledIn, literal } from './literals.ts';

/** A state of a component. */
export interface State {
  /** The function that sets it, or `=name` where it is set by giving it a value. */
  setter: string;
  /** What it begins as; UNKNOWN where the code doesn't tell. */
  initial: unknown;
}

/** Functions that make a state out of what it begins as, by the names that several libraries use. */
const MAKES =
  /^(ref|shallowRef|customRef|reactive|shallowReactive|signal|model|linkedSignal|writable|observable|atom|useState|useStorage|useLocalStorage|\$state|state)$/;

/** The setter of a state that is set by giving it a value. */
export const assigned = (name: string): string => `=${name}`;

/** A state that is set by giving a name another value. */
export function writtenState(name: string, initial: unknown): State {
  return { setter: assigned(name), initial };
}

/** `open = ref(false)`, `open = signal(false)`, `open = $state(false)`; null for calls that make no state. */
export function madeState(name: string, call: SyntaxNode): State | null {
  const callee = call.callee as SyntaxNode;
  const maker = callee.type === 'MemberExpression' ? nameOf(callee.object) : nameOf(callee);
  if (call.type !== 'CallExpression' || !MAKES.test(maker ?? '')) return null;
  const args = call.arguments as SyntaxNode[];
  // A key before what it begins as: `useState('open', () => false)`.
  const first = args[0] && args[1] && typeof literal(args[0]) === 'string' ? args[1] : args[0];
  const given = first && isFunction(first) && isNode(first.body) ? first.body : first;
  return writtenState(name, given === undefined ? undefined : literal(given));
}

/** A field of a class is a state of its object. */
export function fieldState(name: string, value: unknown): State | null {
  if (!isNode(value)) return writtenState(name, undefined);
  if (isFunction(value)) return null;
  const call = calledIn(value);
  return (call && madeState(name, call)) ?? writtenState(name, literal(value));
}

/** States that a component's description begins with: `data() { return { open: false } }`. */
export function dataFieldsOf(property: SyntaxNode): [name: string, value: SyntaxNode][] {
  if (nameOf(property.key) !== 'data' || !isNode(property.value) || !isFunction(property.value)) return [];
  const fields: [string, SyntaxNode][] = [];
  const body = property.value.body as SyntaxNode;
  const take = (value: unknown) => {
    if (!isNode(value) || value.type !== 'ObjectExpression') return;
    for (const p of value.properties as SyntaxNode[]) {
      const name = nameOf(p.key);
      if (name !== null && isNode(p.value)) fields.push([name, p.value]);
    }
  };
  take(body.type === 'ParenthesizedExpression' ? body.expression : body);
  walk(body, (node) => {
    if (node.type === 'ReturnStatement') take(node.argument);
  });
  return fields;
}
