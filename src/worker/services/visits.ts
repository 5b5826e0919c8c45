import Papa from 'papaparse';
import { has } from '../../core/chunks/bits.ts';
import { planned } from '../../core/chunks/planned.ts';
import { NavigationLog } from '../../core/formats/navigation-log.ts';
import { followLanding, momentTrigger } from '../../core/load/landing.ts';
import { effectivePlan } from '../../core/plan/effective.ts';
import { BASELINE, type Plan } from '../../core/plan/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import type { RequestRecord, Reveal, TaskRecord } from '../../core/sim/types.ts';
import { graphIndex } from '../../core/snapshot/graph-index.ts';
import type { VisitorModel, VisitorNotes } from '../../core/snapshot/visitor-types.ts';
import { type Expectation, expectWaits } from '../../core/visitors/expect.ts';
import { type Learned, LogLearner } from '../../core/visitors/learn.ts';
import { type ModelTrouble, modelOf } from '../../core/visitors/model.ts';
import type { Variant } from '../../core/visitors/reckon.ts';
import { typicalVisit } from '../../core/visitors/typical.ts';
import type { Experience, VisitSums } from '../../core/visits/experience.ts';
import { type Played, playVisit } from '../../core/visits/play.ts';
import { VisitCompiler } from '../../core/visits/program.ts';
import type { Visit } from '../../core/visits/types.ts';
import type { Trigger } from '../../core/vocabulary/triggers.ts';
import { keep, stepFor } from '../stepping.ts';
import { HeldApp } from './held-app.ts';

/** A moment as the page draws it. */
export interface MomentView extends Experience {
  /** The split point whose code it waits for, and when that is fetched; null where its code is there from the start. */
  splitPoint: { module: string; fetch: Trigger } | null;
  /** Wait under the baseline; NaN where the baseline has no such moment. */
  was: number;
}

export interface VisitView {
  moments: MomentView[];
  sums: VisitSums;
  before: VisitSums | null;
  pages: { startedAt: number; requests: RequestRecord[]; tasks: TaskRecord[]; reveals: Reveal[]; parts: string[] }[];
  /** Steps that were not played, and why. */
  stuck: { step: number; reason: string } | null;
  /** What can come next at the end of the visit. */
  next: NextStep[];
}

export type NextStep =
  | { does: 'act' | 'scroll'; part: string; name: string; dwellMs: number; leadMs: number }
  | { does: 'move'; to: string; by: 'inside' | 'document'; linked: boolean; dwellMs: number; leadMs: number };

/** The people who come: complete, as said, and what of that doesn't fit. */
export interface VisitorsView {
  model: VisitorModel;
  notes: VisitorNotes;
  troubles: ModelTrouble[];
}

export interface ExpectStep {
  done: number;
  of: number;
  result: Expectation | null;
}

const SEED = 20_261;
const STEP_MS = 40;
const MOST_VISITS = 4000;
const ERROR = 0.01;
/** Leads at which the wait for a chosen moment is worked out, in ms. */
const LEADS = [0, 50, 100, 150, 200, 300, 400, 600, 800, 1200, 1600, 2400];
const MOST_COMPILERS = 4;
const MOST_EXPECTED = 6;

/** The computations behind the Visits station. */
export class VisitService {
  private readonly compilers = new Map<string, VisitCompiler>();
  private readonly expected = new Map<string, Expectation>();
  private running: { key: string; steps: ReturnType<typeof expectWaits> } | null = null;

  constructor(private readonly app: HeldApp) {
    app.onChange(() => {
      this.compilers.clear();
      this.expected.clear();
      this.running = null;
    });
  }

  visitors(): VisitorsView {
    const app = this.app.get();
    return { ...modelOf(app), notes: app.visitors ?? {} };
  }

  typical(plan: Plan, landing: string): Visit {
    return typicalVisit(this.visitors().model, this.compiler(plan), landing);
  }

