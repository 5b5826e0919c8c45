import type { LoadProgram } from '../load/types.ts';
import { HEADERS, layUnder } from '../recordings/match.ts';
import type { RecordedRequest } from '../recordings/types.ts';
import type { RequestRecord, Timeline } from '../sim/types.ts';
import { originOf } from '../text/address.ts';
import { middleRun } from './middle-run.ts';
import type { Rehearsal } from './types.ts';

/** Why a request or a part came at another time than predicted. */
export const CAUSES = {
  size: 'another size',
  transport: 'took longer or shorter on the link',
  'asked later': 'was asked for at another time',
  thread: 'ran, or was drawn, for longer or shorter',
  'not predicted': 'wasn’t predicted',
  'not asked for': 'was never asked for',
} as const;
export type CauseClass = keyof typeof CAUSES;

/** Something that was rehearsed otherwise than predicted. */
export interface Difference {
  /** The file or part. */
  what: string;
  cause: CauseClass;
  /** In ms, as far as there are two times: when it was there. */
  predicted: number | null;
  rehearsed: number | null;
}

/** Smaller differences aren’t told: in ms, and as a share of the time. */
const LEAST_MS = 10;
const LEAST_SHARE = 0.03;
/** From so much another size is the cause. */
const OTHER_SIZE = 0.05;

/** The largest differences between a prediction and the middle one of a rehearsal’s runs. */
export function differencesOf(
  { timeline, program }: { timeline: Timeline; program: LoadProgram },
  rehearsal: Rehearsal,
  most = 12,
): Difference[] {
  const run = middleRun(rehearsal);
  const { load, contentLoaded } = run.moments;
  const laid = layUnder(timeline, { title: '', requests: run.requests, contentLoaded, load, leftOut: [] });
  const found: Difference[] = timeline.requests.flatMap((r, i): Difference[] => {
    const other = laid.of[i];
    if (!other) return [{ what: r.name, cause: 'not asked for', predicted: r.end, rehearsed: null }];
    return counts(r.end, other.end)
      ? [{ what: r.name, cause: causeOf(r, other), predicted: r.end, rehearsed: other.end }]
      : [];
  });
  for (const { address, end } of laid.extra)
    found.push({ what: nameOf(address), cause: 'not predicted', predicted: null, rehearsed: end });
  for (const { part, shown } of run.parts) {
    const at = program.parts.findIndex((p) => p.id === part);
    const predicted = timeline.reveals.find((v) => v.part === at && v.state === 'shown')?.at;
    if (predicted === undefined || shown === null || !counts(predicted, shown)) continue;
    found.push({ what: `${program.parts[at].name} (shown)`, cause: 'thread', predicted, rehearsed: shown });
  }
  return found.sort((a, b) => weight(b) - weight(a)).slice(0, most);
}

function counts(predicted: number, rehearsed: number): boolean {
  const apart = Math.abs(predicted - rehearsed);
  return apart >= LEAST_MS && apart >= rehearsed * LEAST_SHARE;
}

function weight({ predicted, rehearsed }: Difference): number {
  return predicted === null || rehearsed === null ? 0 : Math.abs(predicted - rehearsed);
}

/** What most of the difference comes from: the time until it was asked for, or what it took from then on. */
function causeOf(request: RequestRecord, other: RecordedRequest): CauseClass {
  const asked = Math.abs(request.discovered - other.discovered);
  const took = Math.abs(request.end - request.discovered - (other.end - other.discovered));
  if (asked >= took) return 'asked later';
  const sizes = request.bytes > 0 && other.bytes > 0 && Math.abs(request.bytes + HEADERS - other.bytes) / other.bytes;
  return sizes && sizes > OTHER_SIZE ? 'size' : 'transport';
}

function nameOf(address: string): string {
  return address.slice(originOf(address).length) || address;
}
