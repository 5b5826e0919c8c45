import { execFile } from 'node:child_process';

/** More than any list of commits or names is long. */
const MOST_OUTPUT = 64e6;

/** What git says to a command in a folder; rejects where it refuses, or isn't there. */
export function git(cwd: string, args: readonly string[]): Promise<string> {
  return new Promise((done, fail) => {
    execFile('git', [...args], { cwd, maxBuffer: MOST_OUTPUT }, (error, out) =>
      error ? fail(error) : done(out.trim()),
    );
  });
}
