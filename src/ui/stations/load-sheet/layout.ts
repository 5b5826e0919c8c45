import type { LoadSheet, SheetColumn, SheetRow } from '../../../core/load-sheet/sheet.ts';

export type SortBy = 'first use' | 'size' | 'sharing';

export interface PlacedColumn {
  column: SheetColumn;
  /** Its number in the sheet. */
  at: number;
  x: number;
  width: number;
  /** Too light to be drawn to scale: it stands with its like behind the others, wider than it weighs. */
  light: boolean;
}

export interface View {
  sortBy: SortBy;
  /** 1 = all columns fit into the space. */
  zoom: number;
  /** Only columns whose name or content holds this text. */
  text: string;
  onlyChanged: boolean;
  /** Routes whose later moments are folded away. */
  folded: ReadonlySet<string>;
}

/** Space for the names of the moments. */
export const HEADS = 246;
const GAP = 2;
/** Columns that would be narrower than this couldn't be hit or named: they are all drawn as wide as this, or as there is room. */
const LIGHT = { below: 11, least: 4, share: 0.45 };
/** Between columns that are drawn to scale and those that aren't. */
export const BREAK = 26;

/**
 * Columns from left to right in their order, as wide as they weigh; behind a break those that are too light for that, in the same order. With a
 * larger zoom fewer are.
 */
export function placeColumns(sheet: LoadSheet, changed: readonly string[], view: View, space: number): PlacedColumn[] {
  const wanted = view.text.trim().toLowerCase();
  const kept = sheet.columns
    .map((column, at) => ({ column, at }))
    .filter(({ column }) => !view.onlyChanged || changed.includes(column.id))
    .filter(
      ({ column }) => wanted === '' || [column.name, ...column.holds].some((n) => n.toLowerCase().includes(wanted)),
    );
  kept.sort((a, b) => compare(view.sortBy, a.column, b.column) || a.at - b.at);
  const { scale, lightWidth, light } = scaleOf(kept, view.zoom, space);
  const heavy = kept.filter((k) => !light.has(k.column));
  let x = 0;
  const place = (width: number, { column, at }: (typeof kept)[number], isOne: boolean): PlacedColumn => {
    const placed = { column, at, x, width, light: isOne };
    x += width + GAP;
    return placed;
  };
  const toScale = heavy.map((k) => place(k.column.bytes * scale, k, false));
  if (heavy.length > 0 && light.size > 0) x += BREAK;
  return [...toScale, ...kept.flatMap((k) => (light.has(k.column) ? [place(lightWidth, k, true)] : []))];
}

/** Pixels for a byte of what is drawn to scale, which columns aren’t, and how wide those are: together they fill the space at a zoom of 1. */
function scaleOf(kept: readonly { column: SheetColumn }[], zoom: number, space: number) {
  const columns = kept.map((k) => k.column).sort((a, b) => a.bytes - b.bytes);
  const even = (space * LIGHT.share) / Math.max(1, columns.length) - GAP;
  const lightWidth = Math.max(LIGHT.least, Math.min(LIGHT.below, even));
  let bytes = columns.reduce((sum, c) => sum + c.bytes, 0);
  // The more are light, the less room is left for the others: as few as possible.
  for (let light = 0; light < columns.length && bytes > 0; light++) {
    const gaps = columns.length * GAP + (light > 0 ? BREAK : 0);
    const scale = (Math.max(0, space - light * lightWidth - gaps) * zoom) / bytes;
    if (columns[light].bytes * scale >= LIGHT.below)
      return { scale, lightWidth, light: new Set(columns.slice(0, light)) };
    bytes -= columns[light].bytes;
  }
  return { scale: 0, lightWidth, light: new Set(columns) };
}

function compare(by: SortBy, a: SheetColumn, b: SheetColumn): number {
  if (by === 'size') return b.bytes - a.bytes;
  if (by === 'sharing') return b.used - a.used;
  const late = (c: SheetColumn) => (c.firstRow < 0 ? Number.POSITIVE_INFINITY : c.firstRow);
  return late(a) - late(b);
}

/** Rows in sight: the landings, and what is not folded away or unchanged. */
export function shownRows(sheet: LoadSheet, changed: readonly string[], view: View): SheetRow[] {
  const differs = new Set(changed);
  return sheet.rows.filter((row) => {
    if (view.onlyChanged && !differs.has(row.id)) return false;
    return row.kind === 'landing' || !view.folded.has(row.route);
  });
}
