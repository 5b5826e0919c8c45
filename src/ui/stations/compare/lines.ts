/** How the lines of plans are told apart: by dash and width, beside their colour. */
export const PLAN_LINES = [
  { stroke: 'var(--faint)', dash: '5 4', width: 1.5 },
  { stroke: 'var(--needed)', dash: undefined, width: 2 },
  { stroke: 'var(--on-demand)', dash: '8 3 2 3', width: 2 },
  { stroke: 'var(--hinted)', dash: '2 3', width: 2.5 },
  { stroke: 'var(--in-case)', dash: undefined, width: 1 },
  { stroke: 'var(--wasted)', dash: '12 4', width: 1.5 },
] as const;
