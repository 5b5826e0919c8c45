import { fits } from '../load/places.ts';
import type { Need, ScreenPart } from '../load/types.ts';
import { drawingMs } from './conditions.ts';
import { browserMs, byTask, type PageContext } from './page-context.ts';
import type { Evaluating, Fetching, Parsing, Rendering, TextFonts, Then, Triggering } from './pieces.ts';
import type { Cause, RevealState } from './types.ts';
import { afterAll } from './waits.ts';

/**
 * Where a component system lets in what it drew in a placeholder's place: the share of drawing that comes only then (it is put into the page, effects
 * run and draw again, styles and layout). Of three pages of component libraries 0.45, 0.6 and 0.87 (docs/SIMULATOR.md).
 */
const LET_IN_SHARE = 0.5;

/** What shows: parts drawn by the document or by script, the first paint, and from when on each part answers. */
interface Needs extends PageContext {
  fetcher: Pick<Fetching, 'onArrival' | 'onFailure' | 'hasArrived'>;
  scripts: Pick<Evaluating, 'onEvaluated' | 'hasRun'>;
  parser: Pick<Parsing, 'bodyInserted' | 'renderBlocked' | 'lastBlocker'>;
  fonts: TextFonts;
  triggers: Pick<Triggering, 'await' | 'drawn' | 'shown' | 'painted' | 'seen' | 'unseen'>;
}

export class Renderer implements Rendering {
  private readonly drawn: (Cause | undefined)[];
  private readonly drawWaiters: Then[][];
  private readonly begun = new Set<number>();
  /** How often each part has left the screen: what was begun before then doesn't count any more. */
  private readonly turns: number[];
  /** Parts that the document draws, but not on a screen of this size. */
  private readonly unplaced = new Map<number, () => void>();
  /** When each part's stand-in was seen first. */
  private readonly standInSince = new Map<number, number>();
  /** Parts that were drawn in a stand-in's place, with what letting them in still takes of the thread, in ms. */
  private readonly letInMs = new Map<number, number>();
  /** Parts whose stand-in the component system itself put there, since their code wasn't; what only waits for answers is drawn in another way meanwhile. */
  private readonly suspended = new Set<number>();
  /** When such a stand-in was seen last, of any part. */
  private lastStandIn = Number.NEGATIVE_INFINITY;
  /** Parts that show together: whether all were ready once, and those that wait for the others. */
  private readonly groups = new Map<string, { complete: boolean; waiting: Map<number, Then> }>();
  private hasContent: Cause | null = null;
  private painting = false;
  private readonly atPaint: Then[] = [];
  private readonly reached: Record<'settled' | 'answering', Map<number, (() => void)[]>> = {
    settled: new Map(),
    answering: new Map(),
  };
  private readonly states: ('shown' | 'answering' | 'failed' | undefined)[] = [];

  constructor(private readonly page: Needs) {
    const count = page.program.parts.length;
    this.drawn = new Array(count);
    this.turns = new Array(count).fill(0);
    this.drawWaiters = Array.from({ length: count }, () => []);
  }

  /** Sets up the parts that script draws as soon as it can. */
  start(): void {
    this.page.program.parts.forEach((part, at) => {
      if (part.drawnBy === 'script' && part.onItsOwn && this.hasPlace(at)) this.draw(at);
    });
  }

  /** The screen has another size: parts that it has no place for till now are drawn. */
  resized(): void {
    this.start();
    for (const [part, show] of [...this.unplaced]) {
      if (!this.hasPlace(part)) continue;
      this.unplaced.delete(part);
      show();
    }
  }

  private hasPlace(at: number): boolean {
    return fits(this.page.program.parts[at].screens, this.page.viewport.width);
  }

  /** The parser has come past a part that the document draws. */
  parsed(part: number, cause: Cause): void {
    if (this.hasPlace(part)) this.documentDraws(part, cause);
    else
      this.unplaced.set(part, () =>
        this.documentDraws(part, byTask(this.page, 'trigger', 'another width of the screen', -1)),
      );
  }

