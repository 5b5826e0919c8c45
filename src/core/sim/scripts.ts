import type { Action, Resource } from '../load/types.ts';
import { CACHES } from '../vocabulary/cache-states.ts';
import { CODE_RATE, EVALUATION_RATE } from './conditions.ts';
import { browserMs, byTask, type PageContext } from './page-context.ts';
import type { Evaluating, Fetching, FetchRequest, Then, Triggering } from './pieces.ts';
import type { Cause } from './types.ts';
import { afterAll } from './waits.ts';

/** Load groups: fetching them, waiting for all of their files, evaluating each file once. */
interface Needs extends PageContext {
  fetcher: Pick<Fetching, 'request' | 'requestOf' | 'onArrival' | 'requests'>;
  triggers: Pick<Triggering, 'start'>;
}

export class Scripts implements Evaluating {
  private readonly state: ('none' | 'queued' | 'done')[];
  private readonly evaluatedBy: (Cause | undefined)[];
  private readonly waiting: Then[][];
  private readonly requested = new Set<number>();
  private readonly requestWaiters = new Map<number, Then[]>();

  constructor(private readonly page: Needs) {
    const count = page.program.resources.length;
    this.state = new Array(count).fill('none');
    this.evaluatedBy = new Array(count);
    this.waiting = Array.from({ length: count }, () => []);
  }

  /** Asks for a group's files: all at once when they are listed, else the last one and what it leads to. */
  request(group: number, how: FetchRequest): void {
    this.requested.add(group);
    const { resources, loader } = this.page.program.groups[group];
    if (loader === 'listed') for (const r of resources) this.page.fetcher.request(r, this.typed(r, how));
    else if (resources.length > 0) this.discover(resources[resources.length - 1], how, new Set());
    for (const then of this.requestWaiters.get(group)?.splice(0) ?? []) then(how.cause);
  }

  private typed(resource: number, how: FetchRequest): FetchRequest {
    return this.page.program.resources[resource].type === 'style' ? { ...how, priority: 0, anonymous: false } : how;
  }

  private discover(resource: number, how: FetchRequest, seen: Set<number>): void {
    if (seen.has(resource)) return;
    seen.add(resource);
    this.page.fetcher.request(resource, this.typed(resource, how));
    this.page.fetcher.onArrival(resource, (cause) => {
      const { name, imports } = this.page.program.resources[resource];
      if (imports.length === 0) return;
      const next: FetchRequest = {
        ...how,
        from: 'script',
        cause: { ...cause, kind: 'evaluation', what: `import in ${name}` },
      };
      const { findImports, perImport } = this.page.costs;
      const reading = findImports + perImport * imports.length;
      this.page.clock.at(this.page.clock.now + browserMs(this.page, reading), () => {
        for (const r of imports) this.discover(r, next, seen);
      });
    });
  }

  /** Calls back when a group may be evaluated: all its files are there, and the groups before it have page. */
  whenReady(group: number, then: Then): void {
    const { resources, after } = this.page.program.groups[group];
    afterAll(
      this.page,
      [
        ...resources.map((r) => (next: Then) => this.page.fetcher.onArrival(r, next)),
        ...after.map((g) => (next: Then) => this.whenEvaluated(g, next)),
      ],
      then,
    );
  }

  /** Calls back when a group has been evaluated; a group that nobody asks for keeps its caller waiting. */
  whenEvaluated(group: number, then: Then): void {
    const { resources, after, name } = this.page.program.groups[group];
    const scripts = resources.filter((r) => this.page.program.resources[r].type === 'script');
    if (scripts.length > 0)
      afterAll(
        this.page,
        scripts.map((r) => (next: Then) => this.onEvaluated(r, next)),
        then,
      );
    else if (after.length + resources.length > 0) this.whenReady(group, then);
    else if (this.requested.has(group)) then(byTask(this.page, 'trigger', name, -1));
    else this.requestWaiters.set(group, [...(this.requestWaiters.get(group) ?? []), then]);
  }

