import { fits } from '../load/places.ts';
import type { Action, Effect, FetchEffect, LinkHint, RuleEffect, Step } from '../load/types.ts';
import { browserMs, byTask, type PageContext } from './page-context.ts';
import {
  type During,
  type Evaluating,
  type Fetching,
  type Parsing,
  type Rendering,
  type Triggering,
  withAttribute,
} from './pieces.ts';
import type { Cause, Priority, Timeline } from './types.ts';
import { afterAll } from './waits.ts';

/** What scripts and visitors set off: moments to wait for, and the effects that follow. */
interface Needs extends PageContext {
  fetcher: Pick<Fetching, 'request' | 'onArrival' | 'quiet'>;
  scripts: Pick<Evaluating, 'request' | 'evaluateWhenReady' | 'onEvaluated'>;
  parser: Pick<Parsing, 'holdLoad'>;
  renderer: Pick<Rendering, 'draw'>;
}

export class Triggers implements Triggering {
  readonly steps: Timeline['steps'] = [];
  private readonly atPaint: (() => void)[] = [];
  private readonly atLoad: (() => void)[] = [];
  private readonly inView = new Map<number, (() => void)[]>();
  private readonly inViewNow = new Set<number>();
  private readonly atDrawing = new Map<number, ((cause: Cause) => void)[]>();
  private readonly drawnNow = new Map<number, Cause>();
  private readonly atShowing = new Map<number, ((cause: Cause) => void)[]>();
  private readonly shownNow = new Map<number, Cause>();

  /** Actions for another width of the screen than this one. */
  private unfit: (() => boolean)[] = [];

  constructor(private readonly page: Needs) {}

  /** Starts an action whose cause lies in `what`: waits for its moment, then does its effect. */
  start(action: Action, cause: Cause, what: string, during: During = 'start'): void {
    const { clock } = this.page;
    if (!this.screenFits(action)) {
      this.unfit.push(() => {
        if (!this.screenFits(action)) return false;
        this.start(action, byTask(this.page, 'trigger', 'another width of the screen', -1), what, 'later');
        return true;
      });
      return;
    }
    const begun = clock.now;
    const go = (drawn?: Cause) => {
      // What is drawn at once asks at once.
      const atOnce = action.when === 'eval' || action.when === 'drawn' || action.when === 'shown';
      const early = during === 'ahead' || !atOnce;
      const moment: 'start' | 'later' = atOnce && during === 'start' ? 'start' : 'later';
      const words = action.when === 'eval' ? what : `${what}, ${MOMENT_WORDS[action.when]}`;
      const waited = clock.now > begun ? 'trigger' : cause.kind;
      this.perform(action.do, { ...(drawn ?? { ...cause, kind: waited }), what: words }, moment, early);
    };
    const { answers = [] } = action;
    if (answers.length === 0) {
      this.await(action, go);
      return;
    }
    const waits = answers.map((r) => (next: (c: Cause) => void) => this.page.fetcher.onArrival(r, next));
    afterAll(this.page, waits, (answered) => this.await(action, (by) => go(clock.now > begun ? answered : by)));
  }

  /** Calls back at a moment of the page, from now on. */
  await({ when, delayMs, target }: Pick<Action, 'when' | 'delayMs' | 'target'>, then: (drawn?: Cause) => void): void {
    const { clock } = this.page;
    const wait = (drawn?: Cause) => (delayMs ? clock.at(clock.now + delayMs, then) : then(drawn));
    switch (when) {
      case 'eval':
      case 'timer':
        wait();
        return;
      case 'paint':
        this.afterPaint(wait);
        return;
      case 'idle':
        clock.at(clock.now + browserMs(this.page, this.page.costs.idle), () => this.page.mainThread.onIdle(wait));
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
        return;
      case 'drawn':
        whenKnown(this.drawnNow, this.atDrawing, target ?? -1, wait);
        return;
      case 'shown':
        whenKnown(this.shownNow, this.atShowing, target ?? -1, wait);
        return;
      default:
        when satisfies never;
    }
  }

  /** Script has drawn a part. */
  drawn(part: number, cause: Cause): void {
    this.drawnNow.set(part, cause);
    for (const then of this.atDrawing.get(part)?.splice(0) ?? []) then(cause);
  }

  /** A part that script drew shows. */
  shown(part: number, cause: Cause): void {
    this.shownNow.set(part, cause);
    for (const then of this.atShowing.get(part)?.splice(0) ?? []) then(cause);
  }

  private screenFits({ media }: Pick<Action, 'media'>): boolean {
    return fits(media, this.page.viewport.width);
  }

  /** The screen has another size from now on. */
  resized(): void {
    this.unfit = this.unfit.filter((begin) => !begin());
  }

  private whenQuiet(then: () => void): void {
    const { clock, fetcher, mainThread } = this.page;
    clock.at(clock.now + browserMs(this.page, this.page.costs.idle), () => {
      mainThread.onIdle(() => (fetcher.quiet ? then() : this.whenQuiet(then)));
    });
  }

  private afterPaint(then: () => void): void {
    if (Number.isFinite(this.page.moments.firstContent)) then();
    else this.atPaint.push(then);
  }

  private afterLoad(then: () => void): void {
    if (Number.isFinite(this.page.moments.load)) then();
    else this.atLoad.push(then);
  }

