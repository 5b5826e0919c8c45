import type { PartCondition } from '../../core/snapshot/route-types.ts';

/** When a component is drawn, as far as the code of a module tells. */
export type DrawnWhen =
  | { kind: 'drawn' }
  | { kind: 'action'; action: string }
  | { kind: 'condition'; condition: PartCondition }
  /** Once it is in sight. */
  | { kind: 'seen' }
  /** What a function of that module gives decides. */
  | { kind: 'given'; specifier: string; holds: boolean };
