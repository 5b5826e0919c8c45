'use client';

import { create } from 'zustand';
import type { Advice, Finding, Score } from '../../core/advise/types.ts';
import type { Plan } from '../../core/plan/types.ts';
import { FINDINGS } from '../../core/vocabulary/findings.ts';
import type { StationId } from '../../core/vocabulary/stations.ts';
import { longCrew, newRun, sharedOut } from './long-work.ts';
import { goTo } from './stations.ts';
import { fitOf, type Sides, type Subject, subjectNow, useSubject } from './subject.ts';
import { useWork } from './work.ts';
import { useConditions, usePlan } from './workbench.ts';

export type Pace = 'going on' | 'stopping' | 'stopped';

interface AdviceState {
  advice: Advice | null;
  /** What the advice is about; the next one replaces it. */
  of: Subject | null;
  /** Share of the work that is done, 0 to 1. */
  done: number;
  /** What helps of what was tried so far, the best first; none once the advice is there. */
  soFar: readonly Finding[];
  /** Whether the work goes on. Who stops it has to wait for the piece that is under way: what it finds still counts. */
  pace: Pace;
  error: string | null;
  /** The finding that is looked at, by its id; null: the first. */
  chosen: string | null;
}

const NOTHING: AdviceState = {
  advice: null,
  of: null,
  done: 0,
  soFar: [],
  pace: 'going on',
  error: null,
  chosen: null,
};
const store = create<AdviceState>()(() => NOTHING);

/** Advice hangs on the conditions; it is about all routes. */
const SIDES: Sides = ['conditions'];

/** Advice about what is looked at. `old`: decisions were made since, so that its figures are no longer true of the plan. */
export function useAdvice(): Omit<AdviceState, 'of' | 'soFar'> & { old: boolean } {
  const { of, soFar: _, ...state } = store();
  const fit = fitOf(of, useSubject(), SIDES);
  return { ...state, advice: fit === 'other' ? null : state.advice, old: fit === 'changed since' };
}

/** Findings for the plan as it is; none while they are worked out. */
export function adviceNow(): Finding[] {
  const { of, advice } = store.getState();
  return advice && fitOf(of, subjectNow(), SIDES) === 'fits' ? advice.findings : [];
}

export function chooseFinding(id: string): void {
  store.setState({ chosen: id });
}

/** Stops the work on advice after the piece that is under way, or goes on with it. */
export function stopAdvice(stop: boolean): void {
  store.setState({ pace: stop ? 'stopping' : 'going on' });
}

/** Fulfilled at once, or when the work that was stopped is to go on. */
function goingOn(): Promise<void> {
  return new Promise((go) => {
    if (store.getState().pace === 'going on') return go();
    store.setState({ pace: 'stopped' });
    const end = store.subscribe(({ pace }) => {
      if (pace !== 'going on') return;
      end();
      go();
    });
  });
}

/** Advice begins when nothing was decided for so long. In ms. */
const REST_MS = 500;

const wait = (ms: number) => new Promise((go) => setTimeout(go, ms));

/** Keeps the advice in step with plan and conditions, in the background. */
export function useAdviceUpdates(): void {
  const plan = usePlan();
  const subject = useSubject();
  const conditions = useConditions();
  const { app, planId, decisions, conditions: named } = subject;
  // The plan's decisions and the conditions' ids are what counts; not the route.
  useWork(
    async (wanted) => {
      if (!app || app.routes.length === 0) return;
      store.setState({ done: 0, soFar: [], pace: 'going on', error: null });
      await wait(REST_MS);
      if (!wanted()) return;
      const crew = await longCrew();
      const [worker, ...others] = crew;
      const run = newRun();
      let given: Score[] | undefined;
      while (wanted()) {
        await goingOn();
        if (!wanted()) return;
        const help = others.length > 0 ? { given } : undefined;
        const { done, of, advice, soFar, ahead } = await worker.advice.advise(
          plan,
          conditions,
          store.getState().soFar.length,
          help,
        );
        if (!wanted()) return;
        // Until it is there it isn’t done, though all candidates were tried.
        store.setState(
          advice
            ? { advice, of: subject, done: 1, soFar: [], pace: 'going on' }
            : { done: Math.min(0.99, done / Math.max(1, of)), ...(soFar ? { soFar } : {}) },
        );
        if (advice) return;
        given = undefined;
        if (!ahead) continue;
        const parts = await sharedOut(crew, ahead, (a, plans) => a.advice.helpAdvise(plans, conditions, run));
        given = [];
        for (const { places, made } of parts) for (const [n, at] of places.entries()) given[at] = made[n];
      }
    },
    (error) => store.setState({ error: error.message, done: 1 }),
    [app, planId, decisions, named],
  );
}

/** Findings that aren't put aside, and those that are with their reasons. */
interface Divided {
  open: Finding[];
  aside: { finding: Finding; reason: string }[];
}

/** Findings of the advice; `old` as in useAdvice. */
export function useFindings(): Divided & { old: boolean } {
  const { advice, old } = useAdvice();
  return { old, ...divided(usePlan(), advice?.findings ?? []) };
}

/** What helps of what was tried so far, while there is no advice yet. */
export function useFoundSoFar(): Divided {
  return divided(usePlan(), store().soFar);
}

function divided(plan: Plan, findings: readonly Finding[]): Divided {
  const reasons = new Map(
    plan.decisions.flatMap((d) => (d.kind === 'put aside' ? [[d.finding, d.reason] as const] : [])),
  );
  return {
    open: findings.filter((f) => !reasons.has(f.id)),
    aside: findings.flatMap((finding) => {
      const reason = reasons.get(finding.id);
      return reason === undefined ? [] : [{ finding, reason }];
    }),
  };
}

/** Findings to act on at a station, the best first, and how one of them is shown; none while they are measured again. */
export function useFindingsAt(station: StationId): { findings: Finding[]; onSee: (finding: Finding) => void } {
  const { open, old } = useFindings();
  return { findings: old ? [] : open.filter((f) => FINDINGS[f.kind].at === station), onSee: showFinding };
}

/** Shows a finding where all of them are listed. */
export function showFinding({ id }: Finding): void {
  chooseFinding(id);
  goTo('advice');
}
