import { normal, seeded } from '../sim/random.ts';
import type { Habits, Spread, VisitorModel } from '../snapshot/visitor-types.ts';
import type { Visit, VisitStep } from '../visits/types.ts';

/** Longest visit that is drawn, in stays on a route. */
export const MOST_STAYS = 12;

/** What is possible in an app under a plan: whether a move stays in the open document, and whether a part has a moment. */
export interface Ways {
  staysInside(opened: string, to: string): boolean;
  hasMoment(opened: string, route: string, part: string): boolean;
}

export interface DrawnVisit {
  visit: Visit;
  /** Null: as the device says. */
  touch: boolean | null;
  dataSaver: boolean;
  cache: 'empty' | 'returning' | 'deployed';
  /** From 0 to below 1, evenly spread over the visits of a seed: for what the caller draws besides. */
  even: number;
}

/**
 * Draws one of many visits from a model: the n-th of a seed, always the same, whatever plan it is played under. Landings
 * are spread evenly over the visits, so that fewer are needed.
 */
export function drawVisit(model: VisitorModel, ways: Ways, seed: number, n: number): DrawnVisit {
  const next = seeded((Math.imul(seed, 0x9e3779b1) ^ Math.imul(n + 1, 0x85ebca6b)) >>> 0);
  const shift = seeded(seed);
  const landing = pick(model.routes, (r) => r.landings, evenly(n, GOLDEN, shift()));
  const even = evenly(n, SECOND, shift());
  const touch = next() < (model.touch ?? 0);
  const dataSaver = next() < model.dataSaver;
  const back = next() < model.returning;
  const deployed = next() < model.deployed;
  const segments = new Set(model.segments.filter((s) => next() < s.share).map((s) => s.name));
  const steps: VisitStep[] = [];
  const holds = holding(landing, segments, next);
  let opened = landing.pattern;
  let at: Habits | undefined = landing;
  for (let stay = 0; at && stay < MOST_STAYS; stay++) {
    const here: Habits = at;
    for (const act of here.acts) {
      const does = next() < act.share;
      const dwellMs = drawn(here.dwell, next);
      const leadMs = drawn(act.hesitation, next);
      if (!does || !ways.hasMoment(opened, here.pattern, act.part)) continue;
      if (act.scroll) steps.push({ does: 'scroll', part: act.part, dwellMs, leadMs: 0 });
      else steps.push({ does: 'act', part: act.part, dwellMs, leadMs });
    }
    const to = chosen(here.moves, next());
    const dwellMs = drawn(here.dwell, next);
    const leadMs = drawn(model.hesitation, next);
    at = to === null || stay + 1 === MOST_STAYS ? undefined : model.routes.find((r) => r.pattern === to);
    if (!at) break;
    const by = ways.staysInside(opened, at.pattern) ? 'inside' : 'document';
    if (by === 'document') opened = at.pattern;
    steps.push({ does: 'move', to: at.pattern, by, dwellMs, leadMs, holds: holding(at, segments, next) });
  }
  return {
    visit: { name: `visit ${n + 1}`, landing: landing.pattern, holds, steps },
    touch: model.touch === null ? null : touch,
    dataSaver,
    cache: back ? (deployed ? 'deployed' : 'returning') : 'empty',
    even,
  };
}

const GOLDEN = 0.618_033_988_749_895;
const SECOND = 0.754_877_666_246_693;

/** The n-th of a sequence that fills 0 to 1 evenly. */
function evenly(n: number, step: number, shift: number): number {
  return (shift + n * step) % 1;
}

/** A time in ms drawn from its distribution (log-normal); `next` gives numbers from 0 to 1. */
export function drawn({ medianMs, spread }: Spread, next: () => number): number {
  return medianMs * Math.exp(spread * normal(next));
}

/** Conditional parts that this stay needs; of those that exclude each other, one at most. */
function holding(at: Habits, segments: Set<string>, next: () => number): string[] {
  const holds: string[] = [];
  const groups = new Map<string, number>();
  for (const { part, share, segment, group } of at.conditions) {
    const own = next();
    if (segment !== undefined) {
      if (segments.has(segment)) holds.push(part);
      continue;
    }
    if (group === undefined) {
      if (own < share) holds.push(part);
      continue;
    }
    // One draw decides for the whole group: the first part's.
    const left = groups.get(group) ?? own;
    if (left >= 0 && left < share) holds.push(part);
    groups.set(group, left >= 0 && left < share ? -1 : left < 0 ? -1 : left - share);
  }
  return holds;
}

function chosen(moves: Habits['moves'], at: number): string | null {
  let left = at;
  for (const { to, share } of moves) {
    left -= share;
    if (left < 0) return to;
  }
  return null;
}

function pick<T>(of: readonly T[], weight: (item: T) => number, at: number): T {
  let left = at * of.reduce((sum, o) => sum + weight(o), 0);
  for (const o of of) {
    left -= weight(o);
    if (left < 0) return o;
  }
  return of[of.length - 1];
}
