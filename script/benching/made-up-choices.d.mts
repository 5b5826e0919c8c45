import type { Problem } from '../../src/core/choose/problem.ts';

export interface MadeUpMeasure {
  cost: number;
  waste: number;
}

export function madeUpProblem(
  seeded: (seed: number) => () => number,
  seed: number,
  count: number,
  price?: number,
): Problem<MadeUpMeasure> & { least(within?: number): number };
