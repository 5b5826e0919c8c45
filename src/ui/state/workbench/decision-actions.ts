import type { Remedy } from '../../../core/advise/types.ts';
import { freePlanName } from '../../../core/formats/plan-file.ts';
import { decisionWords, planWith } from '../../../core/plan/decisions.ts';
import { BASELINE } from '../../../core/plan/types.ts';
import type { AmendmentSaver } from './amendment-saver.ts';
import { type Bench, storedPlan } from './bench.ts';
import { taken, takenAgain, takenBack } from './history.ts';
import { telling } from './notices.ts';
import type { PlanSaver } from './plan-saver.ts';
import type { Step, Workbench } from './types.ts';

/** What a plan is called that nobody has named. */
const FIRST_PLAN = 'Plan';

type Actions = Pick<Workbench, 'decide' | 'withdraw' | 'take' | 'amend' | 'undo' | 'redo'>;

/** What is decided and corrected, step by step, and taken back. */
export function decisionActions(bench: Bench, plans: PlanSaver, amendments: AmendmentSaver): Actions {
  const { get, set } = bench;

  const beginning = planBeginner(bench);

  const change = (remedy: Remedy) => {
    const begun = beginning.running();
    if (begun) {
      void begun.then(() => change(remedy));
      return;
    }
    const plan = storedPlan(get());
    if (!plan) return beginning.begin(remedy);
    const { decisions: after } = planWith(plan, remedy);
    set(taken(get(), { of: 'plan', words: remedy.words, before: plan.decisions, after }));
    plans.change(after);
  };

  const go = (step: Step, to: 'before' | 'after') => {
    switch (step.of) {
      case 'plan':
        plans.change(step[to]);
        return;
      case 'reading':
        amendments.change(step[to]);
        return;
      case 'description':
        plans.describe(step.planId, step[to]).catch((error: Error) => set(telling(get(), error.message)));
    }
  };

  return {
    decide(decisions, words) {
      change({ words: words ?? decisions.map(decisionWords).join(', '), decisions });
    },
    withdraw(subjects, words) {
      change({ words, decisions: [], withdraw: subjects });
    },
    take: change,
    amend(after, words) {
      const before = get().project?.amended.amendments;
      if (!before) return;
      set(taken(get(), { of: 'reading', words, before, after }));
      amendments.change(after);
    },
    undo() {
      const back = takenBack(get());
      if (!back) return;
      set(back.history);
      go(back.step, 'before');
    },
    redo() {
      const again = takenAgain(get());
      if (!again) return;
      set(again.history);
      go(again.step, 'after');
    },
  };
}

/** Begins a plan with what was decided on the baseline, which stays as built. What is decided until it is there has to wait for it. */
function planBeginner({ get, set }: Bench) {
  let running: Promise<void> | null = null;
  return {
    running: () => running,
    begin(remedy: Remedy): void {
      const { decisions: after } = planWith(BASELINE, remedy);
      const { project } = get();
      if (!project || after.length === 0) return;
      const name = freePlanName(
        FIRST_PLAN,
        project.plans.map((p) => p.name),
      );
      const made = () => {
        if (storedPlan(get())?.name !== name) return;
        set({
          ...taken(get(), { of: 'plan', words: remedy.words, before: [], after }),
          ...telling(get(), `“${name}” begins with it: the baseline stays as built.`, { stays: false }),
        });
      };
      running = get()
        .addPlan(name, after)
        .then(made, (error: Error) => set(telling(get(), error.message)))
        .finally(() => {
          running = null;
        });
    },
  };
}
