import type { EffectivePlan } from '../plan/effective.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { AllReach } from './all-reach.ts';
import { type Atom, atomsOf } from './atoms.ts';
import { addAll, difference, emptyBits, has } from './bits.ts';
import { builtAtoms, cutAsBuilt } from './built.ts';
import { evaluationCost } from './evaluation-cost.ts';
import { chunkName, shortHash, uniqueNames } from './names.ts';
import { presentSets } from './present.ts';
import { evaluationOrder, Reacher } from './reach.ts';
import { collectRoots, type RootDraft, rootCandidates } from './roots.ts';
import { shapeAtoms } from './shape/shape.ts';
import { rootWeights } from './shape/weights.ts';
import { estimateBytes, overheadOf } from './sizes.ts';
import type { Chunk, ChunkBytes, ChunkGraph, Root } from './types.ts';

/**
 * Cuts a snapshot into chunks under a plan. Modules of one realm that the same roots need form one chunk (styles
 * and scripts apart); a root's load group is the chunks of what it needs and doesn't find present. The result
 * doesn't depend on the order of the snapshot's arrays but for the numbers in it.
 */
export function formChunks(
  snapshot: Snapshot,
  { deferred, shaping }: Pick<EffectivePlan, 'deferred' | 'shaping'>,
): ChunkGraph {
  const index = graphIndex(snapshot);
  const reacher = new Reacher(index, deferred);
  const reach = new AllReach(index, deferred, rootCandidates(snapshot, index, deferred));
  const graph: ChunkGraph = { realms: [], roots: [], chunks: [], unreached: [] };
  const reached = emptyBits(snapshot.modules.length);
  const entries = [...snapshot.entries].sort((a, b) => (a.realm < b.realm ? -1 : 1));
  for (const entry of entries) {
    graph.realms.push(entry.realm);
    const drafts = collectRoots(snapshot, index, deferred, reach, entry);
    for (const draft of drafts) addAll(reached, draft.reach);
    const present = presentSets(snapshot, index, reacher, drafts);
    const need = drafts.map((d, r) => difference(d.reach, present[r]));
    const order = evaluationOrder(
      index,
      deferred,
      drafts.flatMap((d) => d.target),
    );
    const built = snapshot.output ? cutAsBuilt(snapshot, entry) : null;
    const atoms = built ? builtAtoms(snapshot, built, { drafts, need }, order) : atomsOf(snapshot, need, order);
    const shaped = shapeAtoms(snapshot, atoms, shaping, rootWeights(snapshot, drafts), order);
    addRealm(graph, snapshot, entry.realm, drafts, present, need, shaped, shaping.names);
  }
  const targets = new Set<number>();
  for (let i = 0; i < deferred.length; i++)
    if (deferred[i] && !has(reached, index.target[i])) targets.add(index.target[i]);
  graph.unreached = [...targets].sort((a, b) => index.rank[a] - index.rank[b]);
  return graph;
}

function addRealm(
  graph: ChunkGraph,
  snapshot: Snapshot,
  realm: string,
  drafts: RootDraft[],
  present: Root['present'][],
  need: Uint32Array[],
  atoms: Atom[],
  byHand: ReadonlyMap<string, string>,
): void {
  const firstRoot = graph.roots.length;
  const firstChunk = graph.chunks.length;
  const roots = drafts.map((draft, r): Root => {
    return {
      ...draft,
      realm,
      askedBy: draft.askedBy.map((a) => ({ root: a.root + firstRoot, import: a.import })),
      present: present[r],
      need: need[r],
      group: [],
    };
  });
  const names = uniqueNames(
    atoms.map((a) => a.name ?? `${chunkName(snapshot, drafts, a)}${a.kind === 'style' ? ' styles' : ''}`),
  );
  const ids = uniqueNames(atoms.map((a) => shortHash(identityOf(a, drafts)))).map(
    (hash) => `${realm}/${hash.replace(' ', '-')}`,
  );
  const deferredChunks = atoms.filter((a) => !a.roots.includes(0)).length;
  const last = drafts[0]?.target.at(-1) ?? -1;
  const startsRealm = (atom: Atom) => atom.kind === 'script' && !snapshot.output && atom.modules.includes(last);
  atoms.forEach((atom, at) => {
    const { bytes, overhead } = atom.file
      ? { bytes: atom.file.bytes, overhead: { minified: atom.file.unmapped, gzip: 0 } }
      : formedBytes(snapshot, atom, startsRealm(atom), deferredChunks);
    const chunk: Chunk = {
      id: ids[at],
      name: byHand.get(ids[at]) ?? names[at],
      kind: atom.kind,
      realm,
      roots: atom.roots.map((r) => r + firstRoot),
      modules: atom.modules,
      bytes,
      overhead,
      ...evaluationCost(snapshot, atom.modules),
      ...(atom.file ? { file: atom.file.path } : {}),
    };
    if (chunk.kind === 'script') chunk.estimatedBytes += overhead.minified;
    graph.chunks.push(chunk);
    for (const r of atom.roots) roots[r].group.push(firstChunk + at);
  });
  graph.roots.push(...roots);
}

/** What a chunk is told by from one plan to the next: its file, the name it was gathered under, or who needs it. */
function identityOf({ file, name, kind, roots }: Atom, drafts: RootDraft[]): string[] {
  return file ? [file.path] : [...(name ? [name] : []), kind, ...roots.map((r) => drafts[r].id)];
}

/** Sizes of a chunk that doesn't exist yet, with what the build will put around its modules. */
function formedBytes(
  snapshot: Snapshot,
  atom: Atom,
  isEntry: boolean,
  deferredChunks: number,
): { bytes: ChunkBytes; overhead: Chunk['overhead'] } {
  const overhead =
    atom.kind === 'style' ? { minified: 0, gzip: 0 } : overheadOf(atom.modules.length, isEntry, deferredChunks);
  const bytes = estimateBytes(snapshot, atom.modules);
  bytes.minified += overhead.minified;
  bytes.gzip += overhead.gzip;
  bytes.brotli += overhead.gzip;
  return { bytes, overhead };
}
