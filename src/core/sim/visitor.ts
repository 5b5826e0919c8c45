import type { CompiledStep, Interaction, InteractionAction, VisitDocument } from '../load/types.ts';
import type { Page } from './page.ts';
import { byTask } from './page-context.ts';
import type { During } from './pieces.ts';
import type { Cause } from './types.ts';

/** One moment of a visit, as it was played. Times in ms from the navigation of its page. */
export interface Moment {
  /** Which page of the visit, and which of its steps; −1 for the landing. */
  page: number;
  step: number;
  /** Index into the page's interactions; −1 for the page itself. */
  interaction: number;
  /** When the pointer or focus rested on what leads there; NaN without an approach. */
  approach: number;
  /** When the person acted. */
  act: number;
  /** When the page took the act: later than `act` where it didn't answer yet. */
  taken: number;
  /** When the person had what they waited for, or could see no more coming; NaN when it never came to that. */
  over: number;
}

/** What the person does in one document, step by step: each begins when the one before is over. */
export class Visitor {
  /** The part that takes acts now: that of the page. */
  private main: number;

  constructor(
    private readonly page: Page,
    private readonly document: VisitDocument,
    private readonly moments: Moment[],
    private readonly pageIndex: number,
    /** Follows a link to the next document, or leaves for good. */
    private readonly leave: (step: CompiledStep, approach: number) => void,
    private readonly deploy: () => void,
  ) {
    this.main = document.main;
  }

  /** Waits for the page, then begins with the steps. `since`: when the person asked for it, if it was begun before that. */
  start(step: number, approach: number, since = 0): void {
    const moment = this.record(step, -1, approach, since);
    moment.taken = since;
    this.play(this.document.conditions, 'condition');
    const shown = () => {
      moment.over = this.page.clock.now;
      this.playStep(0);
    };
    if (this.main >= 0) this.page.renderer.when('settled', this.main, shown);
    else this.page.triggers.await({ when: 'paint' }, shown);
  }

  private record(step: number, interaction: number, approach: number, act: number): Moment {
    const moment = { page: this.pageIndex, step, interaction, approach, act, taken: Number.NaN, over: Number.NaN };
    this.moments.push(moment);
    return moment;
  }

  private playStep(at: number): void {
    const step = this.document.steps[at];
    if (!step) return;
    const { clock, conditions } = this.page;
    const interaction = this.interactions[step.interaction];
    clock.at(step.atMs ?? clock.now + step.dwellMs, () => {
      const approach = conditions.device.touch || !interaction ? Number.NaN : clock.now;
      if (Number.isFinite(approach)) this.set(interaction.approach, 'approach', interaction.name, 'ahead');
      clock.at(clock.now + step.leadMs, () => this.act(step, at, approach));
    });
  }

  private get interactions(): Interaction[] {
    return this.page.program.interactions ?? [];
  }

  private act(step: CompiledStep, at: number, approach: number): void {
    const { page } = this;
    const { now } = page.clock;
    const next = () => this.playStep(at + 1);
    switch (step.does) {
      case 'leave':
        this.leave(step, approach - now);
        return;
      case 'interaction': {
        const moment = this.record(step.index, step.interaction, approach, now);
        const take = () => this.take(step, moment, next);
        if (this.main >= 0) page.renderer.when('answering', this.main, take);
        else take();
        return;
      }
      case 'resize':
        page.viewport = step.size ?? page.viewport;
        page.triggers.resized();
        page.renderer.resized();
        break;
      case 'deploy':
        page.outdated = true;
        this.deploy();
    }
    const moment = this.record(step.index, step.interaction, approach, now);
    moment.taken = moment.over = now;
    next();
  }

  /** The page takes the act: answers that come first, then what the interaction sets off, then its main part. */
  private take(step: CompiledStep, moment: Moment, next: () => void): void {
    const { page } = this;
    const interaction = this.interactions[step.interaction];
    moment.taken = page.clock.now;
    for (const part of interaction.hides) page.renderer.hide(part);
    if (interaction.kind === 'move') this.main = interaction.shows[0];
    const answered = (first: number) => {
      const resource = interaction.first[first];
      if (resource === undefined) {
        this.set(interaction.act, 'action', interaction.name);
        this.play(step.conditions, 'condition');
        page.renderer.when(interaction.until === 'shown' ? 'settled' : 'answering', interaction.shows[0], () => {
          moment.over = page.clock.now;
          next();
        });
        return;
      }
      const cause = byTask(page, 'trigger', first === 0 ? interaction.name : 'redirect', -1);
      page.triggers.perform({ kind: 'fetch', resource, maxAgeMs: -1 }, cause, 'later');
      page.fetcher.onArrival(resource, () => answered(first + 1));
    };
    answered(0);
  }

  private play(interactions: number[], what: string): void {
    for (const at of interactions) this.set(this.interactions[at].act, what, this.interactions[at].name);
  }

  private set(actions: InteractionAction[], what: string, name: string, during: During = 'later'): void {
    const { page } = this;
    for (const { after, ...action } of actions) {
      const begin = (cause: Cause) =>
        page.triggers.start(action, cause, cause.request + cause.task < -1 ? what : cause.what, during);
      if (!after) begin(byTask(page, 'trigger', `${what}: ${name}`, -1));
      else if (after.state === 'evaluated') page.scripts.onEvaluated(after.resource, begin);
      else page.fetcher.onArrival(after.resource, begin);
    }
  }
}
