import { PLANS_FILE_NAME } from '../core/formats/plans-file.ts';
import { type Followed, FollowedApp } from '../reader/process/followed-app.ts';
import type { Read } from '../reader/process/work.ts';
import type { Store } from '../store/database.ts';
import { findProject, updateFollows } from '../store/projects.ts';
import { newestSnapshotId } from '../store/snapshots.ts';
import { Audience } from './audience.ts';
import { agreedOrTrouble, agreeSoon } from './kept-plans.ts';
import { neededKey } from './key.ts';
import { problemOf } from './problems.ts';
import { noProject } from './projects.ts';
import { keepAfterSave, rereadable } from './reading.ts';
import { howProcessesRead } from './reading-process.ts';

/** What a page that follows a project hears. */
export type FollowEvent =
  /** The folder is followed. `snapshotId`: the newest reading; a page that was away may have missed it. */
  | { kind: 'following'; snapshotId: string }
  /** The project has a new snapshot. `saved`: files that were saved; none where it had changed before it was followed. */
  | { kind: 'changed'; saved: string[]; snapshotId: string }
  /** Files were saved that can be read, and no figure of the app rests on what changed in them. */
  | { kind: 'same'; saved: string[] }
  /** What was saved can't be read; the project stays as it was. */
  | { kind: 'broken'; saved: string[]; at: { path: string; line: number; message: string }[] }
  /** What the file beside the code says of plans, limits and corrections was brought together with the project. */
  | { kind: 'plans'; taken: boolean; conflicts: string[] }
  /** The file beside the code can't be understood, or not be written. */
  | { kind: 'plans trouble'; message: string }
  /** The folder can't be followed, or not at present. */
  | { kind: 'trouble'; message: string };

type Listener = (event: FollowEvent) => void;

interface Following {
  /** How it is read, as text: another one needs another reading. */
  how: string;
  /** What goes on since it was told, for those that come later: that something is broken, or can't be followed. */
  trouble: Extract<FollowEvent, { kind: 'broken' | 'trouble' }> | null;
  app: FollowedApp | null;
  ended: boolean;
}

/** A page that is loaded again comes back within this time, in ms. */
const ALONE_MS = 20_000;

const held = globalThis as typeof globalThis & {
  yokelineFollowing?: Map<string, Following>;
  yokelineAudiences?: Map<string, Audience<FollowEvent>>;
};

function all(): Map<string, Following> {
  held.yokelineFollowing ??= new Map();
  return held.yokelineFollowing;
}

/** Those who listen to a project; they go on listening while it is followed otherwise, or not for a time. */
function audienceOf(projectId: string): Audience<FollowEvent> {
  held.yokelineAudiences ??= new Map();
  const audiences = held.yokelineAudiences;
  let audience = audiences.get(projectId);
  if (!audience) {
    audience = new Audience(ALONE_MS, () => {
      audiences.delete(projectId);
      stop(projectId);
    });
    audiences.set(projectId, audience);
  }
  return audience;
}

const isHeard = (projectId: string) => (held.yokelineAudiences?.get(projectId)?.size ?? 0) > 0;
const tellAll = (projectId: string, event: FollowEvent) => held.yokelineAudiences?.get(projectId)?.tell(event);

/** The database, asked for when it is needed: it may be another one by then. */
type OpenStore = () => Store;

/**
 * Follows a project's folder for somebody, until what it gives is called. All who follow the same project share one reading. Null for a project
 * that isn't to be followed, or has no folder: nothing will ever be told.
 */
export function follow(store: OpenStore, projectId: string, listener: Listener): (() => void) | null {
  if (!isFollowed(store, projectId)) return null;
  const following = all().get(projectId) ?? begin(store, projectId);
  const leave = audienceOf(projectId).join(listener);
  listener({ kind: 'following', snapshotId: newestSnapshotId(store(), projectId)! });
  if (following.trouble) listener(following.trouble);
  return leave;
}

function isFollowed(store: OpenStore, projectId: string): boolean {
  const project = findProject(store(), projectId);
  if (!project) throw noProject();
  return project.follows && project.folder !== null && followsFolders();
}

/** Has a project followed, or not any more; whoever listens goes on listening. */
export function changeFollows(store: OpenStore, projectId: string, follows: boolean): void {
  if (!findProject(store(), projectId)) throw noProject();
  updateFollows(store(), projectId, follows);
  if (!follows) stop(projectId);
  else if (isHeard(projectId) && isFollowed(store, projectId) && !all().has(projectId)) begin(store, projectId);
}

