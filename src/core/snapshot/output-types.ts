import type { Of } from '../form/form.ts';
import { record } from '../form/records.ts';
import { AMOUNT, BYTES, choice, listOf, TEXT, WHOLE } from '../form/values.ts';
import { IMPORT_KINDS } from './module-types.ts';

export const BUILT_FILE = record({
  path: TEXT,
  kind: choice(['script', 'style']),
  bytes: record({ minified: BYTES, gzip: BYTES, brotli: BYTES }),
  /**
   * What the file's map tells about its inside: `sources`: which modules, with their text; `names`: only their names
   * and sizes; `none`: nothing, the file counts as one module.
   */
  inside: choice(['sources', 'names', 'none']),
  /** Modules in it, by index, with the bytes that each has in this file. */
  modules: listOf(record({ module: WHOLE, bytes: BYTES })),
  /** For `names`: what is in it, heaviest first. */
  contents: listOf(record({ source: TEXT, bytes: BYTES })),
  /** Files that it asks for, by index into `files`. */
  imports: listOf(record({ to: WHOLE, kind: choice(IMPORT_KINDS), line: AMOUNT })),
});
export type BuiltFile = Of<typeof BUILT_FILE>;

/** What a document of an output asks for by itself, in document order. */
export const BUILT_START = record({
  realm: TEXT,
  tags: listOf(
    record({
      file: WHOLE,
      placement: choice(['blocking', 'async', 'defer', 'module', 'style']),
      offset: AMOUNT,
    }),
  ),
});
export type BuiltStart = Of<typeof BUILT_START>;

/** A production output as it lies in its folder. */
export const BUILT_OUTPUT = record({ files: listOf(BUILT_FILE), starts: listOf(BUILT_START) });
export type BuiltOutput = Of<typeof BUILT_OUTPUT>;
