import { PROBLEM_STATUS, type ProblemCode } from './problem-codes.ts';

/** Something that can't be done as asked, in the form of RFC 9457 (problem details). */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(`${title}: ${detail}`);
  }

  get status(): number {
    return PROBLEM_STATUS[this.code];
  }
}
