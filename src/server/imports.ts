import fs from 'node:fs';
import path from 'node:path';
import { databaseFile, home, store } from './context.ts';
import type { ImportAnswer } from './import-process.ts';
import { takeTurn } from './limiter.ts';
import { Problem } from './problem.ts';
import { receiveFile } from './uploads.ts';

/** So many project files may be on their way at once; each lies on the disk until it is its turn. */
const MOST_IN_FLIGHT = 8;
/** Largest project file, in bytes: of a very large app with its texts. */
const MOST_BYTES = 400_000_000;
/** What the one that is opened may take, in MB. */
const MEMORY_MB = 6144;

const held = globalThis as typeof globalThis & { yokelineImports?: { inFlight: number; last: Promise<unknown> } };

/**
 * Takes in a project file, which is the body of a request, and opens it into the database, one at a time and in a process
 * of its own, so that others don't wait. Gives the id of the project.
 */
export async function importBody(request: Request): Promise<string> {
  takeTurn('import');
  // A database that can't be used is told before anything is sent.
  store();
  held.yokelineImports ??= { inFlight: 0, last: Promise.resolve() };
  const imports = held.yokelineImports;
  if (imports.inFlight >= MOST_IN_FLIGHT)
    throw new Problem('too-many-bodies', 'Too many files at once', 'Wait until some of them are open, then try again.');
  imports.inFlight++;
  try {
    const received = await receiveFile(request, {
      most: MOST_BYTES,
      none: () => new Problem('unexpected-content', 'Unexpected content', 'The body of the request must be an object.'),
      tooLarge: () =>
        new Problem('body-too-large', 'Too large', `The body of the request is larger than ${MOST_BYTES / 1e6} MB.`),
    });
    try {
      const mine = imports.last.then(() => opened(path.join(received.folder, received.file)));
      imports.last = mine.catch(() => undefined);
      return await mine;
    } finally {
      fs.rmSync(received.folder, { recursive: true, force: true });
    }
  } finally {
    imports.inFlight--;
  }
}

function opened(body: string): Promise<string> {
  // It may have gone while the file was on its way.
  store();
  const script = path.join(home(), 'dist', 'server', 'import-process.js');
  // Not imported: bundlers take the script of an imported `fork` for a part of the bundle.
  const { fork } = process.getBuiltinModule('node:child_process');
  return new Promise((resolve, reject) => {
    const child = fork(script, [body, databaseFile()], {
      execArgv: [`--max-old-space-size=${MEMORY_MB}`],
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    child.once('message', (answer: ImportAnswer) => {
      if ('id' in answer) resolve(answer.id);
      else reject(new Problem(answer.code, answer.title, answer.detail, answer.more));
    });
    child.once('error', reject);
    child.once('exit', () =>
      reject(
        new Problem(
          'unreadable-input',
          'The project file can’t be opened',
          `The process that opened it ended; it may need more than ${MEMORY_MB} MB of memory.`,
        ),
      ),
    );
  });
}
