import type { FrontierPoint } from './frontier.ts';

/** A problem of choosing: which of `count` candidates, when a set of them can be measured. */
export interface Problem<M extends { cost: number }> {
  count: number;
  /** Of candidates with the same key only one is in a set. */
  instead(candidate: number): string;
  /** Candidates that are tried together with each of them, since they may help only jointly. */
  bundles: readonly (readonly number[])[];
  measure(set: readonly number[]): M;
  /** What a set has to save for each of its candidates before it is worth having, in the measure's unit. */
  price: number;
  /** Whether a set keeps all limits but that on what it takes up. */
  keeps(measured: M, set: readonly number[]): boolean;
  /** How much a set takes up of what there may be a limit on: gain is weighed against it. */
  weight(measured: M): number;
  /** How much a set may take up at most; null: as much as pays. */
  most: number | null;
  /** Whether what one candidate is worth can hang on whether another one is in the set. */
  touches(a: number, b: number): boolean;
}

export interface Selected<M> {
  /** In the order in which they earned their place. */
  chosen: { candidates: number[]; measured: M }[];
  exhaustive: boolean;
  /** Sets that no other one beats, by what they take up: the least cost (with the price) for each amount. */
  frontier: FrontierPoint<M>[];
}

export interface SelectProgress<M> {
  phase: 'each alone' | 'all sets' | 'adding' | 'leaving out and swapping' | 'the curve';
  done: number;
  of: number;
  soFar: Selected<M>['chosen'];
  /** Sets that are measured next, for others to measure some of them meanwhile. */
  ahead?: number[][];
}

/** Less than this is no gain, in the measure's unit. */
export const LEAST = 0.5;

/** Whether a set keeps all limits. */
export function fits<M extends { cost: number }>(p: Problem<M>, measured: M, set: readonly number[]): boolean {
  return p.keeps(measured, set) && (p.most === null || p.weight(measured) <= p.most);
}

/** What a set comes to with the price of its candidates. */
export function objective<M extends { cost: number }>(p: Problem<M>, set: readonly number[], measured: M): number {
  return measured.cost + p.price * set.length;
}

/** A set with more candidates; who can't stand beside them goes. */
export function joined(p: Pick<Problem<never>, 'instead'>, set: readonly number[], more: readonly number[]): number[] {
  const keys = new Set(more.map((m) => p.instead(m)));
  return [...set.filter((m) => !more.includes(m) && !keys.has(p.instead(m))), ...more].sort((a, b) => a - b);
}
