/** Whatever a module gives. */
export type Value = unknown;
/** Takes the value of a binding as it changes. */
export type Setter = (value: Value) => void;

/** A module as a file hands it to the registry. */
export interface Definition {
  /** An ES module: all up to its `yield` runs before any module of the graph does. */
  es?: (own: Own) => Generator | AsyncGenerator;
  cjs?: (exports: object, require: (specifier: string) => Value, module: { exports: Value }) => void;
  /** Modules that run before it, in this order. */
  deps?: number[];
  /** Where its requires lead. */
  required?: Record<string, number>;
  /** What it requires that browsers don’t have: an empty module. */
  empty?: string[];
  /** Where its deferred imports lead: the module, the root to load, and names that it writes otherwise. */
  later?: Record<string, [module: number, root: number, renamed?: [as: string, name: string][]]>;
  /** Addresses of files that it names. */
  urls?: Record<string, string>;
  /** A value as a module: what it exports by default is all there is to it. */
  plain?: boolean;
  /** It waits at its top level. */
  waits?: boolean;
  /** Written for Node’s rules: the default of a CommonJS module is all that it exports. */
  strict?: boolean;
}

/** What an ES module’s function is given of the registry. */
export interface Own {
  /** `from`: modules and names of theirs, in turn; `set` is told which of them a value is for. */
  on(from: (number | string)[], set: (at: number, value: Value) => void): void;
  all(names: Record<string, [from: number, name: string]>, set: Setter): void;
  has(...names: string[]): void;
  out(...values: unknown[]): void;
  pass(name: string, from: number, there: string): void;
  star(from: number): void;
  load(specifier: string): Promise<Value>;
  url(specifier: string): string;
  /** What makes a worker of a script. */
  worker(specifier: string): Value;
  meta: { url: string };
}
