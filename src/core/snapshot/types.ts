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
  unresolved: Unresolved[];
  failed: Failed[];
}

export type ModuleKind = 'script' | 'style' | 'json' | 'asset';

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
export type DeferredContext = 'module' | 'wrapper' | 'handler' | 'function';

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
}

export interface Evidence {
  path: string;
  line: number;
}

export type PartPlace = 'first screen' | 'below' | 'action' | 'conditional';

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
  /** The line of code that draws it, where the part was proposed from code. */
  evidence?: Evidence;
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

export type ScriptPlacement = 'blocking' | 'async' | 'defer' | 'module' | 'end of body' | 'after load' | 'inlined';

export interface ClassicScript {
  id: string;
  name: string;
  address: string;
  /** Compressed. */
  bytes: number;
  serverMs: number;
  evaluationMs: number;
  placement: ScriptPlacement;
  evidence: Evidence | null;
}

export interface Unresolved {
  from: string;
  specifier: string;
  line: number;
  reason: string;
}

export interface Failed {
  path: string;
  line: number;
  message: string;
}
