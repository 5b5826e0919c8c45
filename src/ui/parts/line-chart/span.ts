import { scaleLinear } from 'd3-scale';

/** What a vertical axis spans, with its ticks at round values. `cut`: it doesn't begin at nothing, which has to be said. */
export interface Span {
  domain: [number, number];
  ticks: number[];
  cut: boolean;
}

const TICKS = 5;
const FEWEST = 2;
/** Values of which the least is so large a share of the most would be drawn as level lines from nothing on: the axis is cut below them. */
const LEVEL = 0.5;

/**
 * The span of an axis over these values. It begins at nothing, or below, unless that would hide how they differ. Its ticks are as many as can be told
 * apart as they are written.
 */
export function spanOf(values: readonly number[], write: (value: number) => string): Span {
  const known = values.filter(Number.isFinite);
  const [least, most] = known.length > 0 ? [Math.min(...known), Math.max(...known)] : [0, 0];
  const isLevel = least > 0 && least < most && least > most * LEVEL;
  const from = isLevel ? least : Math.min(0, least);
  const to = Math.max(0, most);
  for (let count = TICKS; ; count--) {
    const scale = scaleLinear()
      .domain(from === to ? [0, 1] : [from, to])
      .nice(count);
    const [low, high] = scale.domain();
    const ticks = scale.ticks(count);
    if (count === FEWEST || new Set(ticks.map(write)).size === ticks.length)
      return { domain: [low, high], ticks, cut: low > 0 };
  }
}
