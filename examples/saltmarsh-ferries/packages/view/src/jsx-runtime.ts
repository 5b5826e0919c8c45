import type { Element } from './index.ts';

export function jsx(kind: unknown, props: Record<string, unknown>): Element {
  return { kind, props };
}
export const jsxs = jsx;
export const Fragment = Symbol('fragment');
