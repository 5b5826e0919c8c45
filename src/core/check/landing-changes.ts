import { PlanFigures } from '../compare/figures.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { bytesOrKilobytes, milliseconds } from '../text/amounts.ts';
import { type LandingMeasure, MEASURES, type Unit } from '../vocabulary/measures.ts';
import { broughtBy, type LimitCause } from './causes.ts';

/** What is told of a landing that changed. */
export const TOLD_MEASURES = [
  'start bytes',
  'first content',
  'interactive',
  'requests',
  'hops',
] as const satisfies readonly LandingMeasure[];
type ToldMeasure = (typeof TOLD_MEASURES)[number];

/** Less than this is no change. */
const LEAST: Record<Unit, number> = { ms: 1, bytes: 1, count: 1 };

/** Without a module that weighs otherwise, less than this comes of what modules elsewhere do to how well these compress: bytes, ms. */
const ELSEWHERE = { bytes: 200, ms: 5, count: 0.5 } satisfies Record<Unit, number>;

/** How one figure of a landing changed; null: the landing wasn't there, isn't there any more, or never comes to it. */
export interface FigureChange {
  measure: ToldMeasure;
  before: number | null;
  after: number | null;
}

/** What an app's change did to one landing. */
export interface LandingChange {
  route: string;
  state: 'added' | 'gone' | 'changed';
  /** Those that changed; of landings that came or went, all. */
  figures: FigureChange[];
  /** Imports that bring more than before, and (as they were) those that brought more than now. */
  brings: LimitCause[];
  brought: LimitCause[];
}

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

/** By how much a figure changed; null where it came or went. */
export function by(figure: FigureChange | undefined): number | null {
  if (!figure || figure.before === null || figure.after === null) return null;
  return figure.after - figure.before;
}

const WRITE: Record<Unit, (value: number) => string> = { ms: milliseconds, bytes: bytesOrKilobytes, count: String };

/** A change of a figure in words: `start +38.0 kB`, `interactive −210 ms`; a figure that came: `hops 3`. */
export function figureChangeWords(figure: FigureChange): string {
  const { measure, after } = figure;
  const change = by(figure);
  const { name, unit } = MEASURES[measure];
  if (change === null) return after === null ? `${name} never any more` : `${name} ${WRITE[unit](after)}`;
  return `${name} ${change < 0 ? '−' : '+'}${WRITE[unit](Math.abs(change))}`;
}

/** What changed of a landing, without its name: `start +38.0 kB, interactive +210 ms`, `is gone`. */
export function landingChangeWords({ state, figures }: Pick<LandingChange, 'state' | 'figures'>): string {
  if (state === 'gone') return 'is gone';
  const said = figures.map(figureChangeWords).join(', ');
  return state === 'added' ? `is new: ${said}` : said;
}

/** The import that did most of a change, as a sentence; null where none is known. */
export function causeWords({ brings, brought }: Pick<LandingChange, 'brings' | 'brought'>): string | null {
  const [more, less] = [brings[0], brought[0]];
  if (more && (!less || more.bytes >= less.bytes))
    return `${more.from}:${more.line} ${more.isNew ? 'now brings' : 'brings more of'} ${more.to} (${amountOf(more)})`;
  if (less) return `${less.from} ${less.isNew ? 'no longer brings' : 'brings less of'} ${less.to} (${amountOf(less)})`;
  return null;
}

function amountOf({ bytes, modules }: LimitCause): string {
  return `${bytesOrKilobytes(bytes)} minified${modules > 1 ? ` in ${modules} modules` : ''}`;
}

/** Landings to which the same happened, by the same import. */
export interface AlikeLandings {
  routes: string[];
  words: string;
  cause: string | null;
  /** The change of the first of them. */
  change: LandingChange;
}

/** Landings that changed alike, together; in the order of their first. */
export function alikeLandings(changes: readonly LandingChange[]): AlikeLandings[] {
  const groups = new Map<string, AlikeLandings>();
  for (const change of changes) {
    const [words, cause] = [landingChangeWords(change), causeWords(change)];
    const key = JSON.stringify([words, cause]);
    const known = groups.get(key);
    if (known) known.routes.push(change.route);
    else groups.set(key, { routes: [change.route], words, cause, change });
  }
  return [...groups.values()];
}

const MOST_NAMED = 3;

/** The landings of a group: named where they are few, `all 8 landings` where no others are there. */
export function routesWords(routes: readonly string[], all: number): string {
  if (routes.length === all && all > MOST_NAMED) return `all ${all} landings`;
  const more = routes.length - MOST_NAMED;
  return more > 1 ? `${routes.slice(0, MOST_NAMED).join(', ')} and ${more} more` : routes.join(', ');
}
