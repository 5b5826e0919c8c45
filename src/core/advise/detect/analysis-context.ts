import { type Start, type Starts, startsOf } from '../../inventory/starts.ts';
import type { Plan } from '../../plan/types.ts';
import type { Prediction } from '../../predict/predict.ts';
import { predict } from '../../predict/predict.ts';
import type { Conditions } from '../../sim/conditions.ts';
import { type GraphIndex, graphIndex } from '../../snapshot/graph-index.ts';
import type { Snapshot } from '../../snapshot/types.ts';
import type { Evidence } from '../types.ts';

/** What candidates are founded on: an app as a plan ships it, its starts, and predictions of its landings. */
export class AnalysisContext {
  readonly starts: Starts;
  readonly index: GraphIndex;
  private readonly predictions = new Map<string, Prediction>();

  constructor(
    readonly snapshot: Snapshot,
    readonly plan: Plan,
    readonly conditions: Conditions,
  ) {
    this.starts = startsOf(snapshot, plan);
    this.index = graphIndex(snapshot);
  }

  prediction(pattern: string): Prediction {
    let cached = this.predictions.get(pattern);
    if (!cached) {
      cached = predict(this.snapshot, this.plan, pattern, this.conditions);
      this.predictions.set(pattern, cached);
    }
    return cached;
  }

  module(path: string): number {
    return this.index.moduleAt.get(path) ?? -1;
  }

  /** Imports of a module that are made in a start and not deferred. */
  importersIn(start: Start, module: number): Evidence[] {
    const { imports, modules } = this.snapshot;
    const found: Evidence[] = [];
    for (let e = this.index.inStart[module]; e < this.index.inStart[module + 1]; e++) {
      const i = this.index.incoming[e];
      if (this.starts.plan.deferred[i] || !start.modules.has(imports[i].from)) continue;
      found.push({ from: modules[imports[i].from].path, to: modules[module].path, line: imports[i].line });
    }
    return found;
  }

  /** The first import of each of some modules by one that isn't among them, in order of the modules. */
  bringing(modules: readonly number[]): Evidence[] {
    const { imports, modules: all } = this.snapshot;
    const own = new Set(modules);
    return modules.flatMap((module) => {
      for (let e = this.index.inStart[module]; e < this.index.inStart[module + 1]; e++) {
        const { from, line } = imports[this.index.incoming[e]];
        if (!own.has(from)) return [{ from: all[from].path, to: all[module].path, line }];
      }
      return [];
    });
  }

  /** Deferred imports that lead to a module, with their keys. */
  deferredTo(module: number): { key: number; evidence: Evidence }[] {
    const { imports, modules } = this.snapshot;
    const found: { key: number; evidence: Evidence }[] = [];
    for (let e = this.index.inStart[module]; e < this.index.inStart[module + 1]; e++) {
      const i = this.index.incoming[e];
      if (!this.starts.plan.deferred[i]) continue;
      found.push({
        key: i,
        evidence: { from: modules[imports[i].from].path, to: modules[module].path, line: imports[i].line },
      });
    }
    return found;
  }
}
