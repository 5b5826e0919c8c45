import { fits } from '../load/places.ts';
import type { Action, Deed, FetchDeed, LinkHint, RuleDeed, Step } from '../load/types.ts';
import { withAttribute } from './fetcher.ts';
import { browserMs, byTask, type Run } from './run.ts';
import type { Cause, Priority, Timeline } from './types.ts';

/** What scripts and visitors set off: moments to wait for, and the deeds that follow. */
export class Triggers {
  readonly steps: Timeline['steps'] = [];
  private readonly atPaint: (() => void)[] = [];
  private readonly atLoad: (() => void)[] = [];
  private readonly inView = new Map<number, (() => void)[]>();
  private readonly inViewNow = new Set<number>();

  /** Actions for another width of the screen than this one. */
  private unfit: (() => boolean)[] = [];

  constructor(private readonly run: Run) {}

  /** Starts an action whose cause lies in `what`: waits for its moment, then does its deed. */
  start(action: Action, cause: Cause, what: string, during: During = 'start'): void {
    const { clock } = this.run;
    if (!this.screenFits(action)) {
      this.unfit.push(() => {
        if (!this.screenFits(action)) return false;
        this.start(action, byTask(this.run, 'trigger', 'another width of the screen', -1), what, 'later');
        return true;
      });
      return;
    }
    const begun = clock.now;
    const go = () => {
      const early = during === 'ahead' || action.when !== 'eval';
      const moment: Ask['moment'] = action.when === 'eval' && during === 'start' ? 'start' : 'later';
      const words = action.when === 'eval' ? what : `${what}, ${MOMENT_WORDS[action.when]}`;
      const waited = clock.now > begun ? 'trigger' : cause.kind;
      this.deed(action.do, { ...cause, kind: waited, what: words }, moment, early);
    };
    this.await(action, go);
  }

  /** Calls back at a moment of the page, from now on. */
  await({ when, delayMs, target }: Pick<Action, 'when' | 'delayMs' | 'target'>, then: () => void): void {
    const { clock } = this.run;
    const wait = () => (delayMs ? clock.at(clock.now + delayMs, then) : then());
    switch (when) {
      case 'eval':
      case 'timer':
        wait();
        return;
      case 'paint':
        this.afterPaint(wait);
        return;
      case 'idle':
        clock.at(clock.now + browserMs(this.run, this.run.costs.idle), () => this.run.thread.onIdle(wait));
        return;
      case 'load':
        this.afterLoad(wait);
        return;
      case 'quiet':
        this.afterLoad(() => this.whenQuiet(wait));
        return;
      case 'visible':
        if (this.inViewNow.has(target ?? -1)) wait();
        else this.inView.set(target ?? -1, [...(this.inView.get(target ?? -1) ?? []), wait]);
    }
  }

  private screenFits({ media }: Pick<Action, 'media'>): boolean {
    return fits(media, this.run.viewport.width);
  }

  /** The screen has another size from now on. */
  resized(): void {
    this.unfit = this.unfit.filter((begin) => !begin());
  }

  private whenQuiet(then: () => void): void {
    const { clock, fetcher, thread } = this.run;
    clock.at(clock.now + browserMs(this.run, this.run.costs.idle), () => {
      thread.onIdle(() => (fetcher.quiet ? then() : this.whenQuiet(then)));
    });
  }

  private afterPaint(then: () => void): void {
    if (Number.isFinite(this.run.moments.firstContent)) then();
    else this.atPaint.push(then);
  }

  private afterLoad(then: () => void): void {
    if (Number.isFinite(this.run.moments.load)) then();
    else this.atLoad.push(then);
  }

  painted(): void {
    this.run.clock.at(this.run.clock.now + browserMs(this.run, this.run.costs.paintCallback), () => {
      for (const then of this.atPaint.splice(0)) then();
    });
  }

  loaded(): void {
    for (const then of this.atLoad.splice(0)) then();
  }

  /** A part has come into view. */
  seen(part: number): void {
    this.inViewNow.add(part);
    for (const then of this.inView.get(part)?.splice(0) ?? []) then();
  }

  /** A part has left the screen. */
  unseen(part: number): void {
    this.inViewNow.delete(part);
  }

