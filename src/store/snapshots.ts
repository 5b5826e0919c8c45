import zlib from 'node:zlib';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from './database.ts';

/** A snapshot and its texts as they are stored, compressed. */
export interface PackedSnapshot {
  snapshot: Buffer;
  texts: Buffer | null;
  sources: Buffer | null;
}

export interface NewSnapshot {
  id: string;
  projectId: string;
  readAt: string;
  packed: PackedSnapshot;
  /** It was read because a file was saved. */
  afterSave?: boolean;
}

/** How hard is compressed what stays, and what the next save replaces while somebody waits. */
const KEPT_LEVEL = 4;
export const PASSING_LEVEL = 1;

/** Compresses what is to be stored: before a transaction begins, since others wait for it. */
export function packSnapshot(
  snapshot: Snapshot,
  texts: Record<string, string> | undefined,
  sources: Record<string, string> | undefined,
  level = KEPT_LEVEL,
): PackedSnapshot {
  const packed = (value: unknown) => pack(value, level);
  return { snapshot: packed(snapshot), texts: texts ? packed(texts) : null, sources: sources ? packed(sources) : null };
}

/**
 * Stores a snapshot with its texts, all or nothing. Of those that were read because a file was saved, the last one goes with it: while
 * somebody works there would be thousands.
 */
export function insertSnapshot(store: Store, { id, projectId, readAt, packed, afterSave = false }: NewSnapshot): void {
  const { snapshot, texts, sources } = packed;
  store
    .transaction(() => {
      store.prepare('DELETE FROM snapshots WHERE project_id = ? AND after_save = 1').run(projectId);
      store
        .prepare('INSERT INTO snapshots (id, project_id, read_at, body, after_save) VALUES (?, ?, ?, ?, ?)')
        .run(id, projectId, readAt, snapshot, afterSave ? 1 : 0);
      if (texts) store.prepare('INSERT INTO texts (snapshot_id, body) VALUES (?, ?)').run(id, texts);
      if (sources) store.prepare('INSERT INTO sources (snapshot_id, body) VALUES (?, ?)').run(id, sources);
    })
    .immediate();
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

/** What is known of a project's newest snapshot without its content; its size is that of the compressed JSON, in bytes. */
export function newestReading(
  store: Store,
  projectId: string,
): { id: string; readAt: string; bytes: number } | undefined {
  return store
    .prepare(
      'SELECT id, read_at AS readAt, LENGTH(body) AS bytes FROM snapshots WHERE project_id = ? ORDER BY read_at DESC, rowid DESC LIMIT 1',
    )
    .get(projectId) as { id: string; readAt: string; bytes: number } | undefined;
}

/** The name of a project's newest snapshot. */
export function newestSnapshotId(store: Store, projectId: string): string | undefined {
  return newestReading(store, projectId)?.id;
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

function pack(value: unknown, level: number): Buffer {
  return zlib.gzipSync(Buffer.from(JSON.stringify(value)), { level });
}
