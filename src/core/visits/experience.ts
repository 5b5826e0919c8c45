import type { Interaction, ScreenPart, VisitProgram } from '../load/types.ts';
import type { VisitTimeline } from '../sim/simulate-visit.ts';
import type { Reveal } from '../sim/types.ts';
import type { Moment } from '../sim/visitor.ts';

/** A stand-in that shows for less than this only flashes. In ms. */
export const FLASH_MS = 200;
/** A person takes an answer within this time for immediate. In ms. */
export const AT_ONCE_MS = 100;

/** What a person sees and waits for in one moment of a visit. Times in ms from the act (for a landing: the navigation). */
export interface Experience {
  page: number;
  step: number;
  /** Index into the page's interactions; −1 for the page itself. */
  interaction: number;
  name: string;
  kind: 'landing' | 'document' | Interaction['kind'] | 'other';
  /** When the act was, in ms from the navigation of its page. */
  act: number;
  /** From the approach to the act; 0 where there was none. */
  lead: number;
  /** Until the page took the act. */
  taken: number;
  /** Until what was asked for shows, and until it answers; NaN when it never does. */
  shown: number;
  answering: number;
  /** Until all that belongs to the moment shows, with its images and data. */
  complete: number;
  /** What the person waits for: until shown, or until it answers where it shows already. */
  wait: number;
  /** What stood there meanwhile. */
  standIn: { from: number; to: number; flash: boolean } | null;
  /** Its code could not be loaded; whether the person is told. */
  failed: 'told' | 'silent' | null;
  /** The parts in the order in which they came. */
  parts: { name: string; shown: number }[];
  /** Indices of the page's requests that belong to the moment (from the approach on), and what travelled for them. */
  requests: number[];
  bytes: number;
}

/** Reads off a played visit what the person saw and waited for in each of its moments. */
export function experienced(visit: VisitProgram, { pages, moments }: VisitTimeline): Experience[] {
  return moments.map((moment, at) => {
    const document = visit.documents[moment.page];
    const { program } = document;
    const { timeline } = pages[moment.page];
    const next = moments[at + 1];
    // Until the page takes the next act, what comes still belongs to this moment.
    const nextTaken = next && Number.isFinite(next.taken) ? next.taken : next?.act;
    const until = next && next.page === moment.page ? nextTaken! : Number.POSITIVE_INFINITY;
    const interaction = moment.interaction < 0 ? null : program.interactions![moment.interaction];
    // What is there under a condition that holds comes with the moment.
    const holding = interaction
      ? document.steps
          .filter((b) => b.index === moment.step && b.interaction === moment.interaction)
          .flatMap((b) => b.conditions)
      : document.conditions;
    const own = interaction?.shows ?? ownParts(program.parts, document.main);
    const shows = [...new Set([...own, ...holding.flatMap((at) => program.interactions?.[at].shows ?? [])])];
    const isOwn = (r: Reveal) =>
      r.at >= moment.act - 0.001 && (r.at <= until || r.at <= moment.over) && shows.includes(r.part);
    const reveals = timeline.reveals.filter(isOwn);
    const played = moment.over === moment.act && !interaction ? 'other' : null;
    const first = (state: Reveal['state'], part: number) =>
      reveals.find((r) => r.state === state && r.part === part)?.at;
    const main = shows[0] ?? -1;
    const since = (t: number | undefined) => (t === undefined ? Number.NaN : Math.max(0, t - moment.act));
    // What it was before it last left the screen doesn't count.
    const left = timeline.reveals.findLast((r) => r.part === main && r.state === 'gone' && r.at < moment.act);
    const already = (state: Reveal['state']) =>
      timeline.reveals.some(
        (r) => r.part === main && r.state === state && r.at < moment.act && r.at >= (left?.at ?? 0),
      ) && !interaction?.hides.includes(main);
    const shown = already('shown') ? 0 : since(first('shown', main));
    const answering = already('answering') ? 0 : since(first('answering', main));
    const wait = interaction?.until === 'answering' ? answering : shown;
    const failed = first('failed', main);
    const standIn = first('stand-in', main);
    const over = standIn === undefined ? Number.NaN : (first('shown', main) ?? failed ?? moment.over);
    const begins =
      Number.isFinite(moment.approach) && moment.page === moments[at - 1]?.page ? moment.approach : moment.act;
    const ends =
      next && next.page === moment.page ? (Number.isFinite(next.approach) ? next.approach : next.act) : until;
    const requests = timeline.requests.flatMap((r, i) =>
      r.discovered >= begins - 0.001 && r.discovered < ends ? [i] : [],
    );
    const complete = shows.map((part) => completeAt(timeline.reveals, program.parts[part], part, moment));
    return {
      page: moment.page,
      step: moment.step,
      interaction: moment.interaction,
      name: interaction?.name ?? document.program.document.address,
      kind: played ?? interaction?.kind ?? (document.begins === 'landing' ? 'landing' : 'document'),
      act: moment.act,
      lead: Number.isFinite(moment.approach) ? moment.act - moment.approach : 0,
      taken: moment.taken - moment.act,
      shown,
      answering,
      complete: Math.max(shown, ...complete.map((at) => since(at))),
      wait,
      standIn:
        standIn === undefined
          ? null
          : { from: standIn - moment.act, to: over - moment.act, flash: over - standIn < FLASH_MS },
      failed:
        failed !== undefined
          ? 'told'
          : Number.isNaN(wait) && Number.isFinite(moment.over) && interaction
            ? 'silent'
            : null,
      parts: shows
        .map((part) => ({ name: program.parts[part].name, shown: since(first('shown', part)) }))
        .filter((p) => Number.isFinite(p.shown))
        .sort((a, b) => a.shown - b.shown),
      requests,
      bytes: requests.reduce((sum, i) => sum + timeline.requests[i].bytes, 0),
    };
  });
}

