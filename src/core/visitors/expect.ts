import { percentile } from '../mix/percentile.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import { AT_ONCE_MS, type Experience } from '../visits/experience.ts';
import { type Played, playVisit } from '../visits/play.ts';
import type { VisitCompiler } from '../visits/program.ts';
import { type DrawnVisit, drawVisit } from './draw.ts';
import {
  actKey,
  expectedWait,
  moveKey,
  type Variant,
  type WaitCurve,
  type Wish,
  waitAfter,
  waitCurve,
  wishesOf,
} from './reckon.ts';

/** A figure with its standard error; 0 where it is exact for the model. */
export interface Estimate {
  value: number;
  error: number;
}

/** What the visitors of an app can expect of one move or act. Times in ms. */
export interface WishRow extends Wish {
  /** Whether a move stays inside the app. */
  inside: boolean;
  /** Expected wait; null where it was never played and can't be reckoned. */
  wait: Estimate | null;
  /** Of the drawn ones: median, and the wait that 1 of 10 exceeds; null below ten. */
  half: number | null;
  most: number | null;
  /** Share of them that are answered at once. */
  atOnce: number | null;
  /** Bytes fetched ahead for it and never used, per visit. */
  unused: number;
  played: number;
}

export interface StartRow {
  route: string;
  /** Share of all landings. */
  share: number;
  /** Until the page shows. */
  wait: number;
}

export interface Expectation {
  visits: number;
  /** Waits after the landing, summed over a visit. */
  waits: Estimate;
  /** Points of their distribution: share of visits with at most that wait. */
  spread: { share: number; wait: number }[];
  /** Share of all acts and moves that are answered at once. */
  atOnce: Estimate;
  /** Bytes that travel in a visit, those that nothing uses, and the same for people who save data (null without any). */
  bytes: Estimate;
  unused: Estimate;
  unusedSavers: number | null;
  failures: number;
  starts: StartRow[];
  rows: WishRow[];
}

export interface ExpectOptions {
  seed: number;
  /** Visits to be played at most. */
  visits: number;
  /** Enough once the standard error of the summed waits is below this share of their mean. */
  error: number;
}

const SHARES = [0.05, 0.1, 0.25, 0.5, 0.75, 0.9, 0.95, 0.99];
/** How often the error is looked at, and from how many visits on it is believed. */
const ROUND = 50;
const LEAST = 400;

/**
 * What an app's visitors can expect under a plan: the waits of their visits, each move and act by itself, and what is
 * fetched for nothing. How often something happens is exact; waits come from playing drawn visits in full, corrected by
 * what the same moves and acts are known to take on average when they are the first thing that somebody does (a control
 * variate, so that far fewer visits are needed). The same seed draws the same visits whatever the plan. Yields how far
 * it is, in visits and curves; returns the result.
 */
export function* expectWaits(
  compiler: VisitCompiler,
  model: VisitorModel,
  variants: readonly Variant[],
  options: ExpectOptions,
): Generator<{ done: number; of: number }, Expectation> {
  const { wishes } = wishesOf(model);
  const under = withCaches(model, variants);
  const book = new Book(model, wishes, under);
  const landed = model.routes.filter((r) => r.landings > 0);
  const work = (wishes.length + landed.length) * under.length;
  const of = work + options.visits;
  let done = 0;
  for (const wish of wishes) {
    const habits = model.routes.find((r) => r.pattern === wish.route)!;
    for (const variant of under) {
      if (wish.perVisit > 0) book.curve(wish, variant, waitCurve(compiler, habits, wish, variant.conditions));
      yield { done: ++done, of };
    }
  }
  for (const { pattern } of landed) {
    for (const variant of under) {
      const visit = { name: '', landing: pattern, holds: [], steps: [] };
      book.landing(pattern, variant, playVisit(compiler, visit, variant.conditions).experiences[0].wait);
      yield { done: ++done, of };
    }
  }
  book.reckon();
  for (let n = 0; n < options.visits; n++) {
    const drawn = drawVisit(model, compiler, options.seed, n);
    const variant = book.variantFor(drawn);
    const { device } = variant.conditions;
    const conditions: Conditions = {
      ...variant.conditions,
      device: { ...device, touch: drawn.touch ?? device.touch, dataSaver: drawn.dataSaver },
    };
    book.enter(drawn, variant, conditions, playVisit(compiler, drawn.visit, conditions));
    yield { done: work + n + 1, of };
    if (n + 1 >= LEAST && (n + 1) % ROUND === 0 && book.relativeError() <= options.error) break;
  }
  return book.result((from, to) => compiler.staysInside(from, to));
}

