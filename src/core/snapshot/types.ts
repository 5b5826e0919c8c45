import type { VisitorNotes } from './visitor-types.ts';

/**
 * The app as read at one moment. A snapshot is never edited; reading again makes a new one.
 * Sizes are in bytes, times in milliseconds, paths relative to the folder that was read, with `/`.
 */
export interface Snapshot {
  /** Name of the app, from its package description or its folder. */
  name: string;
  origin: 'source' | 'output';
  modules: Module[];
  imports: Import[];
  packages: Package[];
  entries: Entry[];
  routes: Route[];
  /** Scripts that are not part of the module graph: third-party or classic ones, in document order. */
  scripts: ClassicScript[];
  /** Links in documents that ask for something ahead, in document order. */
  links: DocumentLink[];
  /** Under which addresses files are served: begins and ends with `/`, or a whole `https://…/`. */
  base: string;
  unresolved: Unresolved[];
  failed: Failed[];
  /** What is no error but worth knowing about how the app was built or read. */
  notices: Notice[];
  /** Style rules whose names nothing in the app mentions. */
  unusedRules: StyleRule[];
  /** Which scripts mention names of a style sheet, for sheets that aren't for everybody. */
  sheetUses: SheetUse[];
  /** What is said of the people who come, where anything is. */
  visitors?: VisitorNotes;
  /** The real files, for a snapshot of a production output; null for one of sources. */
  output: BuiltOutput | null;
}

export interface SheetUse {
  /** Path of the sheet. */
  module: string;
  /** Paths of the scripts. */
  by: string[];
}

export const MODULE_KINDS = ['script', 'style', 'json', 'asset'] as const;
export type ModuleKind = (typeof MODULE_KINDS)[number];

export interface Module {
  path: string;
  kind: ModuleKind;
  /** Name of the package it belongs to; null for the app's own modules. */
  package: string | null;
  bytes: ModuleBytes;
  /** False only when its package says that importing it without using it does nothing. */
  sideEffects: boolean;
  /** Measured evaluation cost in ms on the reference device (CPU factor 1), where somebody measured it. */
  evaluationMs?: number;
  /** Size of the file that an asset module stands for; the module itself only holds its address. */
  fileBytes?: number;
}

export interface ModuleBytes {
  source: number;
  minified: number;
  /** Compressed alone. */
  gzip: number;
  brotli: number;
  /** What it adds to a gzip stream when it follows its neighbours in the same folder. */
  marginal: number;
}

/** Where in the code a deferred import is made, as far as the syntax tells. */
export const DEFERRED_CONTEXTS = ['module', 'wrapper', 'handler', 'function'] as const;
export type DeferredContext = (typeof DEFERRED_CONTEXTS)[number];

export interface Import {
  /** Index into `modules`. */
  from: number;
  to: number;
  kind: 'static' | 'dynamic';
  specifier: string;
  /** Which of several imports of one specifier in one module, from 0, in order of their place. */
  ordinal: number;
  line: number;
  column: number;
  /** Span of the whole import in the source text, in UTF-16 units. */
  start: number;
  end: number;
  /** Imported names; `*` for the namespace, empty for effects only. */
  names: string[];
  /** Only for dynamic imports. */
  context?: DeferredContext;
  /** Only for dynamic imports: the module itself waits for it while it starts, and so do those that import it. */
  awaited?: true;
  /** Only for static imports that the module needs while it starts: detaching alone would break it. */
  sync?: { reason: string; line: number };
  /** Only for static imports that the module uses in handlers of what people do, and nowhere else. */
  onActs?: true;
}

export interface Package {
  name: string;
  version: string | null;
  folder: string;
}

/** A document or worker: nothing is present when it starts. */
export interface Entry {
  realm: string;
  kind: 'document' | 'worker';
  /** The HTML file that starts it, where there is one. */
  document: string | null;
  modules: string[];
}

export type Rendering = 'server' | 'client';

export interface Route {
  pattern: string;
  realm: string;
  /** Outermost first. */
  layouts: string[];
  page: string;
  /** Where the route table names it. */
  evidence: Evidence | null;
  rendering: Rendering;
  document: { bytes: number; serverMs: number };
  content: ContentItem[];
  data: DataCall[];
  parts: Part[];
  links: string[];
  /** How many of all landings are on this route, in any unit; all routes count alike where none says. */
  landings?: number;
}

export interface Evidence {
  path: string;
  line: number;
}

export const PART_PLACES = ['first screen', 'below', 'action', 'conditional'] as const;
export type PartPlace = (typeof PART_PLACES)[number];

