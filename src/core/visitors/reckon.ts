import { moveInteraction, partInteraction } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Habits, Spread, VisitorModel } from '../snapshot/visitor-types.ts';
import { playVisit } from '../visits/play.ts';
import type { VisitCompiler } from '../visits/program.ts';
import type { VisitStep } from '../visits/types.ts';
import { MOST_STAYS } from './draw.ts';

/** Conditions with the share of visits that happen under them; shares add up to 1. */
export interface Variant {
  conditions: Conditions;
  share: number;
}

/** A move or an act of the model: what a person can wait for after a landing. */
export interface Wish {
  key: string;
  route: string;
  kind: 'move' | 'act' | 'scroll';
  /** The route or the part that is wanted. */
  to: string;
  /** In words. */
  name: string;
  /** Path of the module that it is about. */
  module: string;
  hesitation: Spread;
  /** How often it happens in a visit, on average. */
  perVisit: number;
  /** In how many visits it happens for the first time there: what it brings is at hand after that. A page that was landed on is known. */
  first: number;
  /** The visits among these that landed on its route and do it there first. */
  landed: number;
  /** The likeliest way by which the others came to its route: patterns, from the landing to it; null where none leads there. */
  way: readonly string[] | null;
}

export const moveKey = (from: string, to: string): string => `${from} → ${to}`;
export const actKey = (route: string, part: string): string => `${route} · ${part}`;

/** Every move and act of the model with how often it happens: exact, from shares and stays alone. */
export function wishesOf(model: VisitorModel): { wishes: Wish[]; stays: Map<string, number> } {
  const stays = new Map<string, number>(model.routes.map((r) => [r.pattern, r.landings]));
  const moved = new Map<string, number>();
  let now = new Map(stays);
  for (let stay = 1; stay < MOST_STAYS; stay++) {
    const then = new Map<string, number>();
    for (const route of model.routes) {
      const here = now.get(route.pattern) ?? 0;
      for (const { to, share } of route.moves) {
        const often = here * share;
        then.set(to, (then.get(to) ?? 0) + often);
        const key = moveKey(route.pattern, to);
        moved.set(key, (moved.get(key) ?? 0) + often);
      }
    }
    for (const [pattern, often] of then) stays.set(pattern, (stays.get(pattern) ?? 0) + often);
    now = then;
  }
  const firsts = firstTimes(model);
  const ways = likeliestWays(model);
  const wishes = model.routes.flatMap((r): Wish[] => {
    const { pattern: route } = r;
    const way = ways.get(route) ?? null;
    const often = (key: string, perVisit: number) => ({ perVisit, ...(firsts.get(key) ?? NEVER), way });
    return [
      ...r.moves.map(({ to }): Wish => {
        const key = moveKey(route, to);
        const module = model.routes.find((r) => r.pattern === to)?.page ?? '';
        const { hesitation } = model;
        return { key, route, kind: 'move', to, name: to, module, hesitation, ...often(key, moved.get(key) ?? 0) };
      }),
      ...r.acts.map(({ part, name, module, scroll, share, hesitation }): Wish => {
        const key = actKey(route, part);
        const kind = scroll ? 'scroll' : 'act';
        return { key, route, kind, to: part, name, module, hesitation, ...often(key, (stays.get(route) ?? 0) * share) };
      }),
    ];
  });
  return { wishes, stays };
}

/** In how many visits something is the first of its kind, and in how many of these on the route that they landed on. */
interface Firsts {
  first: number;
  landed: number;
}
const NEVER: Firsts = { first: 0, landed: 0 };

/**
 * In how many visits each move and act is the first that wants its page or part, whichever route it is wanted on: exact. Visits that
 * haven't wanted it so far are followed from stay to stay.
 */
function firstTimes(model: VisitorModel): Map<string, Firsts> {
  const firsts = new Map<string, Firsts>();
  const add = (key: string, often: number, stay: number) => {
    const known = firsts.get(key) ?? NEVER;
    firsts.set(key, { first: known.first + often, landed: known.landed + (stay === 0 ? often : 0) });
  };
  for (const { pattern: page } of model.routes)
    follow(model, ({ pattern }, _, stay) => {
      if (pattern === page) return null;
      const moves = (to: string, often: number) => {
        if (to === page) add(moveKey(pattern, to), often, stay);
        return to !== page;
      };
      return { stays: 1, moves };
    });
  const parts = new Set(model.routes.flatMap((r) => r.acts.map((a) => a.module)));
  for (const module of parts)
    follow(model, (route, often, stay) => {
      let left = 1;
      for (const act of route.acts) {
        if (act.module !== module) continue;
        add(actKey(route.pattern, act.part), often * left * act.share, stay);
        left *= 1 - act.share;
      }
      return { stays: left, moves: () => true };
    });
  return firsts;
}

