import { randomUUID } from 'node:crypto';
import zlib from 'node:zlib';
import type { Amendments } from '../core/amend/types.ts';
import { AMENDMENTS } from '../core/amend/types.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, parseProject, writeProject } from '../core/formats/project-file.ts';
import type { Plan } from '../core/plan/types.ts';
import { packageTimes } from '../core/rehearsals/package-times.ts';
import { READ_AS } from '../core/snapshot/read-as.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { keepPackageTimes } from '../reader/memory/package-memory.ts';
import type { Store } from '../store/database.ts';
import { insertPlan, listPlans, type StoredPlan } from '../store/plans.ts';
import {
  amendmentsOf,
  findProject,
  insertProject,
  listProjects,
  type ProjectRow,
  type StoredAmendments,
  updateAmendments,
} from '../store/projects.ts';
import { insertSnapshot, newestReading, newestSnapshot, packSnapshot, sourcesOf, textsOf } from '../store/snapshots.ts';
import type { AmendmentsInput } from './inputs.ts';
import { Problem } from './problem.ts';
import { howProcessesRead } from './reading-process.ts';

export interface ProjectView extends ProjectRow {
  snapshotId: string;
  readAt: string;
  plans: StoredPlan[];
  amended: StoredAmendments;
}

const FIRST_PLAN = 'First plan';

export function allProjects(store: Store): ProjectRow[] {
  return listProjects(store);
}

/** A project with its plans and the name of its newest snapshot. */
export function projectView(store: Store, id: string): ProjectView {
  const row = findProject(store, id);
  const snapshot = row && newestReading(store, id);
  if (!row || !snapshot) throw noProject();
  const amended = amendmentsOf(store, id)!;
  return { ...row, snapshotId: snapshot.id, readAt: snapshot.readAt, plans: listPlans(store, id), amended };
}

/** The newest snapshot as JSON text. */
export function snapshotBody(store: Store, projectId: string): Buffer {
  return zlib.gunzipSync(packedSnapshot(store, projectId).body);
}

/** The same with its id, compressed as it is stored (gzip). */
export function packedSnapshot(store: Store, projectId: string): { id: string; body: Buffer } {
  const found = newestSnapshot(store, projectId);
  if (!found) throw noProject();
  return found;
}

export interface ProjectOrigin {
  texts?: Record<string, string>;
  sources?: Record<string, string>;
  folder?: string | null;
  readAs?: string;
  givenBase?: string | null;
  workspace?: string | null;
  starts?: string[];
  amendments?: Amendments;
  id?: string;
}

/** Stores a project whole: itself, its snapshot, its plans and corrections, or nothing at all. */
export function addProject(store: Store, snapshot: Snapshot, plans: Plan[], origin: ProjectOrigin = {}): string {
  const {
    texts,
    sources,
    folder = null,
    readAs = READ_AS[0],
    givenBase = null,
    workspace = null,
    starts = [],
    amendments,
    id = randomUUID(),
  } = origin;
  const now = new Date().toISOString();
  const packed = packSnapshot(snapshot, texts, sources);
  store
    .transaction(() => {
      const from = { folder, readAs, givenBase, workspace, starts };
      insertProject(store, { id, name: titleOf(snapshot.name), createdAt: now, ...from });
      if (amendments) updateAmendments(store, id, 1, amendments);
      insertSnapshot(store, { id: randomUUID(), projectId: id, readAt: now, packed });
      const own = plans.length > 0 ? plans : [{ name: FIRST_PLAN, description: '', decisions: [] }];
      for (const plan of own)
        insertPlan(store, { id: randomUUID(), projectId: id, basedOn: null, ...plan, version: 1, changedAt: now });
    })
    .immediate();
  return id;
}

/** Changes a project's corrections. The writer tells which version it saw; nobody's work is written over. */
export function changeAmendments(store: Store, projectId: string, input: AmendmentsInput): StoredAmendments {
  const amendments = AMENDMENTS.check(input.amendments, 'amendments');
  const before = amendmentsOf(store, projectId)?.amendments;
  if (!updateAmendments(store, projectId, input.version, amendments)) {
    const current = amendmentsOf(store, projectId);
    if (!current) throw noProject();
    const detail = 'Routes and parts were corrected in another tab since you opened this one. Theirs are shown now.';
    throw new Problem('changed-elsewhere', 'Changed elsewhere', detail, { current });
  }
  sharePackages(amendments, before);
  return amendmentsOf(store, projectId)!;
}

/** What was newly measured of packages goes for other apps on this machine too, as they are read next. */
function sharePackages({ measured }: Amendments, before: Amendments | undefined): void {
  const { memory } = howProcessesRead();
  const news = measured ? packageTimes(measured, before?.measured) : [];
  if (memory !== null && news.length > 0) keepPackageTimes(memory, news, Date.now());
}

/** Opens a project file that somebody brought. */
export function importProject(store: Store, fileName: string, text: string): string {
  const { snapshot, plans, ...origin } = parseProject(text, fileName);
  return addProject(store, snapshot, plans, origin);
}

/**
 * A project as a file: its newest snapshot, plans and corrections, limits and visits among them; `withTexts`: minified and
 * source text as well, for exact sizes and source edits.
 */
export function projectFile(store: Store, id: string, withTexts: boolean): string {
  const found = newestSnapshot(store, id);
  if (!found) throw noProject();
  const plans = listPlans(store, id).map(({ name, description, decisions, basedOn = null }) => ({
    name,
    description,
    decisions,
    basedOn,
  }));
  return writeProject({
    format: PROJECT_FORMAT,
    version: PROJECT_VERSION,
    snapshot: JSON.parse(zlib.gunzipSync(found.body).toString()) as Snapshot,
    plans,
    amendments: amendmentsOf(store, id)!.amendments,
    ...(withTexts ? { texts: textsOf(store, found.id), sources: sourcesOf(store, found.id) } : {}),
  });
}

export function noProject(): Problem {
  return new Problem('no-such-project', 'No such project', 'It may have been deleted. Open another one.');
}

/** `saltmarsh-ferries` → `Saltmarsh Ferries`. */
function titleOf(name: string): string {
  return name
    .replace(/^@[^/]+\//, '')
    .split(/[-_\s]+/)
    .map((w) => w.charAt(0).toUpperCase() + w.slice(1))
    .join(' ');
}
