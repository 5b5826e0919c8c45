import { randomBytes } from 'node:crypto';
import { SHORTEST_KEY } from './key.ts';

const LOOPBACK = /^(?:127(?:\.\d{1,3}){3}|localhost|\[?::1\]?)$/i;

/** Where the command that serves was told to listen; null: everywhere, as it does when it isn’t told. */
export function hostAsked(command: readonly string[]): string | null {
  for (const [at, word] of command.entries()) {
    if (word === '--hostname' || word === '-H') return command[at + 1] ?? null;
    const given = /^(?:--hostname=|-H)(.+)$/.exec(word);
    if (given) return given[1];
  }
  return null;
}

/**
 * Before the first request, however the server was started: where it can be reached from elsewhere, a key is asked for. Gives
 * what the person who started it has to know, null when there is nothing. Throws when the key that is set is too short.
 */
export function demandKey(command: readonly string[], env: NodeJS.ProcessEnv): string | null {
  if (env.YOKELINE_KEY) {
    if ([...env.YOKELINE_KEY].length < SHORTEST_KEY)
      throw new Error(`YOKELINE_KEY needs at least ${SHORTEST_KEY} letters; set a longer one, or leave it out`);
    return null;
  }
  const host = hostAsked(command);
  if (host !== null && LOOPBACK.test(host)) return null;
  env.YOKELINE_KEY = randomBytes(24).toString('base64url');
  return `Reached from elsewhere too, so a key is asked for: open the address with /?key=${env.YOKELINE_KEY} once`;
}
