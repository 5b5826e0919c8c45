import { PlanFigures } from '../compare/figures.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { MEASURES, type Unit } from '../vocabulary/measures.ts';
import { broughtBy } from './causes.ts';
import { type FigureChange, type LandingChange, TOLD_MEASURES, type ToldMeasure } from './landing-change-types.ts';
import { by } from './landing-words.ts';

/** Less than this is no change. */
const LEAST: Record<Unit, number> = { ms: 1, bytes: 1, count: 1 };

/** Without a module that weighs otherwise, less than this comes of what modules elsewhere do to how well these compress: bytes, ms. */
const ELSEWHERE = { bytes: 200, ms: 5, count: 0.5 } satisfies Record<Unit, number>;

/** An app at one time, as its landings are predicted. */
export class AppState {
  private readonly figures: PlanFigures;
  private readonly known = new Map<string, Record<ToldMeasure, number>>();

  constructor(
    readonly app: Snapshot,
    readonly plan: Plan,
    private readonly conditions: Conditions,
  ) {
    this.figures = new PlanFigures(app, plan);
  }

  /** The figures of a landing; null where there is no such route. */
  of(route: string): Record<ToldMeasure, number> | null {
    if (!this.app.routes.some((r) => r.pattern === route)) return null;
    const known = this.known.get(route) ?? this.figures.landing(route, this.conditions);
    this.known.set(route, known);
    return known;
  }
}

/**
 * What changed of an app's landings from one time to another, under one plan: those that came, went, or have other figures, the largest
 * change of bytes first. Of an app that is as it was, nothing. `only`: the routes that are asked about; all where none are named.
 */
export function landingChanges(before: AppState, after: AppState, only?: ReadonlySet<string>): LandingChange[] {
  const routes = new Set([...before.app.routes, ...after.app.routes].map((r) => r.pattern));
  const asked = [...routes].filter((r) => only?.has(r) ?? true);
  const changes = asked.flatMap((route): LandingChange[] => {
    const [was, is] = [before.of(route), after.of(route)];
    const figures = TOLD_MEASURES.flatMap((measure) => changeOf(measure, was, is) ?? []);
    if (figures.length === 0) return [];
    const { plan } = after;
    if (!was || !is) return [{ route, state: was ? 'gone' : 'added', figures, brings: [], brought: [] }];
    const brings = broughtBy(before.app, after.app, plan, { route });
    const brought = broughtBy(after.app, before.app, plan, { route });
    const isElsewhere = brings.length + brought.length === 0 && figures.every(comesOfElsewhere);
    return isElsewhere ? [] : [{ route, state: 'changed', figures, brings, brought }];
  });
  const weight = ({ figures }: LandingChange) =>
    Math.abs(by(figures.find((f) => f.measure === 'start bytes')) ?? by(figures[0]) ?? 0);
  return changes.sort((a, b) => weight(b) - weight(a) || (a.route < b.route ? -1 : 1));
}

function changeOf(
  measure: ToldMeasure,
  was: Record<ToldMeasure, number> | null,
  is: Record<ToldMeasure, number> | null,
): FigureChange | null {
  const [before, after] = [was?.[measure], is?.[measure]].map((v) => (Number.isFinite(v) ? v! : null));
  if (before === null && after === null) return null;
  const least = LEAST[MEASURES[measure].unit];
  if (before !== null && after !== null && Math.abs(after - before) < least) return null;
  return { measure, before, after };
}

function comesOfElsewhere(figure: FigureChange): boolean {
  const change = by(figure);
  return change !== null && Math.abs(change) < ELSEWHERE[MEASURES[figure.measure].unit];
}
