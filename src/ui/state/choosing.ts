'use client';

import { create } from 'zustand';
import type { Remedy } from '../../core/advise/types.ts';
import { changesOf } from '../../core/choose/changes.ts';
import type {
  Choice,
  ChoiceProgress,
  Circumstance,
  CurvePoint,
  Limits,
  MeasuredShares,
  Turn,
  Wanted,
} from '../../core/choose/types.ts';
import type { Plan } from '../../core/plan/types.ts';
import { longCrew, newRun, sharedOut } from './long-work.ts';
import { type Subject, subjectNow } from './subject.ts';
import { useWorkbench } from './workbench.ts';

interface Choosing {
  at: 'nothing' | 'choosing' | 'stopped' | 'chosen';
  phase: ChoiceProgress['phase'];
  turns: Turn[];
  /** Of the present phase, 0 to 1. */
  share: number;
  choice: Choice | null;
  /** The point that is picked on the curve; null: all that were chosen. */
  picked: CurvePoint | null;
  /** The limits that were chosen under. */
  limits: Limits;
  /** What the choice began with. */
  of: Subject | null;
  error: string | null;
}

const LIMITS: Limits = {
  changes: 15,
  firstContentMs: 50,
  interactiveMs: 50,
  changeMs: 5,
  wasteBytes: 100_000,
  spareDataSavers: true,
};

const NOTHING: Choosing = {
  at: 'nothing',
  phase: 'each alone',
  turns: [],
  share: 0,
  choice: null,
  picked: null,
  limits: LIMITS,
  of: null,
  error: null,
};

const store = create<Choosing>()(() => NOTHING);

/** A choice goes on while the person looks at something else; one about another app is not shown. */
export function useChoosing<T>(select: (choosing: Choosing) => T): T {
  const app = useWorkbench((s) => s.app);
  return store((s) => select(s.of === null || s.of.app === app ? s : NOTHING));
}

export function pickChosen(picked: CurvePoint | null): void {
  store.setState({ picked });
}

/** What is wanted of a choice. */
interface Wishes extends Wanted {
  people: 'now' | 'crowds';
}

/** Kept while the person looks at something else. */
export const useWishes = create<Wishes>()(() => ({
  about: 'both',
  people: 'now',
  aim: 'mean',
  limits: LIMITS,
}));

let run = 0;

export async function startChoosing(plan: Plan, circumstances: Circumstance[], wanted: Wanted): Promise<void> {
  const mine = ++run;
  store.setState({ ...NOTHING, at: 'choosing', of: subjectNow(), limits: wanted.limits });
  try {
    const crew = await longCrew();
    const [worker, ...others] = crew;
    const name = newRun();
    let given: MeasuredShares | undefined;
    for (let begin = true; run === mine; begin = false) {
      const help = others.length > 0 ? { given } : undefined;
      const { turns, phase, done, of, choice, ahead } = await worker.advice.choose(
        plan,
        circumstances,
        wanted,
        begin,
        help,
      );
      if (run !== mine) return;
      const share = done / Math.max(1, of);
      store.setState({ turns, phase, share, ...(choice ? { choice, at: 'chosen' } : {}) });
      if (choice) return;
      if (!ahead) {
        given = undefined;
        continue;
      }
      const parts = await sharedOut(crew, ahead.sets, (a, sets) =>
        a.advice.helpChoose(wanted, { ...ahead, sets }, name),
      );
      given = parts.flatMap((p) => p.made);
    }
  } catch (reason) {
    if (run !== mine) return;
    store.setState({ ...NOTHING, error: reason instanceof Error ? reason.message : String(reason) });
  }
}

/** Leaves it with what was chosen so far. */
export function stopChoosing(): void {
  run++;
  store.setState((s) => (s.at === 'choosing' ? { at: 'stopped' } : s));
}

export function forgetChoice(): void {
  run++;
  store.setState(NOTHING);
}

/** The changes that would be taken: those of the picked point, or all. */
export function takenOf({ turns, picked }: Pick<Choosing, 'turns' | 'picked'>): Turn[] {
  return picked?.turns ?? turns;
}

/** What taking changes does to the plan. */
export function remedyOf(turns: readonly Turn[], limits: Limits): Remedy {
  const { length } = turns;
  const changes = changesOf(
    turns.map((t) => t.candidate),
    limits,
  );
  return { words: `${length} chosen ${length === 1 ? 'change' : 'changes'}`, ...changes };
}
