import type { Fallback } from '../plan/types.ts';
import type { Placeholders } from '../snapshot/placeholders.ts';
import type { FontDisplay } from '../snapshot/route-types.ts';
import type { Trigger } from '../vocabulary/triggers.ts';

/**
 * The load program: a document, resources, and the rules by which each is discovered. Beside the conditions it is
 * all that the simulator sees. Resources and groups are named by their index. Sizes in bytes on the wire, times in
 * ms on the reference device (CPU factor 1).
 */
export interface LoadProgram {
  document: DocumentLoad;
  resources: Resource[];
  groups: Group[];
  parts: ScreenPart[];
  steps: Step[];
  /** How long a placeholder that was shown stays (see `Snapshot`). */
  placeholders?: Pick<Placeholders, 'holdMs' | 'nested'>;
  /** How long the browser takes for its own work, as a share of what is reckoned for it (see `Snapshot`); 1 where nothing is said. */
  browserShare?: number;
  /** What later moments of a visit set off in this document; none for a landing by itself. */
  interactions?: Interaction[];
}

export interface DocumentLoad {
  address: string;
  bytes: number;
  serverMs: number;
  /** Answers that only name the next address, the first of which is navigated to; the last leads to the document. */
  redirects?: Redirect[];
  cache: CacheRule;
  /** Sent as soon as the request is read, during server time. */
  earlyHints: LinkHint[];
  /** In the headers of the final response. */
  linkHeader: LinkHint[];
  /** Streamed bodies: everything up to byte `upTo` is written `atMs` after the first byte. */
  flush: { upTo: number; atMs: number }[];
  /** In document order. */
  markup: MarkupItem[];
}

export interface Redirect {
  /** Empty for the page's own origin. */
  origin: string;
  serverMs: number;
}

export type CacheRule = 'immutable' | 'revalidate' | 'no-store';
export type ResourceType = 'script' | 'style' | 'image' | 'font' | 'fetch';

export interface Resource {
  address: string;
  name: string;
  /** Empty for the page's own origin. */
  origin: string;
  type: ResourceType;
  bytes: number;
  serverMs: number;
  cache: CacheRule;
  /** Measured evaluation cost. */
  cpuMs: number;
  /** What of that wasn't measured of this app, but of others. */
  tabledMs?: number;
  /** Minified bytes whose evaluation cost is estimated from the device's rate (see `Chunk`). */
  estimatedBytes: number;
  /** Those of them that count as the table of packages says. */
  tabledBytes?: number;
  /** How many modules of the app a file of script holds. */
  modules?: number;
  /** Bytes of script as it is written, before compression, where what it takes to compile and run them is told apart from `cpuMs`. */
  codeBytes?: number;
  /** Static imports that the browser finds in it, for the `discovered` loader. */
  imports: number[];
  follow: Action[];
  /** Groups that it asks for and waits for while it is evaluated: it is done only when they are. */
  awaits?: number[];
  /**
   * What it is for. `start`: script and style of the app that the first screen needs; `later`: those that it doesn't;
   * `other script`: third-party and classic scripts of the document; `content`: images, data, documents.
   */
  purpose: 'start' | 'later' | 'other script' | 'content';
  /** Its size could not be found out: `bytes` is 0 and stands for nothing. */
  unknownSize?: true;
  /** Of the start: bytes on the wire of modules that the first screen doesn't need, or only on some screens. */
  idle?: { bytes: number; unless: Screens[] }[];
  /** Index of the chunk that it is, where it is one. */
  chunk?: number;
  /** It is a document that may be opened next. */
  document?: true;
  /** Its address changes whenever the app's own code does. */
  changes?: true;
}

/** The font that a text is written in: its file, and the style sheet that names it. */
export interface PartFont {
  resource: number;
  declaredBy: number;
  display: FontDisplay;
}

/** Files that are asked for and evaluated together. */
export interface Group {
  name: string;
  /** In evaluation order; the last one is what was asked for. */
  resources: number[];
  /** Groups that must have been evaluated before. */
  after: number[];
  loader: 'listed' | 'discovered';
}