  private documentDraws(part: number, cause: Cause): void {
    this.markDrawn(part, cause, () => {
      const { interactive, needs } = this.page.program.parts[part];
      if (interactive) this.answerLater(part, needs);
      else this.tell(part, 'answering');
    });
  }

  /** Draws a part by script once all that it needs is there. */
  draw(at: number): void {
    if (this.begun.has(at)) return;
    this.begun.add(at);
    const { page } = this;
    const part = page.program.parts[at];
    const turn = this.turns[at];
    const still = () => this.turns[at] === turn;
    for (const { resource } of part.needs)
      page.fetcher.onFailure(resource, (cause) => still() && !this.drawn[at] && this.fail(at, cause));
    this.afterParts(part.after, (parents) => {
      const waits = part.needs.map((need) => (next: Then) => this.whenNeed(need, next));
      let ready = false;
      afterAll(page, waits, (cause) => {
        ready = true;
        this.whenAllowed(at, cause.at >= parents.at ? cause : parents, (latest) => still() && this.render(at, latest));
      });
      if (ready || !still() || (part.fallback?.show ?? 'stand-in') !== 'stand-in') return;
      if (part.standInNeeds) this.standInFirst(at, part.standInNeeds);
      else if (part.after.length > 0 || !part.onItsOwn) this.standIn(at);
    });
  }

  /** A part leaves the screen: it is drawn again when it comes again. */
  hide(at: number): void {
    if (this.states[at] !== undefined || this.begun.has(at))
      this.reveal(at, 'gone', byTask(this.page, 'trigger', 'the next moment', -1));
    for (const { waiting } of this.groups.values()) waiting.delete(at);
    this.begun.delete(at);
    this.drawn[at] = undefined;
    this.states[at] = undefined;
    this.page.triggers.unseen(at);
    this.standInSince.delete(at);
    this.suspended.delete(at);
    this.turns[at]++;
  }

  /** Calls back once a part shows (or can't), or once it answers (or can't). */
  when(state: 'settled' | 'answering', at: number, then: () => void): void {
    const now = this.states[at];
    if (now !== undefined && (state === 'settled' || now !== 'shown')) then();
    else this.reached[state].set(at, [...(this.reached[state].get(at) ?? []), then]);
  }

  private tell(at: number, state: 'shown' | 'answering' | 'failed'): void {
    if (state === 'shown' && this.states[at] === 'answering') return;
    this.states[at] = state;
    const settled = this.reached.settled.get(at) ?? [];
    const answering = state === 'shown' ? [] : (this.reached.answering.get(at) ?? []);
    this.reached.settled.delete(at);
    if (state !== 'shown') this.reached.answering.delete(at);
    for (const then of [...settled, ...answering]) then();
  }

  /** A stand-in that script draws by itself: it can be the first thing that shows. */
  private standInFirst(at: number, needs: Need[]): void {
    const waits = needs.map((need) => (next: Then) => this.whenNeed(need, next));
    afterAll(this.page, waits, (cause) => {
      if (this.drawn[at]) return;
      this.hasContent ??= cause;
      this.standIn(at);
      this.tryPaint();
    });
  }

  private standIn(at: number): void {
    const turn = this.turns[at];
    const appear = (cause: Cause) => {
      if (this.drawn[at] || this.turns[at] !== turn) return;
      this.standInSince.set(at, this.page.clock.now);
      this.reveal(at, 'stand-in', cause);
      this.suspend(at);
    };
    // Inside of what is held back itself, it appears with that.
    const show = (cause: Cause) => this.onceAround(at, cause, appear);
    const asked = this.page.clock.now;
    this.whenPainted((cause) => {
      // After the first paint it takes a frame until something new is seen.
      if (cause.at >= asked) show(cause);
      else
        this.page.clock.at(asked + this.page.costs.frameWait, () => show(byTask(this.page, 'trigger', 'a frame', -1)));
    });
  }

