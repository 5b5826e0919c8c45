import type { Import } from './module-types.ts';
import type { Snapshot } from './types.ts';

/**
 * Columns over a snapshot's imports that every stage needs: imports by importer and by imported module,
 * in source order, and stable names. Built once per snapshot; the order of the input arrays doesn't matter.
 */
export interface GraphIndex {
  /** path → index into `modules`. */
  moduleAt: ReadonlyMap<string, number>;
  /** Position of each module when sorted by path: the canonical order. */
  rank: Uint32Array;
  /** Modules in canonical order. */
  sorted: Uint32Array;
  /** Imports of module m: `outgoing[outStart[m] .. outStart[m + 1]]`, indices into `imports`, in source order. */
  outStart: Uint32Array;
  outgoing: Uint32Array;
  /** Import i aims at module `target[i]`. */
  target: Uint32Array;
  /** 1 where import i is deferred as the code has it. Not to be changed. */
  deferred: Uint8Array;
  /** 1 where module m is a style sheet. */
  isStyle: Uint8Array;
  /** Imports that aim at module m, by importer's path, then source order. */
  inStart: Uint32Array;
  incoming: Uint32Array;
  /** import key → index into `imports`. */
  importAt: ReadonlyMap<string, number>;
}

const cache = new WeakMap<Snapshot, GraphIndex>();

/** The columns of a snapshot; the same object for the same snapshot. Linear in modules and imports (but for sorting). */
export function graphIndex(snapshot: Snapshot): GraphIndex {
  const cached = cache.get(snapshot);
  if (cached) return cached;
  const made = build(snapshot);
  cache.set(snapshot, made);
  return made;
}

/** Stable name of an import: importer's path, specifier and, from the second on, its ordinal. */
export function importKey(snapshot: Snapshot, item: Import): string {
  const from = snapshot.modules[item.from].path;
  return item.ordinal === 0 ? `${from}::${item.specifier}` : `${from}::${item.specifier}#${item.ordinal}`;
}

function build(snapshot: Snapshot): GraphIndex {
  const { modules, imports } = snapshot;
  const moduleAt = new Map<string, number>();
  for (let m = 0; m < modules.length; m++) moduleAt.set(modules[m].path, m);
  const sorted = Uint32Array.from(modules.keys());
  sorted.sort((a, b) => (modules[a].path < modules[b].path ? -1 : modules[a].path > modules[b].path ? 1 : 0));
  const rank = new Uint32Array(modules.length);
  for (let i = 0; i < sorted.length; i++) rank[sorted[i]] = i;

  const order = Uint32Array.from(imports.keys());
  order.sort((a, b) => {
    const x = imports[a];
    const y = imports[b];
    return (
      rank[x.from] - rank[y.from] || x.start - y.start || compare(x.specifier, y.specifier) || x.ordinal - y.ordinal
    );
  });
  const outStart = new Uint32Array(modules.length + 1);
  const inStart = new Uint32Array(modules.length + 1);
  for (const item of imports) {
    outStart[item.from + 1]++;
    inStart[item.to + 1]++;
  }
  for (let m = 0; m < modules.length; m++) {
    outStart[m + 1] += outStart[m];
    inStart[m + 1] += inStart[m];
  }
  const outFill = outStart.slice();
  const inFill = inStart.slice();
  const outgoing = new Uint32Array(imports.length);
  const incoming = new Uint32Array(imports.length);
  const importAt = new Map<string, number>();
  for (const i of order) {
    outgoing[outFill[imports[i].from]++] = i;
    incoming[inFill[imports[i].to]++] = i;
    importAt.set(importKey(snapshot, imports[i]), i);
  }
  const target = new Uint32Array(imports.length);
  const deferred = new Uint8Array(imports.length);
  for (let i = 0; i < imports.length; i++) {
    target[i] = imports[i].to;
    if (imports[i].kind === 'dynamic') deferred[i] = 1;
  }
  const isStyle = new Uint8Array(modules.length);
  for (let m = 0; m < modules.length; m++) if (modules[m].kind === 'style') isStyle[m] = 1;
  return { moduleAt, rank, sorted, outStart, outgoing, target, deferred, isStyle, inStart, incoming, importAt };
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
