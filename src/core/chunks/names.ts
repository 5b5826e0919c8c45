import type { Snapshot } from '../snapshot/types.ts';
import { shortName } from '../text/short-name.ts';
import type { Atom } from './atoms.ts';
import type { RootDraft } from './roots.ts';

/**
 * A name that a person understands: what the chunk is for, or, for a shared one, the package or module that it
 * mostly holds, or who shares it. A document has several files as built, so those are named by what they hold. Not yet
 * unique; `uniqueNames` sees to that.
 */
export function chunkName(snapshot: Snapshot, drafts: RootDraft[], { roots, modules, file }: Atom): string {
  if (modules.length === 0) return file?.path ?? 'empty';
  if (roots.length === 1 && !(file && roots[0] === 0)) return rootName(snapshot, drafts[roots[0]]);
  const weight = new Map<string, number>();
  let total = 0;
  let heaviest = modules[0];
  for (const m of modules) {
    const { package: name, bytes } = snapshot.modules[m];
    total += bytes.minified;
    if (bytes.minified > snapshot.modules[heaviest].bytes.minified) heaviest = m;
    if (name) weight.set(name, (weight.get(name) ?? 0) + bytes.minified);
  }
  const [most] = [...weight].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  if (most && most[1] > total * 0.6) return most[0];
  if (snapshot.modules[heaviest].bytes.minified > total * 0.5) return shortName(snapshot.modules[heaviest].path);
  const names = roots.map((r) => rootName(snapshot, drafts[r]));
  if (names.length === 1) return shortName(snapshot.modules[heaviest].path);
  return names.length <= 3 ? names.join(' + ') : `${names[0]} + ${names.length - 1} more`;
}

/** The name of a root: the entry's, what the code calls it where it is imported, or that of the module it stands for. */
export function rootName(snapshot: Snapshot, root: Pick<RootDraft, 'kind' | 'target'>): string {
  if (root.kind === 'entry') return 'entry';
  const [target] = root.target;
  return namesInCode(snapshot).get(target) ?? shortName(snapshot.modules[target].path);
}

const cached = new WeakMap<Snapshot['imports'], Map<number, string>>();

/** What deferred imports call their targets; of several names the first. */
function namesInCode({ imports }: Snapshot): Map<number, string> {
  const known = cached.get(imports);
  if (known) return known;
  const names = new Map<number, string>();
  for (const { to, named } of imports) if (named !== undefined && !names.has(to)) names.set(to, named);
  cached.set(imports, names);
  return names;
}

/** Makes names unique by numbering repeats, in the order given. */
export function uniqueNames(names: string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const n = (seen.get(name) ?? 0) + 1;
    seen.set(name, n);
    return n === 1 ? name : `${name} ${n}`;
  });
}

/** Short, stable text from a list of keys (FNV-1a over the text, base 36). */
export function shortHash(keys: string[]): string {
  let h = 0x811c9dc5;
  for (const key of keys) {
    for (let i = 0; i < key.length; i++) h = Math.imul(h ^ key.charCodeAt(i), 0x01000193);
    h = Math.imul(h ^ 0x1f, 0x01000193);
  }
  return (h >>> 0).toString(36).padStart(7, '0');
}
