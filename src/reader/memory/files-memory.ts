import fs from 'node:fs';
import path from 'node:path';

/** What a file system says of a file that tells one state of it from another. */
export interface FileState {
  dev: number;
  ino: number;
  size: number;
  mtimeMs: number;
  ctimeMs: number;
}

/** The text of a file, and its size in bytes. */
export interface FileText {
  text: string;
  bytes: number;
}

/** Clocks of file systems are so coarse, at worst: what changed later than that before it was read may change again and look the same. */
const COARSEST_CLOCK_MS = 2500;
/** What isn't asked for in so many readings is forgotten. */
const READINGS = 3;

interface Known extends FileText, FileState {
  reading: number;
}

/**
 * Texts of files as readings that follow one another found them: a file whose state is the same (device, number, size, and when its content and its
 * entry changed) isn't opened again. The time at which an entry changed can't be set by programs, so that only what changed within a tick of
 * the clock could look the same: such files are read anew.
 */
export class FilesMemory {
  private readonly known = new Map<string, Known>();
  /** Where folders really lie, in this reading. */
  private readonly places = new Map<string, string>();
  private reading = 0;
  /** Files of which this reading took the text, and the one before it; by their real paths. */
  private taken = new Set<string>();
  private takenLast: ReadonlySet<string> = new Set();

  constructor(
    private readonly coarsestMs = COARSEST_CLOCK_MS,
    private readonly now: () => number = Date.now,
  ) {}

  /** Where a file (an absolute path) lies by its folder's real place; a link that it is itself isn't followed. Throws what the file system does. */
  placeOf(file: string): string {
    const folder = path.dirname(file);
    const place = this.places.get(folder) ?? fs.realpathSync.native(folder);
    this.places.set(folder, place);
    return path.join(place, path.basename(file));
  }

  /** The text of a file (its real path) whose state is this, if it was read in that state. */
  recall(file: string, state: FileState): FileText | undefined {
    this.taken.add(file);
    const known = this.known.get(file);
    if (
      known === undefined ||
      known.ino !== state.ino ||
      known.size !== state.size ||
      known.ctimeMs !== state.ctimeMs ||
      known.mtimeMs !== state.mtimeMs ||
      known.dev !== state.dev
    )
      return undefined;
    known.reading = this.reading;
    return known;
  }

  /** Keeps what was read of a file. `state`: as it was before it was read. */
  keep(file: string, { dev, ino, size, mtimeMs, ctimeMs }: FileState, { text, bytes }: FileText): void {
    const age = this.now() - Math.max(mtimeMs, ctimeMs);
    if (age > this.coarsestMs && bytes === size)
      this.known.set(file, { dev, ino, size, mtimeMs, ctimeMs, text, bytes, reading: this.reading });
    else this.known.delete(file);
  }

  /** Files of which the last reading took the text, by their real paths. */
  get filesOfLast(): ReadonlySet<string> {
    return this.takenLast;
  }

  /** A reading is over: what the last ones didn't need is forgotten. */
  settle(): void {
    this.reading++;
    this.takenLast = this.taken;
    this.taken = new Set();
    this.places.clear();
    for (const [file, { reading }] of this.known) if (this.reading - reading > READINGS) this.known.delete(file);
  }
}