  /** Once there is nothing but code that a part waits for, the component system puts its placeholder there. */
  private suspend(at: number): void {
    const turn = this.turns[at];
    const answers = this.page.program.parts[at].needs.filter((n) => n.state === 'arrived');
    const waits = answers.map((need) => (next: Then) => this.whenNeed(need, next));
    afterAll(this.page, waits, () => {
      if (this.drawn[at] || this.turns[at] !== turn || !this.lacksCode(at)) return;
      this.suspended.add(at);
      this.lastStandIn = this.page.clock.now;
    });
  }

  /** Whether a part that is there but for its code has a placeholder, or will have as soon as what is around it is in. */
  private waitsForCode(at: number): boolean {
    const { program, fetcher } = this.page;
    const hasAnswers = program.parts[at].needs.every((n) => n.state !== 'arrived' || fetcher.hasArrived(n.resource));
    return hasAnswers && this.lacksCode(at);
  }

  private lacksCode(at: number): boolean {
    const { program, scripts } = this.page;
    return program.parts[at].needs.some((n) => n.state === 'evaluated' && !scripts.hasRun(n.resource));
  }

  /** What a part needs can't be loaded; the person is told if the plan says so. */
  private fail(at: number, cause: Cause): void {
    const { page } = this;
    page.clock.at(page.clock.now + page.costs.frameWait, () => {
      if (page.program.parts[at].tellsFailure) this.reveal(at, 'failed', cause);
      this.tell(at, 'failed');
    });
  }

  private render(at: number, latest: Cause): void {
    const { page } = this;
    const part = page.program.parts[at];
    const whole = drawingMs(page.conditions.device, part.renderMs);
    const later = page.program.placeholders && this.suspended.has(at) ? whole * LET_IN_SHARE : 0;
    this.letInMs.set(at, later);
    const task = page.mainThread.draw({ at, name: part.name }, whole - later, latest, () => {
      const by = byTask(page, 'task', `${part.name} drawn`, task);
      page.triggers.drawn(at, by);
      this.markDrawn(at, by, () => {
        if (!part.interactive) this.tell(at, 'answering');
        else if (part.answerNeeds) this.answerLater(at, part.answerNeeds);
        else this.answers(at, by);
      });
    });
  }

  /** A part may be drawn once its group is complete, and its stand-in was there for as long as it has to be. */
  private whenAllowed(at: number, cause: Cause, then: Then): void {
    const { page } = this;
    const { together, fallback, showWhen, held, name } = page.program.parts[at];
    if (held) return;
    const atMoment = (latest: Cause) => {
      const since = page.clock.now;
      if (!showWhen) then(latest);
      else
        page.triggers.await(showWhen, () =>
          then(
            page.clock.now > since ? byTask(page, 'trigger', `${name} is shown later than it could be`, -1) : latest,
          ),
        );
    };
    const afterHold = (latest: Cause) => {
      const until = (this.standInSince.get(at) ?? Number.NEGATIVE_INFINITY) + (fallback?.holdMs ?? 0);
      if (until <= page.clock.now) atMoment(latest);
      else page.clock.at(until, () => atMoment(byTask(page, 'trigger', `the stand-in of ${name} is held`, -1)));
    };
    if (together === undefined) {
      afterHold(cause);
      return;
    }
    const key = `${page.program.parts[at].route ?? ''}\n${together}`;
    const group = this.groups.get(key) ?? { complete: false, waiting: new Map<number, Then>() };
    this.groups.set(key, group);
    group.waiting.set(at, afterHold);
    // Others of the group that are drawn in the same moment may not have begun yet.
    page.clock.at(page.clock.now, () => {
      if (!group.complete && !this.membersOf(at, together).every((member) => group.waiting.has(member))) return;
      // Once all of them have been there, nothing is missing when they come again.
      group.complete = true;
      const ready = [...group.waiting.values()];
      group.waiting.clear();
      for (const go of ready) go(cause);
    });
  }

