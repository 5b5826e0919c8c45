import { withDecision, withoutSubject } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { ScriptPlacement } from '../snapshot/document-types.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** What one placement of a classic script would do to a landing. */
export interface PlacedScript {
  placement: ScriptPlacement;
  firstContent: number;
  firstScreenComplete: number;
  interactive: number;
  /** When the script itself has run; NaN where it never does. */
  ran: number;
  /** Whether it is placed so in the plan, and in the document as built. */
  present: boolean;
  asBuilt: boolean;
}

const PLACEMENTS: ScriptPlacement[] = ['blocking', 'async', 'defer', 'module', 'end of body', 'after load', 'inlined'];

/** All placements of one script side by side, each a whole prediction of the landing under the rest of the plan. */
export function placementsOf(
  snapshot: Snapshot,
  plan: Plan,
  script: string,
  route: string,
  conditions: Conditions,
): PlacedScript[] {
  const known = snapshot.scripts.find((s) => s.id === script);
  if (!known) return [];
  const decided = plan.decisions.reduce(
    (now, d) => (d.kind === 'script' && d.script === script ? d.placement : now),
    known.placement,
  );
  const bare = withoutSubject(plan, `script ${script}`);
  return PLACEMENTS.map((placement) => {
    const { reading, timeline } = predict(
      snapshot,
      withDecision(bare, { kind: 'script', script, placement }),
      route,
      conditions,
    );
    const task = timeline.tasks.find((t) => t.kind !== 'paint' && t.name === known.name);
    return {
      placement,
      firstContent: reading.milestones.firstContent,
      firstScreenComplete: reading.milestones.firstScreenComplete,
      interactive: reading.milestones.interactive,
      ran: task?.end ?? Number.NaN,
      present: placement === decided,
      asBuilt: placement === known.placement,
    };
  });
}
