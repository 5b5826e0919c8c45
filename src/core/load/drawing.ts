import type { ChunkGraph } from '../chunks/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Import, Module } from '../snapshot/module-types.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { componentPriceOf } from './component-libraries.ts';
import { factsOf, USUAL_BYTES } from './drawing-facts.ts';
import { leadToPieces, piecePriceOf } from './drawn-by-packages.ts';
import { FIRST_FORMATS_MS, startsFormats } from './first-format-cost.ts';
import type { Landing } from './landing.ts';
import { ROWS } from './list-lengths.ts';
import { aroundPage } from './part-modules.ts';

/**
 * What drawing costs on the reference device, in ms; fitted to small apps of component libraries in a real browser (docs/SIMULATOR.md). Code
 * is compiled when it runs for the first time, so that the first drawing of a component costs many times what a further one does.
 */
export const DRAWING = {
  /** A part that comes by itself is drawn: script that runs for it, styles, layout and painting, however little there is of it. */
  apart: 8,
  /** What runs for the first time while something is drawn: per byte of minified text of all modules that it leads to. */
  firstByte: 0.00015,
  /** Of a large module only so much runs: bytes. */
  mostBytes: 12_000,
  /** The app's own components, each time: per byte of the modules that hold them. */
  ownByte: 0.0002,
} as const;

/** Where code doesn't say what it draws: an assumption, the same for all parts. */
const UNKNOWN_MS = 4;
/** More than this nobody draws at once; where more is reckoned, it isn't all drawn. */
const MOST_MS = 400;

/** What drawing costs on the reference device, in ms. */
export interface DrawingPrice {
  ms: number;
  /** What of that tables say of what was measured elsewhere: pieces that packages draw by script, the first text of a language. */
  tabled: number;
  /** Something of it formats only once data is there, and nothing has before. */
  formatsLater?: true;
  /** What of it comes again each time, without pieces and with one row of each list: how much there is to see in one place. Missing where no code tells. */
  shows?: number;
  /** What it takes to draw all of it anew once its lists have rows. */
  fill?: number;
  /** What of that tables say. */
  fillTabled?: number;
}

/**
 * What lists hold while something is drawn: `empty`, nothing, since the answers that fill them come later; `full`, their rows; `answered`, the same, and what stands
 * under conditions is drawn too, since answers were waited for.
 */
export type Lists = 'empty' | 'full' | 'answered';

/** Something that is drawn, so many times. */
interface Drawn {
  module: number;
  times: number;
}

/**
 * The price of what one document draws, part after part: what ran for an earlier part costs a later one only its repetition. Components that stand
 * apart (other parts, pages and layouts of routes, what is deferred) are drawn with their own part.
 */
export class Drawing {
  private constructor(
    private readonly snapshot: Snapshot,
    private readonly graph: ChunkGraph,
    private readonly around: Around,
    /** Modules that have run while something was drawn, and those of them that were drawn. */
    private readonly ran: Set<number>,
    private readonly drew: Set<number>,
    /** Packages that have drawn a piece by script. */
    private readonly pieces: Set<string>,
    /** How much of the app's own code has been drawn for the first time so far, in bytes; null before anything was. */
    private begun: number | null,
    /** Something has formatted numbers, dates or texts of a language, which is dear once. */
    private formatted: boolean,
  ) {}

  /** Of a document that is opened on a route. */
  static onLanding(snapshot: Snapshot, graph: ChunkGraph, { route, roots }: Landing): Drawing {
    const ran = new Set(factsOf(snapshot).framework);
    const formatted = startsFormats(snapshot, graph, roots);
    return new Drawing(snapshot, graph, aroundOf(snapshot, graph, route), ran, new Set(), new Set(), null, formatted);
  }

  /** Of what is drawn later in the same document, on the same route or another one. */
  after(route?: Route): Drawing {
    const { snapshot, graph } = this;
    const around = route ? aroundOf(snapshot, graph, route) : this.around;
    const [ran, drew] = [new Set(this.ran), new Set(this.drew)];
    return new Drawing(snapshot, graph, around, ran, drew, new Set(this.pieces), this.begun, this.formatted);
  }

