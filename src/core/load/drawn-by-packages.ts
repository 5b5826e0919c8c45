import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';

/** What drawing a piece of interface takes that a package draws by script, in ms on the reference device. */
export interface PiecePrice {
  /** The first one of a document, with compiling what runs for it. */
  first: number;
  /** Each further one. */
  again: number;
  /** It formats numbers, dates or texts of a language, which is dear once on a page by itself. */
  formats: boolean;
}

/** Marks a package whose piece formats something. */
const FORMATS = true;

/**
 * Packages that draw by script what no markup of the app tells: charts, maps, editors, tables of data. Measured by `script/mounted.mjs --table`: a piece of a size that
 * pages often have (50 points, 100 rows, a text of some lines), with its styles and layout, in Chromium without a graphics card; the middle one of five runs. It goes for
 * other major versions as well: without it a chart would cost a tenth.
 */
const PIECES: readonly (readonly [name: string, first: number, again: number, formats?: typeof FORMATS])[] = [
  ['@codemirror/view', 75, 32],
  ['@fullcalendar/core', 141, 93, FORMATS],
  ['@nivo/line', 132, 101],
  ['@tiptap/core', 47, 9.8],
  ['@xyflow/react', 60, 26],
  ['ace-builds', 47, 21],
  ['ag-grid-community', 172, 61, FORMATS],
  ['chart.js', 75, 38, FORMATS],
  ['cytoscape', 92, 49],
  ['dygraphs', 21, 9.7],
  ['echarts', 126, 40],
  ['embla-carousel', 8.0, 3.9],
  ['fabric', 70, 61],
  ['flatpickr', 13, 5.2],
  ['gridstack', 15, 6.6],
  ['handsontable', 164, 67, FORMATS],
  ['highcharts', 91, 43, FORMATS],
  ['konva', 20, 13],
  ['leaflet', 51, 42],
  ['lexical', 22, 7.0],
  ['lightweight-charts', 63, 30, FORMATS],
  ['maplibre-gl', 150, 119],
  ['plotly.js-dist-min', 119, 42],
  ['prosemirror-view', 18, 4.8],
  ['quill', 54, 24],
  ['react-big-calendar', 59, 33],
  ['react-day-picker', 36, 18],
  ['recharts', 204, 93],
  ['slate-react', 22, 7.1],
  ['swiper', 13, 5.5],
  ['tabulator-tables', 56, 34],
  ['three', 130, 94],
  ['uplot', 25, 9.8],
  ['victory', 53, 17],
  ['video.js', 75, 32],
  ['vis-network', 173, 133],
];

const prices = new Map(
  PIECES.map(([name, first, again, formats]) => [name, { first, again, formats: formats === true }]),
);

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
