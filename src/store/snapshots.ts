import zlib from 'node:zlib';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from './database.ts';

export interface NewSnapshot {
  id: string;
  projectId: string;
  readAt: string;
  snapshot: Snapshot;
  texts: Record<string, string> | undefined;
  sources: Record<string, string> | undefined;
}

export function insertSnapshot(store: Store, { id, projectId, readAt, snapshot, texts, sources }: NewSnapshot): void {
  store
    .prepare('INSERT INTO snapshots (id, project_id, read_at, body) VALUES (?, ?, ?, ?)')
    .run(id, projectId, readAt, pack(snapshot));
  if (texts) store.prepare('INSERT INTO texts (snapshot_id, body) VALUES (?, ?)').run(id, pack(texts));
  if (sources) store.prepare('INSERT INTO sources (snapshot_id, body) VALUES (?, ?)').run(id, pack(sources));
}

/** The newest snapshot of a project, as compressed JSON (gzip), ready to be sent on. */
export function newestSnapshot(
  store: Store,
  projectId: string,
): { id: string; readAt: string; body: Buffer } | undefined {
  return store
    .prepare(
      'SELECT id, read_at AS readAt, body FROM snapshots WHERE project_id = ? ORDER BY read_at DESC, rowid DESC LIMIT 1',
    )
    .get(projectId) as { id: string; readAt: string; body: Buffer } | undefined;
}

/** The name of a project's newest snapshot, without its content. */
export function newestSnapshotId(store: Store, projectId: string): string | undefined {
  const row = store
    .prepare('SELECT id FROM snapshots WHERE project_id = ? ORDER BY read_at DESC, rowid DESC LIMIT 1')
    .get(projectId) as { id: string } | undefined;
  return row?.id;
}

/** Minified text per module path; nothing for a snapshot that came without. */
export function textsOf(store: Store, snapshotId: string): Record<string, string> {
  return unpack(store.prepare('SELECT body FROM texts WHERE snapshot_id = ?').get(snapshotId));
}

/** Source text of the app's own scripts by path; nothing for a snapshot that came without. */
export function sourcesOf(store: Store, snapshotId: string): Record<string, string> {
  return unpack(store.prepare('SELECT body FROM sources WHERE snapshot_id = ?').get(snapshotId));
}

function unpack(row: unknown): Record<string, string> {
  return row ? JSON.parse(zlib.gunzipSync((row as { body: Buffer }).body).toString()) : {};
}

function pack(value: unknown): Buffer {
  return zlib.gzipSync(Buffer.from(JSON.stringify(value)), { level: 4 });
}
