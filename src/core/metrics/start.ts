import { fits } from '../load/places.ts';
import type { LoadProgram, Resource } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { RequestRecord, Timeline } from '../sim/types.ts';

/**
 * The three sums of what a landing fetches by itself. `start`: script and style of the app that the first screen needs;
 * `other scripts`: third-party and classic scripts of the document; `also fetched`: what comes by itself without being
 * needed (when idle, after the first paint or the load event, ahead of a later moment), hints that nothing used included.
 */
export const START_SUMS = ['start', 'other scripts', 'also fetched'] as const;
export type StartSum = (typeof START_SUMS)[number];

/** A file of one of the sums. Bytes as on the wire, whatever the cache holds. */
export interface SumFile {
  /** Index of its request in the timeline. */
  request: number;
  bytes: number;
  /** Bytes of modules in it that the first screen can do without. */
  idle: number;
  /** Nobody knows how large it is; it counts as nothing. */
  unknown?: true;
}

export type Sums = Record<StartSum, SumFile[]>;

/** In which sum a request counts; null for content. `again`: the same file was asked for before. */
export function sumOf(
  { role }: Pick<RequestRecord, 'role'>,
  { purpose, type }: Resource,
  again: boolean,
): StartSum | null {
  // A file of the start for other screens than this one, or one that was asked for twice, is not needed here.
  const idle = role === 'in case' || role === 'wasted';
  if (again) return 'also fetched';
  switch (purpose) {
    case 'other script':
      return idle ? 'also fetched' : 'other scripts';
    case 'start':
      return type !== 'script' && type !== 'style' ? null : idle ? 'also fetched' : 'start';
    case 'later':
      return 'also fetched';
    case 'content':
      return idle ? 'also fetched' : null;
  }
}

/**
 * The files of each sum. They hang on the page and on what the screen and the visitor's settings make of it, not on how
 * fast anything is: every request counts that the landing makes by itself, whenever it ends.
 */
export function startSums(program: LoadProgram, timeline: Timeline, { device }: Conditions): Sums {
  const sums: Sums = { start: [], 'other scripts': [], 'also fetched': [] };
  const seen = new Set<number>();
  timeline.requests.forEach((request, at) => {
    const item = program.resources[request.resource];
    if (!item) return;
    const sum = sumOf(request, item, seen.has(request.resource));
    seen.add(request.resource);
    if (!sum) return;
    const idle = item.idle?.filter((i) => !i.unless.some((s) => fits(s, device.viewport.width))) ?? [];
    sums[sum].push({
      request: at,
      bytes: item.bytes,
      idle: idle.reduce((total, i) => total + i.bytes, 0),
      ...(item.unknownSize ? { unknown: true } : {}),
    });
  });
  return sums;
}

/** Bytes of all files of a sum. */
export function total(files: readonly SumFile[]): number {
  return files.reduce((sum, f) => sum + f.bytes, 0);
}
