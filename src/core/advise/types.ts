import type { Decision } from '../plan/types.ts';
import type { FindingKind } from '../vocabulary/findings.ts';

/** An import or line that explains a finding. */
export interface Evidence {
  from: string;
  to: string;
  line: number;
}

/** Something that looks worth changing, before anybody measured it. */
export interface CandidateFinding {
  /** Stays the same while the thing itself does. */
  id: string;
  kind: FindingKind;
  /** In words: what, and why it is so. */
  what: string;
  why: string;
  evidence: Evidence[];
  /** Routes that it is about. */
  routes: string[];
  /** Ways to change it; the one that helps most is the advice. */
  remedies: Remedy[];
  /** Visits for which it is measured, where it isn't all of them: after a deploy, or of people who save data. */
  whose?: 'returning after a deploy' | 'data savers';
  /** It is about what people see, not about how long they wait. */
  seen?: true;
}

/** One way to change something: decisions to be made, and subjects of decisions to be taken back. */
export interface Remedy {
  words: string;
  decisions: Decision[];
  withdraw?: string[];
}

/** Figures of one landing. Times in ms, sizes in bytes. */
export interface RouteScore {
  pattern: string;
  /** Share of all landings. */
  share: number;
  firstContent: number;
  firstScreenComplete: number;
  interactive: number;
  startBytes: number;
  otherScripts: number;
  alsoFetched: number;
  requests: number;
  hops: number;
  /** Bytes that neither the landing nor, as far as is known of visitors, what comes next needs. */
  wasted: number;
  /** Parts that come late where no room was kept for them, so that the rest moves. */
  moves: number;
}

export interface WaitScore {
  key: string;
  route: string;
  name: string;
  perVisit: number;
  /** In how many visits it is the first of its kind: so often its wait counts, as what was brought once is at hand. */
  first: number;
  wait: number;
  /** Its stand-in shows too short to be seen. */
  flashes: boolean;
  /** Nothing is said if its code can't be loaded. */
  silent: boolean;
}

/** What a plan costs the visitors of an app: each landing, each wait, and all of it in expected ms per visit. */
export interface Score {
  routes: RouteScore[];
  waits: WaitScore[];
  /** Expected bytes per visit that are fetched for nothing. */
  waste: number;
  cost: number;
}

/** What is moved by late parts, flashes, or (if its code can't be loaded) fails without a word: times per visit. */
export interface Seen {
  moves: number;
  flashes: number;
  silent: number;
}

/** What a change does. */
export interface Effect {
  /** Change of the expected cost, in ms per visit, and of the bytes that a visit fetches for nothing. */
  cost: number;
  waste: number;
  /** Change of what people see go wrong, times per visit. */
  seen: Seen;
  /** Landings that change, the most affected first. */
  routes: {
    pattern: string;
    share: number;
    firstContent: number;
    interactive: number;
    startBytes: number;
    otherScripts: number;
    alsoFetched: number;
    hops: number;
  }[];
  /** Change of all waits of a visit together, in expected ms. */
  perVisit: number;
  /** Waits that change, the most affected first. */
  waits: { key: string; route: string; name: string; change: number }[];
}

/** How far advice is. */
export interface AdviceProgress {
  /** Candidates that were tried, of all. */
  done: number;
  of: number;
  /** What helps of them, the best first; some of these may take the same code out of the starts. The same list until there is more. */
  soFar?: readonly Finding[];
}

/** A candidate that was measured: its best way helps. */
export interface Finding extends Omit<CandidateFinding, 'remedies'> {
  remedy: Remedy;
  effect: Effect;
  /** What has to be done in the code first, by hand: without that the decisions would break it. */
  cautions: string[];
  /**
   * Change of the expected cost, in ms per visit, if this and all that stand before it are taken: measured together, since
   * one often saves a part of what another does. Null for what isn't to be taken as it is, and what is about being seen.
   */
  together: number | null;
  basis: Basis;
}

/**
 * What a finding's effect rests on: the plan as it is; that with all findings before it, where it saves nothing yet; or another link, on which a visit
 * saves so much (ms), where the present one hides it.
 */
export type Basis = { on: 'the plan' } | { on: 'those above' } | { on: 'a link'; link: string; saves: number };

export interface Fact {
  id: string;
  what: string;
  why: string;
  /** Subjects of decisions to take back. */
  withdraw: string[];
}

/** What was measured: what helps, the best first, and what was tried without gain. */
export interface Advice {
  findings: Finding[];
  /** What is so and can't be measured, such as decisions that no longer match the code. */
  facts: Fact[];
  noGain: { id: string; kind: FindingKind; what: string; cost: number }[];
  before: Score;
}
