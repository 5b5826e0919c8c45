import { InputError } from '../errors.ts';
import type { LoadProgram } from '../load/types.ts';
import { type Conditions, REFERENCE_COSTS } from './conditions.ts';
import { EventQueue } from './event-queue.ts';
import { HttpCache } from './http-cache.ts';
import { Network } from './network.ts';
import { Page } from './page.ts';
import type { Timeline } from './types.ts';

/** Events of one run: some seconds of computing. A page of 500 requests needs some 20,000, so a program that needs more is no page load. */
export const EVENT_LIMIT = 1_000_000;

/**
 * Predicts one page load: a load program under given conditions. Deterministic; times in ms from the start of the
 * navigation. Throws InputError for conditions that mean nothing (rates of zero, negative times). A run that
 * exceeds the event limit ends with what was known and says so in `stopped`.
 */
export function simulate(program: LoadProgram, conditions: Conditions): Timeline {
  checkConditions(conditions);
  const clock = new EventQueue(-(conditions.device.costs ?? REFERENCE_COSTS).headStart);
  const network = new Network(clock, conditions.link, conditions.cache === 'empty');
  const page = new Page(program, conditions, { clock, network, httpCache: new HttpCache(conditions.cache) });
  page.begin();
  const ended = clock.run(EVENT_LIMIT);
  const timeline = page.timeline();
  if (!ended) timeline.stopped = tooLong(clock.now);
  return timeline;
}

/** Why a simulation was ended, in words; `now` in ms. */
export function tooLong(now: number): string {
  return `more than ${EVENT_LIMIT} events by ${Math.round(now)} ms of the load`;
}

/** Throws InputError for conditions that mean nothing. */
export function checkConditions({ link, device }: Conditions): void {
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
