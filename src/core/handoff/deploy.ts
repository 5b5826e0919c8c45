import { planned } from '../chunks/planned.ts';
import type { Chunk, ChunkGraph } from '../chunks/types.ts';
import { BASELINE } from '../plan/types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { alignedKilobytes } from '../text/amounts.ts';
import { oneLine } from '../text/one-line.ts';
import { Addresses, type FileMap } from './addresses.ts';

/** What becomes of a file with the plan, against the app as built. */
export type FileState = 'new' | 'changed' | 'as it is' | 'gone';

export interface DeployedFile {
  state: FileState;
  address: string;
  kind: Chunk['kind'];
  /** Compressed bytes. */
  bytes: number;
  /** Whether its content changes with the app's own code, or only with packages. */
  changesWith: 'own code' | 'packages';
}

/**
 * Files that a server has to offer under a plan, and those of the app as built that go: what holds other modules than
 * before is changed where a file of that name was there, new otherwise.
 */
export function filesToDeploy(
  app: Snapshot,
  snapshot: Snapshot,
  graph: ChunkGraph,
  addresses: Addresses,
  files: FileMap | null,
): DeployedFile[] {
  const built = planned(app, BASELINE).graph;
  const before = new Addresses(app, built, files);
  const keyOf = (of: Snapshot, { kind, realm, modules }: Chunk) =>
    `${kind} ${realm} ${[...modules]
      .map((m) => of.modules[m].path)
      .sort()
      .join('\n')}`;
  const nameOf = ({ kind, realm, name }: Chunk) => `${kind} ${realm} ${name}`;
  const same = new Set(built.chunks.map((c) => keyOf(app, c)));
  const names = new Set(built.chunks.map(nameOf));
  const told = (of: Snapshot, chunk: Chunk, state: FileState, address: string): DeployedFile => ({
    state,
    address,
    kind: chunk.kind,
    bytes: Math.round(chunk.bytes.gzip),
    changesWith: [...chunk.modules].some((m) => of.modules[m].package === null) ? 'own code' : 'packages',
  });
  const now = graph.chunks.map((c, at) => {
    const state = same.has(keyOf(snapshot, c)) ? 'as it is' : names.has(nameOf(c)) ? 'changed' : 'new';
    return told(snapshot, c, state, addresses.of(at));
  });
  const kept = new Set(graph.chunks.flatMap((c) => [keyOf(snapshot, c), nameOf(c)]));
  const gone = built.chunks.flatMap((c, at) =>
    kept.has(keyOf(app, c)) || kept.has(nameOf(c)) ? [] : [told(app, c, 'gone', before.of(at))],
  );
  return [...now, ...gone];
}

const ORDER: FileState[] = ['new', 'changed', 'gone', 'as it is'];

/** The same as lines of text, what is to be done first. */
export function deployText(base: string, files: readonly DeployedFile[]): string {
  const counts = ORDER.map((state) => `${files.filter((f) => f.state === state).length} ${state}`);
  const lines = ORDER.flatMap((state) =>
    files
      .filter((f) => f.state === state)
      .map(
        (f) =>
          `${state.padEnd(10)}${alignedKilobytes(f.bytes).padStart(10)}  ${oneLine(f.address)}  (${f.changesWith})`,
      ),
  );
  return [
    `# Served under ${oneLine(base)}: deferred loads ask there; under a wrong address all of them fail.`,
    `# ${counts.join(', ')}. Compressed sizes; what each changes with.`,
    '# Names with a hash of the content: Cache-Control: public, max-age=31536000, immutable.',
    '# Leave the files of earlier builds while pages may be open that were loaded before.',
    ...lines,
  ].join('\n');
}
