import zlib from 'node:zlib';
import type { Decision } from '../core/plan/types.ts';
import { type RehearsalSummary, summaryOf } from '../core/rehearsals/summary.ts';
import type { Rehearsal, RehearsedRun } from '../core/rehearsals/types.ts';
import type { Store } from './database.ts';

/** A rehearsal that is kept, as lists have it. */
export interface KeptRehearsal {
  id: string;
  projectId: string;
  /** The snapshot that it was made from, and the plan’s decisions then. */
  snapshotId: string;
  decisions: Decision[];
  summary: RehearsalSummary;
}

/** One that is to be kept. */
export type NewRehearsal = Omit<KeptRehearsal, 'summary'> & { rehearsal: Rehearsal };

/** So many are kept of a project; older ones go. */
const MOST_KEPT = 60;

type Row = Omit<KeptRehearsal, 'decisions' | 'summary'> & { decisions: string; summary: string };

/** Rehearsals of a project, the newest first, without what was measured. */
export function listRehearsals(store: Store, projectId: string): KeptRehearsal[] {
  const rows = store
    .prepare(
      'SELECT id, project_id AS projectId, snapshot_id AS snapshotId, decisions, summary FROM rehearsals WHERE project_id = ? ORDER BY made_at DESC, rowid DESC',
    )
    .all(projectId) as Row[];
  return rows.map((row) => ({ ...row, decisions: JSON.parse(row.decisions), summary: JSON.parse(row.summary) }));
}

/** All that was measured in one; undefined when there is no such. */
export function rehearsalOf(store: Store, projectId: string, id: string): Rehearsal | undefined {
  const row = store.prepare('SELECT body FROM rehearsals WHERE project_id = ? AND id = ?').get(projectId, id);
  return row === undefined ? undefined : asNow(JSON.parse(zlib.gunzipSync((row as { body: Buffer }).body).toString()));
}

/** Before migration 12 a rehearsal held one act at most, and one wait. */
type Before = Omit<Rehearsal, 'runs'> & {
  act?: string;
  runs: (RehearsedRun & { moments: { wait?: number | null } })[];
};

function asNow({ act, ...kept }: Before): Rehearsal {
  if (act === undefined) return kept;
  const runs = kept.runs.map(({ moments: { wait = null, ...moments }, ...run }) => ({
    ...run,
    moments: { ...moments, waits: [wait] },
  }));
  return { ...kept, acts: [act], runs };
}

/** Keeps a rehearsal, and lets go of the oldest beyond those that are kept. */
export function insertRehearsal(store: Store, { id, projectId, snapshotId, decisions, rehearsal }: NewRehearsal): void {
  const body = zlib.gzipSync(JSON.stringify(rehearsal));
  const summary = JSON.stringify(summaryOf(rehearsal));
  store
    .transaction(() => {
      store
        .prepare(
          'INSERT INTO rehearsals (id, project_id, snapshot_id, decisions, made_at, summary, body) VALUES (?, ?, ?, ?, ?, ?, ?)',
        )
        .run(id, projectId, snapshotId, JSON.stringify(decisions), rehearsal.at, summary, body);
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