  /** The parts of a group that are to be drawn, and aren't yet: of the same route. */
  private membersOf(at: number, together: string): number[] {
    const { parts } = this.page.program;
    const isDue = (part: ScreenPart, member: number) =>
      this.begun.has(member) || (part.drawnBy === 'script' && part.onItsOwn && this.hasPlace(member));
    return parts.flatMap((part, member) => {
      const isMember = part.together === together && part.route === parts[at].route;
      return isMember && !this.drawn[member] && isDue(part, member) ? [member] : [];
    });
  }

  private whenNeed(need: Need, then: Then): void {
    if (need.state === 'evaluated') this.page.scripts.onEvaluated(need.resource, then);
    else this.page.fetcher.onArrival(need.resource, then);
  }

  private afterParts(parts: number[], then: Then): void {
    const waits = parts.map((p) => (next: Then) => {
      const by = this.drawn[p];
      if (by) next(by);
      else this.drawWaiters[p].push(next);
    });
    afterAll(this.page, waits, then);
  }

  private markDrawn(at: number, cause: Cause, shown: () => void): void {
    const { page } = this;
    const part = page.program.parts[at];
    const turn = this.turns[at];
    const since = this.lastStandIn;
    this.drawn[at] = cause;
    for (const font of part.fonts ?? []) page.fonts.laidOut(font);
    for (const then of this.drawWaiters[at].splice(0)) then(cause);
    this.hasContent ??= cause;
    this.whenPainted((paint) => {
      const late = cause.at > paint.at;
      const show = (by: Cause) => {
        if (this.turns[at] !== turn) return;
        this.reveal(at, 'shown', by);
        this.tell(at, 'shown');
        shown();
        page.triggers.shown(at, by);
        if (part.place === 'first screen') page.triggers.seen(at);
        const waits = this.fills(at, by);
        if (waits.length > 0) afterAll(page, waits, (last) => this.reveal(at, 'filled', last.at > by.at ? last : by));
      };
      const inFont = (font: Cause) => this.turns[at] === turn && this.reveal(at, 'in font', font);
      const seen = (by: Cause) => page.fonts.show(part.fonts ?? [], { shown: show, inFont }, by);
      const visible = (by: Cause) => this.letIn(at, since, by, (last) => this.putIn(at, last, seen));
      if (late) page.clock.at(page.clock.now + page.costs.frameWait, () => visible(cause));
      else visible(paint);
    });
    this.tryPaint();
  }

  /** What fills a part that shows: its images as they come, and what it draws anew once all of its answers are there. */
  private fills(at: number, shown: Cause): ((then: Then) => void)[] {
    const { page } = this;
    const { fill, fillMs = 0, name } = page.program.parts[at];
    const arrives = (resource: number) => (then: Then) => this.whenNeed({ resource, state: 'arrived' }, then);
    const turn = this.turns[at];
    const isAnswer = (r: number) => page.program.resources[r].type === 'fetch';
    const answers = fill.filter(isAnswer).map(arrives);
    if (answers.length === 0 || fillMs === 0) return fill.map(arrives);
    const drawAnew = (then: Then) =>
      afterAll(page, answers, (last) => {
        if (last.at <= shown.at || this.turns[at] !== turn) {
          then(last);
          return;
        }
        const ms = drawingMs(page.conditions.device, fillMs);
        const task = page.mainThread.draw({ at, name, anew: true }, ms, last, () =>
          then(byTask(page, 'task', `${name} drawn with its data`, task)),
        );
      });
    return [drawAnew, ...fill.filter((r) => !isAnswer(r)).map(arrives)];
  }

  /**
   * The component system may keep a stand-in for some time before it lets in what was drawn in its place; or only what
   * has another stand-in inside of it, until that is done with. `since`: when a stand-in had been seen last as it was drawn.
   */
  private letIn(at: number, since: number, cause: Cause, then: Then): void {
    this.onceAround(at, cause, (by) => this.letInItself(at, since, by, then));
  }