  deed(deed: Deed, cause: Cause, moment: 'start' | 'later', early = false): void {
    const { run } = this;
    const script = { cause, from: 'script', moment } as const;
    switch (deed.kind) {
      case 'import':
        run.clock.at(run.clock.now + browserMs(run, run.costs.importDelay), () => {
          run.scripts.request(deed.group, { ...script, priority: 1, anonymous: true, early });
          run.scripts.evaluateWhenReady(deed.group, run.costs.startImport);
        });
        return;
      case 'script':
        run.scripts.request(deed.group, { ...script, priority: 3 });
        run.scripts.evaluateWhenReady(deed.group, run.costs.startAsync);
        if (!Number.isFinite(run.moments.load)) run.parser.holdLoad(run.program.groups[deed.group].resources);
        return;
      case 'fetch':
        this.fetch(deed, cause, moment);
        if (deed.ahead) return;
        run.fetcher.onArrival(deed.resource, (by) => {
          const { follow, name } = run.program.resources[deed.resource];
          for (const action of follow) this.start(action, by, name);
        });
        return;
      case 'img':
        run.fetcher.ask(deed.resource, { ...script, priority: 3, incremental: true });
        if (!Number.isFinite(run.moments.load)) run.parser.holdLoad([deed.resource]);
        return;
      case 'link':
        this.link(deed.hint, cause, 'script');
        return;
      case 'rule':
        this.rule(deed, cause, moment);
        return;
      case 'cpu':
        run.thread.add('work', deed.name, deed.ms * run.conditions.device.cpuFactor, cause, -1, () => {});
        return;
      case 'scroll':
        run.clock.at(run.clock.now + browserMs(run, 2.5), () => this.seen(deed.part));
        return;
      case 'render':
        run.screen.draw(deed.part);
    }
  }

  private fetch({ resource, maxAgeMs, ahead }: FetchDeed, cause: Cause, moment: 'start' | 'later'): void {
    this.run.fetcher.ask(resource, {
      cause,
      from: 'script',
      moment,
      priority: ahead ? 3 : 1,
      incremental: true,
      anonymous: true,
      ...(maxAgeMs === undefined ? {} : { maxAgeMs }),
      ...(ahead ? { hint: { rel: 'prefetch', resource, chosen: false, keptByApp: true } } : {}),
    });
  }

  /** Browsers leave speculation rules alone where the person saves data. */
  private rule({ does, address, instead, media }: RuleDeed, cause: Cause, moment: 'start' | 'later'): void {
    const { run } = this;
    if (run.conditions.device.dataSaver || !this.screenFits({ media })) return;
    if (does === 'prepare' && run.prepare?.(address)) return;
    for (const deed of instead) this.deed(deed, cause, moment);
  }

  /** A link element or header field: fetches ahead, connects ahead, or brings a style sheet. */
  link(hint: LinkHint, cause: Cause, from: 'markup' | 'script'): void {
    const { run } = this;
    if ((hint.notForDataSaver && run.conditions.device.dataSaver) || !this.screenFits(hint)) return;
    if (hint.rel === 'preconnect' || hint.resource < 0) {
      if (hint.origin !== undefined) run.network.preconnect(hint.origin, hint.crossorigin ?? false);
      return;
    }
    const { type } = run.program.resources[hint.resource];
    if (hint.rel === 'stylesheet') {
      run.fetcher.ask(hint.resource, { cause, from, priority: 0 });
      return;
    }
    run.fetcher.ask(hint.resource, {
      cause,
      from,
      hint,
      priority: hint.rel === 'prefetch' ? 4 : withAttribute(PRELOAD_PRIORITY[type], hint.fetchpriority),
      incremental: hint.rel === 'prefetch' || type === 'image' || type === 'fetch',
      anonymous: hint.crossorigin ?? hint.rel === 'modulepreload',
    });
  }

  /** Schedules a step of the visit. */
  step(step: Step): void {
    const { clock } = this.run;
    const lead = step.kind === 'hover' ? step.leadMs : 0;
    const cause = (what: string): Cause => byTask(this.run, 'trigger', what, -1);
    clock.at(step.atMs, () => {
      for (const deed of step.do) this.deed(deed, cause(step.kind === 'hover' ? 'approach' : 'action'), 'later');
    });
    clock.at(step.atMs + lead, () => {
      const at = clock.now;
      if (step.kind === 'hover') for (const deed of step.clickDo) this.deed(deed, cause('action'), 'later');
      const waits = step.ready.map((r) => (next: (c: Cause) => void) => this.run.scripts.onEvaluated(r, next));
      this.run.scripts.afterAll(waits, () => this.steps.push({ id: step.id, at, ready: Math.max(at, clock.now) }));
    });
  }
}

type Ask = { moment: 'start' | 'later' };

/** The start of a page, a later moment, or ahead of one that may come. */
export type During = 'start' | 'later' | 'ahead';

const MOMENT_WORDS: Record<Action['when'], string> = {
  eval: '',
  paint: 'after first paint',
  idle: 'when idle',
  quiet: 'when the page is quiet',
  load: 'after the load event',
  timer: 'after a while',
  visible: 'when in view',
};

const PRELOAD_PRIORITY: Record<string, Priority> = { script: 1, style: 0, image: 3, font: 1, fetch: 1 };