/** Widths of the screen that are meant, in CSS pixels, both ends included. */
export interface Screens {
  minWidth?: number;
  maxWidth?: number;
}

export type FetchPriority = 'high' | 'low' | 'auto';

export interface LinkHint {
  rel: 'preload' | 'modulepreload' | 'prefetch' | 'preconnect' | 'dns-prefetch' | 'stylesheet';
  /** Resource index; −1 when only an origin is meant. */
  resource: number;
  origin?: string;
  as?: string;
  crossorigin?: boolean;
  fetchpriority?: FetchPriority;
  /** Only where the device's screen is like that; not for visitors who save data. */
  media?: Screens;
  notForDataSaver?: true;
  /** The app itself keeps what comes, whatever the browser does. */
  keptByApp?: true;
  /** True for a hint that the plan or the page gives on purpose; false for files the renderer lists by itself. */
  chosen: boolean;
}

export type ScriptMode = 'blocking' | 'async' | 'defer' | 'module' | 'module-async';

export type MarkupItem = { at: number } & (
  | ({ tag: 'link' } & LinkHint)
  | { tag: 'script'; group: number; mode: ScriptMode; fetchpriority?: FetchPriority }
  | { tag: 'inline'; name: string; cpuMs: number; follow: Action[] }
  | { tag: 'rules'; do: Effect[] }
  | { tag: 'body' }
  | { tag: 'text'; part: number }
  | { tag: 'img'; resource: number; lazy: boolean; inView: boolean; fetchpriority?: FetchPriority }
);

export type ActionMoment = 'eval' | 'paint' | 'idle' | 'quiet' | 'load' | 'timer' | 'visible' | 'drawn' | 'shown';

export interface Action {
  when: ActionMoment;
  /** Waits that long after the moment. */
  delayMs?: number;
  /** The part that has to come into view (`visible`), that script has to have drawn (`drawn`), or that has to show (`shown`). */
  target?: number;
  /** Answers to calls for data that have to be there first, as resources. */
  answers?: number[];
  /** Only where the device's screen is like that. */
  media?: Screens;
  do: Effect;
}

export type Effect =
  | { kind: 'import'; group: number }
  | { kind: 'script'; group: number; ordered: boolean }
  | FetchEffect
  | { kind: 'img'; resource: number }
  | { kind: 'link'; hint: LinkHint }
  | RuleEffect
  | { kind: 'cpu'; ms: number; name: string }
  | { kind: 'scroll'; part: number }
  | { kind: 'render'; part: number };

/** `maxAgeMs`: an answer that is older is asked for again; `ahead`: only in case it is wanted. */
export interface FetchEffect {
  kind: 'fetch';
  resource: number;
  maxAgeMs?: number;
  ahead?: true;
}

/** A speculation rule: the document of that address is fetched ahead, or opened and run unseen. */
export interface RuleEffect {
  kind: 'rule';
  does: 'fetch' | 'prepare';
  address: string;
  /** What of it shows where the person doesn't go there next. */
  instead: Effect[];
  media?: Screens;
}

export interface Need {
  resource: number;
  state: 'evaluated' | 'arrived';
}

