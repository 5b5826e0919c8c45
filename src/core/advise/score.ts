import type { Interaction, LoadProgram } from '../load/types.ts';
import { leaveInteraction, moveInteraction, partInteraction } from '../load/types.ts';
import { readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Habits, VisitorModel } from '../snapshot/visitor-types.ts';
import { type Wish, wishesOf } from '../visitors/reckon.ts';
import { playVisit } from '../visits/play.ts';
import type { VisitCompiler } from '../visits/program.ts';
import type { VisitStep } from '../visits/types.ts';
import { Compilations, type Compiled } from './compiled.ts';
import { bytesInVain } from './in-vain.ts';
import { interactionKey } from './interaction-key.ts';
import type { RouteScore, Score, WaitScore } from './types.ts';

/** A byte that is fetched for nothing costs a visit this share of the time that it takes on the link. */
const WASTE_PRICE = 0.2;
/** What fewer visits than this share do in a certain way isn't played in that way of its own. */
const RARELY = 0.002;
/** Runs are remembered by long texts; so many characters of them at most. */
const MOST_KNOWN = 50_000_000;

/**
 * Scores plans over one app's visitors, under one set of conditions: every landing simulated, every move and act played
 * once, with the usual hesitation. What a change leaves alone is not simulated again: runs are known by what they were
 * made of. The cost is in expected ms per visit: each landing counts with its first content, its complete first screen
 * and (twice) interactive; each wait until shown and until complete, as often as it happens; wasted bytes at a price.
 */
export class Scorer {
  private readonly cache = new Map<string, unknown>();
  private readonly numbers = new Map<string, number>();
  private nextNumber = 0;
  private readonly learned = new Map<string, Score>();
  private length = 0;
  private readonly wishes: Wish[];
  private readonly habits: Map<string, Habits>;
  private readonly shares: Map<string, number>;
  private readonly stays: Map<string, number>;

  constructor(
    app: Snapshot,
    model: VisitorModel,
    readonly conditions: Conditions,
    /** To be shared by scorers of the same app and model. */
    private readonly compilations = new Compilations(app, model),
  ) {
    const { wishes, stays } = wishesOf(model);
    this.wishes = wishes.filter((w) => w.perVisit > 0);
    this.stays = stays;
    this.habits = new Map(model.routes.map((r) => [r.pattern, r]));
    this.shares = new Map(model.routes.map((r) => [r.pattern, r.landings]));
  }

  /** Takes over the score of a plan that another scorer of the same app, model and conditions worked out. */
  learn(plan: Plan, score: Score): void {
    this.learned.set(JSON.stringify(plan.decisions), score);
  }

  /** With `only`, as if nobody came to other routes. */
  score(plan: Plan, only?: ReadonlySet<string>): Score {
    if (!only && this.learned.size > 0) {
      const cached = this.learned.get(JSON.stringify(plan.decisions));
      if (cached) return cached;
    }
    const { app, snapshot, compiler, landing } = this.compilations.of(plan);
    const meant = only ? snapshot.routes.filter((r) => only.has(r.pattern)) : snapshot.routes;
    const routes = meant.map((route): RouteScore => {
      const { program, key } = landing(route.pattern);
      const landed = this.remember(key, () => this.land(program));
      const idle = landed.idle.length > 0 ? this.expectedWaste(compiler, route.pattern, landed.idle) : 0;
      const wasted = idle + bytesInVain(app, route.pattern, this.wishes, this.stays.get(route.pattern) ?? 0);
      return { pattern: route.pattern, share: this.shares.get(route.pattern) ?? 0, ...landed.figures, wasted };
    });
    const wishes = only ? this.wishes.filter((w) => only.has(w.route)) : this.wishes;
    const waits = wishes.flatMap((wish) => this.waitFor(compiler, wish, landing));
    return this.totalled(routes, waits);
  }

  /** What a landing contributes to the cost of a visit. */
  private landingShare(route: RouteScore): number {
    const msPerByte = (WASTE_PRICE * 8) / this.conditions.link.downKbps;
    return route.share * (landingCost(route) + route.wasted * msPerByte);
  }

  /** A score as if nobody came to other routes. */
  partsOf({ routes, waits }: Score, only: ReadonlySet<string>): Score {
    return this.totalled(
      routes.filter((r) => only.has(r.pattern)),
      waits.filter((w) => only.has(w.route)),
    );
  }

