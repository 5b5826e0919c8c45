import { bytesOrKilobytes, milliseconds } from '../text/amounts.ts';
import { counted } from '../text/counted.ts';
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

type Causes = Pick<LandingChange, 'brings' | 'brought'>;

/** The import that did most of a change, as a sentence, and how many others there are; null where none is known. `name`: writes a file’s name with its line. */
export function causeWords(change: Causes, name?: (file: string) => string): string | null {
  const [most, ...others] = sentences(change, name);
  if (most === undefined) return null;
  return others.length === 0 ? most : `${most}, and ${counted(others.length, 'more import')}`;
}

/** So many imports are named one by one. */
const MOST_CAUSES = 3;

/** The imports that did a change, a sentence each, those that did most first; of many only how many more there are. `name`: writes a file’s name with its line. */
export function causesWords(change: Causes, name?: (file: string) => string): string[] {
  const all = sentences(change, name);
  const more = all.length - MOST_CAUSES;
  return more <= 1 ? all : [...all.slice(0, MOST_CAUSES), `and ${more} more imports`];
}

function sentences({ brings, brought }: Causes, name = (file: string) => file): string[] {
  const more = brings.map((by) => ({
    bytes: by.bytes,
    words: `${name(`${by.from}:${by.line}`)} ${by.isNew ? 'now brings' : 'brings more of'} ${name(by.to)} (${amountOf(by)})`,
  }));
  const less = brought.map((by) => ({
    bytes: by.bytes,
    words: `${name(by.from)} ${by.isNew ? 'no longer brings' : 'brings less of'} ${name(by.to)} (${amountOf(by)})`,
  }));
  return [...more, ...less].sort((a, b) => b.bytes - a.bytes).map(({ words }) => words);
}

function amountOf({ bytes, modules }: LimitCause): string {
  return `${bytesOrKilobytes(bytes)} minified${modules > 1 ? ` in ${modules} modules` : ''}`;
}

/** Landings to which the same happened, by the same imports. */
export interface AlikeLandings {
  routes: string[];
  words: string;
  /** The change of the first of them. */
  change: LandingChange;
}

/** Landings that changed alike, together; in the order of their first. */
export function alikeLandings(changes: readonly LandingChange[]): AlikeLandings[] {
  const groups = new Map<string, AlikeLandings>();
  for (const change of changes) {
    const words = landingChangeWords(change);
    const key = JSON.stringify([words, sentences(change)]);
    const known = groups.get(key);
    if (known) known.routes.push(change.route);
    else groups.set(key, { routes: [change.route], words, change });
  }
  return [...groups.values()];
}

const MOST_NAMED = 3;

/** The landings of a group: named where they are few, `all 8 landings` where no others are there. */
export function routesWords(routes: readonly string[], all: number): string {
  if (routes.length === all && all > MOST_NAMED) return `all ${all} landings`;
  return firstOf(routes, MOST_NAMED);
}

/** What happened to a group of landings, in lines for a terminal. `all`: how many landings there are. */
export function landingLines({ routes, words, change }: AlikeLandings, all: number): string[] {
  return [`  ${routesWords(routes, all)}: ${words}`, ...causesWords(change).map((cause) => `    ${cause}`)];
}
