'use client';

import { useEffect, useMemo } from 'react';
import { create } from 'zustand';
import { withVisit } from '../../core/amend/visits.ts';
import type { Visit, VisitStep } from '../../core/visits/types.ts';
import { analyst } from '../../worker/client.ts';
import { useAmendments } from './amendments.ts';
import { useAsked } from './asked.ts';
import { useWorkbench } from './workbench.ts';

interface VisitChoice {
  /** The script as the person changed it; null: the typical one of the chosen route. */
  script: Visit | null;
  /** Which moment is looked at; −1: the landing, null: nobody chose yet. */
  step: number | null;
  /** Played as if nobody hesitated. */
  atOnce: boolean;
  /** One visit, or what all visitors can expect. */
  page: 'one' | 'all';
}

export const useVisitChoice = create<VisitChoice>()(() => ({ script: null, step: null, atOnce: false, page: 'one' }));

/** The visit that is looked at: the changed script, or the typical visit of the chosen route. */
export function useVisit(): { visit: Visit | null; own: boolean; error: string | null } {
  const script = useVisitChoice((s) => s.script);
  const route = useWorkbench((s) => s.route);
  const typical = useAsked((now) => analyst().visits.typical(now.plan, now.route), route);
  useEffect(() => {
    // Another landing at the top: the script that began elsewhere is let go of.
    const { script: old } = useVisitChoice.getState();
    if (old && old.landing !== route) useVisitChoice.setState({ script: null, step: null });
  }, [route]);
  return { visit: script ?? typical.found, own: script !== null, error: typical.error };
}

/** The same visit as if nobody hesitated before an act. */
export function useAsPlayed(visit: Visit | null): Visit | null {
  const atOnce = useVisitChoice((s) => s.atOnce);
  return useMemo(() => {
    if (!visit || !atOnce) return visit;
    return {
      ...visit,
      steps: visit.steps.map((s) => ('leadMs' in s && s.does !== 'approach' ? { ...s, leadMs: 0 } : s)),
    };
  }, [visit, atOnce]);
}

export function changeStep(visit: Visit, at: number, change: Partial<VisitStep>): void {
  const steps = visit.steps.map((s, i) => (i === at ? ({ ...s, ...change } as VisitStep) : s));
  useVisitChoice.setState({ script: { ...visit, steps } });
}

/** Without one step; what only that step led to goes as well. */
export function removeStep(visit: Visit, at: number): void {
  const gone = visit.steps[at];
  const rest = gone.does === 'move' || gone.does === 'return' ? [] : visit.steps.slice(at + 1);
  const steps = [...visit.steps.slice(0, at), ...rest];
  useVisitChoice.setState({ script: { ...visit, steps }, step: Math.min(at, steps.length) - 1 });
}

export function addStep(visit: Visit, step: VisitStep): void {
  const steps = [...visit.steps, step];
  useVisitChoice.setState({ script: { ...visit, steps }, step: steps.length - 1 });
}

/** The visits that were kept with the project, and how to keep or drop one. */
export function useKeptVisits() {
  const amendments = useAmendments();
  const amend = useWorkbench((s) => s.amend);
  return {
    kept: amendments.visits ?? [],
    keep: (visit: Visit) => amend(withVisit(amendments, visit), `keep the visit “${visit.name}”`),
    drop: (name: string) =>
      amend(
        { ...amendments, visits: (amendments.visits ?? []).filter((v) => v.name !== name) },
        `drop the visit “${name}”`,
      ),
  };
}
