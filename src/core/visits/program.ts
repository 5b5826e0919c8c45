import type { PlannedApp } from '../chunks/planned.ts';
import type { ChunkGraph } from '../chunks/types.ts';
import { InputError } from '../errors.ts';
import { compileWithInteractions } from '../load/compile.ts';
import type { WantedMoments } from '../load/interactions.ts';
import {
  type CompiledStep,
  type LoadProgram,
  leaveInteraction,
  moveInteraction,
  partInteraction,
  type VisitDocument,
  type VisitProgram,
} from '../load/types.ts';
import type { Visit, VisitStep } from './types.ts';

/** How far a visit has been compiled: where the person is, and under which document. */
interface Place {
  documents: VisitDocument[];
  route: string;
  opened: string;
}

/** Compiles visits of one app under one plan; what they share (chunks, documents) is made once. */
export class VisitCompiler {
  private readonly documents = new Map<
    string,
    { program: LoadProgram; interactions: Map<string, number>; main: number }
  >();

  constructor(
    private readonly app: PlannedApp,
    /** For visits that are known ahead: what can happen in each document. */
    private readonly wantedIn?: (pattern: string) => WantedMoments,
  ) {}

  /** The chunks of the app under its plan. */
  get graph(): ChunkGraph {
    return this.app.graph;
  }

  /** The document that a landing on a route opens, with the interactions of all that can happen in it. */
  document(pattern: string): { program: LoadProgram; interactions: ReadonlyMap<string, number>; main: number } {
    let cached = this.documents.get(pattern);
    if (!cached) {
      const program = compileWithInteractions(this.app, pattern, this.wantedIn?.(pattern));
      const interactions = new Map(program.interactions!.map((s, at) => [s.id, at]));
      cached = {
        program,
        interactions,
        main: program.parts.findIndex((p) => p.id === 'page' && p.route === undefined),
      };
      this.documents.set(pattern, cached);
    }
    return cached;
  }

  /** Whether a move between two routes can stay inside the app: one realm whose entry starts all of it. */
  staysInside(from: string, to: string): boolean {
    return this.document(from).interactions.has(moveInteraction(to));
  }

  /** Whether a part of a route has a moment of its own in the document that was opened. */
  hasMoment(opened: string, route: string, part: string): boolean {
    return this.document(opened).interactions.has(partInteraction(route, part));
  }

  /**
   * Compiles a visit. Throws InputError that names the step for a route that the snapshot doesn't have, a part that the
   * route doesn't have at that moment, and a move inside the app where there is no way.
   */
  compile(visit: Visit): VisitProgram {
    const now: Place = { documents: [], route: visit.landing, opened: visit.landing };
    this.open(now, visit.landing, 'landing', 0, visit.holds, 'landing');
    visit.steps.forEach((step, at) => {
      this.compileStep(now, step, at);
    });
    return { documents: now.documents };
  }

  private open(
    now: Place,
    pattern: string,
    begins: VisitDocument['begins'],
    awayMs: number,
    holds: string[],
    at: string,
  ): void {
    now.route = now.opened = this.known(pattern, at);
    const { program, main } = this.document(pattern);
    const conditions = this.holding(pattern, pattern, holds);
    now.documents.push({ program, begins, awayMs, main, conditions, steps: [] });
  }

  private compileStep(now: Place, step: VisitStep, at: number): void {
    const name = `steps[${at}]`;
    const { steps } = now.documents.at(-1)!;
    const plain: CompiledStep = {
      index: at,
      does: 'interaction',
      interaction: -1,
      conditions: [],
      dwellMs: step.dwellMs,
      leadMs: 'leadMs' in step ? step.leadMs : 0,
    };
    switch (step.does) {
      case 'act':
      case 'scroll':
        steps.push({ ...plain, interaction: this.interactionOn(now.opened, now.route, step.part, name) });
        return;
      case 'approach':
        steps.push({ ...plain, does: 'approach', interaction: this.approached(now, step, name) });
        return;
      case 'move':
        this.compileMove(now, step, plain, name);
        return;
      case 'resize':
        steps.push({ ...plain, does: 'resize', size: { width: step.width, height: step.height } });
        return;
      case 'deploy':
        steps.push({ ...plain, does: 'deploy' });
        return;
      case 'return':
        if (step.deployed) steps.push({ ...plain, does: 'deploy' }, { ...plain, does: 'leave', dwellMs: 0 });
        else steps.push({ ...plain, does: 'leave' });
        this.open(now, step.to, 'return', step.awayMs, step.holds, name);
    }
  }

  private approached(now: Place, step: VisitStep & { does: 'approach' }, name: string): number {
    if ('part' in step) return this.interactionOn(now.opened, now.route, step.part, name);
    return this.document(now.opened).interactions.get(moveInteraction(this.known(step.to, name))) ?? -1;
  }

  private compileMove(now: Place, step: VisitStep & { does: 'move' }, plain: CompiledStep, name: string): void {
    this.known(step.to, name);
    const { steps } = now.documents.at(-1)!;
    const { interactions } = this.document(now.opened);
    const interaction = interactions.get(moveInteraction(step.to));
    if (step.by === 'document') {
      steps.push({
        ...plain,
        does: 'leave',
        interaction: interactions.get(leaveInteraction(step.to)) ?? interaction ?? -1,
      });
      this.open(now, step.to, 'link', 0, step.holds, name);
      return;
    }
    if (interaction === undefined)
      throw new InputError(
        'No way inside the app',
        `${now.route} and ${step.to} don't share a document that could show both. Make it a move that opens a document.`,
        name,
      );
    steps.push({ ...plain, interaction, conditions: this.holding(now.opened, step.to, step.holds) });
    now.route = step.to;
  }

  private known(pattern: string, at: string): string {
    if (this.app.snapshot.routes.some((r) => r.pattern === pattern)) return pattern;
    const known = this.app.snapshot.routes.map((r) => r.pattern).join(', ');
    throw new InputError('No such route', `${pattern} is none of: ${known}.`, at);
  }

  private interactionOn(opened: string, route: string, part: string, at: string): number {
    const interaction = this.document(opened).interactions.get(partInteraction(route, part));
    if (interaction !== undefined) return interaction;
    const { parts } = this.app.snapshot.routes.find((r) => r.pattern === route)!;
    const here = parts
      .filter((p) => this.document(opened).interactions.has(partInteraction(route, p.id)))
      .map((p) => p.id);
    const known = parts.some((p) => p.id === part);
    throw new InputError(
      known ? 'Nothing to wait for' : 'No such part',
      known
        ? `${part} stands on the first screen of ${route} from the start.`
        : `${route} has no part ${part} at that moment; it has ${here.length ? here.join(', ') : 'none'}.`,
      at,
    );
  }

  private holding(opened: string, route: string, parts: string[]): number[] {
    const { interactions } = this.document(opened);
    return parts.flatMap((part) => interactions.get(partInteraction(route, part)) ?? []);
  }
}
