import { splitSingleFile } from '../single-file.ts';
import { islandFile } from './islands.ts';
import { svelteFile } from './svelte.ts';
import type { ComponentFile } from './types.ts';
import { vueFile } from './vue.ts';

/** Takes a component that is written in one file apart, by the ending of its name; null for any other file. */
export function componentFile(path: string, text: string): ComponentFile | null {
  if (path.endsWith('.vue')) return vueFile(path, text);
  if (path.endsWith('.svelte')) return svelteFile(path, text);
  if (path.endsWith('.astro')) return islandFile(path, text);
  if (!path.endsWith('.mdx')) return null;
  const { script, scriptPath, rest, markup } = splitSingleFile(path, text);
  return { script, scriptPath, rest, markup, drawn: null, bindings: new Map(), compiled: null, styles: [], told: null };
}
