import type { LoadProgram } from '../load/types.ts';
import type { Timer } from './clock.ts';
import { type Conditions, REFERENCE_COSTS } from './conditions.ts';
import { Fetcher } from './fetcher.ts';
import type { Kept } from './kept.ts';
import { notWanted } from './not-wanted.ts';
import { Parser } from './parser.ts';
import type { PageNetwork, Run } from './run.ts';
import { Screen } from './screen.ts';
import { Scripts } from './scripts.ts';
import { Thread } from './thread.ts';
import { Triggers } from './triggers.ts';
import type { Timeline } from './types.ts';

/** What a page finds there when it begins. */
export interface Surroundings {
  clock: Timer;
  network: PageNetwork;
  kept: Kept;
  /** Calls back once the document that was fetched ahead is there; missing where none was asked for. */
  documentAhead?: (then: () => void) => void;
  /** Opens a document unseen; false where nobody goes there next. */
  prepare?: (address: string) => boolean;
}

/** Puts the pieces of a page together; `begin` sends its navigation. */
export function openPage(program: LoadProgram, conditions: Conditions, around: Surroundings): Run {
  const costs = conditions.device.costs ?? REFERENCE_COSTS;
  const { viewport } = conditions.device;
  const run = {
    program,
    conditions,
    costs,
    ...around,
    viewport,
    outdated: false,
    reveals: [],
  } as unknown as Run;
  run.moments = {
    bodyInserted: Number.NaN,
    domInteractive: Number.NaN,
    domContentLoaded: Number.NaN,
    load: Number.NaN,
    firstContent: Number.NaN,
    firstContentCause: null,
  };
  run.thread = new Thread(around.clock);
  run.fetcher = new Fetcher(run);
  run.scripts = new Scripts(run);
  run.parser = new Parser(run);
  run.screen = new Screen(run);
  run.triggers = new Triggers(run);
  return run;
}

export function beginPage(run: Run): void {
  for (const step of run.program.steps) run.triggers.step(step);
  run.parser.start();
  run.screen.start();
}

/** What came of a page, once nothing happens on it any more. */
export function timelineOf(run: Run): Timeline {
  const timeline: Timeline = {
    requests: run.fetcher.requests,
    tasks: run.thread.tasks,
    reveals: run.reveals,
    moments: run.moments,
    steps: run.triggers.steps,
  };
  run.fetcher.settleRoles();
  notWanted(timeline, run.program);
  return timeline;
}
