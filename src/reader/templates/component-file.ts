import { splitSingleFile } from '../single-file.ts';
import { importsInMarkup } from '../template-imports.ts';
import type { Unimported } from '../unimported/unimported.ts';
import { islandFile } from './islands.ts';
import { svelteFile } from './svelte.ts';
import type { ComponentFile } from './types.ts';
import { vueFile } from './vue.ts';

/** Readers of components in one file, by the endings of their names. */
const READERS: Record<string, (path: string, text: string, unimported?: Unimported) => ComponentFile> = {
  vue: vueFile,
  svelte: svelteFile,
  astro: islandFile,
  mdx: asWritten,
};

/**
 * Takes a component that is written in one file apart, by the ending of its name; null for any other file. `unimported`: what its build imports by itself. One that its reader fails on has
 * its scripts followed, weighs as written, and is told. Throws RangeError for one that is nested too deeply.
 */
export function componentFile(path: string, text: string, unimported?: Unimported): ComponentFile | null {
  const read = READERS[path.slice(path.lastIndexOf('.') + 1)];
  if (!read) return null;
  try {
    return read(path, text, unimported);
  } catch (error) {
    if (error instanceof RangeError) throw error;
    const message = `not compiled, it weighs as written: ${String((error as Error).message).split('\n')[0]}`;
    return { ...asWritten(path, text), told: { line: 1, message } };
  }
}

function asWritten(path: string, text: string): ComponentFile {
  const { script, scriptPath, rest, markup } = splitSingleFile(path, text);
  const imports = path.endsWith('.svelte') ? importsInMarkup(markup) : [];
  const none = { drawn: null, bindings: new Map(), compiled: null, styles: [], told: null };
  return { script, scriptPath, rest, markup, imports, ...none };
}