  private totalled(routes: RouteScore[], waits: WaitScore[]): Score {
    const waste = routes.reduce((sum, r) => sum + r.share * r.wasted, 0);
    const landed = routes.reduce((sum, r) => sum + this.landingShare(r), 0);
    return { routes, waits, waste, cost: landed + waits.reduce((sum, w) => sum + w.first * w.wait, 0) };
  }

  /** What of a score comes from one route: its landing, and the waits of who is there. */
  partOf({ routes, waits }: Score, pattern: string): { cost: number; waste: number } {
    const route = routes.find((r) => r.pattern === pattern);
    const waited = waits.reduce((sum, w) => sum + (w.route === pattern ? w.first * w.wait : 0), 0);
    return { cost: waited + (route ? this.landingShare(route) : 0), waste: route ? route.share * route.wasted : 0 };
  }

  /** Bytes that a landing brings and doesn't need, as far as nothing that people do there next needs them either. */
  private expectedWaste(compiler: VisitCompiler, route: string, idle: Landed['idle']): number {
    const unused = new Map(idle.map(({ address }) => [address, 1]));
    const stays = this.stays.get(route) ?? 0;
    for (const wish of this.wishes) {
      if (wish.route !== route || stays === 0) continue;
      const share = Math.min(1, wish.perVisit / stays);
      for (const address of addressesFor(compiler, wish)) {
        const left = unused.get(address);
        if (left !== undefined) unused.set(address, left * (1 - share));
      }
    }
    return idle.reduce((sum, { address, bytes }) => sum + bytes * unused.get(address)!, 0);
  }

  private land(program: LoadProgram): Landed {
    const timeline = simulate(program, this.conditions);
    const { milestones, readout } = readTimeline(program, timeline, this.conditions);
    const { firstContent, firstScreenComplete, interactive } = milestones;
    const { startBytes, otherScripts, alsoFetched, requests, hops, moves } = readout;
    return {
      figures: {
        ...{ firstContent, firstScreenComplete, interactive, startBytes, otherScripts, alsoFetched },
        ...{ requests, hops, moves },
      },
      idle: timeline.requests
        .filter((r) => r.role === 'in case' || r.role === 'wasted')
        .map(({ address, bytes }) => ({ address, bytes })),
    };
  }

  /**
   * A wait is played where it comes in a visit: after landing on its route, and after the likeliest way there, each by how often that is so.
   */
  private waitFor(compiler: VisitCompiler, wish: Wish, landing: Compiled['landing']): WaitScore[] {
    const { route, kind, to, key, name, perVisit, first, landed, way } = wish;
    const { program, interactions } = compiler.document(route);
    const at = interactions.get(kind === 'move' ? moveInteraction(to) : partInteraction(route, to));
    if (at === undefined && kind !== 'move') return [];
    const comes = way === null ? 0 : first - landed;
    const contexts = [
      { way: [route], share: comes > RARELY ? landed : first },
      { way: way ?? [], share: comes > RARELY ? comes : 0 },
    ].filter((c) => c.share > 0);
    const played = contexts.map(({ way, share }) => ({ share, ...this.playedAfter(compiler, wish, way, landing) }));
    const shares = played.reduce((sum, p) => sum + p.share, 0);
    const wait = played.reduce((sum, p) => sum + (orNever(p.wait) * p.share) / shares, 0);
    const flashes = played.some((p) => p.flashes);
    const silent = at !== undefined && failsSilently(program, program.interactions![at]);
    return [{ key, route, name, perVisit, first, wait, flashes, silent }];
  }

  /**
   * A wait hangs on all that came before it (what is there by then, and how the connections stand), and on all that its
   * interaction leads to; for a move that opens a document, on that one's landing. It is played again only when one of these changes.
   */
  private playedAfter(
    compiler: VisitCompiler,
    wish: Wish,
    way: readonly string[],
    landing: Compiled['landing'],
  ): Pick<WaitScore, 'wait' | 'flashes'> {
    let [opened] = way;
    const content: unknown[] = [this.numberOf(landing(opened).key)];
    const takeUp = (id: string, to: string | null) => {
      const { program, interactions } = compiler.document(opened);
      const inside = interactions.get(id);
      const set = inside ?? (to === null ? undefined : interactions.get(leaveInteraction(to)));
      content.push(set === undefined ? null : interactionKey(program, program.interactions![set]));
      if (inside !== undefined || to === null) return;
      content.push(this.numberOf(landing(to).key));
      opened = to;
    };
    for (const to of way.slice(1)) takeUp(moveInteraction(to), to);
    const { route, kind, to, key } = wish;
    if (kind === 'move') takeUp(moveInteraction(to), to);
    else takeUp(partInteraction(route, to), null);
    return this.remember(`${key} ${JSON.stringify(content)}`, () => this.play(compiler, wish, way));
  }

