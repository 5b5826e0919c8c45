import type { Need } from '../load/types.ts';
import { browserMs, byTask, type Run } from './run.ts';
import type { Cause, RevealState } from './types.ts';

type Then = (cause: Cause) => void;

/** What shows: parts drawn by the document or by script, the first paint, and from when on each part answers. */
export class Screen {
  private readonly drawn: (Cause | undefined)[];
  private readonly drawWaiters: Then[][];
  private readonly begun = new Set<number>();
  /** When each part's stand-in was seen first. */
  private readonly standInSince = new Map<number, number>();
  private readonly groups = new Map<string, { missing: number; waiting: Then[] }>();
  private hasContent: Cause | null = null;
  private painting = false;
  private readonly atPaint: Then[] = [];

  constructor(private readonly run: Run) {
    const count = run.program.parts.length;
    this.drawn = new Array(count);
    this.drawWaiters = Array.from({ length: count }, () => []);
  }

  /** Sets up the parts that script draws as soon as it can. */
  start(): void {
    this.run.program.parts.forEach((part, at) => {
      if (part.drawnBy === 'script' && part.onItsOwn) this.draw(at);
    });
  }

  /** The parser has come past a part that the document draws. */
  parsed(part: number, cause: Cause): void {
    this.markDrawn(part, cause, () => this.answerLater(part));
  }

  /** Draws a part by script once all that it needs is there. */
  draw(at: number): void {
    if (this.begun.has(at)) return;
    this.begun.add(at);
    const { run } = this;
    const part = run.program.parts[at];
    this.afterParts(part.after, (parents) => {
      const waits = part.needs.map((need) => (next: Then) => this.whenNeed(need, next));
      let ready = false;
      run.scripts.afterAll(waits, (cause) => {
        ready = true;
        this.whenAllowed(at, cause.at >= parents.at ? cause : parents, (latest) => this.render(at, latest));
      });
      if (ready || (part.fallback?.show ?? 'stand-in') !== 'stand-in') return;
      if (part.standInNeeds) this.standInFirst(at, part.standInNeeds);
      else if (part.after.length > 0) this.standIn(at);
    });
  }

  /** A stand-in that script draws by itself: it can be the first thing that shows. */
  private standInFirst(at: number, needs: Need[]): void {
    const waits = needs.map((need) => (next: Then) => this.whenNeed(need, next));
    this.run.scripts.afterAll(waits, (cause) => {
      if (this.drawn[at]) return;
      this.hasContent ??= cause;
      this.standIn(at);
      this.tryPaint();
    });
  }

  private standIn(at: number): void {
    this.whenPainted((cause) => {
      if (this.drawn[at]) return;
      this.standInSince.set(at, this.run.clock.now);
      this.reveal(at, 'stand-in', cause);
    });
  }

  private render(at: number, latest: Cause): void {
    const { run } = this;
    const part = run.program.parts[at];
    const ms = part.renderMs * run.conditions.device.cpuFactor;
    const task = run.thread.add('render', part.name, ms, latest, -1, () => {
      const by = byTask(run, 'task', `${part.name} drawn`, task);
      this.markDrawn(at, by, () => {
        if (part.interactive) this.reveal(at, 'answering', by);
      });
    });
  }

  /** A part may be drawn once its group is complete, and its stand-in was there for as long as it has to be. */
  private whenAllowed(at: number, cause: Cause, then: Then): void {
    const { run } = this;
    const { together, fallback, showWhen, name } = run.program.parts[at];
    const atMoment = (latest: Cause) => {
      const since = run.clock.now;
      if (!showWhen) then(latest);
      else
        run.triggers.await(showWhen, () =>
          then(run.clock.now > since ? byTask(run, 'trigger', `${name} is shown later than it could be`, -1) : latest),
        );
    };
    const afterHold = (latest: Cause) => {
      const until = (this.standInSince.get(at) ?? Number.NEGATIVE_INFINITY) + (fallback?.holdMs ?? 0);
      if (until <= run.clock.now) atMoment(latest);
      else run.clock.at(until, () => atMoment(byTask(run, 'trigger', `the stand-in of ${name} is held`, -1)));
    };
    if (together === undefined) {
      afterHold(cause);
      return;
    }
    const group = this.groups.get(together) ?? { missing: this.membersOf(together), waiting: [] };
    this.groups.set(together, group);
    group.waiting.push(afterHold);
    if (--group.missing === 0) for (const go of group.waiting) go(cause);
  }

