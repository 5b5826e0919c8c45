import { InputError } from '../core/errors.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { runReading } from '../reader/process/run-reading.ts';
import { readAtCommit } from '../reader/versions/at-commit.ts';
import type { Store } from '../store/database.ts';
import { rereadable } from './reading.ts';
import { howProcessesRead } from './reading-process.ts';

/** Of a project, the app as the last commit has it. */
export interface CommittedApp {
  commit: string;
  snapshot: Snapshot;
}

const REF = 'HEAD';

/** Reads a project's folder as the last commit has it; nothing is stored. Throws InputError where there is no repository around it. */
export async function committedApp(store: Store, projectId: string): Promise<CommittedApp> {
  const { folder, how } = rereadable(store, projectId);
  if (how.as === 'output')
    throw new InputError('A build isn’t committed', 'Of a production output there is no commit to compare with.');
  const { script, memory } = howProcessesRead();
  const { commit, read } = await readAtCommit(
    folder,
    REF,
    how.workspace,
    (at, workspace) => runReading({ folder: at, ...how, workspace }, script, { memory }).done,
  );
  return { commit, snapshot: read.snapshot };
}
