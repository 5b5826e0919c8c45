import { effectivePlan } from '../plan/effective.ts';
import { BASELINE } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Entry } from '../snapshot/module-types.ts';
import type { BuiltFile } from '../snapshot/output-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { AllReach } from './all-reach.ts';
import { type Atom, atomsOf } from './atoms.ts';
import { difference } from './bits.ts';
import { presentSets } from './present.ts';
import { Reacher } from './reach.ts';
import { collectRoots, type RootDraft, rootCandidates } from './roots.ts';
import type { ChunkBytes } from './types.ts';

/** One realm's roots and what each needs, under one plan. */
export interface Needs {
  drafts: RootDraft[];
  need: Uint32Array[];
}

/** A realm of a production output as it was built: which root needs which module, and the files that start it. */
export interface AsBuilt extends Needs {
  /** Files that the document asks for, with all that they import at once. */
  started: Set<number>;
  signatures: Signatures;
  /** Per module: which roots need it. */
  neededBy: Int32Array;
}

/** Numbers sets of roots, so that two cuts of one realm can be compared module by module. Number 0 is the empty set. */
class Signatures {
  private readonly nodes = new Map<string, number>();

  of({ drafts, need }: Needs, modules: number): Int32Array {
    const at = new Int32Array(modules);
    const order = drafts.map((_, r) => r).sort((a, b) => (drafts[a].id < drafts[b].id ? -1 : 1));
    for (const r of order) {
      for (const m of need[r]) at[m] = this.next(at[m], drafts[r].id);
    }
    return at;
  }

  private next(node: number, root: string): number {
    const key = `${node} ${root}`;
    let found = this.nodes.get(key);
    if (found === undefined) {
      found = this.nodes.size + 1;
      this.nodes.set(key, found);
    }
    return found;
  }
}

const cache = new WeakMap<Snapshot, Map<string, AsBuilt>>();

/** The realm as built. The same object for the same snapshot: no plan changes what was built. */
export function cutAsBuilt(snapshot: Snapshot, entry: Entry): AsBuilt {
  const known = cache.get(snapshot) ?? new Map<string, AsBuilt>();
  cache.set(snapshot, known);
  let made = known.get(entry.realm);
  if (!made) {
    const index = graphIndex(snapshot);
    const { deferred } = effectivePlan(snapshot, BASELINE);
    const reacher = new Reacher(index, deferred);
    const reach = new AllReach(index, deferred, rootCandidates(snapshot, index, deferred));
    const drafts = collectRoots(snapshot, index, deferred, reach, entry);
    const present = presentSets(snapshot, index, reacher, drafts);
    const need = drafts.map((d, r) => difference(d.reach, present[r]));
    const signatures = new Signatures();
    const neededBy = signatures.of({ drafts, need }, snapshot.modules.length);
    made = { drafts, need, started: startedFiles(snapshot, entry.realm), signatures, neededBy };
    known.set(entry.realm, made);
  }
  return made;
}

/**
 * The files of a production output under a plan: real files stay as they are but for the modules that other roots
 * need now than when it was built; those leave their files and form chunks of their own. A load group is the real
 * files that hold what the root needs (the document's own files for the entry), and the new chunks.
 */
export function builtAtoms(snapshot: Snapshot, built: AsBuilt, now: Needs, order: Int32Array): Atom[] {
  const { files } = snapshot.output!;
  const moved = movedModules(built, now);
  const homes = homesOf(snapshot);
  const rootsOf = new Map<number, Set<number>>();
  const ask = (file: number, root: number) => {
    const roots = rootsOf.get(file) ?? new Set();
    rootsOf.set(file, roots.add(root));
  };
  now.need.forEach((need, root) => {
    const taken = root === 0 ? new Set(built.started) : new Set<number>();
    for (const file of taken) ask(file, root);
    for (const m of [...need].sort((a, b) => order[a] - order[b])) {
      const at = homes[m];
      if (moved[m] || at.length === 0 || at.some((f) => taken.has(f) || (root !== 0 && built.started.has(f)))) continue;
      for (const f of withStaticImports(files, [at[0]])) {
        if (root !== 0 && built.started.has(f)) continue;
        taken.add(f);
        ask(f, root);
      }
    }
  });
  const real = [...rootsOf]
    .sort(([a], [b]) => a - b)
    .map(([file, roots]) => realAtom(snapshot, files[file], roots, moved))
    .filter((atom) => atom.file!.bytes.minified > 0);
  const gone = now.need.map((need) => need.filter((m) => moved[m]));
  return [...real, ...atomsOf(snapshot, gone, order)];
}

/** 1 for modules that are needed by other roots under the plan than as built. */
function movedModules(built: AsBuilt, now: Needs): Uint8Array {
  const after = built.signatures.of(now, built.neededBy.length);
  // What no root needs any more stays in its file: a build leaves it out only when nothing imports it.
  return Uint8Array.from(after, (set, m) => (set !== 0 && set !== built.neededBy[m] ? 1 : 0));
}

/** Files that hold each module, in the order of the files. */
function homesOf(snapshot: Snapshot): number[][] {
  const homes: number[][] = snapshot.modules.map(() => []);
  snapshot.output!.files.forEach((file, f) => {
    for (const { module } of file.modules) homes[module].push(f);
  });
  return homes;
}

function startedFiles(snapshot: Snapshot, realm: string): Set<number> {
  const { files, starts } = snapshot.output!;
  const tags = starts.find((s) => s.realm === realm)?.tags ?? [];
  return withStaticImports(
    files,
    tags.map((t) => t.file),
  );
}

function withStaticImports(files: BuiltFile[], from: number[]): Set<number> {
  const all = new Set(from);
  for (const f of all) for (const { to, kind } of files[f].imports) if (kind === 'static') all.add(to);
  return all;
}

/** What a plan leaves of a real file. Untouched files keep their exact sizes; of others the same share goes from each. */
function realAtom(snapshot: Snapshot, file: BuiltFile, roots: Set<number>, moved: Uint8Array): Atom {
  const stays = file.modules.filter(({ module }) => !moved[module]);
  const mapped = file.modules.reduce((sum, m) => sum + m.bytes, 0);
  const left = stays.reduce((sum, m) => sum + m.bytes, 0);
  const unmapped = Math.max(0, file.bytes.minified - mapped);
  const minified = stays.length === file.modules.length ? file.bytes.minified : left === 0 ? 0 : left + unmapped;
  const share = file.bytes.minified === 0 ? 0 : minified / file.bytes.minified;
  const bytes: ChunkBytes = {
    source: stays.reduce((sum, { module }) => sum + snapshot.modules[module].bytes.source, 0),
    minified,
    gzip: Math.round(file.bytes.gzip * share),
    brotli: Math.round(file.bytes.brotli * share),
  };
  return {
    kind: file.kind,
    roots: [...roots].sort((a, b) => a - b),
    modules: stays.map((m) => m.module),
    file: { path: file.path, bytes, unmapped },
  };
}