  /** A visit played under a plan, with the baseline's waits beside it. Throws InputError naming a step that can't be taken. */
  play(plan: Plan, visit: Visit, conditions: Conditions): VisitView {
    const compiler = this.compiler(plan);
    const played = playVisit(compiler, visit, conditions);
    const baseline = plan.decisions.length === 0 ? played : this.tryBaseline(visit, conditions);
    const waits = new Map(baseline?.experiences.map((e) => [e.step, e.wait]));
    const { pages } = played.timeline;
    return {
      moments: played.experiences.map((e) => ({
        ...e,
        splitPoint: this.splitPointOf(plan, compiler, visit, e),
        was: waits.get(e.step) ?? Number.NaN,
      })),
      sums: played.sums,
      before: baseline?.sums ?? null,
      pages: pages.map(({ startedAt, timeline }, at) => ({
        startedAt,
        requests: timeline.requests,
        tasks: timeline.tasks,
        reveals: timeline.reveals,
        parts: played.program.documents[at].program.parts.map((p) => p.name),
      })),
      stuck: stuckAt(visit, played),
      next: this.nextSteps(plan, compiler, visit),
    };
  }

  /** The wait of one step for different leads, in ms. */
  byLead(plan: Plan, visit: Visit, step: number, conditions: Conditions): { lead: number; wait: number }[] {
    const compiler = this.compiler(plan);
    return LEADS.map((lead) => {
      const steps = visit.steps
        .slice(0, step + 1)
        .map((s, at) => (at === step && 'leadMs' in s ? { ...s, leadMs: lead } : s));
      const { experiences } = playVisit(compiler, { ...visit, steps }, conditions);
      return { lead, wait: experiences.find((e) => e.step === step)?.wait ?? Number.NaN };
    });
  }

  /** What visitors can expect, a little further with every call; the result once it is there. */
  expect(plan: Plan, variants: Variant[]): ExpectStep {
    const key = JSON.stringify([plan.decisions, variants]);
    const cached = this.expected.get(key);
    if (cached) return { done: 1, of: 1, result: cached };
    if (this.running?.key !== key)
      this.running = {
        key,
        steps: expectWaits(this.compiler(plan), this.visitors().model, variants, {
          seed: SEED,
          visits: MOST_VISITS,
          error: ERROR,
        }),
      };
    const step = stepFor(this.running.steps, STEP_MS);
    if (!step.over) return { ...step.progress, result: null };
    this.running = null;
    return { done: 1, of: 1, result: keep(this.expected, key, step.result, MOST_EXPECTED) };
  }

  /** What a navigation log says; tells how many bytes and lines it has read. */
  async learn(file: File, progress: (bytes: number, lines: number) => void): Promise<Learned> {
    const learner = new LogLearner(this.app.get().routes);
    const log = new NavigationLog(
      file.name,
      (text) => Papa.parse<string[]>(text, { delimiter: ',' }).data,
      (record, line) => learner.add(record, line),
      (what, line) => learner.unreadable(what, line),
    );
    const reader = file.stream().getReader();
    const decoder = new TextDecoder();
    for (let bytes = 0; ; ) {
      const { done, value } = await reader.read();
      if (done) break;
      log.push(decoder.decode(value, { stream: true }));
      bytes += value.byteLength;
      progress(bytes, learner.linesRead);
    }
    log.push(decoder.decode());
    log.end();
    return learner.result();
  }

  private compiler(plan: Plan): VisitCompiler {
    const key = JSON.stringify(plan.decisions);
    return (
      this.compilers.get(key) ??
      keep(this.compilers, key, new VisitCompiler(planned(this.app.shipped(plan), plan)), MOST_COMPILERS)
    );
  }

  /** A step that only the plan makes possible has no counterpart in the baseline. */
  private tryBaseline(visit: Visit, conditions: Conditions): Played | null {
    try {
      return playVisit(this.compiler(BASELINE), visit, conditions);
    } catch {
      return null;
    }
  }

