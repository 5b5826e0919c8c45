import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** What drawing a piece of interface takes that a package draws by script, in ms on the reference device. */
export interface PiecePrice {
  /** The first one of a document, with compiling what runs for it. */
  first: number;
  /** Each further one. */
  again: number;
}

/**
 * Packages that draw by script what no markup of the app tells: charts, maps, editors, tables of data. Measured by `script/mounted.mjs --table`: a piece of a size that
 * pages often have (50 points, 100 rows, a text of some lines), with its styles and layout, in Chromium without a graphics card; the middle one of five runs. It goes for
 * other major versions as well: without it a chart would cost a tenth.
 */
const PIECES: readonly (readonly [name: string, first: number, again: number])[] = [
  ['@codemirror/view', 81, 32],
  ['@fullcalendar/core', 170, 93],
  ['@nivo/line', 150, 110],
  ['@tiptap/core', 44, 9.9],
  ['@xyflow/react', 60, 31],
  ['ace-builds', 48, 26],
  ['ag-grid-community', 190, 78],
  ['chart.js', 98, 37],
  ['cytoscape', 85, 56],
  ['dygraphs', 24, 10],
  ['echarts', 130, 58],
  ['embla-carousel', 8.1, 4.4],
  ['fabric', 71, 61],
  ['flatpickr', 13, 5],
  ['gridstack', 15, 5.4],
  ['handsontable', 160, 89],
  ['highcharts', 110, 62],
  ['konva', 22, 15],
  ['leaflet', 43, 50],
  ['lexical', 21, 9.7],
  ['lightweight-charts', 90, 39],
  ['maplibre-gl', 150, 140],
  ['plotly.js-dist-min', 110, 43],
  ['prosemirror-view', 16, 3.6],
  ['quill', 53, 37],
  ['react-big-calendar', 56, 32],
  ['react-day-picker', 36, 19],
  ['recharts', 210, 91],
  ['slate-react', 21, 9.3],
  ['swiper', 13, 5.1],
  ['tabulator-tables', 60, 48],
  ['three', 130, 95],
  ['uplot', 25, 12],
  ['victory', 53, 23],
  ['video.js', 73, 30],
  ['vis-network', 180, 150],
];

const prices = new Map(PIECES.map(([name, first, again]) => [name, { first, again }]));

/** What a piece of a package costs; null of packages that aren't known to draw one. */
export function piecePriceOf(name: string): PiecePrice | null {
  return prices.get(name) ?? null;
}

const known = new WeakMap<Snapshot, ReadonlyMap<number, ReadonlySet<string>>>();

/**
 * Modules of packages that lead to packages which draw pieces, with the names of those: wrappers for component systems, and the packages themselves. A piece that
 * is built on another one stands for both.
 */
export function leadToPieces(snapshot: Snapshot): ReadonlyMap<number, ReadonlySet<string>> {
  let found = known.get(snapshot);
  if (!found) {
    found = findLeads(snapshot);
    known.set(snapshot, found);
  }
  return found;
}

function findLeads(snapshot: Snapshot): ReadonlyMap<number, ReadonlySet<string>> {
  const { modules, imports } = snapshot;
  const leads = new Map<number, Set<string>>();
  const pieces = new Set(modules.flatMap(({ package: name }) => (name !== null && prices.has(name) ? [name] : [])));
  if (pieces.size === 0) return leads;
  const { inStart, incoming } = graphIndex(snapshot);
  for (const name of pieces) {
    const met = new Set<number>();
    modules.forEach((m, at) => {
      if (m.package === name) met.add(at);
    });
    for (const m of met) {
      const of = leads.get(m) ?? new Set();
      leads.set(m, of.add(name));
      for (let e = inStart[m]; e < inStart[m + 1]; e++) {
        const { from, kind } = imports[incoming[e]];
        const above = modules[from].package;
        if (kind === 'static' && above !== null && (above === name || !pieces.has(above))) met.add(from);
      }
    }
  }
  return leads;
}
