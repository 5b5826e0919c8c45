import { splitPointsOf } from '../../core/chunks/split-points.ts';
import type { Chunk } from '../../core/chunks/types.ts';
import { earlyInput } from '../../core/metrics/early-input.ts';
import { rangeOf } from '../../core/metrics/range.ts';
import type { Plan } from '../../core/plan/types.ts';
import { type Prediction, predict } from '../../core/predict/predict.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { triggerWords } from '../../core/vocabulary/triggers.ts';
import { keep } from '../stepping.ts';
import type { ChunkContents, LandingView } from '../views.ts';
import { HeldApp } from './held-app.ts';

const HEAVIEST = 6;
const MOST_KNOWN = 6;

/** Parts of the first screen that are never there, in words. */
export function missingParts({ program, reading }: Pick<Prediction, 'program' | 'reading'>): LandingView['missing'] {
  return reading.missing.map(({ part, state }) => {
    const { name, held } = program.parts[part];
    return { name, state, waits: held ? triggerWords(held) : null };
  });
}

function earlyInputIn({ program, timeline }: Prediction): LandingView['earlyInput'] {
  const found = earlyInput(program, timeline);
  return found && { name: program.parts[found.part].name, waitMs: found.waitMs };
}

/** Predicts landings, and makes of them what the interface shows. */
export class Predictions {
  /** The last predictions, by what was asked; strip, previews and baseline share them. */
  private readonly cache = new Map<string, Prediction>();
  private readonly ranges = new WeakMap<Prediction, LandingView['range']>();

  constructor(private readonly app: HeldApp) {
    app.onChange(() => this.cache.clear());
  }

  predicted(plan: Plan, route: string, conditions: Conditions): Prediction {
    const key = JSON.stringify([plan.decisions, route, conditions]);
    const made = this.cache.get(key) ?? predict(this.app.shipped(plan), plan, route, conditions);
    return keep(this.cache, key, made, MOST_KNOWN);
  }

  view(plan: Plan, route: string, conditions: Conditions): LandingView {
    const made = this.predicted(plan, route, conditions);
    return {
      timeline: made.timeline,
      parts: made.program.parts,
      milestones: made.reading.milestones,
      readout: made.reading.readout,
      sums: made.reading.sums,
      largest: made.reading.largest,
      missing: missingParts(made),
      unknown: made.reading.unknown,
      chain: made.chain,
      basis: made.basis,
      lowerBound: made.lowerBound,
      filesBound: made.filesBound,
      // Where packets are lost at random, chance decides more than what script costs.
      range: made.spread ? null : this.rangeOf(made, conditions),
      earlyInput: earlyInputIn(made),
      nineInTen: made.spread?.p90 ?? null,
      contents: made.timeline.requests.map((r) => this.contentsOf(made, r.resource)),
      brings: made.timeline.requests.map((r) => this.bringsOf(made, r.resource)),
    };
  }

  /** Worked out once per prediction: it takes two more simulations. */
  private rangeOf(made: Prediction, conditions: Conditions): LandingView['range'] {
    let range = this.ranges.get(made);
    if (range === undefined) {
      range = rangeOf(made.program, conditions);
      this.ranges.set(made, range);
    }
    return range;
  }

  private bringsOf({ program, graph }: Prediction, resource: number): LandingView['brings'][number] {
    const chunk = resource < 0 ? undefined : program.resources[resource].chunk;
    if (chunk === undefined) return null;
    return { chunk: graph.chunks[chunk].id, splitPoints: splitPointsOf(this.app.get(), graph, chunk) };
  }

  private contentsOf({ program, graph }: Prediction, resource: number): ChunkContents | null {
    const chunk = resource < 0 ? undefined : program.resources[resource].chunk;
    return chunk === undefined ? null : this.heaviest(graph.chunks[chunk]);
  }

  private heaviest(chunk: Chunk): ChunkContents {
    const modules = this.modulesIn(chunk);
    return { modules: modules.slice(0, HEAVIEST), count: modules.length };
  }

  /** All modules that a file of a landing holds, the heaviest first; none for what is no chunk of the app. */
  modulesOf(plan: Plan, route: string, conditions: Conditions, address: string): ChunkContents['modules'] {
    const { program, graph } = this.predicted(plan, route, conditions);
    const chunk = program.resources.find((r) => r.address === address)?.chunk;
    return chunk === undefined ? [] : this.modulesIn(graph.chunks[chunk]);
  }

  private modulesIn(chunk: Chunk): ChunkContents['modules'] {
    const { modules } = this.app.get();
    return chunk.modules
      .map((m) => ({ path: modules[m].path, minified: modules[m].bytes.minified }))
      .sort((a, b) => b.minified - a.minified);
  }
}