  /** What drawing these modules costs, with all that they draw at once; `more`: modules of which only what they draw counts. */
  of(paths: readonly string[], more: readonly string[] = [], lists: Lists = 'full'): DrawingPrice {
    const { isKnown } = factsOf(this.snapshot);
    const { moduleAt } = graphIndex(this.snapshot);
    const at = (path: string) => moduleAt.get(path) ?? [];
    const others = more.filter((path) => !paths.includes(path)).flatMap(at);
    const drawn = (rows: number, times = (module: number) => this.timesOf(module)): Drawn[] => [
      ...paths.flatMap(at).map((module) => ({ module, times: times(module) })),
      ...others.flatMap((m) => this.children(m, rows)),
    ];
    const rows = lists === 'empty' ? 0 : ROWS;
    const sum = (of: readonly Drawn[], rows: number) => within(this.sumOf(of, rows, new Set()));
    const now = drawn(rows);
    const again = sum(now, rows);
    const first = this.first(now, rows);
    const begin = this.begin(first.own);
    const format = this.formatFirst(first.formats, lists === 'answered');
    const tabled = again.tabled + first.tabled + format.ms;
    const later = format.later ? { formatsLater: true as const } : {};
    if (!isKnown) return { ms: UNKNOWN_MS + tabled, tabled, ...later };
    const full = rows === 0 ? sum(drawn(ROWS), ROWS) : again;
    const inRows = this.first(first.rows, ROWS);
    const fill = full.ms - again.tabled + inRows.ms + (first.rows.length > 0 ? this.begin(inRows.own) : 0);
    const once = sum(
      drawn(1, () => 1),
      1,
    );
    const ms = begin + first.ms + again.ms + format.ms;
    return {
      ms,
      tabled,
      shows: once.ms - once.tabled,
      fill,
      fillTabled: Math.max(0, full.tabled - again.tabled) + inRows.tabled,
      ...later,
    };
  }

  /** What the component system itself takes where so much of the app's own code is drawn for the first time. */
  private begin(own: number): number {
    const { first, more } = factsOf(this.snapshot).begins;
    const before = this.begun ?? 0;
    const share = (bytes: number) => Math.min(1, bytes / USUAL_BYTES);
    const ms = (this.begun === null ? first : 0) + more * (share(before + own) - share(before));
    this.begun = before + own;
    return ms;
  }

  /** What somebody measured of a part, else what drawing its module costs. */
  ofPart(part: Part, lists: Lists = listsIn(part.drawnAfter)): DrawingPrice {
    const estimate = this.of([part.module], [], lists);
    return part.drawMs === undefined ? estimate : { ...estimate, ms: part.drawMs };
  }

  /** How often the screen draws a module: a part goes by all that draws it. */
  private timesOf(module: number): number {
    const { around } = this;
    around.counts ??= this.countParts();
    return around.counts.get(module) ?? 1;
  }

  /** How often parts are drawn by the page, what is around it, and one another. */
  private countParts(): Map<number, number> {
    const { screen, parts } = this.around;
    const counts = new Map<number, number>();
    for (const m of this.reachOf([...screen, ...parts]))
      for (const { module, times } of drawnBy(this.snapshot, m, ROWS))
        if (parts.has(module) && module !== m) counts.set(module, times + (counts.get(module) ?? 0));
    return counts;
  }

  /** The first that formats in a document is dear. */
  private formatFirst(formats: Module['formats'], withData: boolean): { ms: number; later: boolean } {
    if (this.formatted || formats === undefined) return { ms: 0, later: false };
    this.formatted = true;
    const later = formats === 'with data' && !withData;
    return { ms: later ? 0 : FIRST_FORMATS_MS, later };
  }

