import type { ChunkGraph } from '../chunks/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Module } from '../snapshot/module-types.ts';
import type { Part, Route } from '../snapshot/route-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { leadToPieces, piecePriceOf } from './drawn-by-packages.ts';
import { FIRST_FORMATS_MS, startsFormats } from './first-format-cost.ts';
import type { Landing } from './landing.ts';
import { aroundPage } from './part-modules.ts';

/**
 * What drawing costs on the reference device, in ms; fitted to small apps of component libraries in a real browser (docs/SIMULATOR.md). Code
 * is compiled when it runs for the first time, so that the first drawing of a component costs many times what a further one does.
 */
export const DRAWING = {
  /** A component system draws for the first time in a document, where nobody measured which one. */
  begin: 9,
  /** A part that comes by itself is drawn: script that runs for it, styles, layout and painting, however little there is of it. */
  apart: 8,
  /** What runs for the first time while something is drawn: per byte of minified text of all modules that it leads to. */
  firstByte: 0.0002,
  /** Of a large module only so much runs: bytes. */
  mostBytes: 12_000,
  /** The app's own components, each time: per byte of the modules that hold them. */
  ownByte: 0.0002,
  /** A component of a package, each time. */
  packaged: 0.2,
} as const;

/** What the first drawing of small components takes beyond a further one, by the package of the system that draws; measured in new pages of Chromium. */
const BEGINS: readonly (readonly [name: string, ms: number])[] = [
  ['react-dom', 12],
  ['preact', 3.5],
  ['svelte', 6.5],
  ['vue', 9],
  ['@vue/runtime-dom', 9],
];

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
  /** What of it comes again each time, without pieces: how much there is to see of components and their text. Missing where no code tells. */
  shows?: number;
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
    /** Modules that have run while something was drawn. */
    private readonly ran: Set<number>,
    /** Packages that have drawn a piece by script. */
    private readonly pieces: Set<string>,
    private begun: boolean,
    /** Something has formatted numbers, dates or texts of a language, which is dear once. */
    private formatted: boolean,
  ) {}

  /** Of a document that is opened on a route. */
  static onLanding(snapshot: Snapshot, graph: ChunkGraph, { route, roots }: Landing): Drawing {
    const ran = new Set(factsOf(snapshot).framework);
    const formatted = startsFormats(snapshot, graph, roots);
    return new Drawing(snapshot, graph, aroundOf(snapshot, graph, route), ran, new Set(), false, formatted);
  }

  /** Of what is drawn later in the same document, on the same route or another one. */
  after(route?: Route): Drawing {
    const { snapshot, graph } = this;
    const around = route ? aroundOf(snapshot, graph, route) : this.around;
    const { begun, formatted } = this;
    return new Drawing(snapshot, graph, around, new Set(this.ran), new Set(this.pieces), begun, formatted);
  }

  /**
   * What drawing these modules costs, with all that they draw at once; `more`: modules of which only what they draw counts; `withData`: they are drawn once answers are
   * there, and so is what stands under conditions in them.
   */
  of(paths: readonly string[], more: readonly string[] = [], withData = false): DrawingPrice {
    const { isKnown } = factsOf(this.snapshot);
    const { moduleAt } = graphIndex(this.snapshot);
    const at = (path: string) => moduleAt.get(path) ?? [];
    const begin = this.begun ? 0 : factsOf(this.snapshot).begins;
    this.begun = true;
    const drawn = [
      ...paths.flatMap(at).map((module) => ({ module, times: 1 })),
      ...more
        .filter((path) => !paths.includes(path))
        .flatMap(at)
        .flatMap((m) => this.children(m)),
    ];
    const again = this.sumOf(drawn, new Set());
    const within = again.ms > MOST_MS ? MOST_MS / again.ms : 1;
    const first = this.first(drawn.map((d) => d.module));
    const format = this.formatFirst(first.formats, withData);
    const tabled = within * again.tabled + first.tabled + format.ms;
    const later = format.later ? { formatsLater: true as const } : {};
    if (!isKnown) return { ms: UNKNOWN_MS + tabled, tabled, ...later };
    const ms = begin + first.ms + within * again.ms + format.ms;
    return { ms, tabled, shows: again.ms - again.tabled, ...later };
  }

  /** What somebody measured of a part, else what drawing its module costs. */
  ofPart(part: Part): DrawingPrice {
    const estimate = this.of([part.module], [], (part.drawnAfter ?? []).length > 0);
    return part.drawMs === undefined ? estimate : { ...estimate, ms: part.drawMs };
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
    const found = new Set(paths.flatMap((path) => moduleAt.get(path) ?? []));
    for (const m of found) for (const { module } of this.children(m)) found.add(module);
    return found;
  }

  /** The same with those that stand apart themselves, but are drawn by one of them. */
  drawnFrom(paths: readonly string[]): ReadonlySet<number> {
    const found = this.reach(paths);
    const drawn = [...found].flatMap((m) => (this.snapshot.modules[m].draws ?? []).map((d) => d.module));
    return new Set([...found, ...drawn]);
  }

  private children(m: number): { module: number; times: number }[] {
    const { draws = [], makes = [] } = this.snapshot.modules[m];
    const all = makes.length === 0 ? draws : [...draws, ...makes.map((module) => ({ module, times: 1 }))];
    return all.filter((d) => !this.around.apart.has(d.module));
  }

  /** What drawing some things costs each time. Of a package that draws pieces all components that stand together make one piece. */
  private sumOf(drawn: readonly { module: number; times: number }[], above: Set<number>): Sum {
    const leads = leadToPieces(this.snapshot);
    const pieces = new Map<string, number>();
    const sum = { ms: 0, tabled: 0 };
    for (const { module, times } of drawn) {
      for (const name of leads.get(module) ?? []) pieces.set(name, Math.max(times, pieces.get(name) ?? 0));
      if (leads.has(module) || above.has(module)) continue;
      const each = this.onceMore(module, above);
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
  private onceMore(m: number, above: Set<number>): Sum {
    const known = this.around.again.get(m);
    if (known !== undefined) return known;
    const { package: name, bytes } = this.snapshot.modules[m];
    if (name !== null) return { ms: DRAWING.packaged, tabled: 0 };
    above.add(m);
    const sum = this.sumOf(this.children(m), above);
    sum.ms += bytes.minified * DRAWING.ownByte;
    above.delete(m);
    this.around.again.set(m, sum);
    return sum;
  }

  /** What runs for the first time when modules are drawn: all that they draw and, of what belongs to packages, all that it leads to. */
  private first(modules: readonly number[]): Sum & Pick<Module, 'formats'> {
    const { modules: all, imports } = this.snapshot;
    const { outStart, outgoing } = graphIndex(this.snapshot);
    let bytes = 0;
    let drawn = 0;
    let formats: Module['formats'];
    const open: number[] = [];
    const take = (m: number) => {
      if (this.ran.has(m)) return;
      this.ran.add(m);
      open.push(m);
    };
    modules.forEach(take);
    for (const m of open) {
      if (all[m].kind !== 'script') continue;
      formats = all[m].formats === 'always' ? 'always' : (formats ?? all[m].formats);
      const name = all[m].package;
      const price = name === null ? null : piecePriceOf(name);
      if (price) {
        // All that it leads to was measured with it.
        if (!this.pieces.has(name!)) drawn += Math.max(0, price.first - price.again);
        if (price.formats) formats = 'always';
        this.pieces.add(name!);
        continue;
      }
      bytes += Math.min(DRAWING.mostBytes, all[m].bytes.minified);
      for (const { module } of this.children(m)) take(module);
      if (name === null) continue;
      for (let e = outStart[m]; e < outStart[m + 1]; e++) {
        const { to, kind } = imports[outgoing[e]];
        if (kind === 'static') take(to);
      }
    }
    return { ms: bytes * DRAWING.firstByte + drawn, tabled: drawn, formats };
  }
}

type Sum = Pick<DrawingPrice, 'ms' | 'tabled'>;

/** What is the same for all that is drawn on one route. */
interface Around {
  apart: ReadonlySet<number>;
  /** What drawing a module once more costs, with all that it draws, as far as it is known. */
  again: Map<number, Sum>;
}

function aroundOf(snapshot: Snapshot, graph: ChunkGraph, route: Route): Around {
  const { moduleAt } = graphIndex(snapshot);
  const parts = route.parts.flatMap((p) => moduleAt.get(p.module) ?? []);
  const apart = new Set([...factsOf(snapshot).screens, ...parts, ...graph.roots.flatMap((root) => root.target)]);
  return { apart, again: new Map() };
}

/** What is the same for all documents of an app. */
interface Facts {
  /** Whether the code says of anything what it draws. */
  isKnown: boolean;
  /** What the component system takes when it draws for the first time, in ms. */
  begins: number;
  /** Pages and layouts. */
  screens: number[];
  /** What packages bring that entries use without drawing them: the framework, whose part in drawing has its own price. */
  framework: ReadonlySet<number>;
}

const known = new WeakMap<Snapshot, Facts>();

function factsOf(snapshot: Snapshot): Facts {
  const found = known.get(snapshot);
  if (found) return found;
  const { moduleAt } = graphIndex(snapshot);
  const facts = {
    isKnown: snapshot.modules.some((m) => m.draws !== undefined),
    begins: beginsIn(snapshot),
    screens: snapshot.routes
      .flatMap((r) => [r.page, ...aroundPage(snapshot, r)])
      .flatMap((path) => moduleAt.get(path) ?? []),
    framework: frameworkOf(snapshot),
  };
  known.set(snapshot, facts);
  return facts;
}

function beginsIn({ modules }: Snapshot): number {
  const packages = new Set(modules.map((m) => m.package));
  return BEGINS.find(([name]) => packages.has(name))?.[1] ?? DRAWING.begin;
}

function frameworkOf(snapshot: Snapshot): Set<number> {
  const { entries, modules, imports } = snapshot;
  const { moduleAt, outStart, outgoing } = graphIndex(snapshot);
  const found = new Set<number>();
  const take = (m: number, drawn: ReadonlySet<number>) => {
    for (let e = outStart[m]; e < outStart[m + 1]; e++) {
      const { to, kind } = imports[outgoing[e]];
      const { package: name } = modules[to];
      // What an entry only prepares for drawing, such as kinds of charts, is none.
      if (kind === 'static' && name !== null && piecePriceOf(name) === null && !drawn.has(to)) found.add(to);
    }
  };
  for (const m of entries.flatMap((e) => e.modules.flatMap((path) => moduleAt.get(path) ?? [])))
    take(m, new Set((modules[m].draws ?? []).map((d) => d.module)));
  // What is added meanwhile comes in its turn.
  for (const m of found) take(m, new Set());
  return found;
}