/**
 * When a part has all that belongs to it, from an instant on: it shows, with its images and data. NaN for one that never
 * can; the instant itself for one that is gone, or on another screen size, before that.
 */
function completeAt(
  reveals: readonly Reveal[],
  { fill, held }: ScreenPart,
  part: number,
  { act: from, taken }: Moment,
): number {
  if (held) return Number.NaN;
  let last = from;
  for (const r of reveals) {
    if (r.part !== part || r.at < from - 0.001) continue;
    if (r.state === 'failed') return Number.NaN;
    if (r.state === 'gone' && r.at > Math.max(from, taken || 0) + 0.001) return last;
    if (r.state === 'shown' || r.state === 'filled') last = r.at;
    if (r.state === (fill.length > 0 ? 'filled' : 'shown')) return last;
  }
  return last;
}

/** The parts that a document shows by itself, the page first. */
function ownParts(parts: ScreenPart[], main: number): number[] {
  const own = parts.flatMap((p, at) => (p.route === undefined && p.place !== 'later' ? [at] : []));
  return main < 0 ? own : [main, ...own.filter((at) => at !== main)];
}

export interface VisitSums {
  /** Waits of all moments after the landing that come to an end, in ms. */
  waits: number;
  /** Bytes that travelled, and those of files that nothing in the visit used. */
  bytes: number;
  unused: number;
  failures: number;
}

export function sumsOf(experiences: readonly Experience[], { pages }: VisitTimeline): VisitSums {
  const sums: VisitSums = { waits: 0, bytes: 0, unused: 0, failures: 0 };
  for (const e of experiences) {
    if (e.failed) sums.failures++;
    if (e.kind !== 'landing' && e.kind !== 'other' && Number.isFinite(e.wait)) sums.waits += e.wait;
  }
  for (const { timeline } of pages) {
    for (const r of timeline.requests) {
      sums.bytes += r.bytes;
      if (r.role === 'in case' || r.role === 'wasted') sums.unused += r.bytes;
    }
  }
  return sums;
}
