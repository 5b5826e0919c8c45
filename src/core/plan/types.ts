import type { ScriptPlacement } from '../snapshot/types.ts';
import type { Hint } from '../vocabulary/hints.ts';
import type { Trigger } from '../vocabulary/triggers.ts';

/** A named set of decisions over a snapshot. The baseline plan has none: the app as built. */
export interface Plan {
  name: string;
  description: string;
  decisions: Decision[];
  /** Name of the plan that it began as a copy of. */
  basedOn?: string | null;
}

/**
 * What stands in the place of something until it shows. `reserved space` and `stand-in` keep its room, so that nothing
 * moves when it comes; `old screen`: on a move between screens the one before stays until all is ready. The scope is
 * what gives way meanwhile: the part alone (unless said otherwise), all of the route's page, or the whole app.
 */
export interface Fallback {
  show: (typeof FALLBACKS)[number];
  /** A stand-in that was seen stays at least so long. */
  holdMs: number;
  scope?: (typeof FALLBACK_SCOPES)[number];
}

export const FALLBACKS = ['nothing', 'reserved space', 'stand-in', 'old screen'] as const;
export const FALLBACK_SCOPES = ['part', 'area', 'app'] as const;

export const ERROR_STATES = ['nothing', 'a message', 'a way to try again'] as const;
export type ErrorState = (typeof ERROR_STATES)[number];

/** What is decided about a split point beside when it is fetched. Whatever is left out stays as it is by itself. */
export interface SplitSettings {
  /** When its code runs, where that is later than its fetch. */
  run?: Trigger;
  /** What stands in its place until it shows. */
  fallback?: Fallback;
  /** When it is shown, where that is later than its code has run. */
  show?: Trigger;
  /** What the person sees if its code can't be loaded. */
  onError?: ErrorState;
  /** Parts of one group are shown together, with the slowest. */
  together?: string;
  /** Never drawn on the server, so that its document doesn't list its files. */
  clientOnly?: boolean;
  /** Its data calls begin with the fetch of its code, or only once that has run. */
  data?: (typeof DATA_MOMENTS)[number];
  /** For the page of a route: its answer (document or data) is fetched ahead with its code, and good for so long. */
  answerAhead?: { keepMs: number };
}

export const DATA_MOMENTS = ['with the code', 'after the code'] as const;

/** Modules that are meant: those of a package, or by a path pattern such as `src/crew/**`. */
export type Match = { package: string } | { path: string };

/** Which imports are meant: one by its key, all that lead to a module, or all that lead into a package from outside. */
export type ImportChoice = { import: string } | { module: string } | { package: string };

/**
 * One decision. Imports are named by their stable key (importer's path, `::`, specifier, `#ordinal` from the
 * second on), split points by the path of their target.
 */
export type Decision =
  | ({ kind: 'detach' | 'join' } & ImportChoice)
  | { kind: 'trigger'; splitPoint: string; fetch: Trigger }
  | { kind: 'hint'; hint: Hint }
  | { kind: 'script'; script: string; placement: ScriptPlacement }
  | ({ kind: 'split'; splitPoint: string } & SplitSettings)
  | { kind: 'loader'; loader: 'listed' | 'discovered' }
  /** A link that the document carries by itself is left out. */
  | { kind: 'drop link'; rel: string; address: string }
  /** Advice that is not taken, by the id of its finding, and why. */
  | { kind: 'put aside'; finding: string; reason: string }
  | Ship
  | Shape;

export type DecisionKind = Decision['kind'];
/** The decision of one kind. */
export type DecisionOf<K extends DecisionKind> = K extends 'detach' | 'join'
  ? { kind: 'detach' | 'join' } & ImportChoice
  : Extract<Decision, { kind: K }>;

/** A decision about what of a module travels at all, and in which kind of file. */
export type Ship =
  /** Drawn on the server only: its script doesn't travel, what answers inside it becomes split points. */
  | { kind: 'no script'; module: string }
  /** Style rules of a sheet that nothing can use are left out. */
  | { kind: 'trim'; module: string }
  /** An import of a style sheet is made in another module instead. */
  | { kind: 'move'; import: string; to: string }
  /** All imports of a package lead into one of its versions, named by its folder. */
  | { kind: 'one version'; package: string; keep: string }
  /** Styles travel in the script that needs them, not in files that block rendering. */
  | { kind: 'style in script'; match: Match };

/** A decision about how modules are put into files, whatever asks for them. */
export type Shape =
  /** All matching modules of an entry travel in one chunk of that name. */
  | { kind: 'gather'; name: string; match: Match }
  /** These modules travel in one chunk. */
  | { kind: 'together'; modules: string[] }
  /** Matching modules share a chunk with no others. */
  | { kind: 'apart'; match: Match }
  /** Chunks below this size (minified bytes) are merged with the one that costs least. */
  | { kind: 'floor'; bytes: number }
  /** No moment asks for more chunks than this. */
  | { kind: 'ceiling'; requests: number }
  /** Shared chunks below this size (minified bytes) are copied into the chunks that need them. */
  | { kind: 'copy'; below: number }
  /** Every module is a file of its own. */
  | { kind: 'grain' }
  /** A name by hand for a chunk, named by its id. */
  | { kind: 'chunk name'; chunk: string; name: string };

/** How a decision reaches production. */
export type ShipsBy = 'source edit' | 'server or markup' | 'build setting' | 'nothing to ship';

export const BASELINE: Plan = { name: 'Baseline', description: 'The app as built.', decisions: [] };
