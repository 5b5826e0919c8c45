import type { Decision } from '../core/plan/types.ts';
import type { Store } from './database.ts';

export interface StoredPlan {
  id: string;
  projectId: string;
  name: string;
  description: string;
  decisions: Decision[];
  /** Name of the plan that it began as a copy of; null for one that began empty, or whose origin is gone. */
  basedOn: string | null;
  version: number;
  changedAt: string;
}

type Row = Omit<StoredPlan, 'decisions'> & { decisions: string };

const COLUMNS =
  'id, project_id AS projectId, name, description, decisions, based_on AS basedOn, version, changed_at AS changedAt';

/** Plans of a project, by name. */
export function listPlans(store: Store, projectId: string): StoredPlan[] {
  const rows = store.prepare(`SELECT ${COLUMNS} FROM plans WHERE project_id = ? ORDER BY name`).all(projectId) as Row[];
  return rows.map(fromRow);
}

export function findPlan(store: Store, id: string): StoredPlan | undefined {
  const row = store.prepare(`SELECT ${COLUMNS} FROM plans WHERE id = ?`).get(id) as Row | undefined;
  return row && fromRow(row);
}

export function insertPlan(store: Store, plan: StoredPlan): void {
  store
    .prepare(
      'INSERT INTO plans (id, project_id, name, description, decisions, based_on, version, changed_at) VALUES (@id, @projectId, @name, @description, @decisions, @basedOn, @version, @changedAt)',
    )
    .run({ ...plan, decisions: JSON.stringify(plan.decisions) });
}

/** Writes a plan if it still has the version that the writer saw. Gives whether it did. */
export function updatePlan(store: Store, plan: StoredPlan, seenVersion: number): boolean {
  const { changes } = store
    .prepare(
      'UPDATE plans SET name = @name, description = @description, decisions = @decisions, version = @version, changed_at = @changedAt WHERE id = @id AND version = @seenVersion',
    )
    .run({ ...plan, decisions: JSON.stringify(plan.decisions), seenVersion });
  return changes === 1;
}

export function deletePlan(store: Store, id: string): boolean {
  return store.prepare('DELETE FROM plans WHERE id = ?').run(id).changes === 1;
}

/** Those that began as a copy of a plan follow its new name, or forget it. */
export function renameOrigin(store: Store, projectId: string, from: string, to: string | null): void {
  store
    .prepare('UPDATE plans SET based_on = @to WHERE project_id = @projectId AND based_on = @from')
    .run({ projectId, from, to });
}

function fromRow(row: Row): StoredPlan {
  return { ...row, decisions: JSON.parse(row.decisions) as Decision[] };
}
