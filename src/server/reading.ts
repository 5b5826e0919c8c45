import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { amend, rebuiltRoutes } from '../core/amend/amend.ts';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { troublesOf } from '../core/ship/shipped.ts';
import { checkBase } from '../core/snapshot/base.ts';
import { READ_AS, type ReadAs } from '../core/snapshot/read-as.ts';
import type { CorrectedRoute } from '../core/snapshot/route-types.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import type { Read } from '../reader/process/work.ts';
import type { Store } from '../store/database.ts';
import { listPlans } from '../store/plans.ts';
import { amendmentsOf, findProject } from '../store/projects.ts';
import { insertSnapshot, PASSING_LEVEL, packSnapshot } from '../store/snapshots.ts';
import { Problem } from './problem.ts';
import { noProject, snapshotBody } from './projects.ts';

/**
 * What a folder or archive is to be read as; `base`: the base address that a person gave for an output; `workspace`: the folder around
 * it whose files may be read too; `starts`: files that a person named as what starts it.
 */
export interface HowToRead {
  as: ReadAs;
  base: string | null;
  workspace: string | null;
  starts: string[];
  corrected: CorrectedRoute[];
}

/** How it is sent: files that start the app one per line, or with commas between. */
export interface SentHow {
  as?: ReadAs;
  base?: string;
  workspace?: string;
  starts?: string;
}

/** The same from what somebody sent; refuses a base address that can't be one. */
export function howToRead({ as, base, workspace, starts }: SentHow): HowToRead {
  return {
    as: as ?? READ_AS[0],
    base: base === undefined || base === '' ? null : checkBase(base, 'base'),
    workspace: workspace === undefined || workspace === '' ? null : workspace,
    starts: (starts ?? '').split(/[\n,]/).flatMap((file) => file.trim() || []),
    corrected: [],
  };
}

/** What reading a folder again has changed. */
export interface ReadAgain {
  added: string[];
  removed: string[];
  /** Modules (minified), assets and classic scripts (compressed) whose size changed, by how much. */
  grown: { path: string; by: number }[];
  /** Plans with decisions, and corrections to routes, that no longer apply. */
  stale: { plan: string; reasons: string[] }[];
}

/** A project's folder that can be read again, and how it was read. */
export function rereadable(store: Store, projectId: string): { folder: string; how: HowToRead } {
  const project = findProject(store, projectId);
  if (!project) throw noProject();
  if (!project.folder)
    throw new Problem(
      'nothing-to-read-again',
      'Nothing to read again',
      'This project came as a file. Read its folder as a project of its own.',
    );
  return {
    folder: project.folder,
    how: {
      as: project.readAs as ReadAs,
      base: project.givenBase,
      workspace: project.workspace,
      starts: project.starts,
      corrected: rebuiltRoutes(amendmentsOf(store, projectId)!.amendments),
    },
  };
}

/**
 * Keeps a project's folder as it was read because a file was saved, in the place of the last reading of that kind. Gives the snapshot's name; null
 * where it is as the project has it, and nothing is kept.
 */
export function keepAfterSave(
  store: Store,
  projectId: string,
  { snapshot, texts, sources }: Omit<Read, 'ms'>,
): string | null {
  if (snapshotBody(store, projectId).toString() === JSON.stringify(snapshot)) return null;
  const id = randomUUID();
  const packed = packSnapshot(snapshot, texts, sources, PASSING_LEVEL);
  insertSnapshot(store, { id, projectId, readAt: new Date().toISOString(), packed, afterSave: true });
  return id;
}

/** Keeps a project's folder as read again: a new snapshot beside the old ones. Tells what changed. */
export function keepAgain(store: Store, projectId: string, { snapshot, texts, sources }: Omit<Read, 'ms'>): ReadAgain {
  const before = JSON.parse(snapshotBody(store, projectId).toString()) as Snapshot;
  const packed = packSnapshot(snapshot, texts, sources);
  insertSnapshot(store, { id: randomUUID(), projectId, readAt: new Date().toISOString(), packed });
  const stale = listPlans(store, projectId).map((plan) => ({
    plan: plan.name,
    reasons: troublesOf(snapshot, plan).stale.map((s) => s.reason),
  }));
  const amended = amend(snapshot, amendmentsOf(store, projectId)?.amendments ?? NO_AMENDMENTS);
  stale.push({ plan: 'routes and parts', reasons: amended.stale.map((s) => `${s.at} ${s.reason}`) });
  return { ...difference(before, snapshot), stale: stale.filter((s) => s.reasons.length > 0) };
}

function difference(before: Snapshot, after: Snapshot): Omit<ReadAgain, 'stale'> {
  const old = sizesOf(before);
  const now = sizesOf(after);
  const grown = [...now].flatMap(([path, bytes]) => {
    const by = bytes - (old.get(path) ?? bytes);
    return by === 0 ? [] : [{ path, by }];
  });
  return {
    added: [...now.keys()].filter((p) => !old.has(p)),
    removed: [...old.keys()].filter((p) => !now.has(p)),
    grown: grown.sort((a, b) => Math.abs(b.by) - Math.abs(a.by)),
  };
}

/** The size of everything that travels, by its path, or (for what stands in documents alone) its name. */
function sizesOf({ modules, scripts }: Snapshot): Map<string, number> {
  return new Map([
    ...modules.map((m): [string, number] => [m.path, m.fileBytes ?? m.bytes.minified]),
    ...scripts.map((s): [string, number] => [s.address || s.name, s.bytes ?? 0]),
  ]);
}

/** The folder that a person named, as a whole path. */
export function absoluteFolder(folder: string): string {
  if (!path.isAbsolute(folder))
    throw new Problem('not-a-whole-path', 'Not a whole path', 'Give the path from the root of this machine.', {
      at: 'folder',
    });
  return path.normalize(folder);
}
