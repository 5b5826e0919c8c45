import { formChunks } from '../chunks/form-chunks.ts';
import { compileLoad } from '../load/compile.ts';
import type { LoadProgram, Resource, Scene } from '../load/types.ts';
import { moveScene, partScene } from '../load/types.ts';
import { readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { type Wish, wishesOf } from '../visitors/reckon.ts';
import type { Habits, VisitorModel } from '../visitors/types.ts';
import { playVisit } from '../visits/play.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { VisitStep } from '../visits/types.ts';
import type { RouteScore, Score, WaitScore } from './types.ts';

/** A byte that is fetched for nothing costs a visit this share of the time that it takes on the link. */
const WASTE_PRICE = 0.2;
const NOWHERE: ReadonlySet<string> = new Set();
/** Runs are remembered by long texts; so many characters of them at most. */
const MOST_KNOWN = 50_000_000;

/**
 * Scores plans over one app's visitors, under one set of conditions: every landing simulated, every move and act played
 * once, with the usual hesitation. What a change leaves alone is not simulated again: runs are known by what they were
 * made of. The cost is in expected ms per visit: each landing counts with its first content, its complete first screen
 * and (twice) interactive; each wait until shown and until complete, as often as it happens; wasted bytes at a price.
 */
export class Scorer {
  private readonly known = new Map<string, unknown>();
  private length = 0;
  private readonly wishes: Wish[];
  private readonly habits: Map<string, Habits>;
  private readonly shares: Map<string, number>;
  private readonly moves: Map<string, ReadonlySet<string>>;

  constructor(
    private readonly snapshot: Snapshot,
    model: VisitorModel,
    readonly conditions: Conditions,
  ) {
    this.wishes = wishesOf(model).wishes.filter((w) => w.perVisit > 0);
    this.habits = new Map(model.routes.map((r) => [r.pattern, r]));
    this.moves = new Map(model.routes.map((r) => [r.pattern, new Set(r.moves.map((m) => m.to))]));
    this.shares = new Map(model.routes.map((r) => [r.pattern, r.landings]));
  }

  score(plan: Plan): Score {
    const { snapshot } = shipped(this.snapshot, plan);
    const graph = formChunks(snapshot, plan);
    const compiler = new VisitCompiler(snapshot, plan, graph, (from) => this.moves.get(from) ?? NOWHERE);
    const landings = new Map<string, Landed>();
    const routes = snapshot.routes.map((route): RouteScore => {
      const program = compileLoad(snapshot, plan, graph, route.pattern);
      const key = JSON.stringify(program);
      const landed = this.remember(key, () => this.land(program));
      landings.set(route.pattern, landed);
      return { pattern: route.pattern, share: this.shares.get(route.pattern) ?? 0, ...landed.figures };
    });
    const waits = this.wishes.flatMap((wish) => this.waitFor(compiler, wish, landings));
    const msPerByte = (WASTE_PRICE * 8) / this.conditions.link.downKbps;
    const cost =
      routes.reduce((sum, r) => sum + r.share * (landingCost(r) + r.wasted * msPerByte), 0) +
      waits.reduce((sum, w) => sum + w.perVisit * w.wait, 0);
    return { routes, waits, cost };
  }

  private land(program: LoadProgram): Landed {
    const timeline = simulate(program, this.conditions);
    const { milestones, readout } = readTimeline(program, timeline, this.conditions);
    const { firstContent, firstScreenComplete, interactive } = milestones;
    const { startBytes, requests, hops, wasted } = readout;
    return {
      figures: { firstContent, firstScreenComplete, interactive, startBytes, requests, hops, wasted },
      asked: new Set(timeline.requests.map((r) => r.address)),
    };
  }

  /**
   * A wait hangs on what its scene asks for and which of that the landing has fetched, not on how the landing went: the
   * person acts long after it. So it is played anew only when one of these changes.
   */
  private waitFor(compiler: VisitCompiler, wish: Wish, landings: ReadonlyMap<string, Landed>): WaitScore[] {
    const { route, kind, to, key, name, perVisit } = wish;
    const { program, scenes } = compiler.document(route);
    const at = scenes.get(kind === 'move' ? moveScene(to) : partScene(route, to));
    if (at === undefined && kind !== 'move') return [];
    const there = landings.get(route)?.asked ?? new Set();
    const next = at === undefined ? compiler.document(to).program : program;
    const content =
      at === undefined
        ? JSON.stringify([next.document, next.resources.map((r) => [...weightOf(r), there.has(r.address)])])
        : contentOf(program, program.scenes![at], there);
    const known = `${key} ${content}`;
    const wait = this.remember(known, () => this.play(compiler, wish));
    return Number.isFinite(wait) ? [{ key, route, name, perVisit, wait }] : [];
  }

  private play(compiler: VisitCompiler, { route, kind, to, hesitation }: Wish): number {
    const dwellMs = this.habits.get(route)?.dwell.medianMs ?? 0;
    const leadMs = hesitation.medianMs;
    const step: VisitStep =
      kind === 'move'
        ? { does: 'move', to, by: compiler.staysInside(route, to) ? 'inside' : 'document', dwellMs, leadMs, holds: [] }
        : { does: kind, part: to, dwellMs, leadMs };
    const visit = { name: '', landing: route, holds: [], steps: [step] };
    const last = playVisit(compiler, visit, this.conditions).experiences.at(-1)!;
    return (last.wait + Math.max(last.wait, last.complete)) / 2;
  }

  private remember<T>(key: string, make: () => T): T {
    if (this.known.has(key)) return this.known.get(key) as T;
    this.length += key.length;
    if (this.length > MOST_KNOWN) {
      this.known.clear();
      this.length = key.length;
    }
    const made = make();
    this.known.set(key, made);
    return made;
  }
}

interface Landed {
  figures: Omit<RouteScore, 'pattern' | 'share'>;
  /** Addresses of what it fetches. */
  asked: ReadonlySet<string>;
}

function weightOf({ address, bytes, cpuMs, estimatedBytes }: Resource): (string | number)[] {
  return [address, bytes, cpuMs, estimatedBytes];
}

/** What a landing costs by itself, in ms. */
export function landingCost({ firstContent, firstScreenComplete, interactive }: RouteScore): number {
  const times = [firstContent, firstScreenComplete, interactive, interactive].filter(Number.isFinite);
  return times.length === 0 ? 0 : times.reduce((sum, t) => sum + t, 0) / times.length;
}

/** What a scene is made of, without the indices that other parts of the program decide about. */
function contentOf(program: LoadProgram, scene: Scene, there: ReadonlySet<string>): string {
  const file = (resource: number) => {
    const item = program.resources[resource];
    return [...weightOf(item), there.has(item.address)];
  };
  const group = (at: number) => program.groups[at].resources.map(file);
  const actions = [...scene.approach, null, ...scene.act].map((a) => {
    if (a === null) return null;
    const { when, delayMs, after, do: deed } = a;
    const of =
      deed.kind === 'import'
        ? group(deed.group)
        : deed.kind === 'fetch' || deed.kind === 'img'
          ? file(deed.resource)
          : deed.kind === 'link' && deed.hint.resource >= 0
            ? [deed.hint.rel, file(deed.hint.resource)]
            : null;
    return [when, delayMs, after ? file(after.resource) : null, deed.kind, of];
  });
  const parts = scene.shows.map((p) => {
    const { needs, fill, fallback, showWhen, renderMs } = program.parts[p];
    return [needs.map((n) => file(n.resource)), fill.map(file), fallback, showWhen, renderMs];
  });
  return JSON.stringify([scene.kind, scene.until, scene.first.map(file), actions, parts]);
}
