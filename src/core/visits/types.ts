/**
 * One visit, as a script: where the person lands, and what they do then. `dwellMs` passes from the end of the moment
 * before (what was asked for shows) until they approach what they do next; `leadMs` from there to the act.
 */
export interface Visit {
  name: string;
  /** Pattern of the route. */
  landing: string;
  /** Ids of the landing's conditional parts whose condition holds. */
  holds: string[];
  steps: VisitStep[];
}

export type VisitStep = { dwellMs: number } & (
  | { does: 'act' | 'scroll'; part: string; leadMs: number }
  | { does: 'move'; to: string; by: 'inside' | 'document'; leadMs: number; holds: string[] }
  /** The pointer or focus rests on what leads to a part or a route, and goes on. */
  | { does: 'approach'; part: string; leadMs: number }
  | { does: 'approach'; to: string; leadMs: number }
  | { does: 'resize'; width: number; height: number }
  | { does: 'deploy' }
  | { does: 'return'; to: string; awayMs: number; deployed: boolean; holds: string[] }
);

export const STEP_KINDS = ['act', 'scroll', 'move', 'approach', 'resize', 'deploy', 'return'] as const;
