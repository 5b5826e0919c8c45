import type { Bits } from './bits.ts';

/** What formChunks gives. Module and chunk numbers are indices into the snapshot's modules and into `chunks`. */
export interface ChunkGraph {
  realms: string[];
  roots: Root[];
  chunks: Chunk[];
  /** Targets of deferred imports that no entry reaches: listed, not formed. */
  unreached: number[];
}

export type RootKind = 'entry' | 'page' | 'layout' | 'split point' | 'worker';

export interface Root {
  id: string;
  kind: RootKind;
  realm: string;
  /** Modules whose loading this root stands for; several only for an entry. */
  target: number[];
  /** Patterns of the routes whose chain contains this root; for the entry, all routes of its realm. */
  routes: string[];
  /** Roots that ask for this one, with the deferred import (−1: the route convention asks, not code). */
  askedBy: { root: number; import: number }[];
  /** Modules reachable over static imports. */
  reach: Bits;
  /** Modules certainly loaded when it is requested; `membersOf` lists them. */
  present: Bits;
  /** Modules of `reach` that are not present. */
  need: Uint32Array;
  /** The load group: chunks in the order in which they are evaluated, styles first. */
  group: number[];
}

export interface Chunk {
  id: string;
  name: string;
  kind: 'script' | 'style';
  realm: string;
  /** Roots that need it. */
  roots: number[];
  /** In evaluation order (styles: in import order). */
  modules: number[];
  bytes: ChunkBytes;
  /** Included in `bytes`: loader, wrappers and chunk map. */
  overhead: { minified: number; gzip: number };
  /** Measured evaluation cost at CPU factor 1 where known for a module; the rest is estimated from bytes. */
  measuredMs: number;
  /** What of that rehearsals of other apps told of packages. */
  elsewhereMs: number;
  /**
   * Minified bytes whose evaluation cost nobody measured; code of a package counts as many times as the package is dearer than code is
   * on average, where that is known.
   */
  estimatedBytes: number;
  /** Those of them for whose package it is known. */
  tabledBytes: number;
  /** Path of the real file that it is (or what a plan leaves of it), for a production output. */
  file?: string;
}

export interface ChunkBytes {
  source: number;
  minified: number;
  gzip: number;
  brotli: number;
}
