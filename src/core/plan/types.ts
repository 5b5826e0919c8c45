import { converted, type Form, named, type Of } from '../form/form.ts';
import { assumed, both, oneField, optional, optionalOrNull, record, variants } from '../form/records.ts';
import { amountUpTo, BYTES, choice, FLAG, listOf, MILLIS, TEXT, textUpTo } from '../form/values.ts';
import { SCRIPT_PLACEMENTS } from '../snapshot/document-types.ts';
import { LONGEST_PATTERN } from '../text/wildcard.ts';
import { TRIGGER } from '../vocabulary/triggers.ts';
import { HINT } from './hint-check.ts';
import { NAME } from './name.ts';

export const FALLBACKS = ['nothing', 'reserved space', 'stand-in', 'old screen'] as const;
export const FALLBACK_SCOPES = ['part', 'area', 'app'] as const;

/**
 * What stands in the place of something until it shows. `reserved space` and `stand-in` keep its room, so that nothing
 * moves when it comes; `old screen`: on a move between screens the one before stays until all is ready. The scope is
 * what gives way meanwhile: the part alone (unless said otherwise), all of the route's page, or the whole app.
 */
const FALLBACK = record({
  show: choice(FALLBACKS),
  /** A stand-in that was seen stays at least so long. */
  holdMs: assumed(amountUpTo(60_000), 0),
  scope: optional(choice(FALLBACK_SCOPES)),
});
export type Fallback = Of<typeof FALLBACK>;

export const ERROR_STATES = ['nothing', 'a message', 'a way to try again'] as const;
export type ErrorState = (typeof ERROR_STATES)[number];

export const DATA_MOMENTS = ['with the code', 'after the code'] as const;

/** What is decided about a split point beside when it is fetched. Whatever is left out stays as it is by itself. */
const SPLIT_SETTINGS = record({
  /** When its code runs, where that is later than its fetch. */
  run: optional(TRIGGER),
  /** When it is shown, where that is later than its code has run. */
  show: optional(TRIGGER),
  /** What stands in its place until it shows. */
  fallback: optional(FALLBACK),
  /** What the person sees if its code can't be loaded. */
  onError: optional(choice(ERROR_STATES)),
  /** Parts of one group are shown together, with the slowest. */
  together: optional(NAME),
  /** Never drawn on the server, so that its document doesn't list its files. */
  clientOnly: optional(FLAG),
  /** Its data calls begin with the fetch of its code, or only once that has run. */
  data: optional(choice(DATA_MOMENTS)),
  /** For the page of a route: its answer (document or data) is fetched ahead with its code, and good for so long. */
  answerAhead: optional(record({ keepMs: MILLIS })),
});
export type SplitSettings = Of<typeof SPLIT_SETTINGS>;

/** Modules that are meant: those of a package, or by a path pattern such as `src/crew/**`. */
const MATCH = named('match', oneField({ package: TEXT, path: textUpTo(LONGEST_PATTERN) }));
export type Match = Of<typeof MATCH>;

/** Which imports are meant: one by its key, all that lead to a module, or all that lead into a package from outside. */
const IMPORT_CHOICE = named('importChoice', oneField({ module: TEXT, package: TEXT, import: TEXT }));
export type ImportChoice = Of<typeof IMPORT_CHOICE>;

/** Decisions about what of a module travels at all, and in which kind of file. */
const SHIP = {
  /** Drawn on the server only: its script doesn't travel, what answers inside it becomes split points. */
  'no script': record({ module: TEXT }),
  /** Style rules of a sheet that nothing can use are left out. */
  trim: record({ module: TEXT }),
  /** An import of a style sheet is made in another module instead. */
  move: record({ import: TEXT, to: TEXT }),
  /** All imports of a package lead into one of its versions, named by its folder. */
  'one version': record({ package: TEXT, keep: TEXT }),
  /** Styles travel in the script that needs them, not in files that block rendering. */
  'style in script': record({ match: MATCH }),
};

/** Decisions about how modules are put into files, whatever asks for them. */
const SHAPE = {
  /** All matching modules of an entry travel in one chunk of that name. */
  gather: record({ name: NAME, match: MATCH }),
  /** These modules travel in one chunk. */
  together: record({ modules: listOf(TEXT) }),
  /** Matching modules share a chunk with no others. */
  apart: record({ match: MATCH }),
  /** Chunks below this size (minified bytes) are merged with the one that costs least. */
  floor: record({ bytes: BYTES }),
  /** No moment asks for more chunks than this. */
  ceiling: record({ requests: converted(amountUpTo(10_000), (n) => Math.max(1, Math.round(n))) }),
  /** Shared chunks below this size (minified bytes) are copied into the chunks that need them. */
  copy: record({ below: BYTES }),
  /** Every module is a file of its own. */
  grain: record({}),
  /** A name by hand for a chunk, named by its id. */
  'chunk name': record({ chunk: TEXT, name: NAME }),
};

const DESCRIBED = variants('kind', {
  detach: IMPORT_CHOICE,
  join: IMPORT_CHOICE,
  trigger: record({ splitPoint: TEXT, fetch: TRIGGER }),
  hint: record({ hint: HINT }),
  script: record({ script: TEXT, placement: choice(SCRIPT_PLACEMENTS) }),
  split: both(record({ splitPoint: TEXT }), SPLIT_SETTINGS),
  loader: record({ loader: choice(['listed', 'discovered']) }),
  /** A link that the document carries by itself is left out. */
  'drop link': record({ rel: TEXT, address: TEXT }),
  /** Advice that is not taken, by the id of its finding, and why. */
  'put aside': record({ finding: TEXT, reason: assumed(TEXT, '') }),
  ...SHIP,
  ...SHAPE,
});
/** Detaching and joining are one kind of object, so that one place can make either. */
type Rewired = { kind: 'detach' | 'join' } & ImportChoice;
/**
 * One decision. Imports are named by their stable key (importer's path, `::`, specifier, `#ordinal` from the
 * second on), split points by the path of their target.
 */
export type Decision = Exclude<Of<typeof DESCRIBED>, { kind: Rewired['kind'] }> | Rewired;

export const DECISION: Form<Decision> = named('decision', DESCRIBED);

export type DecisionKind = Decision['kind'];
/** The decision of one kind. */
export type DecisionOf<K extends DecisionKind> = K extends Rewired['kind'] ? Rewired : Extract<Decision, { kind: K }>;
export type Ship = DecisionOf<keyof typeof SHIP>;
export type Shape = DecisionOf<keyof typeof SHAPE>;

/** How a decision reaches production. */
export type ShipsBy = 'source edit' | 'server or markup' | 'build setting' | 'nothing to ship';

/** The decisions of a plan. */
export const DECISION_LIST = listOf(DECISION, { most: 20_000, what: 'decisions' });

/** A named set of decisions over a snapshot. The baseline plan has none: the app as built. */
export const PLAN = named(
  'plan',
  record({
    name: TEXT,
    description: assumed(TEXT, ''),
    decisions: DECISION_LIST,
    /** Name of the plan that it began as a copy of. */
    basedOn: optionalOrNull(TEXT),
  }),
);
export interface Plan extends Omit<Of<typeof PLAN>, 'basedOn'> {
  basedOn?: string | null;
}

export const BASELINE: Plan = { name: 'Baseline', description: 'The app as built.', decisions: [] };
