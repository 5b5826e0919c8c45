import type { Beat, Scene, SceneAction, VisitDocument } from '../load/types.ts';
import { byTask, type Run } from './run.ts';
import type { During } from './triggers.ts';
import type { Cause } from './types.ts';

/** One moment of a visit, as it was played. Times in ms from the navigation of its page. */
export interface Moment {
  /** Which page of the visit, and which of its steps; −1 for the landing. */
  page: number;
  step: number;
  /** Index into the page's scenes; −1 for the page itself. */
  scene: number;
  /** When the pointer or focus rested on what leads there; NaN without an approach. */
  approach: number;
  /** When the person acted. */
  act: number;
  /** When the page took the act: later than `act` where it didn't answer yet. */
  taken: number;
  /** When the person had what they waited for, or could see no more coming; NaN when it never came to that. */
  over: number;
}

/** What the person does in one document, beat by beat: each begins when the one before is over. */
export class Visitor {
  /** The part that takes acts now: that of the page. */
  private main: number;

  constructor(
    private readonly run: Run,
    private readonly document: VisitDocument,
    private readonly moments: Moment[],
    private readonly page: number,
    /** Follows a link to the next document, or leaves for good. */
    private readonly leave: (beat: Beat, approach: number) => void,
    private readonly deploy: () => void,
  ) {
    this.main = document.main;
  }

  /** Waits for the page, then begins with the beats. `since`: when the person asked for it, if it was begun before that. */
  start(step: number, approach: number, since = 0): void {
    const moment = this.record(step, -1, approach, since);
    moment.taken = since;
    this.play(this.document.conditions, 'condition');
    const shown = () => {
      moment.over = this.run.clock.now;
      this.beat(0);
    };
    if (this.main >= 0) this.run.screen.when('settled', this.main, shown);
    else this.run.triggers.await({ when: 'paint' }, shown);
  }

  private record(step: number, scene: number, approach: number, act: number): Moment {
    const moment = { page: this.page, step, scene, approach, act, taken: Number.NaN, over: Number.NaN };
    this.moments.push(moment);
    return moment;
  }

  private beat(at: number): void {
    const beat = this.document.beats[at];
    if (!beat) return;
    const { clock, conditions } = this.run;
    const scene = this.scenes[beat.scene];
    clock.at(clock.now + beat.dwellMs, () => {
      const approach = conditions.device.touch || !scene ? Number.NaN : clock.now;
      if (Number.isFinite(approach)) this.set(scene.approach, 'approach', scene.name, 'ahead');
      clock.at(clock.now + beat.leadMs, () => this.act(beat, at, approach));
    });
  }

  private get scenes(): Scene[] {
    return this.run.program.scenes ?? [];
  }

  private act(beat: Beat, at: number, approach: number): void {
    const { run } = this;
    const { now } = run.clock;
    const next = () => this.beat(at + 1);
    switch (beat.does) {
      case 'leave':
        this.leave(beat, approach - now);
        return;
      case 'scene': {
        const moment = this.record(beat.step, beat.scene, approach, now);
        const take = () => this.take(beat, moment, next);
        if (this.main >= 0) run.screen.when('answering', this.main, take);
        else take();
        return;
      }
      case 'resize':
        run.viewport = beat.size ?? run.viewport;
        run.triggers.resized();
        run.screen.resized();
        break;
      case 'deploy':
        run.outdated = true;
        this.deploy();
    }
    const moment = this.record(beat.step, beat.scene, approach, now);
    moment.taken = moment.over = now;
    next();
  }

  /** The page takes the act: answers that come first, then what the scene sets off, then its main part. */
  private take(beat: Beat, moment: Moment, next: () => void): void {
    const { run } = this;
    const scene = this.scenes[beat.scene];
    moment.taken = run.clock.now;
    for (const part of scene.hides) run.screen.hide(part);
    if (scene.kind === 'move') this.main = scene.shows[0];
    const answered = (first: number) => {
      const resource = scene.first[first];
      if (resource === undefined) {
        this.set(scene.act, 'action', scene.name);
        this.play(beat.conditions, 'condition');
        run.screen.when(scene.until === 'shown' ? 'settled' : 'answering', scene.shows[0], () => {
          moment.over = run.clock.now;
          next();
        });
        return;
      }
      const cause = byTask(run, 'trigger', first === 0 ? scene.name : 'redirect', -1);
      run.triggers.deed({ kind: 'fetch', resource, maxAgeMs: -1 }, cause, 'later');
      run.fetcher.onArrival(resource, () => answered(first + 1));
    };
    answered(0);
  }

  private play(scenes: number[], what: string): void {
    for (const at of scenes) this.set(this.scenes[at].act, what, this.scenes[at].name);
  }

  private set(actions: SceneAction[], what: string, name: string, during: During = 'later'): void {
    const { run } = this;
    for (const { after, ...action } of actions) {
      const begin = (cause: Cause) =>
        run.triggers.start(action, cause, cause.request + cause.task < -1 ? what : cause.what, during);
      if (!after) begin(byTask(run, 'trigger', `${what}: ${name}`, -1));
      else if (after.state === 'evaluated') run.scripts.onEvaluated(after.resource, begin);
      else run.fetcher.onArrival(after.resource, begin);
    }
  }
}
