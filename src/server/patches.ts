import fs from 'node:fs';
import { amend } from '../core/amend/amend.ts';
import { DECISION_LIST } from '../core/plan/types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { sourcePatch } from '../patch/patch.ts';
import type { SourcePatch } from '../patch/types.ts';
import { textIfThere } from '../reader/folder-files.ts';
import type { Store } from '../store/database.ts';
import { amendmentsOf, findProject } from '../store/projects.ts';
import { newestSnapshotId, sourcesOf } from '../store/snapshots.ts';
import type { PatchInput } from './inputs.ts';
import { noProject, snapshotBody } from './projects.ts';

/** What the last patch was made from: unpacking takes much longer than patching. */
const held = globalThis as typeof globalThis & {
  yokelineSources?: { snapshotId: string; snapshot: Snapshot; sources: Record<string, string> };
};

/**
 * The edits of the source that decisions mean. Where the folder that was read is still there, files that changed since
 * are refused.
 */
export function patchFor(store: Store, projectId: string, { name, decisions }: PatchInput): SourcePatch {
  const project = findProject(store, projectId);
  const snapshotId = newestSnapshotId(store, projectId);
  if (!project || snapshotId === undefined) throw noProject();
  if (held.yokelineSources?.snapshotId !== snapshotId) {
    const snapshot = JSON.parse(snapshotBody(store, projectId).toString()) as Snapshot;
    held.yokelineSources = { snapshotId, snapshot, sources: sourcesOf(store, snapshotId) };
  }
  const { snapshot, sources } = held.yokelineSources;
  const plan = { name, description: '', decisions: DECISION_LIST.check(decisions, 'decisions') };
  const amended = amend(snapshot, amendmentsOf(store, projectId)!.amendments).snapshot;
  const { folder } = project;
  const root = folder !== null && fs.existsSync(folder) ? fs.realpathSync(folder) : null;
  return sourcePatch(amended, plan, sources, root === null ? undefined : (file) => textIfThere(root, file));
}
