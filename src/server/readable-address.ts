import { subscribe } from 'node:diagnostics_channel';

/** What stands for bytes that are no UTF-8 (U+FFFD). */
const REPLACEMENT = '%EF%BF%BD';

/** An address whose path can be decoded: percent-encoded bytes that are no UTF-8 become the replacement character. */
export function readableAddress(address: string): string {
  const [, path, rest] = /^([^?]*)(.*)$/s.exec(address)!;
  const readable = path.replace(/(?:%[0-9a-f]{2})+|%/gi, (run) => {
    try {
      decodeURIComponent(run);
      return run;
    } catch {
      return REPLACEMENT;
    }
  });
  return readable + rest;
}

/**
 * Lets every request come with an address that can be decoded. The server would fail on others before any of our code runs;
 * so there is simply nothing by that name (Node: channel `http.server.request.start`, before a request is handled).
 */
export function makeAddressesReadable(): void {
  subscribe('http.server.request.start', (message) => {
    const { request } = message as { request: { url?: string } };
    if (request.url) request.url = readableAddress(request.url);
  });
}
