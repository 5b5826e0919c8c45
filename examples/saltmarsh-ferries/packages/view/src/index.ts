import { kernel as reconciler } from '../body/reconciler.ts';
import { kernel as scheduler } from '../body/scheduler.ts';
import { Fragment } from './jsx-runtime.ts';

export type Node = string | number | boolean | null | undefined | Element | Node[];
export interface Element {
  kind: unknown;
  props: Record<string, unknown>;
}
export type Component<P = object> = (props: P) => Node;

/** What a component keeps from one drawing to the next, by its place in the tree. */
interface Kept {
  cells: unknown[];
  /** Drawn in the last round. */
  round: number;
}

const kept = new Map<string, Kept>();
let own: Kept = { cells: [], round: 0 };
let cursor = 0;
let round = 0;
let after: (() => void)[] = [];
let redraw = () => {};
let isDue = false;

/** A value that redraws the page when it is set. */
export function useCell<T>(initial: T): [T, (next: T) => void] {
  const { cells } = own;
  const at = cursor++;
  if (!(at in cells)) cells[at] = initial;
  const set = (next: T) => {
    if (Object.is(cells[at], next)) return;
    cells[at] = next;
    soon();
  };
  return [cells[at] as T, set];
}

/** Runs once after the component was drawn for the first time. */
export function useAfter(effect: () => void): void {
  const at = cursor++;
  if (at in own.cells) return;
  own.cells[at] = true;
  after.push(effect);
}

/** A component whose code is fetched when it is first drawn. */
export function later<P>(load: () => Promise<{ default: Component<P> }>): Component<P> {
  let found: Component<P> | null = null;
  let asked = false;
  return (props) => {
    if (!found && !asked) {
      asked = true;
      void load().then((m) => {
        found = m.default;
        soon();
      });
    }
    return found ? found(props) : null;
  };
}

/** Draws a tree into a place of the page, and again whenever a cell is set. */
export function mount(node: Node, host: HTMLElement): void {
  redraw = () => {
    isDue = false;
    round++;
    host.replaceChildren(...drawn(node, '', false));
    for (const [place, { round: last }] of kept) if (last < round) kept.delete(place);
    for (const effect of after.splice(0)) effect();
  };
  redraw();
}

function soon(): void {
  if (isDue) return;
  isDue = true;
  queueMicrotask(redraw);
}

function drawn(node: Node, place: string, inSvg: boolean): ChildNode[] {
  if (node === null || node === undefined || typeof node === 'boolean') return [];
  if (Array.isArray(node)) return node.flatMap((child, at) => drawn(child, `${place}.${at}`, inSvg));
  if (typeof node !== 'object') return [document.createTextNode(String(node))];
  const { kind, props } = node;
  if (typeof kind === 'function') return ofComponent(kind as Component<never>, props, place, inSvg);
  if (kind === Fragment) return drawn(props.children as Node, place, inSvg);
  return [ofElement(String(kind), props, place, inSvg)];
}

function ofComponent(component: Component<never>, props: Element['props'], place: string, inSvg: boolean): ChildNode[] {
  const at = `${place}:${component.name}`;
  const known = kept.get(at) ?? { cells: [], round };
  kept.set(at, known);
  known.round = round;
  const [before, counted] = [own, cursor];
  own = known;
  cursor = reconciler.run(0);
  const node = component(props as never);
  own = before;
  cursor = counted;
  return drawn(node, at, inSvg);
}

function ofElement(name: string, props: Element['props'], place: string, inSvg: boolean): ChildNode {
  const within = inSvg || name === 'svg';
  const element = within
    ? document.createElementNS('http://www.w3.org/2000/svg', name)
    : document.createElement(name);
  for (const [key, value] of Object.entries(props)) {
    if (key === 'children' || value === undefined || value === null || value === false) continue;
    if (/^on[A-Z]/.test(key)) element.addEventListener(key.slice(2).toLowerCase(), value as EventListener);
    else if (key === 'value' || key === 'checked') Object.assign(element, { [key]: value });
    else element.setAttribute(key, value === true ? '' : String(value));
  }
  element.append(...drawn(props.children as Node, place, within));
  if (name === 'select' && props.value !== undefined) Object.assign(element, { value: props.value });
  scheduler.run(0);
  return element;
}
