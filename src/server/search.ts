import type { Store } from '../store/database.ts';
import { newestSnapshotId, textsOf } from '../store/snapshots.ts';
import { Problem } from './problem.ts';
import { noProject } from './projects.ts';

export interface TextHit {
  path: string;
  /** What stands around the phrase. */
  around: string;
}

const MOST_HITS = 60;
const AROUND = 40;

/** Texts of the snapshot that was searched last: unpacking them takes much longer than looking through them. */
const held = globalThis as typeof globalThis & {
  yokelineTexts?: { snapshotId: string; texts: { path: string; text: string; lower: string }[] };
};

/** Modules in whose shipped text a phrase stands, such as one that was seen on the screen; case doesn't matter. */
export function searchTexts(store: Store, projectId: string, phrase: string): TextHit[] {
  const snapshotId = newestSnapshotId(store, projectId);
  if (snapshotId === undefined) throw noProject();
  const wanted = phrase.trim().toLowerCase();
  if (wanted.length < 3)
    throw new Problem('phrase-too-short', 'Phrase too short', 'Give at least three characters.', { at: 'q' });
  if (held.yokelineTexts?.snapshotId !== snapshotId) {
    const all = Object.entries(textsOf(store, snapshotId));
    const texts = all.map(([path, text]) => ({ path, text, lower: text.toLowerCase() }));
    held.yokelineTexts = { snapshotId, texts };
  }
  const hits: TextHit[] = [];
  for (const { path, text, lower } of held.yokelineTexts.texts) {
    const at = lower.indexOf(wanted);
    if (at < 0) continue;
    hits.push({ path, around: text.slice(Math.max(0, at - AROUND), at + wanted.length + AROUND) });
    if (hits.length === MOST_HITS) break;
  }
  return hits;
}