/** Whether this server follows folders (`YOKELINE_FOLLOW`): by itself only where it is reached from this machine alone, on which the folders are. */
function followsFolders(): boolean {
  const { YOKELINE_FOLLOW: said } = process.env;
  return said === undefined ? neededKey() === null : said !== 'off';
}

/** How a project is read may have changed: it is followed by that, where it is followed. */
export function followAnew(store: OpenStore, projectId: string): void {
  const following = all().get(projectId);
  if (!following || following.how === howOf(store, projectId)) return;
  stop(projectId);
  if (isHeard(projectId)) begin(store, projectId);
}

function howOf(store: OpenStore, projectId: string): string {
  return JSON.stringify(rereadable(store(), projectId));
}

function stop(projectId: string): void {
  const following = all().get(projectId);
  if (!following) return;
  all().delete(projectId);
  following.ended = true;
  void following.app?.close();
}

function begin(store: OpenStore, projectId: string): Following {
  const how = howOf(store, projectId);
  const following: Following = { how, trouble: null, app: null, ended: false };
  all().set(projectId, following);
  const tell = (event: FollowEvent) => {
    if (following.ended) return;
    if (event.kind === 'broken' || event.kind === 'trouble') following.trouble = event;
    else if (event.kind === 'changed' || event.kind === 'same') following.trouble = null;
    tellAll(projectId, event);
  };
  const take = (read: Read, saved: string[], during = false) => {
    const isOfPlans = saved.length === 0 || saved.includes(PLANS_FILE_NAME);
    if (isOfPlans) tellAgreed(agreedOrTrouble(store, projectId));
    const code = saved.filter((f) => f !== PLANS_FILE_NAME);
    // What only plans say is no change of the code.
    if (saved.length > 0 && code.length === 0) return;
    const snapshotId = keepAfterSave(store(), projectId, read);
    if (snapshotId !== null) tell({ kind: 'changed', saved: code, snapshotId });
    // What no module is (what a build writes, notes) says nothing of the app.
    else if (!during && read.snapshot.modules.some((m) => code.includes(m.path))) tell({ kind: 'same', saved: code });
  };
  const tellAgreed = (agreed: ReturnType<typeof agreedOrTrouble>) => {
    for (const event of agreedEvents(agreed)) tell(event);
  };
  const told = (by: Followed) => {
    try {
      if (by.kind === 'read') take(by.read, by.changed, by.during);
      else if (by.kind === 'broken') tell({ kind: 'broken', saved: by.changed, at: by.at });
      else if (by.kind === 'trouble') tell(by);
      else {
        const { title, detail, at } = by.error;
        tell({ kind: 'broken', saved: by.changed, at: [{ path: at ?? '', line: 1, message: `${title}. ${detail}` }] });
      }
    } catch (error) {
      tell({ kind: 'trouble', message: wordsOf(error) });
    }
  };
  const { folder, how: as } = rereadable(store(), projectId);
  FollowedApp.begin({ folder, ...as }, howProcessesRead(), told).then(
    ({ followed, first }) => {
      following.app = followed;
      if (following.ended) void followed.close();
      else
        try {
          take(first, []);
        } catch (error) {
          tell({ kind: 'trouble', message: wordsOf(error) });
        }
    },
    (error) => tell({ kind: 'trouble', message: wordsOf(error) }),
  );
  return following;
}

/** Something was decided: where plans are kept beside the code the file is written, and those who listen hear what came of it. */
export function decided(store: OpenStore, projectId: string): void {
  agreeSoon(store, projectId, (agreed) => {
    for (const event of agreedEvents(agreed)) tellAll(projectId, event);
  });
}

/** What there is to be told of it; nothing where all is as it was. */
function agreedEvents(agreed: ReturnType<typeof agreedOrTrouble>): FollowEvent[] {
  if ('trouble' in agreed) return [{ kind: 'plans trouble', message: agreed.trouble }];
  const { taken, conflicts } = agreed;
  return taken || conflicts.length > 0 ? [{ kind: 'plans', taken, conflicts }] : [];
}

function wordsOf(error: unknown): string {
  const { title, detail } = problemOf(error);
  return `${title}. ${detail}`;
}
