import type { LoadSheet, SheetColumn, SheetRow } from '../../../core/load-sheet/sheet.ts';

export type SortBy = 'first use' | 'size' | 'sharing';

export interface PlacedColumn {
  column: SheetColumn;
  /** Its number in the sheet. */
  at: number;
  x: number;
  width: number;
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
/** Narrow columns are kept wide enough to be hit, and named where there is room for it. */
const LEAST = { from: 4, to: 11, share: 0.45 };

/** Columns in their order, as wide as they weigh (but wide enough to be hit), from left to right. */
export function placeColumns(sheet: LoadSheet, changed: readonly string[], view: View, space: number): PlacedColumn[] {
  const wanted = view.text.trim().toLowerCase();
  const kept = sheet.columns
    .map((column, at) => ({ column, at }))
    .filter(({ column }) => !view.onlyChanged || changed.includes(column.id))
    .filter(
      ({ column }) => wanted === '' || [column.name, ...column.holds].some((n) => n.toLowerCase().includes(wanted)),
    );
  kept.sort((a, b) => compare(view.sortBy, a.column, b.column) || a.at - b.at);
  const bytes = kept.reduce((sum, k) => sum + k.column.bytes, 0);
  const even = (space * LEAST.share) / Math.max(1, kept.length) - GAP;
  const least = Math.max(LEAST.from, Math.min(LEAST.to, even));
  const room = Math.max(0, space - kept.length * (GAP + least)) * view.zoom;
  let x = 0;
  return kept.map(({ column, at }) => {
    const width = least + (bytes === 0 ? 0 : (column.bytes / bytes) * room);
    const placed = { column, at, x, width };
    x += width + GAP;
    return placed;
  });
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