  private membersOf(together: string): number {
    return this.run.program.parts.filter((p) => p.together === together && p.drawnBy === 'script' && p.onItsOwn).length;
  }

  private whenNeed(need: Need, then: Then): void {
    if (need.state === 'evaluated') this.run.scripts.onEvaluated(need.resource, then);
    else this.run.fetcher.onArrival(need.resource, then);
  }

  private afterParts(parts: number[], then: Then): void {
    const waits = parts.map((p) => (next: Then) => {
      const by = this.drawn[p];
      if (by) next(by);
      else this.drawWaiters[p].push(next);
    });
    this.run.scripts.afterAll(waits, then);
  }

  private markDrawn(at: number, cause: Cause, shown: () => void): void {
    const { run } = this;
    const part = run.program.parts[at];
    this.drawn[at] = cause;
    for (const then of this.drawWaiters[at].splice(0)) then(cause);
    this.hasContent ??= cause;
    this.whenPainted((paint) => {
      const late = cause.at > paint.at;
      const show = (by: Cause) => {
        this.reveal(at, 'shown', by);
        shown();
        if (part.place === 'first screen') run.triggers.seen(at);
        const waits = part.fill.map((r) => (next: Then) => this.whenNeed({ resource: r, state: 'arrived' }, next));
        if (waits.length > 0)
          run.scripts.afterAll(waits, (last) => this.reveal(at, 'filled', last.at > by.at ? last : by));
      };
      if (late) run.clock.at(run.clock.now + run.costs.frameWait, () => show(cause));
      else show(paint);
    });
    this.tryPaint();
  }

  /** A part that the document drew answers once its script has run. */
  private answerLater(at: number): void {
    const { run } = this;
    const part = run.program.parts[at];
    if (!part.interactive) return;
    run.scripts.afterAll(
      part.needs.map((need) => (next: Then) => this.whenNeed(need, next)),
      (cause) => {
        const ms = part.renderMs * run.conditions.device.cpuFactor;
        const task = run.thread.add('render', part.name, ms, cause, -1, () => {
          this.reveal(at, 'answering', byTask(run, 'task', `${part.name} answers`, task));
        });
      },
    );
  }

  private reveal(part: number, state: RevealState, cause: Cause): void {
    this.run.reveals.push({ part, state, at: this.run.clock.now, cause });
  }

  private whenPainted(then: Then): void {
    const by = this.run.moments.firstContentCause;
    if (by) then(by);
    else this.atPaint.push(then);
  }

  /** Paints for the first time when nothing blocks rendering and there is something to show. */
  tryPaint(): void {
    const { run } = this;
    if (this.painting || !this.hasContent || !run.parser.bodyInserted || run.parser.renderBlocked) return;
    this.painting = true;
    const cause =
      run.parser.lastBlocker && run.parser.lastBlocker.at >= this.hasContent.at
        ? run.parser.lastBlocker
        : this.hasContent;
    run.clock.at(run.clock.now + run.costs.frameWait, () => {
      if (run.parser.renderBlocked) {
        this.painting = false;
        return;
      }
      const task = run.thread.add('paint', 'first paint', browserMs(run, run.costs.paint), cause, -1, () => {
        run.moments.firstContent = run.clock.now;
        const by = byTask(run, 'task', 'first paint', task);
        run.moments.firstContentCause = by;
        for (const then of this.atPaint.splice(0)) then(by);
        run.triggers.painted();
      });
    });
  }
}