type Cached = Variant & { of: number; cache: Conditions['cache'] };

/** Each set of conditions with every state of the cache that visitors come with. */
function withCaches({ returning, deployed }: VisitorModel, variants: readonly Variant[]): Cached[] {
  const caches = [
    { cache: 'empty' as const, share: 1 - returning },
    { cache: 'returning' as const, share: returning * (1 - deployed) },
    { cache: 'deployed' as const, share: returning * deployed },
  ].filter((c) => c.share > 0);
  return variants.flatMap((variant, of) =>
    caches.map(({ cache, share }) => ({
      conditions: { ...variant.conditions, cache },
      share: variant.share * share,
      of,
      cache,
    })),
  );
}

/** Keeps what was reckoned and played, and makes figures of it. */
class Book {
  private readonly curves = new Map<string, WaitCurve | null>();
  /** Reckoned expectation of each wish, and of a whole visit. */
  private readonly reckoned = new Map<string, number>();
  private reckonedVisit = 0;
  private readonly sums: {
    waits: number;
    control: number;
    bytes: number;
    unused: number;
    acts: number;
    atOnce: number;
  }[] = [];
  private readonly waits = new Map<string, { waits: number[]; controls: number[] }>();
  private readonly starts = new Map<string, number>();
  private readonly unused = new Map<string, number>();
  private readonly savers: number[] = [];
  private failures = 0;

  constructor(
    private readonly model: VisitorModel,
    private readonly wishes: Wish[],
    private readonly under: Cached[],
  ) {}

  curve(wish: Wish, variant: Cached, curve: WaitCurve | null): void {
    this.curves.set(`${this.under.indexOf(variant)} ${wish.key}`, curve);
  }

  /** A landing is the same for everybody under the same conditions: its mean is exact. */
  landing(route: string, { share }: Cached, wait: number): void {
    this.starts.set(route, (this.starts.get(route) ?? 0) + share * wait);
  }

  private touchOf({ conditions }: Variant): number {
    return this.model.touch ?? (conditions.device.touch ? 1 : 0);
  }

  /** The mean wait of every wish over conditions and hesitation, and of a visit: what the drawn ones are held against. */
  reckon(): void {
    for (const wish of this.wishes) {
      let mean = 0;
      this.under.forEach((variant, at) => {
        const curve = this.curves.get(`${at} ${wish.key}`);
        if (curve) mean += variant.share * expectedWait(curve, wish.hesitation, this.touchOf(variant));
      });
      this.reckoned.set(wish.key, mean);
      this.reckonedVisit += mean * wish.perVisit;
    }
  }

  variantFor({ even, cache }: DrawnVisit): Cached {
    const all = this.under.filter((v) => v.cache === cache);
    let left = even * all.reduce((sum, v) => sum + v.share, 0);
    for (const v of all) {
      left -= v.share;
      if (left < 0) return v;
    }
    return all[all.length - 1];
  }

  enter(drawn: DrawnVisit, variant: Cached, { device }: Conditions, played: Played): void {
    const { experiences, sums } = played;
    const at = this.under.indexOf(variant);
    let route = drawn.visit.landing;
    let control = 0;
    let acts = 0;
    let atOnce = 0;
    const byStep = new Map<number, Experience>(experiences.map((e) => [e.step, e]));
    drawn.visit.steps.forEach((step, index) => {
      if (step.does !== 'move' && step.does !== 'act' && step.does !== 'scroll') return;
      const key = step.does === 'move' ? moveKey(route, step.to) : actKey(route, step.part);
      if (step.does === 'move') route = step.to;
      const curve = this.curves.get(`${at} ${key}`);
      const known = curve ? waitAfter(curve, device.touch ? 0 : step.leadMs) : 0;
      control += known;
      const wait = byStep.get(index)?.wait ?? Number.NaN;
      if (!Number.isFinite(wait)) return;
      acts++;
      if (wait <= AT_ONCE_MS) atOnce++;
      const kept = this.waits.get(key) ?? { waits: [], controls: [] };
      this.waits.set(key, kept);
      kept.waits.push(wait);
      kept.controls.push(known);
    });
    this.sums.push({ ...sums, control, acts, atOnce });
    this.failures += sums.failures;
    if (drawn.dataSaver) this.savers.push(sums.unused);
    this.enterUnused(played);
  }

