import { createHash, X509Certificate } from 'node:crypto';
import http from 'node:http';
import http2 from 'node:http2';
import tls from 'node:tls';
import { RehearsalServer, type Speaking, WARM_HOST } from './server.ts';
import type { Answer, Request } from './types.ts';

const servers: RehearsalServer[] = [];
afterEach(() => {
  for (const server of servers.splice(0)) server.stop();
});

const PAGE: Answer = {
  ...{ type: 'text/html', body: Buffer.from('<p>page'), cache: 'no-store', serverMs: 0 },
  links: ['</a.js>; rel=preload; as=script'],
  earlyLinks: ['</b.css>; rel=preload; as=style'],
};
const FILE: Answer = {
  type: 'text/javascript',
  body: Buffer.from('x'.repeat(40_000)),
  cache: 'revalidate',
  serverMs: 1,
};
const PIECES: Answer = {
  ...{ type: 'text/plain', body: Buffer.from('0123456789'), cache: 'immutable', serverMs: 0 },
  flush: [
    { upTo: 4, atMs: 1 },
    { upTo: 20, atMs: 5 },
    { upTo: 7, atMs: 3 },
  ],
};
const ANSWERS: Record<string, Answer> = { 'app.test /': PAGE, 'app.test /f.js': FILE, 'other.test /p': PIECES };

async function started(speaking: Speaking): Promise<{ server: RehearsalServer; seen: Request[] }> {
  const seen: Request[] = [];
  const server = await RehearsalServer.start(['app.test', 'other.test'], speaking, (request) => {
    seen.push(request);
    return ANSWERS[`${request.host} ${request.address}`] ?? null;
  });
  servers.push(server);
  return { server, seen };
}

interface Got {
  status: number;
  headers: http2.IncomingHttpHeaders;
  early: unknown[];
  text: string;
}

function overHttp2(port: number, host: string, address: string, more: http2.OutgoingHttpHeaders = {}): Promise<Got> {
  const session = http2.connect(`https://${host}`, {
    createConnection: () =>
      tls.connect({ port, host: '127.0.0.1', servername: host, rejectUnauthorized: false, ALPNProtocols: ['h2'] }),
  });
  return new Promise((done, fail) => {
    session.on('error', fail);
    const stream = session.request({ ':path': address, ...more });
    const got: Got = { status: 0, headers: {}, early: [], text: '' };
    stream.on('headers', (h) => got.early.push(h.link));
    stream.on('response', (h) => Object.assign(got, { status: h[':status'], headers: h }));
    stream.on('data', (d) => {
      got.text += d;
    });
    stream.on('end', () => {
      session.close();
      done(got);
    });
  });
}

describe('a rehearsal’s server', () => {
  it('answers several hosts over HTTP/2, with links, early hints and rules of the cache', async () => {
    const { server, seen } = await started({ protocol: 'h2', tls: '1.3' });
    const page = await overHttp2(server.port, 'app.test', '/', { accept: 'text/html' });
    expect(page).toMatchObject({ status: 200, text: '<p>page', early: ['</b.css>; rel=preload; as=style'] });
    expect(page.headers).toMatchObject({ link: '</a.js>; rel=preload; as=script', 'cache-control': 'no-store' });
    const file = await overHttp2(server.port, 'app.test', '/f.js');
    expect([file.text.length, file.headers['cache-control']]).toEqual([40_000, 'no-cache']);
    const again = await overHttp2(server.port, 'app.test', '/f.js', { 'if-none-match': file.headers.etag as string });
    expect([again.status, again.text]).toEqual([304, '']);
    expect((await overHttp2(server.port, 'other.test', '/p')).text).toBe('0123456789');
    expect((await overHttp2(server.port, 'other.test', '/none')).status).toBe(404);
    expect(seen[0]).toEqual({ host: 'app.test', address: '/', forDocument: true });
    expect(seen.map((a) => a.host + a.address)).toEqual([
      ...['app.test/', 'app.test/f.js', 'app.test/f.js', 'other.test/p', 'other.test/none'],
    ]);
  });

  it('gives each host a certificate of its own with one key, which is the one that it tells', async () => {
    const { server } = await started({ protocol: 'h2', tls: '1.3' });
    const digests = new Set<string>();
    for (const host of ['app.test', 'other.test', WARM_HOST]) {
      const socket = tls.connect({ port: server.port, host: '127.0.0.1', servername: host, rejectUnauthorized: false });
      await new Promise((done) => socket.once('secureConnect', done));
      const certificate = new X509Certificate(socket.getPeerX509Certificate()!.raw);
      expect(certificate.checkHost(host)).toBe(host);
      digests.add(
        createHash('sha256')
          .update(certificate.publicKey.export({ type: 'spki', format: 'der' }))
          .digest('base64'),
      );
      socket.destroy();
    }
    expect([...digests]).toEqual([server.fingerprint]);
  });

  it.each<Speaking>([
    { protocol: 'h1', tls: 'none' },
    { protocol: 'h1', tls: '1.2' },
  ])('speaks %o', async (speaking) => {
    const { server } = await started(speaking);
    expect(server.fingerprint === null).toBe(speaking.tls === 'none');
    if (speaking.tls !== 'none') return;
    const text = await new Promise<string>((done) => {
      const options = { port: server.port, host: '127.0.0.1', path: '/p', headers: { host: 'other.test' } };
      http.get(options, (response) => {
        let all = '';
        response.on('data', (d) => {
          all += d;
        });
        response.on('end', () => done(all));
      });
    });
    expect(text).toBe('0123456789');
  });

  it('has an empty page that no app has to answer', async () => {
    const { server, seen } = await started({ protocol: 'h2', tls: '1.3' });
    expect((await overHttp2(server.port, WARM_HOST, '/')).status).toBe(200);
    expect(seen).toEqual([]);
  });
});
