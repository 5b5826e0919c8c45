import { named, type Of } from '../form/form.ts';
import { MARK, optional, record } from '../form/records.ts';
import { AMOUNT, BYTES, choice, FLAG, listOf, MILLIS, orNull, TEXT, WHOLE } from '../form/values.ts';
import { TRIGGER } from '../vocabulary/triggers.ts';

export const MODULE_KINDS = ['script', 'style', 'json', 'asset'] as const;
export type ModuleKind = (typeof MODULE_KINDS)[number];

/** When functions of a module format something. */
export const FORMATS_WHEN = ['always', 'with data'] as const;

export const MODULE = named(
  'module',
  record({
    path: TEXT,
    kind: choice(MODULE_KINDS),
    /** Name of the package it belongs to; null for the app's own modules. */
    package: orNull(TEXT),
    bytes: record({
      source: BYTES,
      minified: BYTES,
      /** Compressed alone. */
      gzip: BYTES,
      brotli: BYTES,
      /** What it adds to a gzip stream when it follows its neighbours in the same folder. */
      marginal: BYTES,
      /** What it adds when it follows other code of the app, none of it near; projects of before don’t say. */
      distant: optional(BYTES),
    }),
    /** False only when its package says that importing it without using it does nothing. */
    sideEffects: FLAG,
    /** Measured evaluation cost in ms on the reference device (CPU factor 1), where somebody measured it. */
    evaluationMs: optional(MILLIS),
    /** The same as rehearsals of other apps told of its package’s file. */
    elsewhereMs: optional(MILLIS),
    /** As it runs it makes something that formats numbers, dates or texts of a language (`Intl`), the first of which on a page is dear. */
    startsFormats: MARK,
    /** Its functions, or what they call, do: always, or under conditions and for what is in lists, which mostly means: once data is there. */
    formats: optional(choice(FORMATS_WHEN)),
    /**
     * Modules whose components it draws as soon as it is drawn itself, by their positions, with how many times its markup draws them, how many times more for each row
     * of lists whose lengths no code tells, and how many times more once answers are there that it asks for itself.
     */
    draws: optional(listOf(record({ module: WHOLE, times: WHOLE, rows: optional(WHOLE), filled: optional(WHOLE) }))),
    /** Modules that its functions call, other than to answer an act, for what packages draw by script (charts, maps, editors), by their positions. */
    makes: optional(listOf(WHOLE)),
    /** Size of the file that an asset module stands for; the module itself only holds its address. */
    fileBytes: optional(BYTES),
  }),
);
export type Module = Of<typeof MODULE>;
export type ModuleBytes = Module['bytes'];

/** Where in the code a deferred import is made, as far as the syntax tells. */
export const DEFERRED_CONTEXTS = ['module', 'wrapper', 'handler', 'function'] as const;
export type DeferredContext = (typeof DEFERRED_CONTEXTS)[number];

export const IMPORT_KINDS = ['static', 'dynamic'] as const;

/** Ways in which a comment in a deferred import asks for its chunk ahead. */
export const ASKED_AHEAD = ['prefetch', 'preload'] as const;

export const IMPORT = named(
  'import',
  record({
    /** Index into the snapshot's `modules`. */
    from: WHOLE,
    to: WHOLE,
    kind: choice(IMPORT_KINDS),
    specifier: TEXT,
    /** Which of several imports of one specifier in one module, from 0, in order of their place. */
    ordinal: WHOLE,
    line: AMOUNT,
    column: AMOUNT,
    /** Span of the whole import in the source text, in UTF-16 units. */
    start: AMOUNT,
    end: AMOUNT,
    /** Imported names; `*` for the namespace, empty for effects only. */
    names: listOf(TEXT),
    /** Names that the code which imports writes otherwise, since a module between passes them on under others. */
    renamed: optional(listOf(record({ as: TEXT, name: TEXT }))),
    /** Only for dynamic imports. */
    context: optional(choice(DEFERRED_CONTEXTS)),
    /** Only for dynamic imports: the module itself waits for it while it starts, and so do those that import it. */
    awaited: MARK,
    /** Only for dynamic imports: what a comment in it calls the chunk. */
    named: optional(TEXT),
    /** Only for dynamic imports: how a comment in it asks for the chunk ahead. */
    ahead: optional(choice(ASKED_AHEAD)),
    /** Only for dynamic imports: when the code begins it by itself, before anybody needs what it brings. */
    begun: optional(TRIGGER),
    /** Only for dynamic imports: if it fails, the code says so to whoever waits for it. */
    caught: MARK,
    /** Only for static imports that the module needs at once, while it starts or draws: detaching alone would break it. */
    sync: optional(record({ reason: TEXT, line: AMOUNT })),
    /** Only for static imports that are used in handlers of what people do and what these call, and nowhere else. */
    onActs: MARK,
    /** Only for static imports that are used once something was drawn (in effects, or in handlers as well), and nowhere else. */
    onEffects: MARK,
  }),
);
export type Import = Of<typeof IMPORT>;

export const PACKAGE = record({
  name: TEXT,
  version: orNull(TEXT),
  folder: TEXT,
});
export type Package = Of<typeof PACKAGE>;

/** Code that starts a worker. */
export const WORKER_START = record({
  /** Path of the module that it stands in, and the address of the worker's script as written there. */
  from: TEXT,
  specifier: TEXT,
  /** What the code around it tells about when it runs, as of deferred imports; `wrapper`: once what it belongs to is drawn. */
  context: choice(DEFERRED_CONTEXTS),
  /** The moment at which the code starts it by itself, where that is another one. */
  begun: optional(TRIGGER),
});
export type WorkerStart = Of<typeof WORKER_START>;

/** A document or worker: nothing is present when it starts. */
export const ENTRY = record({
  realm: TEXT,
  kind: choice(['document', 'worker']),
  /** The HTML file that starts it, where there is one. */
  document: orNull(TEXT),
  modules: listOf(TEXT),
  /** The module that shows something around all of its routes as soon as it runs; left out where pages are all that shows. */
  frame: optional(TEXT),
  /** What starts it, of a worker; left out where that isn't known. */
  startedBy: optional(listOf(WORKER_START)),
});
export type Entry = Of<typeof ENTRY>;
