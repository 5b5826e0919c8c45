import { sourceRequest } from '../../../core/metrics/behind.ts';
import type { ChainLink } from '../../../core/metrics/critical-chain.ts';
import type { RequestRecord } from '../../../core/sim/types.ts';
import type { LandingView } from '../../../worker/views.ts';
import { time } from '../../parts/format.ts';

/** Geometry of the waterfall, in px from the top of the rows. */
export const ROW = 25;
export const HOP_GAP = 10;
const HOP_PADDING = 3;

export interface Row {
  request: number;
  y: number;
}

export interface Hop {
  hop: number;
  from: number;
  to: number;
}

export interface Rows {
  rows: Row[];
  hops: Hop[];
  height: number;
}

/** Rows in hops (stairs), within a hop in order of discovery. */
export function layRows(requests: RequestRecord[], isShown: (request: number) => boolean = () => true): Rows {
  const order = requests
    .flatMap((_, i) => (isShown(i) ? [i] : []))
    .sort((a, b) => requests[a].hop - requests[b].hop || requests[a].discovered - requests[b].discovered || a - b);
  const rows: Row[] = [];
  const hops: Hop[] = [];
  let y = 0;
  for (const request of order) {
    const { hop } = requests[request];
    const current = hops.at(-1);
    if (current?.hop !== hop) {
      if (current) {
        y += HOP_PADDING;
        current.to = y;
        y += HOP_GAP;
      }
      hops.push({ hop, from: y, to: y });
      y += HOP_PADDING;
    }
    rows.push({ request, y });
    y += ROW;
  }
  const last = hops.at(-1);
  if (last) last.to = y + HOP_PADDING;
  return { rows, hops, height: y + HOP_PADDING };
}

/** A stretch of an answer that had one share of the link. */
export interface Piece {
  from: number;
  to: number;
  share: number;
}

/** Stretches of an answer with the share of the link that each had; neighbours that are alike are put together. */
export function shares(request: RequestRecord, downKbps: number): Piece[] {
  const out: Piece[] = [];
  for (const { from, to, bytes } of request.pieces) {
    const share = Math.min(1, (bytes * 8) / downKbps / Math.max(0.01, to - from));
    const last = out.at(-1);
    if (last && from - last.to < 1 && Math.abs(last.share - share) < 0.12) {
      const total = to - last.from;
      last.share = (last.share * (last.to - last.from) + share * (to - from)) / total;
      last.to = to;
    } else out.push({ from: Math.max(from, last?.to ?? from), to, share });
  }
  return out;
}

/** Requests and tasks that the critical chain passes. */
export function litBy(chain: ChainLink[]): { requests: Set<number>; tasks: Set<number> } {
  return {
    requests: new Set(chain.filter((l) => l.request >= 0).map((l) => l.request)),
    tasks: new Set(chain.filter((l) => l.task >= 0).map((l) => l.task)),
  };
}

export interface Flag {
  name: string;
  /** It is of what the landing is compared with. */
  before?: true;
  /** It is the one by which a landing is judged. */
  strong?: true;
  at: number;
  level: number;
  x: number;
  width: number;
}

/** One flag for milestones of one instant (as it is written), with all of their names. */
export function joinFlags<F extends Pick<Flag, 'name' | 'at' | 'before'>>(flags: readonly F[]): F[] {
  const joined = new Map<string, F>();
  for (const flag of flags) {
    const key = `${flag.before ?? false} ${time(flag.at)}`;
    const same = joined.get(key);
    joined.set(key, same ? { ...flag, ...same, name: `${same.name} · ${flag.name}` } : flag);
  }
  return [...joined.values()];
}

/**
 * Places the milestones' flags so that none covers another: to the right of its instant or, where that is too near
 * the edge, to its left; on the first of the levels where there is room.
 */
export function placeFlags(flags: Omit<Flag, 'level' | 'x'>[], x: (ms: number) => number, most: number): Flag[] {
  const taken: { from: number; to: number }[][] = [];
  return [...flags]
    .sort((a, b) => a.at - b.at)
    .map((flag) => {
      const here = x(flag.at);
      const sides = [here + flag.width <= most ? here : here - flag.width, here - flag.width];
      for (let level = 0; ; level++) {
        taken[level] ??= [];
        const left = sides.find((l) => taken[level].every((t) => l >= t.to + 5 || l + flag.width <= t.from - 5));
        if (left === undefined) continue;
        taken[level].push({ from: left, to: left + flag.width });
        return { ...flag, level, x: left };
      }
    });
}

/** What the baseline did, to be drawn behind: its requests of the same name, and its milestones. */
export interface Ghosts {
  of: (RequestRecord | null)[];
  firstContent: number;
  interactive: number;
}

/** The baseline behind a plan's landing; null where the plan is the baseline, or doesn't change anything. */
export function ghostsOf(now: LandingView, baseline: LandingView | null): Ghosts | null {
  if (!baseline || baseline.milestones.interactive === now.milestones.interactive) return null;
  const byName = new Map(baseline.timeline.requests.map((r) => [r.name, r]));
  return {
    of: now.timeline.requests.map((r) => byName.get(r.name) ?? null),
    firstContent: baseline.milestones.firstContent,
    interactive: baseline.milestones.interactive,
  };
}

/** Requests that a part of the screen waits for: its files, what fills it, and what asked for those at any remove. */
export function requestsOf({ timeline, parts }: LandingView, part: string): Set<number> {
  const found = parts.find((p) => p.id === part);
  const wanted = new Set([...(found?.needs.map((n) => n.resource) ?? []), ...(found?.fill ?? [])]);
  const shown = new Set(timeline.requests.flatMap((r, i) => (wanted.has(r.resource) ? [i] : [])));
  for (const i of shown) {
    const source = sourceRequest(timeline, timeline.requests[i].cause);
    if (source >= 0) shown.add(source);
  }
  return shown;
}