  /** A short name for a long key. */
  private numberOf(key: string): number {
    let cached = this.numbers.get(key);
    if (cached === undefined) {
      // Never given twice, so that what was forgotten isn't taken for something else.
      cached = this.nextNumber++;
      this.numbers.set(key, cached);
    }
    return cached;
  }

  private play(
    compiler: VisitCompiler,
    { route, kind, to, hesitation }: Wish,
    way: readonly string[],
  ): Pick<WaitScore, 'wait' | 'flashes'> {
    let [opened] = way;
    const moved = (from: string, next: string, leadMs: number): VisitStep => {
      const by = compiler.staysInside(opened, next) ? 'inside' : 'document';
      if (by === 'document') opened = next;
      return { does: 'move', to: next, by, dwellMs: this.dwell(from), leadMs, holds: [] };
    };
    const steps = way.slice(1).map((next, at) => moved(way[at], next, hesitation.medianMs));
    if (kind === 'move') steps.push(moved(route, to, hesitation.medianMs));
    else steps.push({ does: kind, part: to, dwellMs: this.dwell(route), leadMs: hesitation.medianMs });
    const visit = { name: '', landing: way[0], holds: [], steps };
    const last = playVisit(compiler, visit, this.conditions).experiences.at(-1)!;
    return { wait: (last.wait + Math.max(last.wait, last.complete)) / 2, flashes: last.standIn?.flash ?? false };
  }

  private dwell(route: string): number {
    return this.habits.get(route)?.dwell.medianMs ?? 0;
  }

  private remember<T>(key: string, make: () => T): T {
    if (this.cache.has(key)) return this.cache.get(key) as T;
    this.length += key.length;
    if (this.length > MOST_KNOWN) {
      this.cache.clear();
      this.numbers.clear();
      this.length = key.length;
    }
    const made = make();
    this.cache.set(key, made);
    return made;
  }
}

interface Landed {
  figures: Omit<RouteScore, 'pattern' | 'share' | 'wasted'>;
  /** What it brings and doesn't need. */
  idle: { address: string; bytes: number }[];
}

/** Whether code is asked for, and nothing shows if it can't be loaded. */
function failsSilently(program: LoadProgram, { act, shows }: Interaction): boolean {
  return act.some((a) => a.do.kind === 'import') && program.parts[shows[0]]?.tellsFailure !== true;
}

/** Addresses of what a move or act asks for. */
function addressesFor(compiler: VisitCompiler, { route, kind, to }: Wish): Set<string> {
  const { program, interactions } = compiler.document(route);
  const at = interactions.get(kind === 'move' ? moveInteraction(to) : partInteraction(route, to));
  if (at === undefined) {
    if (kind !== 'move') return new Set();
    const next = compiler.document(to).program;
    return new Set([
      next.document.address,
      ...next.resources.filter((r) => r.purpose !== 'later').map((r) => r.address),
    ]);
  }
  const found = new Set<string>();
  for (const { do: effect } of program.interactions![at].act) {
    const resources =
      effect.kind === 'import'
        ? program.groups[effect.group].resources
        : effect.kind === 'fetch' || effect.kind === 'img'
          ? [effect.resource]
          : [];
    for (const r of resources) found.add(program.resources[r].address);
  }
  return found;
}

/** What never comes counts in a cost like a wait of so long, in ms: more than anybody gains by leaving it out. */
const NEVER_MS = 60_000;

function orNever(ms: number): number {
  return Number.isFinite(ms) ? ms : NEVER_MS;
}

/** What a landing costs by itself, in ms. */
export function landingCost({ firstContent, firstScreenComplete, interactive }: RouteScore): number {
  const times = [firstContent, firstScreenComplete, interactive, interactive];
  return times.reduce((sum, t) => sum + orNever(t), 0) / times.length;
}
