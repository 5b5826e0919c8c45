'use client';

import type { Remedy } from '../../core/advise/types.ts';
import { useWorkbench } from './workbench.ts';

/** Makes an advised change, in one step that can be undone. */
export function useTakeWay(): (remedy: Remedy) => void {
  const decide = useWorkbench((s) => s.decide);
  const withdraw = useWorkbench((s) => s.withdraw);
  return ({ words, decisions, withdraw: subjects = [] }) => {
    if (decisions.length > 0) decide(decisions, words);
    else withdraw(subjects, words);
  };
}
