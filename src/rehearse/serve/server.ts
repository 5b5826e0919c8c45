import { createHash } from 'node:crypto';
import http from 'node:http';
import http2 from 'node:http2';
import https from 'node:https';
import type net from 'node:net';
import type { Writable } from 'node:stream';
import tls from 'node:tls';
import type { CacheRule } from '../../core/load/types.ts';
import { onLoopback } from '../link/loopback.ts';
import { type Certificates, certificatesFor } from './certificate.ts';
import type { Answer, Answering, Sent } from './types.ts';

/** How long a kept file is fresh, as shipped files usually say. */
const CACHE: Record<CacheRule, string> = {
  immutable: 'public, max-age=31536000, immutable',
  revalidate: 'no-cache',
  'no-store': 'no-store',
};

type Incoming = http2.Http2ServerRequest | http.IncomingMessage;
type Outgoing = http2.Http2ServerResponse | http.ServerResponse;

/** How a rehearsal’s server speaks. */
export interface Speaking {
  protocol: 'h1' | 'h2';
  tls: 'none' | '1.2' | '1.3';
}

/** A host whose pages are empty, for a browser to have shown something before it is measured: people’s browsers have. */
export const WARM_HOST = 'warm.test';

const EMPTY_PAGE: Answer = {
  type: 'text/html',
  body: Buffer.from('<!doctype html><p>…</p>'),
  cache: 'no-store',
  serverMs: 0,
};

/** Serves a rehearsal on loopback, for several hosts at one port. */
export class RehearsalServer {
  port = 0;
  private readonly connections = new Set<net.Socket>();

  private constructor(
    private readonly server: net.Server,
    private readonly answering: Answering,
    /** What the browser is told to accept; null without TLS. */
    readonly fingerprint: string | null,
  ) {
    server.on('connection', (connection: net.Socket) => {
      connection.setNoDelay(true);
      this.connections.add(connection);
      connection.once('close', () => this.connections.delete(connection));
    });
    server.on('request', (request: Incoming, response: Outgoing) => void this.answer(request, response));
  }

  static async start(hosts: readonly string[], speaking: Speaking, answering: Answering): Promise<RehearsalServer> {
    const certificates = speaking.tls === 'none' ? null : await certificatesFor([...hosts, WARM_HOST]);
    const made = new RehearsalServer(serverFor(speaking, certificates), answering, certificates?.fingerprint ?? null);
    made.port = await onLoopback(made.server);
    return made;
  }

  stop(): void {
    this.server.close();
    for (const connection of this.connections) connection.destroy();
  }

  private async answer(request: Incoming, response: Outgoing): Promise<void> {
    const host = hostOf(request);
    const address = request.url ?? '/';
    response.on('error', () => {});
    const forDocument = (request.headers.accept ?? '').includes('text/html');
    const sent = await sentWith(request);
    const asked = { host, address, forDocument, ...(sent ? { sent } : {}) };
    const found = host === WARM_HOST ? EMPTY_PAGE : await this.answering(asked);
    if (!found) {
      response.statusCode = 404;
      response.end();
      return;
    }
    if (found.earlyLinks?.length) response.writeEarlyHints({ link: [...found.earlyLinks] });
    setTimeout(() => send(request, response, found), found.serverMs);
  }
}

/** What a request sends along, once all of it is there; null where that is only its address. */
async function sentWith(request: Incoming): Promise<Sent | null> {
  const { method = 'GET' } = request;
  if (method === 'GET' || method === 'HEAD') return null;
  const pieces: Buffer[] = [];
  try {
    for await (const piece of request) pieces.push(piece as Buffer);
  } catch {
    return null;
  }
  return { method, type: request.headers['content-type'] ?? '', text: Buffer.concat(pieces).toString('utf8') };
}

function serverFor({ protocol, tls: version }: Speaking, certificates: Certificates | null): net.Server {
  if (!certificates) return http.createServer();
  const { key, certs } = certificates;
  const contexts = new Map([...certs].map(([host, cert]) => [host, tls.createSecureContext({ key, cert })]));
  const [cert] = certs.values();
  const secure: tls.TlsOptions = {
    ...{
      key,
      cert,
      minVersion: `TLSv${version}` as tls.SecureVersion,
      maxVersion: `TLSv${version}` as tls.SecureVersion,
    },
    SNICallback: (host, done) => done(null, contexts.get(host)),
  };
  return protocol === 'h1' ? https.createServer(secure) : http2.createSecureServer(secure);
}

function hostOf(request: Incoming): string {
  const named = 'authority' in request ? request.authority : request.headers.host;
  return (named ?? '').replace(/:\d+$/, '');
}

/** Answers as a plain server does: at once in one piece, or in the pieces that the answer names. */
function send(request: Incoming, response: Outgoing, answer: Answer): void {
  if (response.destroyed) return;
  const etag = answer.cache === 'revalidate' ? tagOf(answer.body) : null;
  const isKnown = etag !== null && request.headers['if-none-match'] === etag;
  const headers: http.OutgoingHttpHeaders = {
    'content-type': answer.type,
    'cache-control': CACHE[answer.cache],
    'access-control-allow-origin': '*',
    // Every time of a file that comes from elsewhere is told to the page (Resource Timing, 4.5).
    'timing-allow-origin': '*',
    ...(answer.encoding ? { 'content-encoding': answer.encoding } : {}),
    ...(answer.links?.length ? { link: [...answer.links] } : {}),
    ...(etag === null ? {} : { etag }),
    ...(isKnown ? {} : { 'content-length': answer.body.length }),
  };
  const out = begin(response, isKnown ? 304 : (answer.status ?? 200), headers);
  if (isKnown) out.end();
  else if (answer.flush?.length) inPieces(out, answer.body, answer.flush);
  else out.end(answer.body);
}

/** Sends headers; gives where the body is written. Over HTTP/2 the stream itself: what stands around it ends an answer in a frame of its own. */
function begin(response: Outgoing, status: number, headers: http.OutgoingHttpHeaders): Writable {
  if (response instanceof http.ServerResponse) return response.writeHead(status, headers);
  response.stream.respond({ ':status': status, ...headers });
  return response.stream;
}

function inPieces(out: Writable, body: Buffer, flush: NonNullable<Answer['flush']>): void {
  const pieces = flush.filter((f) => f.upTo < body.length).sort((a, b) => a.atMs - b.atMs);
  let from = 0;
  for (const { upTo, atMs } of pieces) {
    const piece = body.subarray(from, upTo);
    from = upTo;
    setTimeout(() => out.write(piece), atMs);
  }
  const rest = body.subarray(from);
  setTimeout(() => out.end(rest), pieces.at(-1)?.atMs ?? 0);
}

function tagOf(body: Buffer): string {
  return `"${createHash('sha256').update(body).digest('base64url').slice(0, 16)}"`;
}
