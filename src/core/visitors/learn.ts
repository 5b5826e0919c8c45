import type { Route } from '../snapshot/route-types.ts';
import type { RouteNotes, Spread, VisitorNotes } from '../snapshot/visitor-types.ts';
import { withoutQuery } from '../text/address.ts';

/** One line of a navigation log: a visit was at a route, or did something there. */
export interface LogRecord {
  visit: string;
  /** ms since any instant, the same for all lines. */
  time: number;
  /** Pattern or address of the route; empty where the line only tells an act. */
  route: string;
  /** Id, name or act of a part; empty where the line tells a move. */
  action: string;
}

/** What a log says of the visitors. */
export interface Learned {
  lines: number;
  visits: number;
  /** Landings per route, and how many stays each route had. */
  landings: { pattern: string; landings: number; stays: number }[];
  notes: VisitorNotes;
  troubles: LogTrouble[];
}

export interface LogTrouble {
  kind: 'unknown route' | 'unknown action' | 'clock' | 'unreadable';
  /** What was met, where it has a name. */
  what: string;
  count: number;
  /** First line on which it was met. */
  line: number;
}

interface Open {
  route: string;
  time: number;
  did: Set<string>;
}

interface Tally {
  landings: number;
  stays: number;
  moves: Map<string, number>;
  acts: Map<string, number>;
  /** Histogram of the logarithm of pauses. */
  pauses: Uint32Array;
}

const BINS_PER_FOLD = 24;
const BINS = 480;
/** Longer pauses mean that the person was away, not that they were reading. In ms. */
const AWAY_MS = 30 * 60_000;
const MOST_TROUBLES = 200;

/**
 * Estimates landing shares, moves, acts and dwell times from the lines of a log, one at a time, in any order of visits
 * (within a visit in order of time). Lines that don't fit are counted, and left aside. A part counts once per stay.
 */
export class LogLearner {
  private readonly open = new Map<string, Open>();
  private readonly tallies = new Map<string, Tally>();
  private readonly troubles = new Map<string, LogTrouble>();
  private readonly cache = new Map<string, string | null>();
  private lines = 0;

  constructor(private readonly routes: readonly Route[]) {}

  add({ visit, time, route, action }: LogRecord, line: number): void {
    this.lines++;
    const at = route === '' ? '' : this.routeOf(route);
    if (at === null) {
      this.trouble('unknown route', route, line);
      return;
    }
    const before = this.open.get(visit);
    if (before && time < before.time) {
      this.trouble('clock', visit, line);
      return;
    }
    const here = at || before?.route || '';
    if (here === '') {
      this.trouble('unknown route', '(none said)', line);
      return;
    }
    if (before) this.pause(before.route, time - before.time);
    if (!before || (at !== '' && action === '') || (at !== '' && at !== before.route))
      this.arrive(visit, before, here, time);
    const now = this.open.get(visit)!;
    now.time = time;
    if (action !== '') this.act(now, action, line);
  }

  /** A line that could not be read at all. */
  unreadable(what: string, line: number): void {
    this.lines++;
    this.trouble('unreadable', what, line);
  }

  get linesRead(): number {
    return this.lines;
  }

  result(): Learned {
    const routes: RouteNotes[] = [];
    for (const [pattern, tally] of this.tallies) {
      const dwell = spreadOf(tally.pauses);
      const share = (count: number) => count / tally.stays;
      routes.push({
        pattern,
        ...(dwell ? { dwell } : {}),
        moves: [...tally.moves].map(([to, count]) => ({ to, share: share(count) })),
        acts: [...tally.acts].map(([part, count]) => ({ part, share: share(count) })),
      });
    }
    return {
      lines: this.lines,
      visits: this.open.size,
      landings: [...this.tallies].map(([pattern, { landings, stays }]) => ({ pattern, landings, stays })),
      notes: { routes },
      troubles: [...this.troubles.values()],
    };
  }