  /** All modules that are drawn with these. */
  reach(paths: readonly string[]): ReadonlySet<number> {
    const { moduleAt } = graphIndex(this.snapshot);
    return this.reachOf(paths.flatMap((path) => moduleAt.get(path) ?? []));
  }

  private reachOf(modules: Iterable<number>): Set<number> {
    const found = new Set(modules);
    for (const m of found) for (const { module } of this.children(m, 1)) found.add(module);
    return found;
  }

  /** The same with those that stand apart themselves, but are drawn by one of them. */
  drawnFrom(paths: readonly string[]): ReadonlySet<number> {
    const found = this.reach(paths);
    const drawn = [...found].flatMap((m) => (this.snapshot.modules[m].draws ?? []).map((d) => d.module));
    return new Set([...found, ...drawn]);
  }

  private children(m: number, rows: number): Drawn[] {
    return drawnBy(this.snapshot, m, rows).filter((d) => !this.around.apart.has(d.module));
  }

  private *importedBy(m: number, counts: (i: Import) => boolean = () => true): Generator<number> {
    const { outStart, outgoing } = graphIndex(this.snapshot);
    for (let e = outStart[m]; e < outStart[m + 1]; e++) {
      const i = this.snapshot.imports[outgoing[e]];
      if (i.kind === 'static' && counts(i)) yield i.to;
    }
  }

  /** What functions of one of the app's modules call as it is drawn: hooks, helpers, stores. Names of components begin with a capital letter (convention of all systems). */
  private *calledBy(m: number): Generator<number> {
    const { modules } = this.snapshot;
    const calls = ({ to, names, onActs, onEffects }: Import) =>
      !onActs &&
      !onEffects &&
      names.some((n) => (n === 'default' || n === '*' ? modules[to].package !== null : /^[a-z_$]/.test(n)));
    for (const to of this.importedBy(m, calls)) if (!this.around.apart.has(to)) yield to;
  }

  /** What drawing some things costs each time. Of a package that draws pieces all components that stand together make one piece. */
  private sumOf(drawn: readonly Drawn[], rows: number, above: Set<number>): Sum {
    const leads = leadToPieces(this.snapshot);
    const pieces = new Map<string, number>();
    const sum = { ms: 0, tabled: 0 };
    for (const { module, times } of drawn) {
      if (times === 0) continue;
      for (const name of leads.get(module) ?? []) pieces.set(name, Math.max(times, pieces.get(name) ?? 0));
      if (leads.has(module) || above.has(module)) continue;
      const each = this.onceMore(module, rows, above);
      sum.ms += times * each.ms;
      sum.tabled += times * each.tabled;
    }
    for (const [name, times] of pieces) {
      const all = times * piecePriceOf(name)!.again;
      sum.ms += all;
      sum.tabled += all;
    }
    return sum;
  }

  /** What a module costs each time that it is drawn; what is drawn within itself isn't followed further. */
  private onceMore(m: number, rows: number, above: Set<number>): Sum {
    const again = this.around.againWith(rows);
    const known = again.get(m);
    if (known !== undefined) return known;
    const { package: name, bytes } = this.snapshot.modules[m];
    if (name !== null) return { ms: componentPriceOf(name), tabled: 0 };
    above.add(m);
    const sum = this.sumOf(this.children(m, rows), rows, above);
    sum.ms += bytes.minified * DRAWING.ownByte;
    above.delete(m);
    again.set(m, sum);
    return sum;
  }

