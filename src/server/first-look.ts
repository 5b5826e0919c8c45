import type { Snapshot } from '../core/snapshot/types.ts';
import type { Store } from '../store/database.ts';
import { newestReading } from '../store/snapshots.ts';
import { wishesOf } from '../worker/choice.ts';
import { type FirstLook, FirstLooks } from '../worker/first-look.ts';
import { type ProjectView, projectView, snapshotBody } from './projects.ts';

/** Larger apps, by their packed snapshot in bytes, would hold up everybody's answers: their pages come without. */
const MOST_BYTES = 1_200_000;
/** Apps that are kept at hand. */
const MOST_HELD = 2;

/** A project with what a page shows of it first, before its own thread holds the app. */
export interface FirstPage extends FirstLook {
  project: ProjectView;
}

const held = globalThis as typeof globalThis & { yokelineFirstLooks?: Map<string, FirstLooks> };

/**
 * What a page shows first, by the query of its address; null where the project is too large for that or can't be shown: then the page
 * finds out by itself, and says why.
 */
export function firstPage(opened: () => Store, id: string, search: string): FirstPage | null {
  try {
    const store = opened();
    const project = projectView(store, id);
    const reading = newestReading(store, id);
    if (!reading || reading.bytes > MOST_BYTES) return null;
    held.yokelineFirstLooks ??= new Map();
    const apps = held.yokelineFirstLooks;
    const key = `${reading.id} ${project.amended.version}`;
    const looks =
      apps.get(key) ??
      new FirstLooks(JSON.parse(snapshotBody(store, id).toString()) as Snapshot, project.amended.amendments);
    apps.delete(key);
    apps.set(key, looks);
    for (const [oldest] of apps) {
      if (apps.size <= MOST_HELD) break;
      apps.delete(oldest);
    }
    return { project, ...looks.of(wishesOf(search), project.plans) };
  } catch {
    return null;
  }
}
