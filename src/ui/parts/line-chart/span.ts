import { scaleLinear } from 'd3-scale';

/** What a vertical axis spans, with its ticks at round values. `cut`: it doesn't begin at nothing, which has to be said. */
export interface Span {
  domain: [number, number];
  ticks: number[];
  cut: boolean;
}

const TICKS = 5;
/** Values of which the least is so large a share of the most would be drawn as level lines from nothing on: the axis is cut below them. */
const LEVEL = 0.5;

/** The span of an axis over these values. It begins at nothing, or below, unless that would hide how they differ. */
export function spanOf(values: readonly number[]): Span {
  const known = values.filter(Number.isFinite);
  const [least, most] = known.length > 0 ? [Math.min(...known), Math.max(...known)] : [0, 0];
  const isLevel = least > 0 && least < most && least > most * LEVEL;
  const from = isLevel ? least : Math.min(0, least);
  const to = Math.max(0, most);
  const scale = scaleLinear()
    .domain(from === to ? [0, 1] : [from, to])
    .nice(TICKS);
  const [low, high] = scale.domain();
  return { domain: [low, high], ticks: scale.ticks(TICKS), cut: low > 0 };
}
