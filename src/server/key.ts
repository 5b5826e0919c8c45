import { createHash, createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { mayTakeTurn } from './limiter.ts';
import { Problem } from './problem.ts';

export const KEY_COOKIE = 'yokeline-key';
/** Shorter keys could be guessed. */
export const SHORTEST_KEY = 16;

const held = globalThis as typeof globalThis & { yokelineSession?: Buffer };

/**
 * The key that is asked for when the server listens to more than this machine; null: none is asked for. Throws a Problem while
 * the one that is set could be guessed.
 */
export function neededKey(): string | null {
  const key = process.env.YOKELINE_KEY || null;
  if (key !== null && [...key].length < SHORTEST_KEY)
    throw new Problem(
      'key-too-short',
      'The key is too short',
      `YOKELINE_KEY needs at least ${SHORTEST_KEY} letters. Set a longer one and start the server again.`,
    );
  return key;
}

/**
 * Whether somebody may come in with what they bring: the key, or what the cookie was given in its place. Wrong keys are
 * slowed; when too many came, a right one isn’t looked at either (Problem, 429), but who is in already stays in.
 */
export function admits(given: string, key: string): boolean {
  if (given === '') return false;
  if (same(given, sessionOf(key))) return true;
  if (!mayTakeTurn('key')) throw new Problem('too-often', 'Too many keys tried', 'Wait a minute, then try again.');
  return same(given, key);
}

/** What the cookie holds: nothing from which the key could be told, made again with each start of the server. */
function sessionOf(key: string): string {
  held.yokelineSession ??= randomBytes(32);
  return createHmac('sha256', held.yokelineSession).update(key).digest('base64url');
}

/** Whether two texts are the same, in a time that tells nothing of where they differ. */
function same(given: string, needed: string): boolean {
  const digest = (text: string) => createHash('sha256').update(text).digest();
  return timingSafeEqual(digest(given), digest(needed));
}

/** What a request brings in its cookie; empty when it brings nothing. */
export function keyIn(cookies: string | null): string {
  for (const piece of (cookies ?? '').split(';')) {
    const [name, ...value] = piece.trim().split('=');
    if (name === KEY_COOKIE) return decodeURIComponentSafe(value.join('='));
  }
  return '';
}

function decodeURIComponentSafe(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return '';
  }
}

/** The cookie that lets in whoever brought the key: no script reads it, no other site sends it. */
export function keyCookie(key: string): string {
  return `${KEY_COOKIE}=${sessionOf(key)}; Path=/; HttpOnly; SameSite=Strict; Max-Age=2592000`;
}
