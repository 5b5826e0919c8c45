'use client';

import { useState } from 'react';
import type { Finding } from '../../../core/advise/types.ts';
import { withTurned } from '../../parts/marks.ts';
import { chooseFinding } from '../../state/advice.ts';

/** Which findings of a list are chosen together, and what changes that; one that isn't in the list any more isn't chosen. */
export function useFindingChoice(findings: readonly Finding[]) {
  const [marks, setMarks] = useState<ReadonlySet<string>>(new Set());
  return {
    marks,
    marked: findings.filter((f) => marks.has(f.id)),
    onChoose: chooseFinding,
    onMark: (ids: readonly string[]) => ids.length > 0 && setMarks(withTurned(marks, ids)),
    clear: () => setMarks(new Set()),
  };
}
