import type { Store } from './database.ts';

export interface ProjectRow {
  id: string;
  name: string;
  createdAt: string;
}

/** Projects, newest first. */
export function listProjects(store: Store): ProjectRow[] {
  return store
    .prepare('SELECT id, name, created_at AS createdAt FROM projects ORDER BY created_at DESC, id')
    .all() as ProjectRow[];
}

export function findProject(store: Store, id: string): ProjectRow | undefined {
  return store.prepare('SELECT id, name, created_at AS createdAt FROM projects WHERE id = ?').get(id) as
    | ProjectRow
    | undefined;
}

export function insertProject(store: Store, row: ProjectRow): void {
  store.prepare('INSERT INTO projects (id, name, created_at) VALUES (@id, @name, @createdAt)').run(row);
}
