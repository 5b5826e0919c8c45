import type { VisitProgram } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulateVisit, type VisitTimeline } from '../sim/simulate-visit.ts';
import { type Experience, experienced, sumsOf, type VisitSums } from './experience.ts';
import type { VisitCompiler } from './program.ts';
import type { Visit } from './types.ts';

/** Everything known about one visit under one plan and one set of conditions. */
export interface Played {
  program: VisitProgram;
  timeline: VisitTimeline;
  experiences: Experience[];
  sums: VisitSums;
}

/** Compiles, simulates and reads off a visit. Throws InputError for steps that can't be taken; see VisitCompiler. */
export function playVisit(compiler: VisitCompiler, visit: Visit, conditions: Conditions): Played {
  const program = compiler.compile(visit);
  const timeline = simulateVisit(program, conditions);
  const experiences = experienced(program, timeline);
  return { program, timeline, experiences, sums: sumsOf(experiences, timeline) };
}
