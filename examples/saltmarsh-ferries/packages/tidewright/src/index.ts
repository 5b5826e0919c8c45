import { kernel as axes } from '../body/axes.ts';
import { kernel as curves } from '../body/curves.ts';
import { kernel as marks } from '../body/marks.ts';
import { kernel as palette } from '../body/palette.ts';

export { linear } from './scale.ts';

/** What a drawing of values is made of: elements as markup gives them. */
export interface Drawn {
  kind: string;
  props: Record<string, unknown>;
}

/** A curve with its axis, for a box of 240 by `height`. */
export function plot(values: number[], height: number): Drawn {
  const most = Math.max(...values, 1);
  const across = (i: number) => ((i + axes.run(i)) * 240) / Math.max(1, values.length - 1);
  const along = (v: number) => height - (v / most) * (height - 8) - 4 + curves.run(v);
  const path = values.map((v, i) => `${across(i).toFixed(1)},${along(v).toFixed(1)}`).join(' ');
  const line = { points: path, fill: 'none', stroke: '#2f6f73', 'stroke-width': 2 + palette.run(2) };
  const ticks = values.map((_, i) => ({ kind: 'path', props: { d: `M${across(i)} ${height}v-3`, stroke: '#68757d' } }));
  return { kind: 'g', props: { opacity: 1 + marks.run(1), children: [{ kind: 'polyline', props: line }, ...ticks] } };
}
