import { carriedOperation } from './query-operation.ts';

/** An address without what is asked of it (`?`) and the place in it (`#`). */
export function withoutQuery(address: string): string {
  const at = address.search(/[?#]/);
  return at < 0 ? address : address.slice(0, at);
}

/** The origin of an address; empty for one of the page's own. */
export function originOf(address: string): string {
  return /^https?:\/\/[^/]+/.exec(address)?.[0] ?? '';
}

/**
 * The address under which a server gives a file, below its folder: what may not stand in a path is percent-encoded (RFC 3986, 3.3:
 * brackets, spaces, quotes), as builds write it for folders such as `[id]`.
 */
export function addressOfFile(path: string): string {
  const written = path.replace(/\p{Surrogate}/gu, '\uFFFD');
  return written.replace(/[^A-Za-z0-9\-._~!$&'()*+,;=:@/]/gu, (c) => encodeURIComponent(c));
}

/** What a percent-encoded address means as a file; one that isn't encoded well stays as written. */
export function fileOfAddress(address: string): string {
  if (!address.includes('%')) return address;
  try {
    return decodeURIComponent(address);
  } catch {
    return address;
  }
}

/**
 * Why a hint can't ask for an address ahead; null where it can. Hints ask for what they write (HTML standard: a `href`, fetched with GET): a variable stands for
 * what only the running app knows, and a query goes along as a text.
 */
export function whyNotHinted(address: string): string | null {
  const [variable] = /(?<=\/):\w+|\*|\{[^{}]*\}/.exec(withoutQuery(address)) ?? [];
  if (variable !== undefined) return `what stands in the place of ${variable} is only known once somebody is there`;
  return carriedOperation(address) === null ? null : 'a query of GraphQL is sent as a text, which no hint does';
}
