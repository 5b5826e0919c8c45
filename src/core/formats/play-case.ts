import type { LoadProgram } from '../load/types.ts';
import { percentile } from '../mix/percentile.ts';
import { type Conditions, REFERENCE_COSTS } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { simulateVisit } from '../sim/simulate-visit.ts';
import type { Timeline } from '../sim/types.ts';
import type { LoadCase } from './load-case.ts';

/**
 * What is predicted of a load case, by href; in ms from the start of the navigation (steps: from the click to ready). Where chance
 * decides, the middle of many loads, with `distribution` of load, first content and each evaluation.
 */
export interface CasePrediction {
  id: string;
  firstContentfulPaint: number | null;
  load: number | null;
  resources: Record<string, { requestStart: number; responseEnd: number }>;
  evalEnd: Record<string, number>;
  steps: Record<string, number>;
  /** By the id of a text: when it shows first, and when it changed to its own font. */
  textPaint: Record<string, number>;
  textInFont: Record<string, number>;
  distribution?: Record<string, { p50: number; p90: number }>;
}

/** Loads that are drawn where chance decides: enough for a tenth of them to say something. */
const DRAWN = 61;

/** Predicts a load case. */
export function playCase(found: LoadCase): CasePrediction {
  const { conditions } = found;
  if (!found.isRandom) return predictionOf(found, played(found, conditions));
  const { lossSeed = 1 } = conditions.link;
  const all = Array.from({ length: DRAWN }, (_, n) =>
    predictionOf(found, played(found, { ...conditions, link: { ...conditions.link, lossSeed: lossSeed * 1000 + n } })),
  );
  return middleOf(all);
}

/** One load of a case; after another page where it comes from one. */
function played({ program, from }: LoadCase, conditions: Conditions): Timeline {
  if (!from) return simulate(program, conditions);
  const leave = { index: 0, does: 'leave', interaction: -1, conditions: [], dwellMs: 0, leadMs: 0 } as const;
  const page = { awayMs: 0, main: -1, conditions: [] };
  const { pages } = simulateVisit(
    {
      documents: [
        {
          ...page,
          program: from.program,
          begins: 'landing',
          steps: [{ ...leave, conditions: [], atMs: from.navigateAtMs }],
        },
        { ...page, program, begins: 'link', steps: [] },
      ],
    },
    conditions,
  );
  return pages[1].timeline;
}

/** Reads the measures of a case off its timeline. */
export function predictionOf({ id, program }: Pick<LoadCase, 'id' | 'program'>, timeline: Timeline): CasePrediction {
  const known = (ms: number) => (Number.isFinite(ms) ? ms : null);
  const prediction: CasePrediction = {
    id,
    firstContentfulPaint: known(timeline.moments.firstContent),
    load: known(timeline.moments.load),
    resources: {},
    evalEnd: {},
    steps: {},
    textPaint: {},
    textInFont: {},
  };
  for (const request of timeline.requests) {
    if (request.resource < 0) continue;
    const { address } = program.resources[request.resource];
    prediction.resources[address] = { requestStart: request.sent, responseEnd: request.end };
    if (Number.isFinite(request.evaluated)) prediction.evalEnd[address] = request.evaluated;
  }
  for (const task of timeline.tasks) {
    if (task.kind === 'evaluate' && task.request === 0) prediction.evalEnd[task.name] = task.end;
  }
  for (const step of timeline.steps) prediction.steps[step.id] = step.ready - step.at;
  for (const { part, state, at } of timeline.reveals) {
    const { id: name } = program.parts[part];
    if (state === 'shown') prediction.textPaint[name] ??= at;
  }
  for (const [name, at] of fontChanges(program, timeline)) prediction.textInFont[name] = at;
  return prediction;
}

/** Texts that change to their font once it is there, having been laid out without it, whether they showed or not. */
function fontChanges({ parts }: LoadProgram, { requests, moments }: Timeline): [string, number][] {
  const { frameWait, fontSwap } = REFERENCE_COSTS;
  return parts.flatMap(({ id, fonts }): [string, number][] => {
    const font = fonts?.[0];
    const end = font && requests.find((r) => r.resource === font.resource)?.end;
    const isLate = end !== undefined && end > moments.firstContent && font?.display !== 'optional';
    return isLate ? [[id, end + frameWait + fontSwap]] : [];
  });
}

/** The middle of each measure over many loads, and how the main ones are distributed. */
function middleOf(all: CasePrediction[]): CasePrediction {
  const [first] = all;
  const over = (of: (one: CasePrediction) => number | null | undefined) => all.map((p) => of(p) ?? Number.NaN);
  const middles = (field: 'evalEnd' | 'steps' | 'textPaint' | 'textInFont') =>
    Object.fromEntries(
      Object.keys(first[field]).map((key) => [
        key,
        percentile(
          over((p) => p[field][key]),
          0.5,
        ),
      ]),
    );
  const measures: Record<string, number[]> = {
    load: over((p) => p.load),
    firstContentfulPaint: over((p) => p.firstContentfulPaint),
    ...Object.fromEntries(Object.keys(first.evalEnd).map((href) => [`evalEnd ${href}`, over((p) => p.evalEnd[href])])),
  };
  return {
    id: first.id,
    firstContentfulPaint: percentile(measures.firstContentfulPaint, 0.5),
    load: percentile(measures.load, 0.5),
    resources: Object.fromEntries(
      Object.keys(first.resources).map((href) => [
        href,
        {
          requestStart: percentile(
            over((p) => p.resources[href]?.requestStart),
            0.5,
          ),
          responseEnd: percentile(
            over((p) => p.resources[href]?.responseEnd),
            0.5,
          ),
        },
      ]),
    ),
    evalEnd: middles('evalEnd'),
    steps: middles('steps'),
    textPaint: middles('textPaint'),
    textInFont: middles('textInFont'),
    distribution: Object.fromEntries(
      Object.entries(measures).map(([key, values]) => [
        key,
        { p50: percentile(values, 0.5), p90: percentile(values, 0.9) },
      ]),
    ),
  };
}
