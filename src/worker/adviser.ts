import { advise } from '../core/advise/advise.ts';
import type { Advice } from '../core/advise/types.ts';
import type { Plan } from '../core/plan/types.ts';
import type { Conditions } from '../core/sim/conditions.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { modelOf } from '../core/visitors/model.ts';

/** One call works about so long, so that other questions are answered in between. */
const STEP_MS = 25;
const MOST_KNOWN = 6;

/** Works out advice in steps, and remembers the last ones. */
export class Adviser {
  private readonly known = new Map<string, Advice>();
  private running: { key: string; steps: ReturnType<typeof advise> } | null = null;

  forget(): void {
    this.known.clear();
    this.running = null;
  }

  step(app: Snapshot, plan: Plan, conditions: Conditions): { done: number; of: number; advice: Advice | null } {
    // What was put aside changes nothing that is measured.
    const decisions = plan.decisions.filter((d) => d.kind !== 'put aside');
    const key = JSON.stringify([decisions, conditions]);
    const known = this.known.get(key);
    if (known) return { done: 1, of: 1, advice: known };
    if (this.running?.key !== key)
      this.running = { key, steps: advise(app, { ...plan, decisions }, modelOf(app).model, conditions) };
    const until = performance.now() + STEP_MS;
    for (;;) {
      const step = this.running.steps.next();
      if (step.done) {
        this.running = null;
        this.known.set(key, step.value);
        for (const [oldest] of this.known) {
          if (this.known.size <= MOST_KNOWN) break;
          this.known.delete(oldest);
        }
        return { done: 1, of: 1, advice: step.value };
      }
      if (performance.now() >= until) return { ...step.value, advice: null };
    }
  }
}
