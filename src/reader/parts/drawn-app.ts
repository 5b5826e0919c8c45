import type { Entry } from '../../core/snapshot/module-types.ts';
import { DataCalls } from '../data/data-calls.ts';
import { definitionOf } from '../graph/prune.ts';
import type { Reexports } from '../graph/reexports.ts';
import type { DrawingModule, DrawnApp } from './find-parts.ts';
import { shellsOf } from './shells.ts';

/** Component systems that run effects after what they drew is painted (public form of React and Preact). */
const PAINTS_FIRST = /^(react|preact)(\/|$)/;

/** What is known of an app's modules where parts are looked for. */
export interface DrawnModules {
  /** The app's own modules. */
  paths: () => Iterable<string>;
  moduleAt: (path: string) => DrawingModule | undefined;
  reexportsAt: (path: string) => Reexports | null | undefined;
  /** Paths of the modules that an element's name may stand for. */
  elements: ReadonlyMap<string, readonly string[]>;
  entries: readonly Entry[];
  /** What stands around routes by folders. */
  layouts: ReadonlySet<string>;
  /** Pages of all routes. */
  pages: ReadonlySet<string>;
  inDocument: DrawnApp['inDocument'];
}

/** The app as far as parts are looked for in it. What a module says is put together once: each route asks for much of the same. */
export function drawnApp({ elements, entries, layouts, pages, inDocument, ...modules }: DrawnModules): DrawnApp {
  const moduleAt = remembered(modules.moduleAt);
  const reexportsAt = remembered(modules.reexportsAt);
  const defines = (path: string, name: string) => definitionOf(path, name, reexportsAt);
  const calls = new DataCalls({
    paths: modules.paths,
    sheetAt: (path) => moduleAt(path)?.asks ?? null,
    moduleOf: (from, specifier, name) => {
      const to = moduleAt(from)?.resolved.get(specifier);
      if (to === undefined || moduleAt(to)?.package !== null) return null;
      return name === '*' || name === 'default' ? to : defines(to, name).path;
    },
    paintsFirst: (path) => [...(moduleAt(path)?.resolved.keys() ?? [])].some((s) => PAINTS_FIRST.test(s)),
  });
  return {
    moduleAt,
    callsOf: (path) => calls.of(path),
    callsOfLoader: (path, name) => calls.ofLoader(path, name),
    keptAt: (path, name) => {
      const asks = moduleAt(path)?.asks;
      if (asks?.contexts.has(name)) return calls.of(path).flatMap((c) => (c.onAct ? [] : [c.address]));
      return calls.answersAt(path, asks?.kept.get(name) ?? []);
    },
    inDocument,
    shells: shellsOf(entries, layouts, moduleAt),
    isPage: (path) => pages.has(path),
    definerOf: defines,
    elementAt: (name, from) => {
      const all = elements.get(name) ?? [];
      // One name may stand for several components: what a module leads to comes first.
      const leads = all.length > 1 ? new Set(moduleAt(from)?.resolved.values()) : null;
      return all.find((path) => leads?.has(path)) ?? all[0];
    },
  };
}

function remembered<T>(of: (path: string) => T): (path: string) => T {
  const known = new Map<string, T>();
  return (path) => {
    if (!known.has(path)) known.set(path, of(path));
    return known.get(path)!;
  };
}
