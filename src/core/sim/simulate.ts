import { InputError } from '../errors.ts';
import type { LoadProgram } from '../load/types.ts';
import { Clock } from './clock.ts';
import { type Conditions, REFERENCE_COSTS } from './conditions.ts';
import { Fetcher } from './fetcher.ts';
import { Network } from './network.ts';
import { Parser } from './parser.ts';
import type { Run } from './run.ts';
import { Screen } from './screen.ts';
import { Scripts } from './scripts.ts';
import { Thread } from './thread.ts';
import { Triggers } from './triggers.ts';
import type { Timeline } from './types.ts';

/** Events of one run. A page of 500 requests needs some 20,000; a program that needs more is not a page load. */
const EVENT_LIMIT = 3_000_000;

/**
 * Predicts one page load: a load program under given conditions. Deterministic; times in ms from the start of the
 * navigation. Throws InputError for conditions that mean nothing (rates of zero, negative times). A run that
 * exceeds the event limit ends with what was known and says so in `stopped`.
 */
export function simulate(program: LoadProgram, conditions: Conditions): Timeline {
  checkConditions(conditions);
  const clock = new Clock();
  const costs = conditions.device.costs ?? REFERENCE_COSTS;
  const run = { program, conditions, costs, clock, reveals: [] } as unknown as Run;
  run.moments = {
    bodyInserted: Number.NaN,
    domInteractive: Number.NaN,
    domContentLoaded: Number.NaN,
    load: Number.NaN,
    firstContent: Number.NaN,
    firstContentCause: null,
  };
  run.network = new Network(clock, conditions.link, conditions.cache === 'empty');
  run.thread = new Thread(clock);
  run.fetcher = new Fetcher(run);
  run.scripts = new Scripts(run);
  run.parser = new Parser(run);
  run.screen = new Screen(run);
  run.triggers = new Triggers(run);
  for (const step of program.steps) run.triggers.step(step);
  run.parser.start();
  run.screen.start();
  const ended = clock.run(EVENT_LIMIT);
  run.fetcher.settleRoles();
  const timeline: Timeline = {
    requests: run.fetcher.requests,
    tasks: run.thread.tasks,
    reveals: run.reveals,
    moments: run.moments,
    steps: run.triggers.steps,
  };
  if (!ended) timeline.stopped = `more than ${EVENT_LIMIT} events by ${Math.round(clock.now)} ms of the load`;
  return timeline;
}

function checkConditions({ link, device }: Conditions): void {
  const positive: [string, number][] = [
    ['link.downKbps', link.downKbps],
    ['link.upKbps', link.upKbps],
    ['device.cpuFactor', device.cpuFactor],
    ['device.browserFactor', device.browserFactor],
  ];
  for (const [at, value] of positive) {
    if (!(Number.isFinite(value) && value > 0)) {
      throw new InputError('Conditions that mean nothing', `${at} must be a number above 0, not ${value}.`, at);
    }
  }
  const times: [string, number][] = [
    ['link.rttMs', link.rttMs],
    ['link.dnsMs', link.dnsMs],
  ];
  for (const [at, value] of times) {
    if (!(value >= 0 && value <= 60_000)) {
      throw new InputError('Conditions that mean nothing', `${at} must lie between 0 and 60000 ms, not ${value}.`, at);
    }
  }
}