  painted(): void {
    this.page.clock.at(this.page.clock.now + browserMs(this.page, this.page.costs.paintCallback), () => {
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
    this.drawnNow.delete(part);
    this.shownNow.delete(part);
  }

  perform(effect: Effect, cause: Cause, moment: 'start' | 'later', early = false): void {
    const { page } = this;
    const script = { cause, from: 'script', moment } as const;
    switch (effect.kind) {
      case 'import':
        page.clock.at(page.clock.now + browserMs(page, page.costs.importDelay), () => {
          page.scripts.request(effect.group, { ...script, priority: 1, anonymous: true, early });
          page.scripts.evaluateWhenReady(effect.group, page.costs.startImport);
        });
        return;
      case 'script':
        page.scripts.request(effect.group, { ...script, priority: 3 });
        page.scripts.evaluateWhenReady(effect.group, page.costs.startAsync);
        if (!Number.isFinite(page.moments.load)) page.parser.holdLoad(page.program.groups[effect.group].resources);
        return;
      case 'fetch':
        this.fetch(effect, cause, moment);
        if (effect.ahead) return;
        page.fetcher.onArrival(effect.resource, (by) => {
          const { follow, name } = page.program.resources[effect.resource];
          for (const action of follow) this.start(action, by, name);
        });
        return;
      case 'img':
        page.fetcher.request(effect.resource, { ...script, priority: 3, incremental: true });
        if (!Number.isFinite(page.moments.load)) page.parser.holdLoad([effect.resource]);
        return;
      case 'link':
        this.link(effect.hint, cause, 'script');
        return;
      case 'rule':
        this.rule(effect, cause, moment);
        return;
      case 'cpu':
        page.mainThread.add('work', effect.name, effect.ms * page.conditions.device.cpuFactor, cause, -1, () => {});
        return;
      case 'scroll':
        page.clock.at(page.clock.now + browserMs(page, 2.5), () => this.seen(effect.part));
        return;
      case 'render':
        page.renderer.draw(effect.part);
        return;
      default:
        effect satisfies never;
    }
  }

  private fetch({ resource, maxAgeMs, ahead }: FetchEffect, cause: Cause, moment: 'start' | 'later'): void {
    this.page.fetcher.request(resource, {
      cause,
      from: 'script',
      moment,
      priority: ahead ? 3 : 1,
      // Scripts come one after the other, those of workers too.
      incremental: this.page.program.resources[resource].type !== 'script',
      anonymous: true,
      ...(maxAgeMs === undefined ? {} : { maxAgeMs }),
      ...(ahead ? { hint: { rel: 'prefetch', resource, chosen: false, keptByApp: true } } : {}),
    });
  }

  /** Browsers leave speculation rules alone where the person saves data. */
  private rule({ does, address, instead, media }: RuleEffect, cause: Cause, moment: 'start' | 'later'): void {
    const { page } = this;
    if (page.conditions.device.dataSaver || !this.screenFits({ media })) return;
    if (does === 'prepare' && page.prepare?.(address)) return;
    for (const effect of instead) this.perform(effect, cause, moment);
  }

  /** A link element or header field: fetches ahead, connects ahead, or brings a style sheet. */
  link(hint: LinkHint, cause: Cause, by: 'markup' | 'script' | 'early hint'): void {
    const { page } = this;
    const from = by === 'script' ? by : 'markup';
    if ((hint.notForDataSaver && page.conditions.device.dataSaver) || !this.screenFits(hint)) return;
    if (hint.rel === 'dns-prefetch') {
      if (hint.origin !== undefined) page.network.lookUp(hint.origin);
      return;
    }
    if (hint.rel === 'preconnect' || hint.resource < 0) {
      if (hint.origin !== undefined)
        page.network.preconnect(hint.origin, hint.crossorigin ?? false, by === 'early hint');
      return;
    }
    const { type } = page.program.resources[hint.resource];
    if (hint.rel === 'stylesheet') {
      page.fetcher.request(hint.resource, { cause, from, priority: 0 });
      return;
    }
    page.fetcher.request(hint.resource, {
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
    const { clock } = this.page;
    const lead = step.kind === 'hover' ? step.leadMs : 0;
    const cause = (what: string): Cause => byTask(this.page, 'trigger', what, -1);
    clock.at(step.atMs, () => {
      for (const effect of step.do) this.perform(effect, cause(step.kind === 'hover' ? 'approach' : 'action'), 'later');
    });
    clock.at(step.atMs + lead, () => {
      const at = clock.now;
      if (step.kind === 'hover') for (const effect of step.clickDo) this.perform(effect, cause('action'), 'later');
      const waits = step.ready.map((r) => (next: (c: Cause) => void) => this.page.scripts.onEvaluated(r, next));
      afterAll(this.page, waits, () => this.steps.push({ id: step.id, at, ready: Math.max(at, clock.now) }));
    });
  }
}

const MOMENT_WORDS: Record<Action['when'], string> = {
  eval: '',
  paint: 'after first paint',
  idle: 'when idle',
  quiet: 'when the page is quiet',
  load: 'after the load event',
  timer: 'after a while',
  visible: 'when in view',
  drawn: 'as it is drawn',
  shown: 'once it shows',
};

/** Calls back with what made a part come so far, or once that is known. */
function whenKnown(
  now: ReadonlyMap<number, Cause>,
  waiting: Map<number, ((cause: Cause) => void)[]>,
  part: number,
  then: (cause: Cause) => void,
): void {
  const by = now.get(part);
  if (by) then(by);
  else waiting.set(part, [...(waiting.get(part) ?? []), then]);
}

const PRELOAD_PRIORITY: Record<string, Priority> = { script: 1, style: 0, image: 3, font: 1, fetch: 1 };
