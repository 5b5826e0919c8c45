import { Problem } from './problems.ts';

const LOCAL = /^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d+)?$/i;

/**
 * Refuses requests that a foreign page could have caused: a Host that isn't this machine (rebound names), or, for
 * changes, an Origin that isn't the page's own.
 */
export function guard(request: Request): void {
  const host = request.headers.get('host') ?? '';
  if (!LOCAL.test(host))
    throw new Problem(403, 'Not from here', 'Yokeline answers only under localhost or a loopback address.');
  if (request.method === 'GET' || request.method === 'HEAD') return;
  const origin = request.headers.get('origin');
  if (origin !== null && (!URL.canParse(origin) || new URL(origin).host !== host)) {
    throw new Problem(403, 'Not from here', 'Changes are taken only from Yokeline’s own page.');
  }
}
