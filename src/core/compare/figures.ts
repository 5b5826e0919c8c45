import { formChunks } from '../chunks/form-chunks.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { compileLoad } from '../load/compile.ts';
import type { LoadProgram } from '../load/types.ts';
import { type Reading, readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Part, Snapshot } from '../snapshot/types.ts';
import type { ActionFigures, LandingFigures } from './measures.ts';

/** How long after the page has come to rest the person acts. */
const REST_MS = 1000;

/** Figures of landings and actions under one plan. Chunks are formed once, and each load is compiled once. */
export class PlanFigures {
  private readonly app: Snapshot;
  private readonly graph: ChunkGraph;
  private readonly programs = new Map<string, LoadProgram>();
  private readonly readings = new Map<string, Reading>();

  constructor(
    snapshot: Snapshot,
    private readonly plan: Plan,
  ) {
    this.app = shipped(snapshot, plan).snapshot;
    this.graph = formChunks(this.app, plan);
  }

  landing(route: string, conditions: Conditions): LandingFigures {
    const { milestones, readout } = this.reading(route, conditions);
    return {
      'first content': milestones.firstContent,
      'first screen': milestones.firstScreenComplete,
      interactive: milestones.interactive,
      quiet: milestones.timeToInteractive,
      'start bytes': readout.startBytes,
      requests: readout.requests,
      hops: readout.hops,
      blocked: readout.blocked,
      'unused bytes': readout.unusedAtStart,
      'wasted bytes': readout.wasted,
    };
  }

  /**
   * An action on a route, once the landing has come to rest: ms until its code has run, and what is fetched for it. All
   * zero where the landing brings that code by itself; null where the route has no part behind that action.
   */
  action(route: string, part: string, conditions: Conditions): ActionFigures | null {
    const found = actionsOf(this.app, route).find((p) => p.id === part);
    if (!found) return null;
    const { milestones } = this.reading(route, conditions);
    const rest = [milestones.timeToInteractive, milestones.interactive].filter(Number.isFinite);
    const atMs = Math.max(0, ...rest) + REST_MS;
    const program = compileLoad(this.app, this.plan, this.graph, route, [{ target: found.module, atMs }]);
    const timeline = simulate(program, conditions);
    const [step] = timeline.steps;
    if (!step) return { wait: 0, bytes: 0, requests: 0, hops: 0 };
    const asked = timeline.requests.filter((r) => r.discovered >= atMs);
    return {
      wait: step.ready - step.at,
      bytes: asked.reduce((sum, r) => sum + r.bytes, 0),
      requests: asked.length,
      hops: new Set(asked.map((r) => r.hop)).size,
    };
  }

  private reading(route: string, conditions: Conditions): Reading {
    const key = `${route} ${JSON.stringify(conditions)}`;
    let reading = this.readings.get(key);
    if (!reading) {
      const program = this.program(route);
      reading = readTimeline(program, simulate(program, conditions), conditions);
      this.readings.set(key, reading);
    }
    return reading;
  }

  private program(route: string): LoadProgram {
    let program = this.programs.get(route);
    if (!program) {
      program = compileLoad(this.app, this.plan, this.graph, route);
      this.programs.set(route, program);
    }
    return program;
  }
}

/** The parts of a route that stand behind an action. */
export function actionsOf(snapshot: Snapshot, pattern: string): Part[] {
  const route = snapshot.routes.find((r) => r.pattern === pattern);
  return route?.parts.filter((p) => p.place === 'action') ?? [];
}
