import type { Timeline } from '../sim/types.ts';
import { withoutQuery } from '../text/address.ts';
import { carriedOperation } from '../text/query-operation.ts';
import type { RecordedRequest, Recording } from './types.ts';

/** A recording laid under a prediction. */
export interface Laid {
  /** Per predicted request: the recorded one of its address; null where there is none. */
  of: (RecordedRequest | null)[];
  /** Predicted requests, by index, that were only told by their kind and size: builds give files names of their own. */
  bySize: number[];
  /** Recorded requests that the prediction doesn't have. */
  extra: RecordedRequest[];
  /** Predicted requests, by index, that the recording doesn't have. */
  missing: number[];
  /** Middle relative difference of the ends of what both have, predicted against recorded. */
  middleDifference: number | null;
  /** By how much the recording is later (positive) at its load event. */
  load: { predicted: number; recorded: number } | null;
}

/**
 * Matches recorded requests with predicted ones by address: whole, else by path without query, else with any values in the place of variables
 * (`/api/trips/:id`), else by file name with the hash of its content taken off (`timetable-3f9a2c.js` is `timetable-*.js`), else by kind and size. Each is used once, in order of time.
 */
export function layUnder(timeline: Timeline, recording: Recording): Laid {
  const free = new Set(recording.requests);
  const of: Laid['of'] = timeline.requests.map(() => null);
  const [document] = recording.requests;
  for (const isIt of [sameBy(whole), asksTheSame, sameBy(pathOf), fills, sameBy(bareName)]) {
    timeline.requests.forEach((r, i) => {
      if (of[i]) return;
      for (const other of free) {
        if (r.resource < 0 ? other !== document : !isIt(r.address, other.address)) continue;
        of[i] = other;
        free.delete(other);
        return;
      }
    });
  }
  const bySize = matchSizes(timeline, of, free);
  const differences = timeline.requests
    .flatMap((r, i) => {
      const other = of[i];
      return other && other.end > 0 && Number.isFinite(r.end) ? [Math.abs(r.end - other.end) / other.end] : [];
    })
    .sort((a, b) => a - b);
  const { load } = timeline.moments;
  return {
    of,
    bySize,
    extra: [...free],
    missing: of.flatMap((other, i) => (other ? [] : [i])),
    middleDifference: differences.length > 0 ? differences[Math.floor(differences.length / 2)] : null,
    load: recording.load === null || !Number.isFinite(load) ? null : { predicted: load, recorded: recording.load },
  };
}

/** Files are as large as predicted up to this share; smaller ones than this, in bytes, are too much alike. */
const SAME_SIZE = 0.06;
const LEAST_BYTES = 1500;
/** What browsers count besides the body (Resource Timing, transferSize). */
export const HEADERS = 300;

/** Matches what is left by kind and size, the likest first. Gives the predicted requests that were matched so. */
function matchSizes(timeline: Timeline, of: Laid['of'], free: Set<RecordedRequest>): number[] {
  const pairs = timeline.requests.flatMap((r, request) => {
    if (of[request] || !(r.bytes >= LEAST_BYTES) || !FILES[r.type]) return [];
    return [...free].flatMap((other) => {
      if (!FILES[r.type]!.test(pathOf(other.address))) return [];
      const off = Math.min(...[0, HEADERS].map((more) => Math.abs(other.bytes - more - r.bytes))) / r.bytes;
      return off <= SAME_SIZE ? [{ request, other, off }] : [];
    });
  });
  const found: number[] = [];
  for (const { request, other } of pairs.sort((a, b) => a.off - b.off)) {
    if (of[request] || !free.has(other)) continue;
    of[request] = other;
    free.delete(other);
    found.push(request);
  }
  return found;
}

/** The endings by which the kind of a recorded file is known. */
const FILES: Partial<Record<Timeline['requests'][number]['type'], RegExp>> = { script: /\.m?js$/, style: /\.css$/ };

/** Whether two addresses are called the same, where they are called anything. */
function sameBy(name: (address: string) => string | null): (predicted: string, recorded: string) => boolean {
  return (predicted, recorded) => {
    const wanted = name(predicted);
    return wanted === null ? recorded === predicted : name(recorded) === wanted;
  };
}

/** Whether two addresses are the same path with the same operation, where a predicted one carries one. */
function asksTheSame(predicted: string, recorded: string): boolean {
  const operation = carriedOperation(predicted);
  return operation !== null && carriedOperation(recorded) === operation && pathOf(recorded) === pathOf(predicted);
}

/** Whether an address is one of those that a predicted one with variables stands for. */
function fills(predicted: string, recorded: string): boolean {
  if (!predicted.includes('/:')) return false;
  const [wanted, there] = [predicted, recorded].map((address) => pathOf(address).split('/'));
  return (
    wanted.length === there.length && wanted.every((w, i) => (w.startsWith(':') ? there[i] !== '' : w === there[i]))
  );
}

function whole(address: string): string {
  return address;
}

function pathOf(address: string): string {
  return withoutQuery(address.replace(/^https?:\/\/[^/]+/, ''));
}

/** File name without folders and without the hash of its content; null for a bare folder. */
function bareName(address: string): string | null {
  const file = pathOf(address).split('/').at(-1) ?? '';
  return file === '' ? null : file.replace(/[-.][A-Za-z0-9_]{5,}(?=\.[a-z0-9]+$)/, '-*');
}
