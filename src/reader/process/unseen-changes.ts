import fs from 'node:fs/promises';
import path from 'node:path';
import { pathFrom } from '../path-from.ts';
import { filesIn } from './watched-folder.ts';

/** Files get their time from a clock that may be so far behind, in ms. */
const CLOCK_MS = 5;
/** So many are asked about at a time. */
const AT_ONCE = 100;

/**
 * Finds what was written while an app was read, or since: a watcher may miss that, for instance where a tool takes a file away and puts another
 * one in its place. A file that is found is found once for each time that it was written.
 */
export class UnseenChanges {
  /** When files that were found had been written. */
  private readonly found = new Map<string, number>();

  constructor(private readonly folder: string) {}

  /**
   * Of these files, and of those that lie in the folder itself or in one `around` it (absolute) without a folder between, the ones that were written since a reading began
   * (ms since the epoch).
   */
  async since(began: number, files: ReadonlySet<string>, around: readonly string[] = []): Promise<string[]> {
    const own = [this.folder, ...around].flatMap(filesIn).map((file) => pathFrom(this.folder, file));
    const asked = [...new Set([...files, ...own])].filter((file) => !file.includes('node_modules/'));
    const changed: string[] = [];
    for (let at = 0; at < asked.length; at += AT_ONCE)
      await Promise.all(
        asked.slice(at, at + AT_ONCE).map(async (file) => {
          // What is no file by itself, such as the style of a component, has no time.
          const stats = await fs.stat(path.join(this.folder, file)).catch(() => null);
          if (stats === null || stats.ctimeMs < began - CLOCK_MS || this.found.get(file) === stats.ctimeMs) return;
          this.found.set(file, stats.ctimeMs);
          changed.push(file);
        }),
      );
    return changed.sort();
  }
}
