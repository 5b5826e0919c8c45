import type { Element } from './index.ts';

export function jsx(kind: unknown, props: Record<string, unknown>): Element {
  return { kind, props };
}
export const jsxs = jsx;
export const Fragment = Symbol('fragment');

/** What may stand in markup: any element, and components of this package. */
export declare namespace JSX {
  type ElementType = string | ((props: never) => import('./index.ts').Node);
  type Element = import('./index.ts').Element;
  interface IntrinsicElements {
    [name: string]: Record<string, unknown>;
  }
  interface IntrinsicAttributes {
    key?: string | number;
  }
  interface ElementChildrenAttribute {
    children: unknown;
  }
}
