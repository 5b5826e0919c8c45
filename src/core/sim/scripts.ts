import type { Action } from '../load/types.ts';
import { EVALUATION_RATE } from './conditions.ts';
import type { Ask } from './fetcher.ts';
import { browserMs, byTask, type Run } from './run.ts';
import type { Cause } from './types.ts';

type Then = (cause: Cause) => void;

/** Load groups: fetching them, waiting for all of their files, evaluating each file once. */
export class Scripts {
  private readonly state: ('none' | 'queued' | 'done')[];
  private readonly evaluatedBy: (Cause | undefined)[];
  private readonly waiting: Then[][];
  private readonly requested = new Set<number>();
  private readonly requestWaiters = new Map<number, Then[]>();

  constructor(private readonly run: Run) {
    const count = run.program.resources.length;
    this.state = new Array(count).fill('none');
    this.evaluatedBy = new Array(count);
    this.waiting = Array.from({ length: count }, () => []);
  }

  /** Asks for a group's files: all at once when they are listed, else the last one and what it leads to. */
  request(group: number, ask: Ask): void {
    this.requested.add(group);
    const { resources, loader } = this.run.program.groups[group];
    if (loader === 'listed') for (const r of resources) this.run.fetcher.ask(r, this.typed(r, ask));
    else if (resources.length > 0) this.discover(resources[resources.length - 1], ask, new Set());
    for (const then of this.requestWaiters.get(group)?.splice(0) ?? []) then(ask.cause);
  }

  private typed(resource: number, ask: Ask): Ask {
    return this.run.program.resources[resource].type === 'style' ? { ...ask, priority: 0, anonymous: false } : ask;
  }

  private discover(resource: number, ask: Ask, seen: Set<number>): void {
    if (seen.has(resource)) return;
    seen.add(resource);
    this.run.fetcher.ask(resource, this.typed(resource, ask));
    this.run.fetcher.onArrival(resource, (cause) => {
      const { name, imports } = this.run.program.resources[resource];
      if (imports.length === 0) return;
      const next: Ask = { ...ask, from: 'script', cause: { ...cause, kind: 'evaluation', what: `import in ${name}` } };
      const { findImports, perImport } = this.run.costs;
      const reading = findImports + perImport * imports.length;
      this.run.clock.at(this.run.clock.now + browserMs(this.run, reading), () => {
        for (const r of imports) this.discover(r, next, seen);
      });
    });
  }

  /** Calls back when a group may be evaluated: all its files are there, and the groups before it have run. */
  whenReady(group: number, then: Then): void {
    const { resources, after } = this.run.program.groups[group];
    this.afterAll(
      [
        ...resources.map((r) => (next: Then) => this.run.fetcher.onArrival(r, next)),
        ...after.map((g) => (next: Then) => this.whenEvaluated(g, next)),
      ],
      then,
    );
  }

  /** Calls back when a group has been evaluated; a group that nobody asks for keeps its caller waiting. */
  whenEvaluated(group: number, then: Then): void {
    const { resources, after, name } = this.run.program.groups[group];
    const scripts = resources.filter((r) => this.run.program.resources[r].type === 'script');
    if (scripts.length > 0)
      this.afterAll(
        scripts.map((r) => (next: Then) => this.onEvaluated(r, next)),
        then,
      );
    else if (after.length + resources.length > 0) this.whenReady(group, then);
    else if (this.requested.has(group)) then(byTask(this.run, 'trigger', name, -1));
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
      this.run.clock.at(this.run.clock.now + browserMs(this.run, delay), () => this.evaluateNow(group, cause, then));
    });
  }

  /** Files run in their order; one that waits for others while it starts holds up those after it. */
  evaluateNow(group: number, cause: Cause, then?: Then): void {
    const { program } = this.run;
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
    const { run } = this;
    const item = run.program.resources[resource];
    const { cpuFactor, evaluationRate = EVALUATION_RATE.likely } = run.conditions.device;
    const ms = (item.cpuMs + item.estimatedBytes * evaluationRate) * cpuFactor;
    const request = run.fetcher.requestOf(resource);
    const task = run.thread.add('evaluate', item.name, ms, cause, request, () => {
      const by = byTask(run, 'evaluation', `${item.name} ran`, task);
      const { awaits = [], follow } = item;
      const isAwaited = (a: Action) => a.do.kind === 'import' && awaits.includes(a.do.group);
      for (const action of follow) if (isAwaited(action)) run.triggers.start(action, by, item.name);
      const done = (last: Cause) => {
        this.state[resource] = 'done';
        this.evaluatedBy[resource] = last;
        if (request >= 0) run.fetcher.requests[request].evaluated = run.clock.now;
        for (const action of follow) if (!isAwaited(action)) run.triggers.start(action, last, item.name);
        for (const then of this.waiting[resource].splice(0)) then(last);
      };
      if (awaits.length === 0) done(by);
      else
        this.afterAll(
          awaits.map((g) => (next: Then) => this.whenEvaluated(g, next)),
          done,
        );
    });
  }

  /** Runs all waits and calls back with the cause of the last one to be over. */
  afterAll(waits: ((next: Then) => void)[], then: Then): void {
    let left = waits.length;
    let last: Cause = byTask(this.run, 'trigger', 'nothing to wait for', -1);
    if (left === 0) {
      then(last);
      return;
    }
    for (const wait of waits) {
      wait((cause) => {
        if (cause.at >= last.at || last.request + last.task === -2) last = cause;
        if (--left === 0) then(last);
      });
    }
  }
}
