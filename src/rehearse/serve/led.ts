import type { Led } from '../browser/open-browser.ts';
import { type RehearsalServer, WARM_HOST } from './server.ts';

/** How a browser is led to a server: to its hosts over a link (its port), and past it to the page that is shown first. */
export function ledTo(server: RehearsalServer, hosts: readonly string[], link: number): Led {
  const scheme = server.fingerprint === null ? 'http' : 'https';
  return {
    hosts: new Map([...hosts.map((host) => [host, link] as const), [WARM_HOST, server.port]]),
    fingerprint: server.fingerprint,
    first: `${scheme}://${WARM_HOST}/`,
  };
}
