/**
 * How soon code can run, the latest first: when somebody acts, soon after something was drawn, or while a module starts or
 * something is drawn. `never`: nothing was found that runs it.
 */
export const RUNS = ['never', 'act', 'effect', 'now'] as const;
export type Runs = (typeof RUNS)[number];

/**
 * Where something is used: in code that runs at that time (`later`: as soon as what it waits for is there), in a handler of what somebody does
 * (with the words at its element), or in a function of the module, when that is called, where it doesn't wait for something first.
 */
export type UsePlace = 'effect' | 'now' | 'later' | { act: string } | { fn: string; waits?: true };

/** A place that uses an imported name. */
export interface ImportedUse {
  specifier: string;
  name: string;
  at: UsePlace;
  /** Where it stands in the text, for one that an import which is deferred can't serve: its answer is used at once. */
  atOnce: number | null;
  /** It stands where a component can stand that is deferred: nobody calls it or asks for its members. */
  asComponent: boolean;
}

/** What a module says of when its code runs. */
export interface RunSheet {
  /** Imported names, where each is used. */
  imported: ImportedUse[];
  /** Deferred imports by specifier, where each is made. */
  deferred: { specifier: string; at: UsePlace }[];
  /** Where it puts something that shows into the page by itself, without a component system. */
  writes: UsePlace[];
  /** Functions of the module by name, each with the places that call it, or hand it on. */
  functions: ReadonlyMap<string, UsePlace[]>;
  /** Exported name → the function of the module that it is. */
  exported: ReadonlyMap<string, string>;
  /** Exported names that are seen to be components. */
  components: ReadonlySet<string>;
}

/** The sooner of two. */
export function sooner(a: Runs, b: Runs): Runs {
  return RUNS.indexOf(a) >= RUNS.indexOf(b) ? a : b;
}

/** What somebody does, in words, and the module whose handler answers it. */
export interface Act {
  path: string;
  words: string;
}
