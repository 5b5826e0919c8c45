import type { Store } from './database.ts';

export interface ProjectRow {
  id: string;
  name: string;
  createdAt: string;
  /** Folder on this machine that it was read from. */
  folder: string | null;
}

/** Projects, newest first. */
export function listProjects(store: Store): ProjectRow[] {
  return store
    .prepare('SELECT id, name, created_at AS createdAt, folder FROM projects ORDER BY created_at DESC, id')
    .all() as ProjectRow[];
}

export function findProject(store: Store, id: string): ProjectRow | undefined {
  return store.prepare('SELECT id, name, created_at AS createdAt, folder FROM projects WHERE id = ?').get(id) as
    | ProjectRow
    | undefined;
}

export function insertProject(store: Store, row: ProjectRow): void {
  store
    .prepare('INSERT INTO projects (id, name, created_at, folder) VALUES (@id, @name, @createdAt, @folder)')
    .run(row);
}
