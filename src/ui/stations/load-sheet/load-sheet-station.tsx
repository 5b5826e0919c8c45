'use client';

import { useMemo, useRef, useState } from 'react';
import type { LoadSheet, SheetRow } from '../../../core/load-sheet/sheet.ts';
import { counted } from '../../../core/text/counted.ts';
import { analyst } from '../../../worker/client.ts';
import { size } from '../../parts/format.ts';
import { Message } from '../../parts/message.tsx';
import { Pills, zoomWords } from '../../parts/pills.tsx';
import { useWidth } from '../../parts/use-width.ts';
import { useAsked } from '../../state/asked.ts';
import { chooseOn } from '../../state/go-to-route.ts';
import { isMarked } from '../../state/selection.ts';
import { goTo } from '../../state/stations.ts';
import { useWorkbench } from '../../state/workbench.ts';
import { Grid } from './grid.tsx';
import { HEADS, type PlacedColumn, placeColumns, type SortBy, shownRows, type View } from './layout.ts';
import { SheetLegend } from './sheet-legend.tsx';
import { cellWords } from './words.ts';

const TOTALS = 84;
const SORTS: SortBy[] = ['first use', 'size', 'sharing'];
const ZOOMS = [1, 2, 4, 8];
const UNCHANGED: { rows: string[]; columns: string[] } = { rows: [], columns: [] };

/** What arrives for each moment: moments as rows, chunks as columns as wide as they weigh. */
export function LoadSheetStation() {
  const { found, error } = useAsked(({ plan, conditions }) => analyst().loadSheet.loadSheet(plan, conditions), '', [
    'conditions',
  ]);
  const sheet = found?.sheet ?? null;
  const changed = found?.changed ?? UNCHANGED;
  const selection = useWorkbench((s) => s.selection);
  const [view, setView] = useState<View>({
    sortBy: 'first use',
    zoom: 1,
    text: '',
    onlyChanged: false,
    folded: new Set(),
  });
  const [over, setOver] = useState<{ row: SheetRow; placed: PlacedColumn } | null>(null);
  /** What was chosen stays told while nothing else is pointed at. */
  const [last, setLast] = useState<typeof over>(null);
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 1100);
  const columns = useMemo(
    () => (sheet ? placeColumns(sheet, changed.columns, view, width - HEADS - TOTALS - 32) : []),
    [sheet, changed, view, width],
  );
  const rows = useMemo(() => (sheet ? shownRows(sheet, changed.rows, view) : []), [sheet, changed, view]);
  const change = (part: Partial<View>) => setView({ ...view, ...part });
  if (error) return <Message title="The load sheet can’t be made">{error}</Message>;
  const chosen = new Set(
    columns
      .filter(({ column }) => isMarked(selection, { chunk: column.id, splitPoints: column.splitPoints }))
      .map(({ column }) => column.id),
  );
  const routes = [...new Set(sheet?.rows.map((r) => r.route) ?? [])];
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="px-4 pt-4">
        <div className="flex flex-wrap items-baseline gap-x-3">
          <h1 className="text-[15px] font-semibold">What arrives for each moment</h1>
          <p className="text-soft">columns are chunks, as wide as they weigh{lightWords(columns)}</p>
        </div>
        <SheetTools view={view} change={change} routes={routes} />
        <SheetLegend />
      </div>
      <div ref={box} className="min-h-0 flex-1 overflow-hidden px-4">
        {!sheet ? (
          <Message title="Laying out the sheet">Following every moment of every route.</Message>
        ) : rows.length === 0 || columns.length === 0 ? (
          <Message title={view.onlyChanged ? 'Nothing differs' : 'Nothing to show'}>
            {view.onlyChanged
              ? 'The plan asks for the same chunks as the baseline at every moment. Detach or join an import in Split.'
              : 'No chunk has this name or holds such a module.'}
          </Message>
        ) : (
          <Grid
            rows={rows}
            columns={columns}
            chosen={chosen}
            folded={view.folded}
            onFold={(route) => {
              const folded = new Set(view.folded);
              if (!folded.delete(route)) folded.add(route);
              change({ folded });
            }}
            onOver={setOver}
            onChoose={(row, placed) => {
              setLast({ row, placed });
              chooseOn(row.route, { kind: 'chunk', id: placed.column.id });
            }}
          />
        )}
      </div>
      <Readout over={over ?? (last && chosen.has(last.placed.column.id) ? last : null)} sheet={sheet} />
    </div>
  );
}

/** What isn’t drawn as wide as it weighs, where something is that is. */
function lightWords(columns: readonly PlacedColumn[]): string {
  const light = columns.filter((c) => c.light);
  if (light.length === 0 || light.length === columns.length) return '';
  const bytes = light.reduce((sum, c) => sum + c.column.bytes, 0);
  return `; behind the break ${counted(light.length, 'light one')}, ${size(bytes)} together, not to scale`;
}

/** Finding, magnifying, sorting, folding. */
function SheetTools({ view, change, routes }: { view: View; change: (part: Partial<View>) => void; routes: string[] }) {
  const allFolded = routes.length > 0 && routes.every((r) => view.folded.has(r));
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
      <input
        type="search"
        aria-label="Find a chunk"
        placeholder="find a chunk or module"
        value={view.text}
        onChange={(event) => change({ text: event.target.value })}
        className="w-48 rounded border border-line bg-paper px-2 py-1"
      />
      <Pills legend="Zoom" options={ZOOMS} chosen={view.zoom} words={zoomWords} onChoose={(zoom) => change({ zoom })} />
      <div className="flex items-center gap-2">
        <span className="text-soft">columns by</span>
        <Pills legend="Columns by" options={SORTS} chosen={view.sortBy} onChoose={(sortBy) => change({ sortBy })} />
      </div>
      <label className="flex items-center gap-1.5 text-soft">
        <input
          type="checkbox"
          checked={view.onlyChanged}
          onChange={(event) => change({ onlyChanged: event.target.checked })}
        />
        only what differs from the baseline
      </label>
      <button
        type="button"
        className="text-soft underline hover:text-ink"
        onClick={() => change({ folded: allFolded ? new Set() : new Set(routes) })}
      >
        {allFolded ? 'unfold all routes' : 'landings only'}
      </button>
    </div>
  );
}

/** What the pointed cell says; else how large the sheet is. */
function Readout({ over, sheet }: { over: { row: SheetRow; placed: PlacedColumn } | null; sheet: LoadSheet | null }) {
  return (
    <p className="flex h-7 shrink-0 items-center gap-4 border-t border-line px-4 text-soft" aria-live="polite">
      {over ? (
        <>
          <span className="min-w-0 truncate text-ink">
            {cellWords(
              over.row,
              over.placed.column,
              over.row.cells.find((c) => c.column === over.placed.at),
            )}
          </span>
          <span className="min-w-0 truncate">{over.placed.column.holds.join(', ')}</span>
        </>
      ) : sheet ? (
        <span>
          {counted(sheet.columns.length, 'chunk')}, {size(sheet.columns.reduce((sum, c) => sum + c.bytes, 0))}; point at
          a cell or walk with the arrow keys
          <button type="button" className="ml-4 underline hover:text-ink" onClick={() => goTo('split')}>
            change the cut in Split
          </button>
        </span>
      ) : null}
    </p>
  );
}
