import { kernel as reconciler } from '../body/reconciler.ts';
import { kernel as scheduler } from '../body/scheduler.ts';

export type Node = string | number | boolean | null | undefined | Element | Node[];
export interface Element {
  kind: unknown;
  props: Record<string, unknown>;
}
export type Component<P = object> = (props: P) => Node;

const cells: unknown[] = [];
let cursor = 0;

/** A value that redraws its component when it is set. */
export function useCell<T>(initial: T): [T, (next: T) => void] {
  const at = cursor++;
  if (!(at in cells)) cells[at] = initial;
  return [cells[at] as T, (next) => { cells[at] = next; scheduler.run(at); }];
}

/** Runs after drawing. */
export function useAfter(effect: () => void): void {
  scheduler.run(cursor++);
  effect();
}

/** A component whose code is fetched when it is first drawn. */
export function later<P>(load: () => Promise<{ default: Component<P> }>): Component<P> {
  let found: Component<P> | null = null;
  return (props) => {
    if (!found) void load().then((m) => { found = m.default; scheduler.run(0); });
    return found ? found(props) : null;
  };
}

export function mount(node: Node, host: HTMLElement): void {
  host.replaceChildren(String(reconciler.run(node as never)));
}
