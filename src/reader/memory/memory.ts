import { hash } from 'node:crypto';
import type { FilesMemory } from './files-memory.ts';
import type { Foresees } from './left-asked.ts';

/**
 * What a text alone decides, by what it is about. Nothing that depends on other files may be among it, but for what its key names.
 * `script`: what a script says; `live`: what is left of it when some exports are taken; `small`: its minified text; `weight`: sizes of a text
 * alone; `added`: what a text adds to a stream after others; `words`: names that a text mentions; `sheet`: what a style sheet ships as; `rules`, `names`: what its
 * selectors need.
 */
export type Remembered = 'script' | 'live' | 'small' | 'weight' | 'added' | 'words' | 'sheet' | 'rules' | 'names';

/** What earlier readings found out, by key. What it gives is shared: nobody may change it. */
export interface Memory {
  /** `of`: the first of the parts that the key was made of. */
  recall(key: string, of: string): unknown;
  keep(key: string, value: unknown): void;
  /** What `digestOf` gives, which may be known. */
  digest(text: string): string;
  /** Texts of files as they were last, where readings follow one another in one process. */
  readonly files: FilesMemory | null;
  /** Threads that find out what will be asked for soon, where there are any. */
  readonly foresee: Foresees | null;
}

/** A reading has its process to itself, so there is one of these. */
let memory: Memory | null = null;

/** Has readings use what earlier ones found out; null: none of it. Gives what they used until now. */
export function rememberWith(by: Memory | null): Memory | null {
  const before = memory;
  memory = by;
  return before;
}

/** What the memory that is used now holds of files, if any. */
export function filesInMemory(): FilesMemory | null {
  return memory?.files ?? null;
}

/** Tells those who can find it out ahead what will be asked for soon. `tell` is only called where there are any. */
export function foresee(tell: (by: Foresees) => void): void {
  if (memory?.foresee) tell(memory.foresee);
}

/** What `digestOf` gives for a text that readings come to again and again. */
export function knownDigest(text: string): string {
  return memory?.digest(text) ?? digestOf(text);
}

/** Longer parts stand in keys by their digests. */
const LONG = 60;

/**
 * What `make` gives for these texts: known from an earlier reading, or found out now and kept. `parts` must name all that it depends on; what it
 * throws isn't kept. `holds`: whether what is known still holds, where that rests on something that the parts can't name.
 */
export function remembered<T>(
  kind: Remembered,
  parts: readonly string[],
  make: () => T,
  holds: (known: T) => boolean = () => true,
): T {
  const by = memory;
  if (by === null) return make();
  // What is written out and what is a digest must never be taken for one another.
  const named = parts.map((part) => (part.length < LONG ? `=${part}` : `#${by.digest(part)}`));
  const key = `${kind} ${named.join('\0')}`;
  const known = by.recall(key, parts[0]) as T | undefined;
  if (known !== undefined && holds(known)) return known;
  const made = make();
  by.keep(key, made);
  return made;
}

/** A short name of a text: equal for equal texts, and for no others. */
export function digestOf(text: string | Buffer): string {
  return hash('sha1', text, 'base64');
}
