import type { Action, Effect, FetchPriority, LinkHint, PartFont } from '../load/types.ts';
import type { Cause, Priority, RequestRecord } from './types.ts';

/** Calls back with the cause of what was waited for. */
export type Then = (cause: Cause) => void;

/** The start of a page, a later moment, or ahead of one that may come. */
export type During = 'start' | 'later' | 'ahead';

/** How somebody asks for a file. */
export interface FetchRequest {
  cause: Cause;
  priority: Priority;
  incremental?: boolean;
  anonymous?: boolean;
  /** From markup or from a running script: the way to the network differs. */
  from: 'markup' | 'script' | 'font';
  /** A hint only fetches; whoever really uses the file asks without it. */
  hint?: LinkHint;
  /** For a user of the file: whether it belongs to the start or to a later moment. */
  moment?: 'start' | 'later';
  /** Requested before anybody wanted it. */
  early?: boolean;
  /** An answer that arrived longer ago can't be used again. In ms. */
  maxAgeMs?: number;
}

/** What the other pieces of a page use of its requests (`fetcher.ts`). Files are named by their index in the program. */
export interface Fetching {
  readonly requests: RequestRecord[];
  /** Whether nothing is in flight or throttled. */
  readonly quiet: boolean;
  request(resource: number, how: FetchRequest): number;
  requestOf(resource: number): number;
  hasArrived(resource: number): boolean;
  onArrival(resource: number, then: Then): void;
  onFailure(resource: number, then: Then): void;
  release(): void;
  addDocument(record: RequestRecord): number;
}

/** What the other pieces use of load groups and their evaluation (`scripts.ts`). Groups are named by their index. */
export interface Evaluating {
  request(group: number, how: FetchRequest): void;
  whenReady(group: number, then: Then): void;
  compileMs(group: number): number;
  hasRun(resource: number): boolean;
  onEvaluated(resource: number, then: Then): void;
  evaluateWhenReady(group: number, delay: number, then?: Then): void;
  evaluateNow(group: number, cause: Cause, then?: Then): void;
}

/** What the other pieces use of the document (`parser.ts`). */
export interface Parsing {
  readonly bodyInserted: boolean;
  readonly renderBlocked: boolean;
  /** What was the last to stop blocking rendering. */
  readonly lastBlocker: Cause | null;
  /** Calls back once the styles that block rendering are there. */
  whenStyled(then: () => void): void;
  holdLoad(resources: number[]): void;
}

/** What the other pieces use of what shows (`renderer.ts`). Parts are named by their index. */
export interface Rendering {
  draw(part: number): void;
  parsed(part: number, cause: Cause): void;
  tryPaint(): void;
}

/** How a text shows: in its font or another one, from when on. */
export interface TextShown {
  /** Now, or once the font or its time has come; with the cause of that. */
  shown: Then;
  /** It changes to its own font after it showed in another one. */
  inFont: Then;
}

/** What the renderer uses of fonts (`fonts.ts`). */
export interface TextFonts {
  laidOut(font: PartFont): void;
  show(fonts: readonly PartFont[], how: TextShown, by: Cause): void;
  whenPaintMay(then: (cause: Cause | null) => void): void;
}

/** What the other pieces use of moments and effects (`triggers.ts`). */
export interface Triggering {
  start(action: Action, cause: Cause, what: string, during?: During): void;
  await(moment: Pick<Action, 'when' | 'delayMs' | 'target'>, then: () => void): void;
  drawn(part: number, cause: Cause): void;
  shown(part: number, cause: Cause): void;
  perform(effect: Effect, cause: Cause, moment: 'start' | 'later', early?: boolean): void;
  link(hint: LinkHint, cause: Cause, from: 'markup' | 'script' | 'early hint'): void;
  painted(): void;
  loaded(): void;
  seen(part: number): void;
  unseen(part: number): void;
}

/** Priorities by type and attribute, as recorded from a real browser (VeryHigh = 0 … VeryLow = 4). */
export function withAttribute(normal: Priority, attribute: FetchPriority | undefined): Priority {
  if (attribute === 'high') return Math.min(normal, 1) as Priority;
  if (attribute === 'low') return Math.max(normal, 3) as Priority;
  return normal;
}
