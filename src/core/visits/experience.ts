import type { Interaction, ScreenPart, VisitDocument, VisitProgram } from '../load/types.ts';
import type { VisitTimeline } from '../sim/simulate-visit.ts';
import type { Reveal, Timeline } from '../sim/types.ts';
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
export function experienced(visit: VisitProgram, timeline: VisitTimeline): Experience[] {
  return timeline.moments.map((moment, at) => {
    const seen = new SeenMoment(visit, timeline, at);
    const { interaction, document } = seen;
    const requests = seen.requests();
    const shown = seen.untilMain('shown');
    const answering = seen.untilMain('answering');
    const wait = interaction?.until === 'answering' ? answering : shown;
    return {
      page: moment.page,
      step: moment.step,
      interaction: moment.interaction,
      name: interaction?.name ?? document.program.document.address,
      kind: seen.kind(),
      act: moment.act,
      lead: Number.isFinite(moment.approach) ? moment.act - moment.approach : 0,
      taken: moment.taken - moment.act,
      shown,
      answering,
      complete: Math.max(shown, ...seen.completions()),
      wait,
      standIn: seen.standIn(),
      failed: seen.failed(wait),
      parts: seen.parts(),
      requests,
      bytes: requests.reduce((sum, i) => sum + seen.timeline.requests[i].bytes, 0),
    };
  });
}

/** One moment of a played visit: what belongs to it of all that happened on its page. Times in ms from its act. */
class SeenMoment {
  readonly moment: Moment;
  readonly document: VisitDocument;
  readonly timeline: Timeline;
  readonly interaction: Interaction | null;
  private readonly before: Moment | undefined;
  /** The next moment, where it is on the same page. */
  private readonly next: Moment | undefined;
  /** Parts that it brings, the one that the person waits for first. */
  private readonly shows: number[];
  private readonly main: number;
  private readonly reveals: Reveal[];

  constructor(visit: VisitProgram, { pages, moments }: VisitTimeline, at: number) {
    const moment = moments[at];
    this.moment = moment;
    this.before = moments[at - 1];
    this.next = moments[at + 1]?.page === moment.page ? moments[at + 1] : undefined;
    this.document = visit.documents[moment.page];
    this.timeline = pages[moment.page].timeline;
    const { interactions = [], parts } = this.document.program;
    this.interaction = interactions[moment.interaction] ?? null;
    const own = this.interaction?.shows ?? ownParts(parts, this.document.main);
    this.shows = [...new Set([...own, ...this.holding().flatMap((i) => interactions[i]?.shows ?? [])])];
    this.main = this.shows[0] ?? -1;
    // Until the page takes the next act, what comes still belongs to this moment.
    const { next } = this;
    const until = next ? (Number.isFinite(next.taken) ? next.taken : next.act) : Number.POSITIVE_INFINITY;
    this.reveals = this.timeline.reveals.filter(
      (r) => r.at >= moment.act - 0.001 && (r.at <= until || r.at <= moment.over) && this.shows.includes(r.part),
    );
  }

  /** Interactions of conditions that hold from this moment on: what is there under them comes with it. */
  private holding(): number[] {
    const { document, moment } = this;
    if (!this.interaction) return document.conditions;
    return document.steps
      .filter((s) => s.index === moment.step && s.interaction === moment.interaction)
      .flatMap((s) => s.conditions);
  }

  kind(): Experience['kind'] {
    if (this.interaction) return this.interaction.kind;
    if (this.moment.over === this.moment.act) return 'other';
    return this.document.begins === 'landing' ? 'landing' : 'document';
  }

  private first(state: Reveal['state'], part: number): number | undefined {
    return this.reveals.find((r) => r.state === state && r.part === part)?.at;
  }

  private since(time: number | undefined): number {
    return time === undefined ? Number.NaN : Math.max(0, time - this.moment.act);
  }

  /** Until what was asked for is in a state; 0 where it was before the act. */
  untilMain(state: 'shown' | 'answering'): number {
    return this.wasMain(state) ? 0 : this.since(this.first(state, this.main));
  }

  private wasMain(state: Reveal['state']): boolean {
    const { main, moment } = this;
    if (this.interaction?.hides.includes(main)) return false;
    const earlier = this.timeline.reveals.filter((r) => r.part === main && r.at < moment.act);
    // What it was before it last left the screen doesn't count.
    const left = earlier.findLast((r) => r.state === 'gone')?.at ?? 0;
    return earlier.some((r) => r.state === state && r.at >= left);
  }

  /** When each part has all that belongs to it. */
  completions(): number[] {
    const { parts } = this.document.program;
    return this.shows.map((part) => this.since(completeAt(this.timeline.reveals, parts[part], part, this.moment)));
  }

  standIn(): Experience['standIn'] {
    const { act, over } = this.moment;
    const from = this.first('stand-in', this.main);
    if (from === undefined) return null;
    const to = this.first('shown', this.main) ?? this.first('failed', this.main) ?? over;
    return { from: from - act, to: to - act, flash: to - from < FLASH_MS };
  }

  failed(wait: number): Experience['failed'] {
    if (this.first('failed', this.main) !== undefined) return 'told';
    return this.interaction && Number.isNaN(wait) && Number.isFinite(this.moment.over) ? 'silent' : null;
  }

  /** The parts in the order in which they came. */
  parts(): Experience['parts'] {
    return this.shows
      .map((part) => ({ name: this.document.program.parts[part].name, shown: this.since(this.first('shown', part)) }))
      .filter((p) => Number.isFinite(p.shown))
      .sort((a, b) => a.shown - b.shown);
  }

  /** Indices of the requests from the approach on, until the next moment begins. */
  requests(): number[] {
    const { moment, next } = this;
    const approached = Number.isFinite(moment.approach) && moment.page === this.before?.page;
    const begins = approached ? moment.approach : moment.act;
    const ends = next ? (Number.isFinite(next.approach) ? next.approach : next.act) : Number.POSITIVE_INFINITY;
    return this.timeline.requests.flatMap((r, i) => (r.discovered >= begins - 0.001 && r.discovered < ends ? [i] : []));
  }
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

/** The sums of a whole visit: waits in ms, bytes, failures. */
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