export interface Part {
  id: string;
  name: string;
  /** The module that draws it. */
  module: string;
  place: PartPlace;
  /** What the person does, for a part behind an action. */
  action?: string;
  condition?: PartCondition;
  interactive: boolean;
  /** Share of visits to this route in which it is needed, 0 to 1. */
  share: number;
  /** Ids of the data calls and content that it shows. */
  needs: string[];
  /** What the act sends to the server first; the part is asked for by its answer. */
  submit?: Submit;
  /** Drawn on the server only, by a plan's decision: none of its script travels. */
  noScript?: true;
  /** The line of code that draws it, where the part was proposed from code. */
  evidence?: Evidence;
}

/** A request that an act makes, with the redirects that its answer goes through. */
export interface Submit {
  serverMs: number;
  /** Size of the last answer. */
  bytes: number;
  redirects: number;
}

export type PartCondition =
  | { kind: 'media'; maxWidth?: number; minWidth?: number }
  | { kind: 'answer'; of: string }
  | { kind: 'segment'; segment: string }
  | { kind: 'one of'; group: string };

export interface ContentItem {
  id: string;
  kind: 'image';
  address: string;
  bytes: number;
  serverMs: number;
  /** `document`: in the markup. Otherwise the module whose rendering asks for it. */
  foundIn: 'document' | { module: string };
  place: 'first screen' | 'below';
  lazy: boolean;
}

export interface DataCall {
  id: string;
  address: string;
  bytes: number;
  serverMs: number;
  /** The module whose evaluation starts the call. */
  module: string;
}

export const SCRIPT_PLACEMENTS = [
  'blocking',
  'async',
  'defer',
  'module',
  'end of body',
  'after load',
  'inlined',
] as const;
export type ScriptPlacement = (typeof SCRIPT_PLACEMENTS)[number];

export interface ClassicScript {
  id: string;
  name: string;
  address: string;
  /** Compressed; null where nobody knows. */
  bytes: number | null;
  serverMs: number;
  evaluationMs: number;
  placement: ScriptPlacement;
  evidence: Evidence | null;
}

/** A link in a document's head that asks for something ahead. */
export interface DocumentLink {
  realm: string;
  rel: 'preload' | 'modulepreload' | 'prefetch' | 'preconnect';
  address: string;
  /** What it is asked for as; empty when the link doesn't say. */
  as: string;
  crossorigin: boolean;
  priority: 'high' | 'low' | 'auto';
  /** Compressed size of the file that it names, where that file was found. */
  bytes: number | null;
  evidence: Evidence;
}

export interface Unresolved {
  from: string;
  specifier: string;
  line: number;
  reason: string;
  /** Not followed on purpose: a module of the server platform, an address on the network. */
  leftOut: boolean;
}

export const NOTICE_KINDS = [
  'development',
  'unminified',
  'uncompressed',
  'inline map',
  'base',
  'unnamed file',
  'waiting module',
  'style order',
] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

export interface Notice {
  kind: NoticeKind;
  path: string;
  message: string;
}

/** A style rule in which every selector needs a name that nothing mentions. */
export interface StyleRule {
  module: string;
  line: number;
  selector: string;
  /** Minified bytes of the rule. */
  bytes: number;
  /** The names (of classes, ids, elements) that nothing mentions, one per selector of the rule. */
  missing: string[];
}

/** A production output as it lies in its folder. */
export interface BuiltOutput {
  files: BuiltFile[];
  starts: BuiltStart[];
}

export interface BuiltFile {
  path: string;
  kind: 'script' | 'style';
  bytes: { minified: number; gzip: number; brotli: number };
  /**
   * What the file's map tells about its inside: `sources`: which modules, with their text; `names`: only their names
   * and sizes; `none`: nothing, the file counts as one module.
   */
  inside: 'sources' | 'names' | 'none';
  /** Modules in it, by index, with the bytes that each has in this file. */
  modules: { module: number; bytes: number }[];
  /** For `names`: what is in it, heaviest first. */
  contents: { source: string; bytes: number }[];
  /** Files that it asks for, by index into `files`. */
  imports: { to: number; kind: 'static' | 'dynamic'; line: number }[];
}

/** What a document of an output asks for by itself, in document order. */
export interface BuiltStart {
  realm: string;
  tags: { file: number; placement: 'blocking' | 'async' | 'defer' | 'module' | 'style'; offset: number }[];
}

export interface Failed {
  path: string;
  line: number;
  message: string;
}
