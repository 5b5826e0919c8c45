import { randomUUID } from 'node:crypto';
import zlib from 'node:zlib';
import { parseProject } from '../core/formats/project-file.ts';
import type { Plan } from '../core/plan/types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from '../store/database.ts';
import { insertPlan, listPlans, type StoredPlan } from '../store/plans.ts';
import { findProject, insertProject, listProjects, type ProjectRow } from '../store/projects.ts';
import { insertSnapshot, newestSnapshot, textsOf } from '../store/snapshots.ts';
import { Problem } from './problems.ts';

export interface ProjectView extends ProjectRow {
  snapshotId: string;
  readAt: string;
  plans: StoredPlan[];
}

const FIRST_PLAN = 'First plan';

export function allProjects(store: Store): ProjectRow[] {
  return listProjects(store);
}

/** A project with its plans and the name of its newest snapshot. */
export function projectView(store: Store, id: string): ProjectView {
  const row = findProject(store, id);
  const snapshot = row && newestSnapshot(store, id);
  if (!row || !snapshot) throw new Problem(404, 'No such project', 'It may have been deleted. Open another one.');
  return { ...row, snapshotId: snapshot.id, readAt: snapshot.readAt, plans: listPlans(store, id) };
}

/** The newest snapshot as JSON text. */
export function snapshotBody(store: Store, projectId: string): Buffer {
  const found = newestSnapshot(store, projectId);
  if (!found) throw new Problem(404, 'No such project', 'It may have been deleted. Open another one.');
  return zlib.gunzipSync(found.body);
}

/** Stores a project whole: itself, its snapshot and its plans, or nothing at all. */
export function addProject(
  store: Store,
  snapshot: Snapshot,
  plans: Plan[],
  {
    texts,
    folder = null,
    id = randomUUID(),
  }: { texts?: Record<string, string>; folder?: string | null; id?: string } = {},
): string {
  const now = new Date().toISOString();
  store.transaction(() => {
    insertProject(store, { id, name: titleOf(snapshot.name), createdAt: now, folder });
    insertSnapshot(store, { id: randomUUID(), projectId: id, readAt: now, snapshot, texts });
    const own = plans.length > 0 ? plans : [{ name: FIRST_PLAN, description: '', decisions: [] }];
    for (const plan of own) insertPlan(store, { id: randomUUID(), projectId: id, ...plan, version: 1, changedAt: now });
  })();
  return id;
}

export interface TextHit {
  path: string;
  /** What stands around the phrase. */
  around: string;
}

const MOST_HITS = 60;
const AROUND = 40;

/** Modules in whose shipped text a phrase stands, such as one that was seen on the screen; case doesn't matter. */
export function searchTexts(store: Store, projectId: string, phrase: string): TextHit[] {
  const found = newestSnapshot(store, projectId);
  if (!found) throw new Problem(404, 'No such project', 'It may have been deleted. Open another one.');
  const wanted = phrase.trim().toLowerCase();
  if (wanted.length < 3) throw new Problem(422, 'Phrase too short', 'Give at least three characters.', { at: 'q' });
  const hits: TextHit[] = [];
  for (const [path, text] of Object.entries(textsOf(store, found.id))) {
    const at = text.toLowerCase().indexOf(wanted);
    if (at < 0) continue;
    hits.push({ path, around: text.slice(Math.max(0, at - AROUND), at + wanted.length + AROUND) });
    if (hits.length === MOST_HITS) break;
  }
  return hits;
}

/** Opens a project file that somebody brought. */
export function importProject(store: Store, fileName: string, text: string): string {
  const { snapshot, plans, texts } = parseProject(text, fileName);
  return addProject(store, snapshot, plans, texts ? { texts } : {});
}

/** `saltmarsh-ferries` → `Saltmarsh Ferries`. */
function titleOf(name: string): string {
  return name
    .replace(/^@[^/]+\//, '')
    .split(/[-_\s]+/)
    .map((w) => w.charAt(0).toUpperCase() + w.slice(1))
    .join(' ');
}
