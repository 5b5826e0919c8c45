import type { InputError } from '../../core/errors.ts';
import type { ReadAs } from '../../core/snapshot/read-as.ts';
import type { CorrectedRoute } from '../../core/snapshot/route-types.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';

/** An archive in a folder of its own. */
export interface Archive {
  folder: string;
  /** The archive's file in that folder, and the name that its owner gave it. */
  file: string;
  name: string;
}

/**
 * What a reading is about. `base`: the base address that a person gave for an output; `workspace`: the folder around an app whose files may be
 * read too, whole or from the app's folder (`../..`); `starts`: files that a person named as what starts it; `corrected`: routes that a person
 * corrected, for which parts are proposed as they are by that.
 */
export type ReadWork = {
  as: ReadAs;
  base: string | null;
  workspace: string | null;
  starts: string[];
  corrected: CorrectedRoute[];
} & ({ folder: string } | { archive: Archive });

/** What came of it. */
export interface Read {
  snapshot: Snapshot;
  texts: Record<string, string>;
  sources: Record<string, string>;
  ms: number;
}

/** What the process of a reading is handed, in a file. */
export interface Handed {
  work: ReadWork;
  /** Files that are left aside, with the reason. */
  skip: [string, string][];
  /** The folder in which readings remember what they found out; null: none. */
  memory: string | null;
  /** Without threads that read ahead. */
  alone: boolean;
  /** It stays when it has read, and reads again whenever it is told to. */
  stays: boolean;
}

/** What a process that stays sends back: what it read now; of texts only those that are others than the last time. */
export interface ReadNow {
  snapshot: Snapshot;
  texts: Record<string, string>;
  sources: Record<string, string>;
  /** Paths whose text, or source, is gone. */
  gone: { texts: string[]; sources: string[] };
  /** Files around the app’s folder of which it took the text, installed packages aside; paths from that folder. */
  around: string[];
  ms: number;
}

/** What a process tells while it is at work. */
export type Told = { read: number; known: number } | { now: ReadNow } | { refused: ReturnType<InputError['toJSON']> };

/** What the process leaves in a file: what it read, or why not. */
export type Left =
  | { kind: 'read'; read: Read }
  | { kind: 'refused'; error: ReturnType<InputError['toJSON']> }
  | { kind: 'broke'; message: string };

/** What was begun last: written at the beginning of a file, always as long. */
export interface Begun {
  n: number;
  what: string;
  isFile: boolean;
  /** Threads were at other files meanwhile, any of which can have ended the process. */
  helped: boolean;
}

export const BEGUN_BYTES = 1024;

/** Names of the files between the two processes, in a folder of their own. */
export const FILES = { handed: 'handed', begun: 'begun', left: 'left' } as const;