/** Something the person sees. Drawn by the document or by script, and answering once its script has run. */
export interface ScreenPart {
  id: string;
  /** The route that it stands on, where that isn't the one of the document. */
  route?: string;
  name: string;
  place: 'first screen' | 'below' | 'later';
  drawnBy: 'document' | 'script';
  interactive: boolean;
  /** What script has to be there before it can be drawn (by script) or made to answer (drawn by the document). */
  needs: Need[];
  /** Parts that must be drawn before. */
  after: number[];
  /** Images and data that fill it; it counts as complete when they are there. */
  fill: number[];
  renderMs: number;
  /** What of that tables of what was measured elsewhere tell: what packages draw by script, the first text of a language. */
  tabledMs?: number;
  /** What drawing its components once more would take, without what packages draw by script: how much of it there is to see. */
  showsMs?: number;
  /** What drawing it anew takes once all answers that fill it are there, on the reference device. */
  fillMs?: number;
  /** What of that tables say of what was measured elsewhere. */
  fillTabledMs?: number;
  /** Somebody measured what drawing it takes. */
  measured?: true;
  /** The fonts that its text is written in, where they have to be fetched. */
  fonts?: PartFont[];
  /** What has to be there before it answers, for a part that is drawn without it by script. */
  answerNeeds?: Need[];
  /** Whether the person is told, if what it needs can't be loaded. */
  tellsFailure?: boolean;
  /** What stands in its place until it is drawn; a stand-in where nothing is said. */
  fallback?: Pick<Fallback, 'show' | 'holdMs'>;
  /** What script has to be there before its stand-in can be drawn, where that isn't the parts before it. */
  standInNeeds?: Need[];
  /** The moment that it waits for once it could be drawn. */
  showWhen?: Pick<Action, 'when' | 'delayMs' | 'target'>;
  /** It is there only on such screens. */
  screens?: Screens;
  /** What it waits for doesn't happen while somebody only lands: it never shows, or (where it does) never answers. */
  held?: Trigger;
  /** Shown together with the others of this group, with the slowest. */
  together?: string;
  /** False when nothing on this landing asks for it: it waits for a `render` effect. */
  onItsOwn: boolean;
}

export type Step =
  | { id: string; kind: 'click'; atMs: number; do: Effect[]; ready: number[] }
  | { id: string; kind: 'hover'; atMs: number; leadMs: number; do: Effect[]; clickDo: Effect[]; ready: number[] };

/** An action of an interaction; with `after` it begins once that file has come or run. */
export type InteractionAction = Action & { after?: Need };

/**
 * What a moment of a visit sets off in a document: a move to another route inside the app, an act that opens a part, a
 * part that comes into view, a condition that turns out true.
 */
export interface Interaction {
  /** As given by `moveInteraction` and `partInteraction`. */
  id: string;
  kind: 'move' | 'act' | 'scroll' | 'condition' | 'leave';
  name: string;
  /** Parts that leave the screen, so that they are drawn again when they come again. */
  hides: number[];
  /** Parts that it brings; the first is the one that the person waits for. */
  shows: number[];
  /** Whether the person waits until that one shows, or (where it shows already) until it answers. */
  until: 'shown' | 'answering';
  /** Answers of the server that come first, one after another. */
  first: number[];
  /** What happens already when the pointer or focus rests on what leads there. */
  approach: InteractionAction[];
  act: InteractionAction[];
}

export const moveInteraction = (to: string): string => `to ${to}`;
/** A move that opens a document: only its approach is an interaction. */
export const leaveInteraction = (to: string): string => `leave for ${to}`;
export const partInteraction = (route: string, part: string): string => `${part} on ${route}`;

/** A whole visit: the documents that it opens one after another, and what the person does in each. */
export interface VisitProgram {
  documents: VisitDocument[];
}

export interface VisitDocument {
  program: LoadProgram;
  /** `return`: opened again after `awayMs`, with nothing left but what the browser has kept. */
  begins: 'landing' | 'link' | 'return';
  awayMs: number;
  /** The part that the person comes for; −1: whatever shows first. */
  main: number;
  /** Interactions of conditions that hold from the start. */
  conditions: number[];
  steps: CompiledStep[];
}

/** One thing that the person does, or that happens. Times in ms. */
export interface CompiledStep {
  /** Which step of the visit it is. */
  index: number;
  /**
   * `interaction`: what the interaction sets off, with an approach before it; `approach`: only that; `leave`: follows a link to the
   * next document; `resize`: the screen has another size; `deploy`: the app is built again while the page is open.
   */
  does: 'interaction' | 'approach' | 'leave' | 'resize' | 'deploy';
  /** Index into the document's interactions; −1 where there is none. */
  interaction: number;
  /** Interactions of conditions that hold from then on. */
  conditions: number[];
  /** From the end of the moment before to the approach, and from there to the act. */
  dwellMs: number;
  /** The approach is at this instant of the page, where the dwell doesn't decide. In ms from its navigation. */
  atMs?: number;
  leadMs: number;
  size?: { width: number; height: number };
}