/** The likeliest way to each route that isn't a landing there, of so many moves at most as a visit has. */
function likeliestWays({ routes }: VisitorModel): Map<string, string[]> {
  const best = new Map<string, { share: number; way: string[] }>();
  let now = new Map(
    routes.filter((r) => r.landings > 0).map((r) => [r.pattern, { share: r.landings, way: [r.pattern] }]),
  );
  for (let stay = 1; stay < MOST_STAYS && now.size > 0; stay++) {
    const then: typeof now = new Map();
    for (const route of routes) {
      const here = now.get(route.pattern);
      for (const { to, share } of here ? route.moves : []) {
        const often = here!.share * share;
        if (often === 0 || here!.way.includes(to) || often <= (then.get(to)?.share ?? 0)) continue;
        then.set(to, { share: often, way: [...here!.way, to] });
      }
    }
    for (const [to, found] of then) if (found.share > (best.get(to)?.share ?? 0)) best.set(to, found);
    now = then;
  }
  return new Map([...best].map(([to, { way }]) => [to, way]));
}

/** What becomes of visits at a route: the share of them that is followed further, and whether a move is followed. Null: none. */
type AtRoute = (
  route: Habits,
  often: number,
  stay: number,
) => { stays: number; moves: (to: string, often: number) => boolean } | null;

/** Follows visits from their landings, stay by stay. */
function follow(model: VisitorModel, at: AtRoute): void {
  let now = new Map(model.routes.map((r) => [r.pattern, r.landings]));
  for (let stay = 0; stay < MOST_STAYS; stay++) {
    const then = new Map<string, number>();
    for (const route of model.routes) {
      const often = now.get(route.pattern) ?? 0;
      const found = often > 0 ? at(route, often, stay) : null;
      if (!found || stay + 1 === MOST_STAYS) continue;
      for (const { to, share } of route.moves) {
        const go = often * found.stays * share;
        if (go > 0 && found.moves(to, go)) then.set(to, (then.get(to) ?? 0) + go);
      }
    }
    now = then;
  }
}

/** How long the person waits for a wish, by the lead: ms against ms, straight between the points, level beyond them. */
export interface WaitCurve {
  leads: number[];
  waits: number[];
}

/** Where between nothing and the whole wait the lead is tried: there the curve bends. */
const TRIED = [0.5, 0.9, 1, 1.2];

/**
 * The wait for a wish as the first thing that a person does after landing on its route and resting there, for different
 * leads; by simulation. Null where the wish can't be played or never comes to its end.
 */
export function waitCurve(
  compiler: VisitCompiler,
  habits: Habits,
  wish: Wish,
  conditions: Conditions,
): WaitCurve | null {
  const waitAt = (leadMs: number): number => {
    const step = stepFor(compiler, wish, habits.dwell.medianMs, leadMs);
    if (!step) return Number.NaN;
    const visit = { name: '', landing: wish.route, holds: [], steps: [step] };
    return playVisit(compiler, visit, conditions).experiences.at(-1)!.wait;
  };
  const full = waitAt(0);
  if (!Number.isFinite(full)) return null;
  if (conditions.device.touch || wish.kind === 'scroll' || full === 0 || !announced(compiler, wish))
    return { leads: [0], waits: [full] };
  const leads = [0, ...TRIED.map((t) => t * full)];
  return { leads, waits: leads.map((lead, at) => (at === 0 ? full : waitAt(lead))) };
}

function stepFor(compiler: VisitCompiler, wish: Wish, dwellMs: number, leadMs: number): VisitStep | null {
  const { route, to, kind } = wish;
  if (kind === 'move') {
    const by = compiler.staysInside(route, to) ? 'inside' : 'document';
    return { does: 'move', to, by, dwellMs, leadMs, holds: [] };
  }
  if (!compiler.hasMoment(route, route, to)) return null;
  return { does: kind, part: to, dwellMs, leadMs };
}

/** Whether anything happens on the approach, so that the lead matters. */
function announced(compiler: VisitCompiler, { route, to, kind }: Wish): boolean {
  const { program, interactions } = compiler.document(route);
  const interaction =
    program.interactions![interactions.get(kind === 'move' ? moveInteraction(to) : partInteraction(route, to)) ?? -1];
  return interaction !== undefined && interaction.approach.length > 0;
}

/** The wait after a lead, both in ms: between the leads of a curve in a straight line, outside as at its ends. */
export function waitAfter({ leads, waits }: WaitCurve, lead: number): number {
  const after = leads.findIndex((l) => l >= lead);
  if (after < 0) return waits[waits.length - 1];
  if (after === 0) return waits[0];
  const part = (lead - leads[after - 1]) / (leads[after] - leads[after - 1]);
  return waits[after - 1] + part * (waits[after] - waits[after - 1]);
}

const SLICES = 200;

/** The expected wait over people's hesitation; `touch`: share of people who give no lead. */
export function expectedWait(curve: WaitCurve, hesitation: Spread, touch: number): number {
  const full = waitAfter(curve, 0);
  if (curve.leads.length === 1) return full;
  let sum = 0;
  for (let i = 0; i < SLICES; i++) {
    const lead = hesitation.medianMs * Math.exp(hesitation.spread * quantile((i + 0.5) / SLICES));
    sum += waitAfter(curve, lead);
  }
  return touch * full + ((1 - touch) * sum) / SLICES;
}

/** The standard normal distribution's value below which a share `p` lies; by halving, to 1e-9. */
function quantile(p: number): number {
  let low = -8;
  let high = 8;
  for (let i = 0; i < 36; i++) {
    const middle = (low + high) / 2;
    if (below(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Share of the standard normal distribution below a value (Abramowitz and Stegun 26.2.17; off by 7.5e-8 at most). */
function below(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}
