import type { RequestRecord } from '../../core/sim/types.ts';

export interface StripRow {
  address: string;
  now: RequestRecord | null;
  ghost: RequestRecord | null;
}

const MOST_ROWS = 9;

/**
 * Rows of the live strip: requests of the plan beside the same files of the baseline. When there are too many, the
 * ones that take longest on the way stay; the order is that of discovery. `of`: how many there are in all.
 */
export function stripRows(
  now: RequestRecord[],
  baseline: RequestRecord[],
  most = MOST_ROWS,
): { rows: StripRow[]; of: number } {
  const rows = new Map<string, StripRow>();
  for (const r of now) rows.set(keyOf(r), { address: keyOf(r), now: r, ghost: null });
  for (const r of baseline) {
    const row = rows.get(keyOf(r));
    if (row) row.ghost = r;
    else rows.set(keyOf(r), { address: keyOf(r), now: null, ghost: r });
  }
  const took = (r: RequestRecord | null) => (r ? r.end - r.sent : 0);
  const longest = [...rows.values()]
    .sort((a, b) => Math.max(took(b.now), took(b.ghost)) - Math.max(took(a.now), took(a.ghost)))
    .slice(0, most);
  const begins = (r: StripRow) => r.now?.discovered ?? r.ghost!.discovered;
  return { rows: longest.sort((a, b) => begins(a) - begins(b)), of: rows.size };
}

/** A chunk keeps its name while its file name changes with what is in it. */
function keyOf(r: RequestRecord): string {
  return `${r.type} ${r.name}`;
}
