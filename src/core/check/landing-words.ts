import { bytesOrKilobytes, milliseconds } from '../text/amounts.ts';
import { firstOf } from '../text/first-of.ts';
import { MEASURES, type Unit } from '../vocabulary/measures.ts';
import type { LimitCause } from './causes.ts';
import type { FigureChange, LandingChange } from './landing-change-types.ts';

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
  return firstOf(routes, MOST_NAMED);
}
