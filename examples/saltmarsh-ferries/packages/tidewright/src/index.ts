import { kernel as axes } from '../body/axes.ts';
import { kernel as curves } from '../body/curves.ts';
import { kernel as marks } from '../body/marks.ts';
import { kernel as palette } from '../body/palette.ts';

export { linear } from './scale.ts';

export function plot(values: number[], height: number): string {
  const path = values.map((v, i) => `${axes.run(i)},${height - curves.run(v)}`).join(' ');
  return `<polyline points="${path}" stroke="${marks.run(1) + palette.run(2)}" />`;
}