  /**
   * What runs for the first time when something is drawn: all that it draws, what its functions call, and, of what belongs to packages, all that it leads to.
   * `rows`: what runs only once lists have rows; `own`: bytes of the app's components among it.
   */
  private first(drawn: readonly Drawn[], rows: number): Sum & Pick<Module, 'formats'> & { rows: Drawn[]; own: number } {
    const { modules: all } = this.snapshot;
    let bytes = 0;
    let own = 0;
    let pieces = 0;
    let formats: Module['formats'];
    const open: { m: number; isDrawn: boolean; isNew: boolean }[] = [];
    const inRows: Drawn[] = [];
    const take = (m: number, isDrawn: boolean) => {
      const isNew = !this.ran.has(m);
      if (!isNew && (!isDrawn || this.drew.has(m))) return;
      this.ran.add(m);
      if (isDrawn) this.drew.add(m);
      open.push({ m, isDrawn, isNew });
    };
    const takeDrawn = (d: Drawn) => (d.times > 0 ? take(d.module, true) : inRows.push({ ...d, times: 1 }));
    drawn.forEach(takeDrawn);
    for (const { m, isDrawn, isNew } of open) {
      if (all[m].kind !== 'script') continue;
      if (isDrawn) this.children(m, rows).forEach(takeDrawn);
      if (!isNew) continue;
      formats = all[m].formats === 'always' ? 'always' : (formats ?? all[m].formats);
      const name = all[m].package;
      const price = name === null ? null : piecePriceOf(name);
      if (price) {
        // All that it leads to was measured with it.
        if (!this.pieces.has(name!)) pieces += Math.max(0, price.first - price.again);
        if (price.formats) formats = 'always';
        this.pieces.add(name!);
        continue;
      }
      bytes += Math.min(DRAWING.mostBytes, all[m].bytes.minified);
      if (isDrawn && name === null) own += all[m].bytes.minified;
      for (const to of name === null ? this.calledBy(m) : this.importedBy(m)) take(to, false);
    }
    return { ms: bytes * DRAWING.firstByte + pieces, tabled: pieces, formats, rows: inRows, own };
  }
}

/** All that a module draws and has drawn, with how often. `rows`: how many lists have whose length no code tells; none before answers are there. */
function drawnBy({ modules }: Snapshot, m: number, rows: number): Drawn[] {
  const { draws = [], makes = [] } = modules[m];
  return [
    ...draws.map(({ module, times, rows: each = 0, filled = 0 }) => ({
      module,
      times: times + rows * each + (rows > 0 ? filled : 0),
    })),
    ...makes.map((module) => ({ module, times: 1 })),
  ];
}

/** What lists hold when something is drawn: what waits for answers has them, and `calls` fill the others later. */
export const listsIn = (waitsFor: readonly string[] = [], calls: readonly unknown[] = []): Lists =>
  waitsFor.length > 0 ? 'answered' : calls.length > 0 ? 'empty' : 'full';

/** No more than anybody draws at once. */
function within({ ms, tabled }: Sum): Sum {
  const share = ms > MOST_MS ? MOST_MS / ms : 1;
  return { ms: share * ms, tabled: share * tabled };
}

type Sum = Pick<DrawingPrice, 'ms' | 'tabled'>;

/** What is the same for all that is drawn on one route. */
interface Around {
  apart: ReadonlySet<number>;
  /** The page and what is around it. */
  screen: readonly number[];
  parts: ReadonlySet<number>;
  /** What drawing a module once more costs, with all that it draws, as far as it is known, by how many rows lists have. */
  againWith(rows: number): Map<number, Sum>;
  /** How often parts are drawn, once somebody asked. */
  counts?: ReadonlyMap<number, number>;
}

function aroundOf(snapshot: Snapshot, graph: ChunkGraph, route: Route): Around {
  const { moduleAt } = graphIndex(snapshot);
  const parts = new Set(route.parts.flatMap((p) => moduleAt.get(p.module) ?? []));
  const apart = new Set([...factsOf(snapshot).screens, ...parts, ...graph.roots.flatMap((root) => root.target)]);
  const screen = [...aroundPage(snapshot, route), route.page].flatMap((path) => moduleAt.get(path) ?? []);
  for (const m of screen) parts.delete(m);
  const again = new Map<number, Map<number, Sum>>();
  const againWith = (rows: number) => again.get(rows) ?? again.set(rows, new Map()).get(rows)!;
  return { apart, screen, parts, againWith };
}
