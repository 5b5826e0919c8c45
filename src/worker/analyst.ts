import { type Blame, blame } from '../core/advise/blame.ts';
import { type BreakEven, type BreakEvenOver, breakEven } from '../core/advise/break-even.ts';
import type { Remedy, Score } from '../core/advise/types.ts';
import { amend } from '../core/amend/amend.ts';
import { type Amendments, NO_AMENDMENTS } from '../core/amend/types.ts';
import { type CrowdGains, gainsOver } from '../core/choose/gains-over.ts';
import type { HintRow } from '../core/choose/hint-table.ts';
import type { Ahead, Circumstance, MeasuredShares, Wanted } from '../core/choose/types.ts';
import { carriedOverRoutes } from '../core/chunks/carried-rows.ts';
import { planned } from '../core/chunks/planned.ts';
import { type PlanTable, planTable } from '../core/compare/compare.ts';
import { type EarnedTable, earnedBy } from '../core/compare/earned.ts';
import { InputError } from '../core/errors.ts';
import { type GrainPoint, granularity } from '../core/explain/granularity.ts';
import { explainHold, type Hold } from '../core/explain/hold.ts';
import { placementsOf } from '../core/explain/placements.ts';
import { slackOf } from '../core/explain/slack.ts';
import { type SplitWait, waitFor, waitsUnder } from '../core/explain/wait.ts';
import { landingHar } from '../core/formats/landing-har.ts';
import { type PlanFile, writePlanFile } from '../core/formats/plan-file.ts';
import type { FileMap } from '../core/handoff/addresses.ts';
import { type Handoff, handoff } from '../core/handoff/handoff.ts';
import { review } from '../core/handoff/review.ts';
import type { Artefact } from '../core/handoff/types.ts';
import { inventoryOf } from '../core/inventory/inventory.ts';
import { orderNotices } from '../core/inventory/order-notices.ts';
import { type Whereabouts, whereabouts } from '../core/inventory/whereabouts.ts';
import { limitStates, proposeLimits } from '../core/limits/limits.ts';
import type { Limit, LimitState } from '../core/limits/types.ts';
import { type LoadSheet, loadSheet, sheetDifference } from '../core/load-sheet/sheet.ts';
import { believable } from '../core/metrics/range.ts';
import type { Drawn } from '../core/mix/mix.ts';
import { type Outline, outlineOf } from '../core/outline/outline.ts';
import { withDecision } from '../core/plan/decisions.ts';
import type { EffectivePlan } from '../core/plan/effective.ts';
import { BASELINE, type Decision, type Plan } from '../core/plan/types.ts';
import { type Calibration, calibrate } from '../core/recordings/calibrate.ts';
import { readHar } from '../core/recordings/read-har.ts';
import type { Recording } from '../core/recordings/types.ts';
import { shipped, troublesOf } from '../core/ship/shipped.ts';
import { type Conditions, DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import { complete } from '../core/snapshot/complete.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { parseJson } from '../core/text/json.ts';
import type { Learned } from '../core/visitors/learn.ts';
import { modelOf } from '../core/visitors/model.ts';
import type { Variant } from '../core/visitors/reckon.ts';
import type { Visit } from '../core/visits/types.ts';
import { Adviser, type AdviseStep, type ChooseStep, type Help } from './adviser.ts';
import { LandingService } from './landing-service.ts';
import { Measurer } from './measurer.ts';
import { MixService } from './mix-service.ts';
import { keep } from './stepping.ts';
import type {
  AppView,
  ChunkRow,
  Explained,
  FullInventory,
  LandingView,
  MixResult,
  MixWish,
  Preview,
  ScriptView,
} from './views.ts';
import { type ExpectStep, type VisitorsView, VisitService, type VisitView } from './visit-service.ts';

const MOST_TABLES = 8;

/** The computations behind the workbench, on a thread of their own. */
export class Analyst {
  /** As read, and with the person's corrections. */
  private read: Snapshot | null = null;
  private snapshot: Snapshot | null = null;
  private readonly landings = new LandingService((plan) => this.app(plan));
  /** The last compared plans: only the one that is changed is worked out again. */
  private readonly tables = new Map<string, PlanTable>();
  private curves = 0;
  private readonly adviser = new Adviser();
  private readonly measurer = new Measurer();
  private readonly visits = new VisitService((plan) => this.app(plan));
  private readonly mixes = new MixService(
    (plan, route) => this.landings.predicted(plan, route, DEFAULT_CONDITIONS).program,
  );

  /** Fetches a project's snapshot and tells what is in it. */
  async open(address: string): Promise<AppView> {
    const answer = await fetch(address);
    if (!answer.ok) throw new Error(`the snapshot couldn't be loaded (${answer.status})`);
    return this.take((await answer.json()) as Snapshot);
  }

  take(snapshot: Snapshot): AppView {
    this.read = complete(snapshot);
    return this.amend(NO_AMENDMENTS);
  }

  /** Lays a person's corrections over what was read, in place of earlier ones. */
  amend(amendments: Amendments): AppView {
    if (!this.read) throw new InputError('No project open', 'Open a project first.');
    const { snapshot, stale } = amend(this.read, amendments);
    this.snapshot = snapshot;
    this.landings.forget();
    this.tables.clear();
    this.visits.forget();
    this.adviser.forget();
    this.measurer.forget();
    const { name, origin, modules, imports, routes, base, unresolved, failed, output, entries, scripts } = snapshot;
    return {
      name,
      origin,
      modules: modules.length,
      routes,
      realms: entries.filter((e) => e.kind === 'document').map((e) => e.realm),
      base,
      splittable: output === null || output.files.some((f) => f.inside === 'sources'),
      imports: imports.length + unresolved.length,
      lost: unresolved.filter((u) => !u.leftOut).length,
      // A script of unknown size is told by itself.
      failed: failed.filter((f) => !snapshot.scripts.some((s) => s.bytes === null && f.message.includes(s.address)))
        .length,
      unknownSizes: scripts.filter((s) => s.bytes === null).map((s) => s.name),
      stale,
    };
  }

  /** A landing under a plan, with another plan's (the baseline's) behind it, and the decisions that no longer apply. */
  landing(
    plan: Plan,
    route: string,
    conditions: Conditions,
    behind: Plan = BASELINE,
  ): {
    now: LandingView;
    ghost: LandingView;
    stale: EffectivePlan['stale'];
    blocked: EffectivePlan['blocked'];
  } {
    const ghost = this.landings.view(behind, route, conditions);
    const same = plan.decisions.length === 0 && behind.decisions.length === 0;
    return { now: same ? ghost : this.landings.view(plan, route, conditions), ghost, ...troublesOf(this.app(), plan) };
  }

  /** What a route's start, or the load group of a split point within it, is made of. */
  outline(plan: Plan, route: string, within: string | null): Outline {
    return outlineOf(this.app(plan), plan, route, within);
  }

  /** The wait for a split point on a route, before and after decisions; null where nobody would wait for it. */
  waits(
    plan: Plan,
    decisions: Decision[],
    route: string,
    target: string,
    conditions: Conditions,
  ): { before: SplitWait | null; after: SplitWait | null } {
    const next = decisions.reduce(withDecision, plan);
    return {
      before: waitFor(this.app(plan), plan, route, target, conditions),
      after: waitFor(this.app(next), next, route, target, conditions),
    };
  }

  /** What every route's start is made of. */
  inventory(plan: Plan, conditions: Conditions): FullInventory {
    const { unresolved, failed, notices, output } = this.app();
    const inside = output?.files.filter((f) => f.inside === 'names') ?? [];
    const named = inside.map(({ path, bytes, contents }) => ({ path, bytes: bytes.minified, contents }));
    return {
      ...inventoryOf(this.app(plan), plan, conditions),
      unresolved,
      failed,
      notices: [...notices, ...orderNotices(this.app(plan), plan)],
      named,
    };
  }

  /** What arrives for each moment, and in which of it the plan differs from the baseline. */
  loadSheet(plan: Plan, conditions: Conditions): { sheet: LoadSheet; changed: { rows: string[]; columns: string[] } } {
    const sheet = loadSheet(this.app(plan), plan, conditions);
    if (plan.decisions.length === 0) return { sheet, changed: { rows: [], columns: [] } };
    const { rows, columns } = sheetDifference(sheet, loadSheet(this.app(), BASELINE, conditions));
    return { sheet, changed: { rows: [...rows], columns: [...columns] } };
  }

  /** Where a module is, and the import paths that put it there. */
  whereabouts(plan: Plan, path: string): Whereabouts | null {
    return whereabouts(this.app(plan), plan, path);
  }

  /** What a decision would change, without making it. */
  preview(plan: Plan, decisions: Decision[], route: string, conditions: Conditions): Preview {
    const before = this.landings.predicted(plan, route, conditions).reading;
    const after = this.landings.predicted(decisions.reduce(withDecision, plan), route, conditions).reading;
    return { before, after };
  }

  /** What of a piece of code leaves the start by decisions, what stays and who keeps it, and the wait for it later. */
  explain(
    plan: Plan,
    decisions: Decision[],
    pattern: string,
    target: string,
    conditions: Conditions,
  ): Explained | null {
    const route = this.app().routes.find((r) => r.pattern === pattern);
    const hold = route && explainHold(this.app(plan), plan, decisions, route, target);
    if (!hold) return null;
    const after = decisions.reduce(withDecision, plan);
    const [first] = decisions;
    const from = first && 'import' in first ? first.import.split('::')[0] : null;
    const over = from === null ? null : carriedOverRoutes(this.app(plan), plan, { from, to: target });
    const tried = [conditions, ...believable(conditions)];
    const [wait, low, high] = waitsUnder(this.app(after), after, pattern, target, tried);
    const waitRange: Explained['waitRange'] = low == null || high == null ? null : [low.wait, high.wait];
    return { hold: { ...hold, cut: this.freeing(after, hold.cut, pattern, conditions) }, wait, waitRange, over };
  }

  /** Further detachments with what the start really loses by them: what its first screen needs, it asks for all the same. */
  private freeing(plan: Plan, cut: Hold['cut'], route: string, conditions: Conditions): Explained['hold']['cut'] {
    if (!cut) return null;
    const { before, after } = this.preview(plan, cut.decisions, route, conditions);
    const gain = before.readout.startBytes - after.readout.startBytes;
    return gain > 0 ? { ...cut, gain } : null;
  }

  /**
   * Landings of a plan and of the baseline over a mix of visitors, drawn from one seed. Done in steps, `from` the visits
   * that are there already, so that other questions are answered in between; the last step has `drawn` = all.
   */
  mix(plan: Plan, route: string, wish: MixWish, from: number): MixResult {
    return this.mixes.besideBaseline(plan, route, wish, from);
  }

  /** The people who come, complete, and what of what is said of them doesn't fit. */
  visitors(): VisitorsView {
    return this.visits.visitors();
  }

  /** A visit as the habits of visitors suggest. */
  typicalVisit(plan: Plan, landing: string): Visit {
    return this.visits.typical(plan, landing);
  }

  /** A visit, moment by moment, with the baseline's waits. */
  playVisit(plan: Plan, visit: Visit, conditions: Conditions): VisitView {
    return this.visits.play(plan, visit, conditions);
  }

  /** The wait of one step of a visit by the lead that its approach gives. */
  waitsByLead(plan: Plan, visit: Visit, step: number, conditions: Conditions): { lead: number; wait: number }[] {
    return this.visits.byLead(plan, visit, step, conditions);
  }

  /** What visitors can expect under a plan, a little further with every call. */
  expect(plan: Plan, variants: Variant[]): ExpectStep {
    return this.visits.expect(plan, variants);
  }

  /** What a navigation log says of the visitors. */
  learnVisitors(file: File, progress: (bytes: number, lines: number) => void): Promise<Learned> {
    return this.visits.learn(file, progress);
  }

  /** What one import costs the visitors. */
  blame(plan: Plan, importKey: string, conditions: Conditions): Blame {
    return blame(this.app(), plan, importKey, modelOf(this.app()).model, conditions);
  }

  /** Changes chosen together, a little further with every call; `begin` starts afresh. */
  choose(
    plan: Plan,
    circumstances: Circumstance[],
    wanted: Wanted,
    begin: boolean,
    help?: Help<MeasuredShares>,
  ): ChooseStep {
    return this.adviser.choose(this.app(), plan, circumstances, wanted, begin, help);
  }

  /** A part of a choice that another analyst makes; `run` names it. */
  helpChoose(wanted: Wanted, ahead: Ahead, run: string): MeasuredShares {
    return this.measurer.shares(this.app(), wanted, ahead, run);
  }

  /** Every hint that a plan has or could have, a little further with every call; null until all are measured. */
  hints(plan: Plan, conditions: Conditions): { done: number; of: number; rows: HintRow[] | null } {
    return this.adviser.hints(this.app(), plan, conditions);
  }

  /** What a change saves by the share of use, the hesitation or the rate of the link. */
  breakEven(plan: Plan, remedy: Remedy, conditions: Conditions, over: BreakEvenOver): BreakEven | null {
    return breakEven(this.app(), plan, remedy, modelOf(this.app()).model, conditions, over);
  }

  /** What a change saves the visitors of each of several sets of conditions. */
  gainOver(plan: Plan, remedy: Remedy, crowds: Circumstance[]): CrowdGains {
    return gainsOver(this.app(), plan, [remedy], modelOf(this.app()).model, crowds)[0];
  }

  /** Measured advice for a plan, a little further with every call; null until it is there. */
  advise(plan: Plan, conditions: Conditions, help?: Help<(Score | undefined)[]>): AdviseStep {
    return this.adviser.step(this.app(), plan, conditions, help);
  }

  /** A part of the advice that another analyst works out; `run` names it. */
  helpAdvise(plans: Plan[], conditions: Conditions, run: string): Score[] {
    return this.measurer.scores(this.app(), plans, conditions, run);
  }

  /** The same over several plans. */
  mixOver(plans: Plan[], route: string, wish: MixWish, from: number): { plans: Drawn[][]; drawn: number } {
    return this.mixes.several(plans, route, wish, from);
  }

  /** Every landing and action of a plan under several conditions. */
  table(plan: Plan, conditions: Conditions[]): PlanTable {
    const key = JSON.stringify([plan.decisions, conditions]);
    const table = this.tables.get(key) ?? planTable(this.app(), plan, conditions);
    return keep(this.tables, key, table, MOST_TABLES);
  }

  /** Which decision of a plan earned what on a landing. */
  earned(plan: Plan, route: string, conditions: Conditions): EarnedTable {
    return earnedBy(this.app(), plan, route, conditions);
  }

  /** How limits stand under a plan. */
  limits(plan: Plan, limits: Limit[]): LimitState[] {
    return limitStates(this.app(), limits, [], plan);
  }

  /** Limits that a plan keeps at present, with some slack. */
  proposeLimits(plan: Plan, conditions: Conditions, slack: number): Limit[] {
    return proposeLimits(this.app(), plan, conditions, slack);
  }

  /** What a plan gives to the app and its server. */
  handoff(plan: Plan, files: FileMap | null): Handoff {
    return handoff(this.app(), plan, files);
  }

  /** What a review gets of a plan. */
  review(plan: Plan, conditions: Conditions): Artefact[] {
    return review(this.app(), plan, conditions);
  }

  /** A plan by itself, as a file to send. */
  planFile(plan: Plan): string {
    return writePlanFile(this.app(), plan);
  }

  /** Which decisions of a plan that was sent don't apply here, and whether it was made for this app as it is. */
  fits(plan: Plan, { name, modules, imports }: PlanFile['app']): { stale: string[]; same: boolean } {
    const app = this.app();
    const same = app.name === name && app.modules.length === modules && app.imports.length === imports;
    return { stale: troublesOf(app, plan).stale.map((s) => s.reason), same };
  }

  /** A recorded load, read off an HTTP Archive. */
  readRecording(text: string, fileName: string): Recording {
    return readHar(parseJson(text, fileName), fileName);
  }

  /** The predicted landing as an HTTP Archive. */
  har(plan: Plan, route: string, conditions: Conditions, startedAt: string): string {
    return landingHar(this.app().name, route, this.landings.predicted(plan, route, conditions), conditions, startedAt);
  }

  /** What a recorded load event says about the cost of evaluating script. */
  calibrate(plan: Plan, route: string, conditions: Conditions, load: number): Calibration {
    return calibrate(this.landings.predicted(plan, route, conditions).program, conditions, load);
  }

  /** How much later a request's answer could begin without moving the interactive moment, in ms. */
  slack(plan: Plan, route: string, conditions: Conditions, address: string): number | null {
    const { program } = this.landings.predicted(plan, route, conditions);
    const resource = program.resources.findIndex((r) => r.address === address);
    return resource < 0 ? null : slackOf(program, conditions, resource);
  }

  /** Start time and bytes from a file per module to one file. Other questions are answered between its points. */
  async granularity(plan: Plan, route: string, conditions: Conditions): Promise<GrainPoint[]> {
    const points: GrainPoint[] = [];
    const mine = ++this.curves;
    for (const point of granularity(this.app(plan), plan, route, conditions)) {
      points.push(point);
      await new Promise((go) => setTimeout(go));
      // Asked again meanwhile: nobody waits for this one.
      if (mine !== this.curves) break;
    }
    return points;
  }

  /** The classic scripts of the documents, each with all its placements on a route. */
  scripts(plan: Plan, route: string, conditions: Conditions): ScriptView[] {
    return this.app().scripts.map((script) => ({
      script,
      placed: placementsOf(this.app(plan), plan, script.id, route, conditions),
    }));
  }

  /** The chunks that a plan makes of the entry that a route belongs to, the largest first. */
  chunks(plan: Plan, route: string): ChunkRow[] {
    const { realm } = this.app().routes.find((r) => r.pattern === route) ?? { realm: '' };
    const graph = planned(this.app(plan), plan).graph;
    return graph.chunks
      .filter((c) => c.realm === realm)
      .map(({ id, name, kind, bytes, modules, roots, file }) => ({
        id,
        name,
        kind,
        compressed: bytes.gzip,
        modules: modules.length,
        neededBy: roots.length,
        real: file ?? null,
      }))
      .sort((a, b) => b.compressed - a.compressed);
  }

  /** The app as corrected; with a plan, as that plan ships it. */
  private app(plan?: Plan): Snapshot {
    if (!this.snapshot) throw new InputError('No project open', 'Open a project first.');
    return plan ? shipped(this.snapshot, plan).snapshot : this.snapshot;
  }
}
