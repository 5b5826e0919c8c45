import type { Decision } from '../../core/plan/types.ts';
import type { StoredPlan } from '../../store/plans.ts';

interface Unsaved {
  /** The version that they were decided upon. */
  version: number;
  decisions: Decision[];
}

const keyOf = (planId: string) => `yokeline:unsaved:${planId}`;

/** Keeps decisions in the browser until the server has confirmed them, whatever happens to page or server meanwhile. */
export function keepUnsaved({ id, version, decisions }: StoredPlan): void {
  try {
    localStorage.setItem(keyOf(id), JSON.stringify({ version, decisions }));
  } catch {
    // Without storage they last as long as the page.
  }
}

export function forgetUnsaved(planId: string): void {
  try {
    localStorage.removeItem(keyOf(planId));
  } catch {
    // There was none.
  }
}

/** What was decided upon a plan and never confirmed; null when there is nothing. */
export function unsavedOf(planId: string): Unsaved | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(planId)) ?? 'null') as Unsaved | null;
    return kept && Number.isInteger(kept.version) && Array.isArray(kept.decisions) ? kept : null;
  } catch {
    return null;
  }
}
