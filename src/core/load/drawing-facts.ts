import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { piecePriceOf } from './drawn-by-packages.ts';
import { aroundPage } from './part-modules.ts';

/** What drawing takes in a document beyond drawing the same once more, in ms: `first`, however little is drawn; `more`, as much of it as a page of usual size needs. */
export interface Begins {
  first: number;
  more: number;
}

/** By the package of the system that draws, without the app's own code; measured in new pages of Chromium by `script/begins.mjs`. */
const BEGINS: readonly (readonly [name: string, first: number, more: number])[] = [
  ['react-dom', 12, 12],
  ['preact', 4, 3],
  ['solid-js', 4.5, 7],
  ['svelte', 7.5, 12],
  ['vue', 11, 13],
  ['@vue/runtime-dom', 11, 13],
];

/** The same of other systems: an average. */
export const OTHERS_BEGIN: Begins = { first: 8, more: 9 };

/** The app's own code of the page of usual size that they were measured with, in bytes: the average. */
export const USUAL_BYTES = 2500;

/** What is the same for all documents of an app. */
export interface DrawingFacts {
  /** Whether the code says of anything what it draws. */
  isKnown: boolean;
  /** What the component system takes when it draws for the first time. */
  begins: Begins;
  /** Pages and layouts. */
  screens: number[];
  /**
   * The component system, whose part in drawing has its own price, with all that it leads to; where it isn't one of those that were measured, what packages bring that
   * entries use without drawing it.
   */
  framework: ReadonlySet<number>;
}

const known = new WeakMap<Snapshot, DrawingFacts>();

/** What drawing goes by in all documents of an app; worked out once. */
export function factsOf(snapshot: Snapshot): DrawingFacts {
  const found = known.get(snapshot);
  if (found) return found;
  const { moduleAt } = graphIndex(snapshot);
  const system = systemOf(snapshot);
  const facts = {
    isKnown: snapshot.modules.some((m) => m.draws !== undefined),
    begins: system ? { first: system[1], more: system[2] } : OTHERS_BEGIN,
    screens: snapshot.routes
      .flatMap((r) => [r.page, ...aroundPage(snapshot, r)])
      .flatMap((path) => moduleAt.get(path) ?? []),
    framework: frameworkOf(snapshot, system?.[0]),
  };
  known.set(snapshot, facts);
  return facts;
}

/** The component system that an app draws with, of those that were measured. */
function systemOf({ modules }: Snapshot): (typeof BEGINS)[number] | undefined {
  const packages = new Set(modules.map((m) => m.package));
  return BEGINS.find(([name]) => packages.has(name));
}

function frameworkOf(snapshot: Snapshot, system: string | undefined): Set<number> {
  const { entries, modules, imports } = snapshot;
  const { moduleAt, outStart, outgoing } = graphIndex(snapshot);
  const found = new Set<number>();
  const take = (m: number, counts: (to: number) => boolean) => {
    for (let e = outStart[m]; e < outStart[m + 1]; e++) {
      const { to, kind } = imports[outgoing[e]];
      // What an entry only prepares for drawing, such as kinds of charts, is none.
      const { package: name } = modules[to];
      if (kind === 'static' && name !== null && piecePriceOf(name) === null && counts(to)) found.add(to);
    }
  };
  if (system !== undefined) {
    for (const [at, m] of modules.entries()) if (m.package === system) found.add(at);
  } else
    for (const m of entries.flatMap((e) => e.modules.flatMap((path) => moduleAt.get(path) ?? []))) {
      const drawn = new Set((modules[m].draws ?? []).map((d) => d.module));
      take(m, (to) => !drawn.has(to));
    }
  // What is added meanwhile comes in its turn.
  for (const m of found) take(m, () => true);
  return found;
}