  hasRun(resource: number): boolean {
    return this.evaluatedBy[resource] !== undefined;
  }

  onEvaluated(resource: number, then: Then): void {
    const by = this.evaluatedBy[resource];
    if (by) then(by);
    else this.waiting[resource].push(then);
  }

  /** Waits until the group is ready, then evaluates what of it hasn't run, in one go. */
  evaluateWhenReady(group: number, delay: number, then?: Then): void {
    this.whenReady(group, (cause) => {
      this.page.clock.at(this.page.clock.now + browserMs(this.page, delay) + this.compileMs(group), () =>
        this.evaluateNow(group, cause, then),
      );
    });
  }

  /** What is left to compile of a group in the background once its last byte is there; nothing where its compiled code was kept. */
  compileMs(group: number): number {
    const { program, conditions } = this.page;
    const { cpuFactor, backgroundFactor = cpuFactor } = conditions.device;
    if (CACHES[conditions.cache].code === 'compiled') return 0;
    const bytes = program.groups[group].resources.reduce((sum, r) => sum + (program.resources[r].codeBytes ?? 0), 0);
    return bytes * CODE_RATE.compile * backgroundFactor;
  }

  /** What a file costs the page's thread. */
  private runMs({ cpuMs, estimatedBytes, codeBytes = 0, modules = 0 }: Resource): number {
    const { device, cache } = this.page.conditions;
    const { cpuFactor, evaluationRate = EVALUATION_RATE.likely, moduleMs = 0 } = device;
    const isKept = CACHES[cache].code === 'compiled';
    const run = CODE_RATE.run * (isKept ? CODE_RATE.keptShare : 1);
    const kept = isKept ? CODE_RATE.run * (1 - CODE_RATE.keptShare) : 0;
    const ms = cpuMs + estimatedBytes * Math.max(0, evaluationRate - kept) + codeBytes * run + modules * moduleMs;
    return ms * cpuFactor;
  }

  /** Files run in their order; one that waits for others while it starts holds up those after it. */
  evaluateNow(group: number, cause: Cause, then?: Then): void {
    const { program } = this.page;
    const scripts = program.groups[group].resources.filter((r) => program.resources[r].type === 'script');
    const from = (first: number, by: Cause) => {
      for (let at = first; at < scripts.length; at++) {
        const r = scripts[at];
        const begins = this.state[r] === 'none';
        if (begins) {
          this.state[r] = 'queued';
          this.addTask(r, by);
        }
        if (program.resources[r].awaits && this.state[r] !== 'done') {
          this.onEvaluated(r, (later) => from(at + 1, later));
          return;
        }
      }
    };
    from(0, cause);
    if (then) this.whenEvaluated(group, then);
  }

  private addTask(resource: number, cause: Cause): void {
    const { page } = this;
    const item = page.program.resources[resource];
    const ms = this.runMs(item);
    const request = page.fetcher.requestOf(resource);
    const task = page.mainThread.add('evaluate', item.name, ms, cause, request, () => {
      const by = byTask(page, 'evaluation', `${item.name} ran`, task);
      const { awaits = [], follow } = item;
      const isAwaited = (a: Action) => a.do.kind === 'import' && awaits.includes(a.do.group);
      for (const action of follow) if (isAwaited(action)) page.triggers.start(action, by, item.name);
      const done = (last: Cause) => {
        this.state[resource] = 'done';
        this.evaluatedBy[resource] = last;
        if (request >= 0) page.fetcher.requests[request].evaluated = page.clock.now;
        for (const action of follow) if (!isAwaited(action)) page.triggers.start(action, last, item.name);
        for (const then of this.waiting[resource].splice(0)) then(last);
      };
      if (awaits.length === 0) done(by);
      else
        afterAll(
          this.page,
          awaits.map((g) => (next: Then) => this.whenEvaluated(g, next)),
          done,
        );
    });
  }
}
