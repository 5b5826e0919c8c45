import type { Remedy } from '../advise/types.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';

/** A change that could make sense: a hint, or a way to split. */
export interface Candidate {
  /** Stays the same while what it stands for does. */
  id: string;
  about: 'hint' | 'split';
  /** In words: what it does, and why it could help. */
  words: string;
  why: string;
  remedy: Remedy;
  /** Routes on which it can change anything; null: all. */
  routes: string[] | null;
  /** Of candidates with the same one only one makes sense at a time. */
  instead: string;
  /** What it works at together with others: they may help only jointly. */
  together: string | null;
}

/** A set of conditions that a choice is made for, with its weight. */
export interface Circumstance {
  name: string;
  conditions: Conditions;
  share: number;
}

/** What a choice has to keep. */
export interface Limits {
  /** Changes that are taken at most. */
  changes: number;
  /** No landing's first content may come later than before by more than this, in ms. */
  firstContentMs: number;
  /** The same of when any page answers, in ms. */
  interactiveMs: number;
  /**
   * What a change has to save to be worth having, in expected ms per visit: each has to be written, read and kept in step
   * with the code.
   */
  changeMs: number;
  /** A visit may fetch so many bytes more for nothing, on average; null: as many as pay. */
  wasteBytes: number | null;
  /** Hints that fetch in case are left out for visitors who save data. */
  spareDataSavers: boolean;
}

/** What is chosen from, for whom, and how. */
export interface Wanted {
  about: 'hints' | 'splits' | 'both';
  limits: Limits;
  /** `mean`: best on average over the circumstances; `worst`: best in the circumstance where a visit costs most. */
  aim: 'mean' | 'worst';
}

/** What a set of candidates comes to. Costs in expected ms per visit. */
export interface Measured {
  cost: number;
  /** Expected bytes per visit that are fetched for nothing, in the circumstance where they are most. */
  waste: number;
  /** How much later the first content of some landing comes at most, in ms. */
  firstContentLater: number;
  /** The same of when it answers. */
  interactiveLater: number;
  /** Per circumstance, in their order. */
  costs: number[];
}

/** One change in the order in which it earned its place. */
export interface Turn {
  candidate: Candidate;
  /** What it saved at its turn, and what the plan came to from then on. */
  gain: number;
  cost: number;
  waste: number;
}

/** A set of changes on the curve of gain against waste. */
export interface CurvePoint {
  gain: number;
  waste: number;
  /** Its changes: those of the whole choice in their order, then the others, each with what it saves at its turn. */
  turns: Turn[];
}

/** Who is worse off with a choice. */
export interface Loser {
  circumstance: string;
  /** In words; empty when the whole circumstance loses. */
  who: string;
  /** In ms. */
  change: number;
}

export interface Choice {
  plan: Plan;
  before: Measured;
  after: Measured;
  turns: Turn[];
  /** The best sets of all candidates by what they waste: each saves more than those of less waste. The last is the choice itself. */
  curve: CurvePoint[];
  losers: Loser[];
  candidates: Candidate[];
  /** Every set was tried, so that there is none better. */
  exhaustive: boolean;
  /** Sets that were measured. */
  measured: number;
}

/** Sets of candidates (by their positions) that are about to be measured: others can do so at the same time. */
export interface Ahead {
  plan: Plan;
  circumstances: Circumstance[];
  candidates: Candidate[];
  sets: number[][];
}

/** What one route contributes under one circumstance. */
export interface RouteShare {
  cost: number;
  waste: number;
  firstContent: number;
  interactive: number;
}

/** What was measured of sets: of each route, by the candidates that touch it, the shares under all circumstances. */
export type MeasuredShares = [key: string, shares: RouteShare[]][];

export interface ChoiceProgress {
  phase: 'each alone' | 'all sets' | 'adding' | 'leaving out and swapping' | 'the curve';
  done: number;
  of: number;
  /** The best so far, in the order in which it was found. */
  turns: Turn[];
}
