import { keyIn, neededKey, sameKey } from './key.ts';
import { Problem } from './problem.ts';

const LOCAL = /^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d+)?$/i;

/**
 * Refuses requests that a foreign page could have caused, and those without the key where one is asked for: without a key
 * the Host must be this machine (else a name may have been bound to it from outside); a change must come from the page's
 * own Origin.
 */
export function guard(request: Request): void {
  const host = request.headers.get('host') ?? '';
  const key = neededKey();
  if (key === null) {
    if (!LOCAL.test(host))
      throw new Problem(
        'not-from-here',
        'Not from here',
        'Yokeline answers only under localhost or a loopback address.',
      );
  } else if (!sameKey(keyIn(request.headers.get('cookie')), key))
    throw new Problem(
      'key-needed',
      'Key needed',
      'Open the address with its key once, as the server printed it when it started.',
    );
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const origin = request.headers.get('origin');
  if (origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host)) {
    throw new Problem('not-from-here', 'Not from here', 'Changes are taken only from Yokeline’s own page.');
  }
}