  private arrive(visit: string, before: Open | undefined, route: string, time: number): void {
    const tally = this.tally(route);
    tally.stays++;
    if (!before) tally.landings++;
    else {
      const { moves } = this.tally(before.route);
      moves.set(route, (moves.get(route) ?? 0) + 1);
    }
    this.open.set(visit, { route, time, did: new Set() });
  }

  private act(now: Open, action: string, line: number): void {
    const route = this.routes.find((r) => r.pattern === now.route)!;
    const part = route.parts.find((p) => p.id === action || p.name === action || p.action === action);
    if (!part) {
      this.trouble('unknown action', `${action} on ${now.route}`, line);
      return;
    }
    if (now.did.has(part.id)) return;
    now.did.add(part.id);
    const { acts } = this.tally(now.route);
    acts.set(part.id, (acts.get(part.id) ?? 0) + 1);
  }

  private pause(route: string, ms: number): void {
    if (ms <= 0 || ms > AWAY_MS) return;
    const bin = Math.round(Math.log(ms) * BINS_PER_FOLD);
    this.tally(route).pauses[Math.max(0, Math.min(BINS - 1, bin))]++;
  }

  private tally(route: string): Tally {
    let tally = this.tallies.get(route);
    if (!tally) {
      tally = { landings: 0, stays: 0, moves: new Map(), acts: new Map(), pauses: new Uint32Array(BINS) };
      this.tallies.set(route, tally);
    }
    return tally;
  }

  /** The pattern of a route, given by itself or by an address that fits it; null when none does. */
  private routeOf(given: string): string | null {
    const cached = this.cache.get(given);
    if (cached !== undefined) return cached;
    const path = withoutQuery(given.replace(/^https?:\/\/[^/]+/, '')) || '/';
    const trimmed = path.length > 1 ? path.replace(/\/$/, '') : path;
    const found =
      this.routes.find((r) => r.pattern === given || r.pattern === trimmed) ??
      this.routes.find((r) => fits(r.pattern, trimmed));
    const pattern = found?.pattern ?? null;
    if (this.cache.size < 100_000) this.cache.set(given, pattern);
    return pattern;
  }

  private trouble(kind: LogTrouble['kind'], what: string, line: number): void {
    const key = kind === 'clock' || kind === 'unreadable' ? kind : `${kind} ${what}`;
    const trouble = this.troubles.get(key);
    if (trouble) trouble.count++;
    else if (this.troubles.size < MOST_TROUBLES) this.troubles.set(key, { kind, what, count: 1, line });
  }
}

/** Whether an address fits a pattern: `:name` and `[name]` stand for one step, `*` and `[...name]` for the rest. */
function fits(pattern: string, path: string): boolean {
  const wanted = pattern.split('/').filter(Boolean);
  const given = path.split('/').filter(Boolean);
  for (let i = 0; i < wanted.length; i++) {
    if (/^(\*|\[\.\.\.|\[\[\.\.\.)/.test(wanted[i])) return true;
    if (given[i] === undefined) return false;
    if (!/^(:|\[)/.test(wanted[i]) && wanted[i] !== given[i]) return false;
  }
  return wanted.length === given.length;
}

/** Median and spread of what a histogram of logarithms holds; null with too little in it. */
function spreadOf(bins: Uint32Array): Spread | null {
  const all = bins.reduce((sum, n) => sum + n, 0);
  if (all < 5) return null;
  const at = (share: number): number => {
    let left = share * all;
    for (let i = 0; i < BINS; i++) {
      if (left <= bins[i]) return (i + (bins[i] === 0 ? 0 : left / bins[i] - 0.5)) / BINS_PER_FOLD;
      left -= bins[i];
    }
    return (BINS - 1) / BINS_PER_FOLD;
  };
  // A standard deviation to either side of the middle lie 15.87 % and 84.13 %.
  return { medianMs: Math.round(Math.exp(at(0.5))), spread: Math.max(0, (at(0.8413) - at(0.1587)) / 2) };
}
