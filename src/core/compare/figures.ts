import type { PlannedApp } from '../chunks/planned.ts';
import { planned } from '../chunks/planned.ts';
import { compileLoad } from '../load/compile.ts';
import { NOTHING_ELSE } from '../load/interactions.ts';
import type { LoadProgram } from '../load/types.ts';
import { lossSpread, withSeed } from '../metrics/loss-spread.ts';
import { type Reading, readTimeline } from '../metrics/readout.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import type { Part } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { partWait } from '../visitors/part-wait.ts';
import { VisitCompiler } from '../visits/program.ts';
import type { ActionFigures, LandingFigures } from '../vocabulary/measures.ts';

/** Figures of landings and actions under one plan. Chunks are formed once, and each load is compiled once. */
export class PlanFigures {
  private readonly app: PlannedApp;
  private readonly compiler: VisitCompiler;
  private readonly programs = new Map<string, LoadProgram>();
  private readonly readings = new Map<string, Reading>();

  constructor(snapshot: Snapshot, plan: Plan) {
    this.app = planned(shipped(snapshot, plan).snapshot, plan);
    this.compiler = new VisitCompiler(this.app, () => NOTHING_ELSE);
  }

  landing(route: string, conditions: Conditions): LandingFigures {
    const { milestones, readout } = this.reading(route, conditions);
    return {
      'first content': milestones.firstContent,
      'largest content': milestones.largestContent,
      'first screen': milestones.firstScreenComplete,
      interactive: milestones.interactive,
      'time to interactive': milestones.timeToInteractive,
      'start bytes': readout.startBytes,
      'other scripts': readout.otherScripts,
      'also fetched': readout.alsoFetched,
      requests: readout.requests,
      hops: readout.hops,
      blocked: readout.blocked,
      'unused bytes': readout.unusedAtStart,
      'wasted bytes': readout.wasted,
    };
  }

  /**
   * An action on a route, as the first thing that somebody does there, without an approach: see partWait. Null where the
   * route has no part behind that action, or nothing can bring it.
   */
  action(route: string, part: string, conditions: Conditions): ActionFigures | null {
    const found = actionsOf(this.app.snapshot, route).find((p) => p.id === part);
    const wait = found && partWait(this.compiler, this.app.snapshot, route, found, conditions);
    if (!wait) return null;
    return {
      wait: wait.wait,
      'until complete': wait.complete,
      bytes: wait.bytes,
      requests: wait.requests,
      hops: wait.hops,
    };
  }

  private reading(route: string, conditions: Conditions): Reading {
    const key = `${route} ${JSON.stringify(conditions)}`;
    let reading = this.readings.get(key);
    if (!reading) {
      const program = this.program(route);
      const spread = lossSpread(program, conditions);
      const under = spread ? withSeed(conditions, spread.seed) : conditions;
      reading = readTimeline(program, simulate(program, under), under);
      this.readings.set(key, reading);
    }
    return reading;
  }

  private program(route: string): LoadProgram {
    let program = this.programs.get(route);
    if (!program) {
      program = compileLoad(this.app, route);
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