  /** What was drawn in a stand-in's place is put into the page, which takes its share of the drawing. */
  private putIn(at: number, cause: Cause, then: Then): void {
    const { page } = this;
    const ms = this.letInMs.get(at) ?? 0;
    if (ms === 0) {
      then(cause);
      return;
    }
    this.letInMs.delete(at);
    const { name } = page.program.parts[at];
    const task = page.mainThread.draw({ at, name }, ms, cause, () => {
      then(byTask(page, 'task', `${name} let in`, task));
    });
  }

  /** Where placeholders are kept: once all that a part stands in is in itself. */
  private onceAround(at: number, cause: Cause, then: Then): void {
    const { parts, placeholders } = this.page.program;
    const waits = (placeholders ? parts[at].after : []).map(
      (p) => (next: Then) => this.when('settled', p, () => next(cause)),
    );
    if (waits.length === 0) then(cause);
    else afterAll(this.page, waits, then);
  }

  private letInItself(at: number, since: number, cause: Cause, then: Then): void {
    const { program, clock } = this.page;
    const { placeholders } = program;
    const until = since + (placeholders?.holdMs ?? 0);
    if (!placeholders || !this.suspended.has(at) || until <= clock.now) {
      then(cause);
      return;
    }
    const inside = placeholders.nested
      ? program.parts.flatMap((p, i) =>
          p.after.includes(at) && this.begun.has(i) && !this.drawn[i] && this.waitsForCode(i) ? [i] : [],
        )
      : [];
    if (placeholders.nested && inside.length === 0) {
      then(cause);
      return;
    }
    let isIn = false;
    const enter = (by: Cause) => {
      if (!isIn) then(by);
      isIn = true;
    };
    clock.at(until, () => enter(byTask(this.page, 'trigger', 'the component system keeps its placeholder', -1)));
    if (inside.length > 0) this.afterParts(inside, enter);
  }

  /** A part that the document drew answers once its script has page. */
  private answerLater(at: number, needs: Need[]): void {
    const { page } = this;
    const part = page.program.parts[at];
    const turn = this.turns[at];
    for (const { resource } of needs)
      page.fetcher.onFailure(resource, (cause) => this.turns[at] === turn && this.fail(at, cause));
    afterAll(
      page,
      needs.map((need) => (next: Then) => this.whenNeed(need, next)),
      (cause) => {
        const ms = drawingMs(page.conditions.device, part.renderMs);
        const task = page.mainThread.draw({ at, name: part.name }, ms, cause, () => {
          this.answers(at, byTask(page, 'task', `${part.name} answers`, task));
        });
      },
    );
  }

  private answers(at: number, cause: Cause): void {
    this.reveal(at, 'answering', cause);
    this.tell(at, 'answering');
  }

  private reveal(part: number, state: RevealState, cause: Cause): void {
    this.page.reveals.push({ part, state, at: this.page.clock.now, cause });
  }

  private whenPainted(then: Then): void {
    const by = this.page.moments.firstContentCause;
    if (by) then(by);
    else this.atPaint.push(then);
  }

  /** Paints for the first time when nothing blocks rendering and there is something to show. */
  tryPaint(): void {
    const { page } = this;
    if (this.painting || !this.hasContent || !page.parser.bodyInserted || page.parser.renderBlocked) return;
    this.painting = true;
    const cause =
      page.parser.lastBlocker && page.parser.lastBlocker.at >= this.hasContent.at
        ? page.parser.lastBlocker
        : this.hasContent;
    page.clock.at(page.clock.now + page.costs.frameWait, () => {
      if (page.parser.renderBlocked) {
        this.painting = false;
        return;
      }
      page.fonts.whenPaintMay((font) => this.paint(font ?? cause));
    });
  }

  private paint(cause: Cause): void {
    const { page } = this;
    const task = page.mainThread.add('paint', 'first paint', browserMs(page, page.costs.paint), cause, -1, () => {
      page.moments.firstContent = page.clock.now;
      const by = byTask(page, 'task', 'first paint', task);
      page.moments.firstContentCause = by;
      for (const then of this.atPaint.splice(0)) then(by);
      page.triggers.painted();
    });
  }
}