  private splitPointOf(
    plan: Plan,
    compiler: VisitCompiler,
    visit: Visit,
    { step }: Experience,
  ): MomentView['splitPoint'] {
    const taken = visit.steps[step];
    if (!taken) return null;
    const snapshot = this.app.shipped(plan);
    const route = snapshot.routes.find((r) => r.pattern === routeAt(visit, step));
    const module =
      'part' in taken
        ? route?.parts.find((p) => p.id === taken.part)?.module
        : 'to' in taken
          ? snapshot.routes.find((r) => r.pattern === taken.to)?.page
          : undefined;
    if (!route || module === undefined) return null;
    const { roots } = compiler.graph;
    const at = graphIndex(snapshot).moduleAt.get(module) ?? -1;
    const isTarget = (root: number) => roots[root].kind !== 'entry' && roots[root].target[0] === at;
    if (!roots.some((_, root) => isTarget(root))) return null;
    const effective = effectivePlan(snapshot, plan);
    // Deferred for another route it may be, yet part of this one's start.
    const landed = followLanding(snapshot, effective, compiler.graph, route).roots;
    if (landed.some(({ root }) => !isTarget(root) && has(roots[root].reach, at))) return null;
    return { module, fetch: momentTrigger(snapshot, effective, route, module, 'part' in taken) };
  }

  private nextSteps(plan: Plan, compiler: VisitCompiler, visit: Visit): NextStep[] {
    const snapshot = this.app.shipped(plan);
    const { model } = this.visitors();
    const pattern = routeAt(visit, visit.steps.length);
    const opened = openedAt(visit, visit.steps.length);
    const here = snapshot.routes.find((r) => r.pattern === pattern);
    if (!here) return [];
    const habits = model.routes.find((r) => r.pattern === pattern);
    const dwellMs = Math.round(habits?.dwell.medianMs ?? 0);
    const acts = here.parts
      .filter((p) => p.place !== 'conditional' && compiler.hasMoment(opened, pattern, p.id))
      .map(
        (p): NextStep => ({
          does: p.place === 'below' ? 'scroll' : 'act',
          part: p.id,
          name: p.name,
          dwellMs,
          leadMs: p.place === 'below' ? 0 : Math.round(model.hesitation.medianMs),
        }),
      );
    const moves = snapshot.routes
      .filter((r) => r.pattern !== pattern)
      .map(
        (r): NextStep => ({
          does: 'move',
          to: r.pattern,
          by: compiler.staysInside(opened, r.pattern) ? 'inside' : 'document',
          linked: here.links.includes(r.pattern),
          dwellMs,
          leadMs: Math.round(model.hesitation.medianMs),
        }),
      );
    return [...acts, ...moves.sort((a, b) => Number('linked' in b && b.linked) - Number('linked' in a && a.linked))];
  }
}

/** Where a visit is before one of its steps. */
function routeAt(visit: Visit, step: number): string {
  let route = visit.landing;
  for (const s of visit.steps.slice(0, step)) if (s.does === 'move' || s.does === 'return') route = s.to;
  return route;
}

/** The route with which the document was opened that a visit is in before one of its steps. */
function openedAt(visit: Visit, step: number): string {
  let opened = visit.landing;
  for (const s of visit.steps.slice(0, step))
    if ((s.does === 'move' && s.by === 'document') || s.does === 'return') opened = s.to;
  return opened;
}

function stuckAt(visit: Visit, { experiences, timeline }: Played): VisitView['stuck'] {
  const last = timeline.moments.at(-1);
  if (timeline.stopped) return { step: last?.step ?? 0, reason: timeline.stopped };
  if (last && !Number.isFinite(last.over)) {
    const reason = Number.isFinite(last.taken)
      ? 'what was asked for never shows'
      : 'the page never takes it: its own script doesn’t run';
    return { step: last.step, reason };
  }
  const played = experiences.length - 1;
  // A return after a deploy is two moments: the deploy, and the return.
  const twice = visit.steps.filter((s) => s.does === 'return' && s.deployed).length;
  return played < visit.steps.length + twice ? { step: played, reason: 'the page before never shows' } : null;
}
