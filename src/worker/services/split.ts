import { type Blame, blame } from '../../core/advise/blame.ts';
import { carriedOverRoutes } from '../../core/chunks/carried-rows.ts';
import { planned } from '../../core/chunks/planned.ts';
import { type GrainPoint, granularity } from '../../core/explain/granularity.ts';
import { explainHold, type Hold } from '../../core/explain/hold.ts';
import { placementsOf } from '../../core/explain/placements.ts';
import { type SplitWait, waitFor, waitsUnder } from '../../core/explain/wait.ts';
import { believable } from '../../core/metrics/range.ts';
import { weightPicture } from '../../core/outline/blocks/picture.ts';
import { type Outline, outlineOf } from '../../core/outline/outline.ts';
import { withDecision } from '../../core/plan/decisions.ts';
import { type Decision, type Plan } from '../../core/plan/types.ts';
import { type Conditions } from '../../core/sim/conditions.ts';
import { modelOf } from '../../core/visitors/model.ts';
import type { ChunkRow, Explained, Preview, ScriptView, SplitPicture } from '../views.ts';
import { HeldApp } from './held-app.ts';
import { Predictions } from './predictions.ts';

/** Of split points that begin with what is tried, so many are told the wait for. */
const MOST_WAITS = 3;

/** What the Split station asks: what a start is made of, and what other cuts would do. */
export class SplitService {
  private curves = 0;

  constructor(
    private readonly app: HeldApp,
    private readonly predictions: Predictions,
  ) {}

  /** What a route's start, or the load group of a split point within it, is made of. */
  outline(plan: Plan, route: string, within: string | null): Outline {
    return outlineOf(this.app.shipped(plan), plan, route, within);
  }

  /**
   * A route as blocks by weight, and (with another plan that is tried) where each goes, with the wait for each split point that begins with it. `open`:
   * what is taken apart, as in weightPicture.
   */
  picture(plan: Plan, tried: Plan | null, route: string, conditions: Conditions, open: string[]): SplitPicture {
    const next = tried && { app: this.app.shipped(tried), plan: tried };
    const picture = weightPicture({ app: this.app.shipped(plan), plan }, route, next, new Set(open));
    const begun = next ? picture.bands.filter((b) => b.isNew && !b.onLanding).slice(0, MOST_WAITS) : [];
    const waits = begun.flatMap(({ id }) => {
      const wait = waitFor(next!.app, next!.plan, route, id, conditions);
      return wait ? [{ id, ...wait }] : [];
    });
    return { picture, waits };
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
      before: waitFor(this.app.shipped(plan), plan, route, target, conditions),
      after: waitFor(this.app.shipped(next), next, route, target, conditions),
    };
  }

  /** What a decision would change, without making it. */
  preview(plan: Plan, decisions: Decision[], route: string, conditions: Conditions): Preview {
    const before = this.predictions.predicted(plan, route, conditions).reading;
    const after = this.predictions.predicted(decisions.reduce(withDecision, plan), route, conditions).reading;
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
    const route = this.app.get().routes.find((r) => r.pattern === pattern);
    const hold = route && explainHold(this.app.shipped(plan), plan, decisions, route, target);
    if (!hold) return null;
    const after = decisions.reduce(withDecision, plan);
    const [first] = decisions;
    const from = first && 'import' in first ? first.import.split('::')[0] : null;
    const over = from === null ? null : carriedOverRoutes(this.app.shipped(plan), plan, { from, to: target });
    const tried = [conditions, ...believable(conditions)];
    const [wait, low, high] = waitsUnder(this.app.shipped(after), after, pattern, target, tried);
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

  /** What one import costs the visitors. */
  blame(plan: Plan, importKey: string, conditions: Conditions): Blame {
    return blame(this.app.get(), plan, importKey, modelOf(this.app.get()).model, conditions);
  }

  /** Start time and bytes from a file per module to one file. Other questions are answered between its points. */
  async granularity(plan: Plan, route: string, conditions: Conditions): Promise<GrainPoint[]> {
    const points: GrainPoint[] = [];
    const mine = ++this.curves;
    for (const point of granularity(this.app.shipped(plan), plan, route, conditions)) {
      points.push(point);
      await new Promise((go) => setTimeout(go));
      // Asked again meanwhile: nobody waits for this one.
      if (mine !== this.curves) break;
    }
    return points;
  }

  /** The classic scripts of the documents, each with all its placements on a route. */
  scripts(plan: Plan, route: string, conditions: Conditions): ScriptView[] {
    return this.app.get().scripts.map((script) => ({
      script,
      placed: placementsOf(this.app.shipped(plan), plan, script.id, route, conditions),
    }));
  }

  /** The chunks that a plan makes of the entry that a route belongs to, the largest first. */
  chunks(plan: Plan, route: string): ChunkRow[] {
    const { realm } = this.app.get().routes.find((r) => r.pattern === route) ?? { realm: '' };
    const graph = planned(this.app.shipped(plan), plan).graph;
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
}
