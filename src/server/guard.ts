import { admits, keyIn, neededKey } from './key.ts';
import { Problem } from './problem.ts';

const LOCAL = /^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d+)?$/i;

/**
 * Refuses requests that a foreign page could have caused, and those without the key where one is asked for: without a key
 * the Host must be this machine (else a name may have been bound to it from outside); a change must come from the page's
 * own Origin, and nothing is answered that another site's page asked for, except that a link leads to a page.
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
  } else if (!admits(keyIn(request.headers.get('cookie')), key))
    throw new Problem(
      'key-needed',
      'Key needed',
      'Open the address with its key once, as the server printed it when it started.',
    );
  if (causedElsewhere(request))
    throw new Problem('not-from-here', 'Not from here', 'Another site’s page asked for this.');
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const origin = request.headers.get('origin');
  if (origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host)) {
    throw new Problem('not-from-here', 'Not from here', 'Changes are taken only from Yokeline’s own page.');
  }
}

/** Whether another site's page caused a request, as browsers tell it (Fetch Metadata); following a link is the person's own act. */
function causedElsewhere({ method, headers, url }: Request): boolean {
  const site = headers.get('sec-fetch-site');
  if (site === null || site === 'same-origin' || site === 'none') return false;
  const follows = headers.get('sec-fetch-mode') === 'navigate' && headers.get('sec-fetch-dest') === 'document';
  return !(method === 'GET' && follows && !new URL(url).pathname.startsWith('/api/'));
}
