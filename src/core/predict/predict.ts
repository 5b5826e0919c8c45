import { planned } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { compileLoad } from '../load/compile.ts';
import type { LoadProgram } from '../load/types.ts';
import { basisOf, type ThreadBasis } from '../metrics/basis.ts';
import { type ChainLink, criticalChain } from '../metrics/critical-chain.ts';
import { type LossSpread, lossSpread, withSeed } from '../metrics/loss-spread.ts';
import { filesBound, lowerBound } from '../metrics/lower-bound.ts';
import { type Reading, readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Timeline } from '../sim/types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** Everything known about one landing under one plan and one set of conditions. */
export interface Prediction {
  graph: ChunkGraph;
  program: LoadProgram;
  timeline: Timeline;
  reading: Reading;
  /** Where the link loses packets at random: what becomes of many loads; the timeline is that of the one in the middle. */
  spread: LossSpread | null;
  /** What leads to interactive; adds up to it. */
  chain: ChainLink[];
  /** What the thread’s share of it rests on. */
  basis: ThreadBasis;
  /** What no plan can beat, in ms until interactive. */
  lowerBound: number;
  /** What no hint or order can beat with the files of this plan. */
  filesBound: number;
}

/** The whole pipeline for one landing: form chunks, compile the load, simulate it, read it off. */
export function predict(snapshot: Snapshot, plan: Plan, route: string, given: Conditions): Prediction {
  const app = planned(snapshot, plan);
  const program = compileLoad(app, route);
  const spread = lossSpread(program, given);
  const conditions = spread ? withSeed(given, spread.seed) : given;
  const timeline = simulate(program, conditions);
  const reading = readTimeline(program, timeline, conditions);
  const chain = criticalChain(
    timeline,
    reading.causes.interactive,
    reading.milestones.interactive,
    conditions.link.rttMs,
  );
  const landed = snapshot.routes.find((r) => r.pattern === route)!;
  return {
    graph: app.graph,
    program,
    timeline,
    reading,
    spread,
    chain,
    basis: basisOf(program, timeline, conditions, reading.milestones.interactive),
    lowerBound: lowerBound(snapshot, landed, conditions),
    filesBound: filesBound(program, timeline, conditions),
  };
}
