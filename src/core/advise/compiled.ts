import { formChunks } from '../chunks/form-chunks.ts';
import type { PlannedApp } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { compileLoad } from '../load/compile.ts';
import { NOTHING_ELSE } from '../load/interactions.ts';
import type { LoadProgram } from '../load/types.ts';
import { effectivePlan } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { VisitorModel } from '../snapshot/visitor-types.ts';
import { wishesOf } from '../visitors/reckon.ts';
import { VisitCompiler } from '../visits/program.ts';

const MOST_GRAPHS = 12;

/** What a plan makes of an app, whatever the conditions: each document compiled once, when it is first asked for. */
export interface Compiled {
  app: PlannedApp;
  snapshot: Snapshot;
  compiler: VisitCompiler;
  /** A landing's program, and a text that is the same for the same program. */
  landing(pattern: string): { program: LoadProgram; key: string };
}

/** Compiles plans of one app; the last one is kept, for the scorers of several conditions. */
export class Compilations {
  private readonly wanted: Map<string, { moves: Set<string>; parts: Set<string> }>;
  private readonly graphs = new Map<string, ChunkGraph>();
  private last: { plan: Plan; compiled: Compiled } | null = null;

  constructor(
    private readonly app: Snapshot,
    model: VisitorModel,
  ) {
    this.wanted = new Map(
      model.routes.map((r) => [r.pattern, { moves: new Set(r.moves.map((m) => m.to)), parts: new Set<string>() }]),
    );
    // A document that a visit's way begins in is the place of all that happens on it.
    for (const { way, kind, to, route } of wishesOf(model).wishes) {
      const from = way === null ? undefined : this.wanted.get(way[0]);
      for (const pattern of from ? way!.slice(1) : []) from!.moves.add(pattern);
      if (kind === 'move') from?.moves.add(to);
      else from?.parts.add(route);
    }
  }

  of(plan: Plan): Compiled {
    if (this.last?.plan !== plan) this.last = { plan, compiled: this.compile(plan) };
    return this.last.compiled;
  }

  private compile(plan: Plan): Compiled {
    const app = this.planned(shipped(this.app, plan).snapshot, plan);
    const compiler = new VisitCompiler(app, (from) => this.wanted.get(from) ?? NOTHING_ELSE);
    const landings = new Map<string, { program: LoadProgram; key: string }>();
    const landing = (pattern: string) => {
      let cached = landings.get(pattern);
      if (!cached) {
        const program = compileLoad(app, pattern);
        cached = { program, key: JSON.stringify(program) };
        landings.set(pattern, cached);
      }
      return cached;
    };
    return { app, snapshot: app.snapshot, compiler, landing };
  }

  /** Hints ask for chunks, they don't shape them. */
  private planned(snapshot: Snapshot, plan: Plan): PlannedApp {
    const effective = effectivePlan(snapshot, plan);
    const key = JSON.stringify(plan.decisions.filter((d) => d.kind !== 'hint' && d.kind !== 'put aside'));
    const cached = this.graphs.get(key) ?? formChunks(snapshot, effective);
    this.graphs.delete(key);
    this.graphs.set(key, cached);
    for (const [oldest] of this.graphs) {
      if (this.graphs.size <= MOST_GRAPHS) break;
      this.graphs.delete(oldest);
    }
    return { snapshot, plan: effective, graph: cached };
  }
}
