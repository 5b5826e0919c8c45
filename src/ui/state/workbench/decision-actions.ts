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

  /** A plan that is being made for what was decided on the baseline: what is decided meanwhile goes into it as well. */
  let beginning: Promise<void> | null = null;

  /** The baseline stays as built, so that whoever decides something there begins a plan with it. */
  const begin = (remedy: Remedy) => {
    const { decisions: after } = planWith(BASELINE, remedy);
    const { project } = get();
    if (!project || after.length === 0) return;
    const name = freePlanName(
      FIRST_PLAN,
      project.plans.map((p) => p.name),
    );
    beginning = get()
      .addPlan(name, after)
      .then(
        () => {
          if (storedPlan(get())?.name !== name) return;
          set({
            ...taken(get(), { of: 'plan', words: remedy.words, before: [], after }),
            ...telling(get(), `“${name}” begins with it: the baseline stays as built.`, { stays: false }),
          });
        },
        (error: Error) => set(telling(get(), error.message)),
      )
      .finally(() => {
        beginning = null;
      });
  };

  const change = (remedy: Remedy) => {
    if (beginning) {
      void beginning.then(() => change(remedy));
      return;
    }
    const plan = storedPlan(get());
    if (!plan) return begin(remedy);
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
