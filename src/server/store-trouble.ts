import fs from 'node:fs';
import { OpenFile } from '../store/open-file.ts';
import { copiesBeside, keepAside, keepHeld, putBack, takeCopy } from '../store/rescue.ts';
import { type StoreFault, StoreTrouble } from '../store/trouble.ts';
import { closeStore, databaseFile, lastOpened, migrations, store } from './context.ts';
import { Problem } from './problem.ts';
import type { ProblemCode } from './problem-codes.ts';

/** What can be done when the database can't be used as it is. All of it keeps the file that is there. */
export type Rescue =
  /** Begin with an empty database and the sample. */
  | { do: 'fresh' }
  /** Write what the server still holds open into the file again. */
  | { do: 'put back' }
  /** Open the file that is there by now. */
  | { do: 'open' }
  /** Put a copy, made before the database was brought to a newer form, in its place. */
  | { do: 'copy'; copy: string };

const CODES: Record<StoreFault, ProblemCode> = {
  damaged: 'database-damaged',
  foreign: 'database-foreign',
  newer: 'database-newer',
  gone: 'database-gone',
};

const TITLES: Record<StoreFault, string> = {
  damaged: 'The database is damaged',
  foreign: 'That is not Yokeline’s database',
  newer: 'The database is newer than this program',
  gone: 'The database is gone',
};

const ADVICE: Record<StoreFault, string> = {
  damaged: 'Restore it from a backup and start the server again, or choose below.',
  foreign: 'Set YOKELINE_DATA to another folder, move the file away, or choose below.',
  newer: 'Update Yokeline, or choose below.',
  gone: 'The server still holds it open and can write it again.',
};

/** The answer to everything that needs the database while it can't be used, with what can be done (`rescues`). */
export function troubleProblem({ fault, found }: StoreTrouble): Problem {
  const detail = `${found} Nothing is saved until this is settled; what you changed is kept in this browser. ${ADVICE[fault]}`;
  return new Problem(CODES[fault], TITLES[fault], detail, { rescues: rescuesFor(fault) });
}

function rescuesFor(fault: StoreFault): Rescue[] {
  const copies = copiesBeside(databaseFile()).map((copy): Rescue => ({ do: 'copy', copy }));
  return [
    ...(lastOpened() && fault === 'gone' ? [{ do: 'put back' } as const] : []),
    // Mended from outside, or replaced on purpose.
    ...(fs.existsSync(databaseFile()) ? [{ do: 'open' } as const] : []),
    ...copies,
    { do: 'fresh' },
  ];
}

/**
 * Does what was chosen, and opens the database; gives the name under which the file that was there is kept, null where there
 * was none. Refused while nothing is wrong with the database, so that it can't be used to put work away.
 */
export function rescue(chosen: Rescue): { kept: string | null } {
  const trouble = troubleNow();
  if (trouble === null) throw new Problem('nothing-to-rescue', 'The database is sound', 'Load the page again.');
  const file = databaseFile();
  if (chosen.do === 'open') openable(file);
  const held = trouble.fault === 'gone' && chosen.do !== 'put back' ? lastOpened() : null;
  // What only this process holds is written down before it is let go of.
  const saved = held && keepHeld(held, file);
  const kept = carryOut(chosen, file) ?? saved;
  closeStore();
  store();
  return { kept };
}

/** Nothing is let go of for a file that is missing or can't be used itself. */
function openable(file: string): void {
  if (!fs.existsSync(file))
    throw new Problem('nothing-to-rescue', 'There is no file', 'Put a database in its place first.');
  new OpenFile(file, migrations()).store.close();
}

function carryOut(chosen: Rescue, file: string): string | null {
  switch (chosen.do) {
    case 'open':
      return null;
    case 'fresh':
      return keepAside(file);
    case 'copy':
      if (!copiesBeside(file).includes(chosen.copy))
        throw new Problem('unexpected-content', 'No such copy', 'Choose one of those that are named.', { at: 'copy' });
      return takeCopy(file, chosen.copy);
    case 'put back': {
      const open = lastOpened();
      if (!open) throw new Problem('nothing-to-rescue', 'Nothing is held open', 'Choose something else.');
      return putBack(open, file);
    }
  }
}

function troubleNow(): StoreTrouble | null {
  try {
    store();
    return null;
  } catch (error) {
    if (error instanceof StoreTrouble) return error;
    throw error;
  }
}
