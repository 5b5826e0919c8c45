import type { Amendments } from '../core/amend/types.ts';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import type { Store } from './database.ts';

export interface ProjectRow {
  id: string;
  name: string;
  createdAt: string;
  /** Folder on this machine that it was read from. */
  folder: string | null;
  /** What the folder was read as, and the base address that was given for it. */
  readAs: string;
  givenBase: string | null;
  /** The folder around it whose files may be read too, where a person allowed it. */
  workspace: string | null;
  /** Files that a person named as what starts the app; none where that was found. */
  starts: string[];
  /** Whether it is kept in step with its folder while somebody looks at it. */
  follows: boolean;
}

const COLUMNS =
  'id, name, created_at AS createdAt, folder, read_as AS readAs, given_base AS givenBase, workspace, starts, follows';

type Stored = Omit<ProjectRow, 'starts' | 'follows'> & { starts: string; follows: number };

function rowOf(stored: Stored): ProjectRow {
  return { ...stored, starts: JSON.parse(stored.starts) as string[], follows: stored.follows === 1 };
}

/** Projects, newest first. */
export function listProjects(store: Store): ProjectRow[] {
  const rows = store.prepare(`SELECT ${COLUMNS} FROM projects ORDER BY created_at DESC, id`).all() as Stored[];
  return rows.map(rowOf);
}

export function findProject(store: Store, id: string): ProjectRow | undefined {
  const row = store.prepare(`SELECT ${COLUMNS} FROM projects WHERE id = ?`).get(id) as Stored | undefined;
  return row && rowOf(row);
}

export function insertProject(store: Store, row: Omit<ProjectRow, 'follows'>): void {
  store
    .prepare(
      'INSERT INTO projects (id, name, created_at, folder, read_as, given_base, workspace, starts) VALUES (@id, @name, @createdAt, @folder, @readAs, @givenBase, @workspace, @starts)',
    )
    .run({ ...row, starts: JSON.stringify(row.starts) });
}

/** Keeps the workspace that a person allowed to be read. */
export function updateWorkspace(store: Store, id: string, workspace: string | null): void {
  store.prepare('UPDATE projects SET workspace = ? WHERE id = ?').run(workspace, id);
}

/** Keeps whether a project is to be kept in step with its folder. */
export function updateFollows(store: Store, id: string, follows: boolean): void {
  store.prepare('UPDATE projects SET follows = ? WHERE id = ?').run(follows ? 1 : 0, id);
}

/** The text of the file beside the code as both agreed last; null where none is kept. */
export function keptTextOf(store: Store, id: string): string | null {
  const row = store.prepare('SELECT kept_text AS text FROM projects WHERE id = ?').get(id) as { text: string | null };
  return row.text;
}

export function updateKeptText(store: Store, id: string, text: string | null): void {
  store.prepare('UPDATE projects SET kept_text = ? WHERE id = ?').run(text, id);
}

export interface StoredAmendments {
  version: number;
  amendments: Amendments;
}

/** What a person corrected on a project; undefined when there is no such project. */
export function amendmentsOf(store: Store, projectId: string): StoredAmendments | undefined {
  const row = store
    .prepare('SELECT amendments, amendments_version AS version FROM projects WHERE id = ?')
    .get(projectId) as { amendments: string; version: number } | undefined;
  return row && { version: row.version, amendments: { ...NO_AMENDMENTS, ...JSON.parse(row.amendments) } };
}

/** Writes corrections if they still have the version that the writer saw. Gives whether it did. */
export function updateAmendments(
  store: Store,
  projectId: string,
  seenVersion: number,
  amendments: Amendments,
): boolean {
  const { changes } = store
    .prepare(
      'UPDATE projects SET amendments = ?, amendments_version = amendments_version + 1 WHERE id = ? AND amendments_version = ?',
    )
    .run(JSON.stringify(amendments), projectId, seenVersion);
  return changes === 1;
}
