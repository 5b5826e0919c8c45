/** One row of a chart: a place on the horizontal axis, and a value for each line by its key. */
export type ChartRow = { [key: string]: number | string };

export interface ChartLine {
  /** Key of its values in the rows. */
  of: string;
  name: string;
  /** A colour of CSS. */
  stroke: string;
  width?: number;
  dash?: string | undefined;
  /** Radius of the dots at its points, in px; none where left out. */
  dots?: number;
  /** Which axis it is measured by; the left one where left out. */
  axis?: 'left' | 'right';
  /** It stays until the next point, then jumps. */
  steps?: true;
}

/** How the values of an axis are written. */
export interface ChartAxis {
  write: (value: number) => string;
  /** How its ticks are written, where that is otherwise. */
  tick?: (value: number) => string;
}

export interface ChartProps {
  /** A class that sets the height. */
  height: string;
  rows: readonly ChartRow[];
  lines: readonly ChartLine[];
  /** The horizontal axis: names, or numbers that are written by `write`. */
  across:
    | { of: string; names: true }
    | ({ of: string; names?: false; ticks?: number[]; tickCount?: number; scale?: 'log' | 'linear' } & ChartAxis & {
          /** What it spans; from the least to the most value where left out. */
          domain?: [number, number];
        });
  left: ChartAxis;
  right?: ChartAxis;
  /** A vertical line at a place of the horizontal axis, with a word where there is one. */
  mark?: { at: number | string; words?: string; quiet?: true };
  /** The point that is picked. */
  picked?: { across: number; value: number };
  /** Draws the line at which values are nothing. */
  zero?: true;
  /** Says what place is pointed at; without it nothing is told there. */
  tell?: (at: number | string) => string;
  onPick?: (row: number) => void;
}
