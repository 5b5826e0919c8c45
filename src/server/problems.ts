import { InputError } from '../core/errors.ts';
import { codeOf, isDamage } from '../store/soundness.ts';
import { StoreTrouble } from '../store/trouble.ts';
import { Problem } from './problem.ts';
import { troubleProblem } from './store-trouble.ts';

/** The answer for a failed use case. Unknown failures tell nothing of the inside. */
export function problemResponse(error: unknown): Response {
  const problem = problemOf(error);
  const body = {
    type: `urn:yokeline:problem:${problem.code}`,
    status: problem.status,
    title: problem.title,
    detail: problem.detail,
    ...problem.more,
  };
  return new Response(JSON.stringify(body), {
    status: problem.status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

/** A database that can't be written, in words that say what to do; null for other failures. */
function storeProblem(error: unknown): Problem | null {
  const code = codeOf(error);
  const kept = 'What you changed is kept in this browser until it can be saved.';
  if (code === 'SQLITE_FULL' || code === 'ENOSPC')
    return new Problem('disk-full', 'The disk is full', `Make room where the data lies. ${kept}`);
  if (code.startsWith('SQLITE_READONLY') || code.startsWith('SQLITE_CANTOPEN') || code === 'EACCES' || code === 'EROFS')
    return new Problem(
      'database-not-writable',
      'The database can’t be written',
      `Allow the server to write its data folder. ${kept}`,
    );
  if (isDamage(error)) return troubleProblem(new StoreTrouble('damaged', 'The database is damaged.'));
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_IOERR'))
    return new Problem(
      'database-busy',
      'The database doesn’t answer',
      `Another program may hold it, or the disk has a fault. ${kept}`,
    );
  return null;
}

/** Any failure as a problem; unknown ones tell nothing of the inside. */
export function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof InputError)
    return new Problem('unreadable-input', error.title, error.detail, {
      ...(error.at === undefined ? {} : { at: error.at }),
      ...(error.offers === undefined ? {} : { offers: error.offers }),
    });
  if (error instanceof StoreTrouble) return troubleProblem(error);
  const stored = storeProblem(error);
  if (stored) return stored;
  return new Problem(
    'server-fault',
    'Something broke on the server',
    'Nothing was changed. The log of the server tells more.',
  );
}
