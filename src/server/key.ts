import { createHash, timingSafeEqual } from 'node:crypto';

export const KEY_COOKIE = 'yokeline-key';

/** The key that is asked for when the server listens to more than this machine; null: none is asked for. */
export function neededKey(): string | null {
  return process.env.YOKELINE_KEY || null;
}

/** Whether two keys are the same, in a time that tells nothing of where they differ. */
export function sameKey(given: string, needed: string): boolean {
  const digest = (text: string) => createHash('sha256').update(text).digest();
  return timingSafeEqual(digest(given), digest(needed));
}

/** The key that a request brings in its cookie; empty when it brings none. */
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

/** The cookie that carries the key: no script reads it, no other site sends it. */
export function keyCookie(key: string): string {
  return `${KEY_COOKIE}=${encodeURIComponent(key)}; Path=/; HttpOnly; SameSite=Strict; Max-Age=2592000`;
}