  /** What was fetched for nothing, by what it was fetched for. */
  private enterUnused({ program, timeline }: Played): void {
    timeline.pages.forEach(({ timeline: { requests } }, page) => {
      const { program: document } = program.documents[page];
      for (const r of requests) {
        if (r.role !== 'in case' && r.role !== 'wasted') continue;
        const wanted = document.groups.filter((g) => g.resources.includes(r.resource));
        for (const g of wanted) this.unused.set(g.name, (this.unused.get(g.name) ?? 0) + r.bytes / wanted.length);
      }
    });
  }

  relativeError(): number {
    const { value, error } = this.summed();
    return value === 0 ? 0 : error / value;
  }

  private summed(): Estimate {
    return corrected(
      this.sums.map((s) => s.waits),
      this.sums.map((s) => s.control),
      this.reckonedVisit,
    );
  }

  result(inside: (from: string, to: string) => boolean): Expectation {
    const sums = this.sums.map((s) => s.waits);
    const acts = this.sums.reduce((all, s) => all + s.acts, 0);
    const atOnce = this.sums.reduce((all, s) => all + s.atOnce, 0) / (acts || 1);
    return {
      visits: this.sums.length,
      waits: this.summed(),
      spread: SHARES.map((share) => ({ share, wait: percentile(sums, share) })),
      atOnce: { value: atOnce, error: Math.sqrt((atOnce * (1 - atOnce)) / (acts || 1)) },
      bytes: mean(this.sums.map((s) => s.bytes)),
      unused: mean(this.sums.map((s) => s.unused)),
      unusedSavers: this.savers.length > 0 ? mean(this.savers).value : null,
      failures: this.failures / (this.sums.length || 1),
      starts: this.model.routes
        .filter((r) => r.landings > 0)
        .map(({ pattern, landings }) => ({
          route: pattern,
          share: landings,
          wait: this.starts.get(pattern) ?? Number.NaN,
        })),
      rows: this.wishes
        .filter((w) => w.perVisit > 0)
        .map((w) => ({ ...this.row(w), inside: w.kind === 'move' && inside(w.route, w.to) })),
    };
  }

  private row(wish: Wish): Omit<WishRow, 'inside'> {
    const { waits, controls } = this.waits.get(wish.key) ?? { waits: [], controls: [] };
    const known = this.reckoned.get(wish.key) ?? 0;
    const enough = waits.length >= 10;
    const reckonable = this.under.some((_, at) => this.curves.get(`${at} ${wish.key}`));
    return {
      ...wish,
      wait: enough
        ? corrected(waits, controls, known)
        : reckonable
          ? { value: known, error: 0 }
          : waits.length > 0
            ? mean(waits)
            : null,
      half: enough ? percentile(waits, 0.5) : null,
      most: enough ? percentile(waits, 0.9) : null,
      atOnce: enough ? waits.filter((w) => w <= AT_ONCE_MS).length / waits.length : null,
      unused: (this.unused.get(wish.module) ?? 0) / (this.sums.length || 1),
      played: waits.length,
    };
  }
}

function mean(values: readonly number[]): Estimate {
  const n = values.length;
  if (n === 0) return { value: Number.NaN, error: Number.NaN };
  const value = values.reduce((sum, v) => sum + v, 0) / n;
  const squares = values.reduce((sum, v) => sum + (v - value) ** 2, 0);
  return { value, error: n > 1 ? Math.sqrt(squares / (n - 1) / n) : Number.NaN };
}

/** The mean of something whose companion's true mean is known: moved by what the drawn companions are off. */
function corrected(values: readonly number[], companions: readonly number[], known: number): Estimate {
  const n = values.length;
  const plain = mean(values);
  if (n < 3) return plain;
  const middle = companions.reduce((sum, c) => sum + c, 0) / n;
  let both = 0;
  let own = 0;
  for (let i = 0; i < n; i++) {
    both += (values[i] - plain.value) * (companions[i] - middle);
    own += (companions[i] - middle) ** 2;
  }
  const slope = own > 1e-9 ? both / own : 0;
  const rest = mean(values.map((v, i) => v - slope * (companions[i] - known)));
  return own > 1e-9 ? rest : plain;
}
