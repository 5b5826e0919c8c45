import zlib from 'node:zlib';
import type { Decision } from '../core/plan/types.ts';
import type { Rehearsal } from '../core/rehearsals/types.ts';
import type { Store } from './database.ts';

/** A rehearsal as it is kept. */
export interface StoredRehearsal {
  id: string;
  projectId: string;
  /** The snapshot that it was made from, and the plan’s decisions then. */
  snapshotId: string;
  decisions: Decision[];
  rehearsal: Rehearsal;
}

/** So many are kept of a project; older ones go. */
const MOST_KEPT = 60;

type Row = Omit<StoredRehearsal, 'decisions' | 'rehearsal'> & { decisions: string; body: Buffer };

/** Rehearsals of a project, the newest first. */
export function listRehearsals(store: Store, projectId: string): StoredRehearsal[] {
  const rows = store
    .prepare(
      'SELECT id, project_id AS projectId, snapshot_id AS snapshotId, decisions, body FROM rehearsals WHERE project_id = ? ORDER BY made_at DESC, rowid DESC',
    )
    .all(projectId) as Row[];
  return rows.map(({ decisions, body, ...row }) => ({
    ...row,
    decisions: JSON.parse(decisions),
    rehearsal: JSON.parse(zlib.gunzipSync(body).toString()),
  }));
}

/** Keeps a rehearsal, and lets go of the oldest beyond those that are kept. */
export function insertRehearsal(
  store: Store,
  { id, projectId, snapshotId, decisions, rehearsal }: StoredRehearsal,
): void {
  const body = zlib.gzipSync(JSON.stringify(rehearsal));
  store
    .transaction(() => {
      store
        .prepare(
          'INSERT INTO rehearsals (id, project_id, snapshot_id, plan, decisions, route, made_at, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
        )
        .run(
          ...[id, projectId, snapshotId, rehearsal.plan, JSON.stringify(decisions)],
          ...[rehearsal.pattern, rehearsal.at, body],
        );
      store
        .prepare(
          'DELETE FROM rehearsals WHERE project_id = ? AND id NOT IN (SELECT id FROM rehearsals WHERE project_id = ? ORDER BY made_at DESC, rowid DESC LIMIT ?)',
        )
        .run(projectId, projectId, MOST_KEPT);
    })
    .immediate();
}

export function removeRehearsal(store: Store, projectId: string, id: string): boolean {
  return store.prepare('DELETE FROM rehearsals WHERE project_id = ? AND id = ?').run(projectId, id).changes > 0;
}

/** Whether a person allowed that the project’s code is run. */
export function mayRun(store: Store, projectId: string): boolean {
  const row = store.prepare('SELECT may_run AS mayRun FROM projects WHERE id = ?').get(projectId);
  return (row as { mayRun: number } | undefined)?.mayRun === 1;
}

/** Keeps that a person allowed it, or took it back. */
export function allowToRun(store: Store, projectId: string, allowed: boolean): void {
  store.prepare('UPDATE projects SET may_run = ? WHERE id = ?').run(allowed ? 1 : 0, projectId);
}
