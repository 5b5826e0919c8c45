import { createHash, randomBytes } from 'node:crypto';
import net from 'node:net';
import { type CarriedLink, EmulatedLink } from './emulated-link.ts';

const FAST: CarriedLink = { tls: 'none', rttMs: 4, downKbps: 80_000, upKbps: 80_000, dnsMs: 0, headStartMs: 0 };
const digest = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
const open: (() => void)[] = [];

afterEach(() => {
  for (const close of open.splice(0)) close();
});

/** A server that answers what it was sent with its digest, and then so many bytes; gives what a client over a link got. */
async function asked(link: CarriedLink, sends: Buffer, answer: Buffer): Promise<Buffer> {
  const server = net.createServer({ allowHalfOpen: true }, (socket) => {
    const parts: Buffer[] = [];
    socket.on('data', (d: Buffer) => parts.push(d));
    socket.on('end', () => socket.end(Buffer.concat([Buffer.from(digest(Buffer.concat(parts))), answer])));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const carried = await EmulatedLink.open(link, (server.address() as net.AddressInfo).port);
  open.push(
    () => carried.close(),
    () => server.close(),
  );
  return new Promise((done, fail) => {
    const client = net.connect({ port: carried.ports[0], host: '127.0.0.1', allowHalfOpen: true });
    const parts: Buffer[] = [];
    client.on('data', (d: Buffer) => parts.push(d));
    client.on('end', () => done(Buffer.concat(parts)));
    client.on('error', fail);
    client.end(sends);
  });
}

describe('a link', () => {
  it.each([
    ['as it is', {}],
    ['that drops at a short queue', { queuePackets: 12 }],
    ['that loses packets', { lossPercent: 4, lossSeed: 3 }],
  ])('%s carries all bytes both ways, in their order, and the ends', async (_, more) => {
    const [sends, answer] = [randomBytes(90_000), randomBytes(400_000)];
    const got = await asked({ ...FAST, ...more }, sends, answer);
    expect(got.subarray(0, 64).toString()).toBe(digest(sends));
    expect(digest(got.subarray(64))).toBe(digest(answer));
  });

  it('lets go of both ends when one breaks', async () => {
    const gone: string[] = [];
    const server = net.createServer((socket) => {
      socket.on('error', () => {});
      socket.on('close', () => gone.push('server'));
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const carried = await EmulatedLink.open(FAST, (server.address() as net.AddressInfo).port);
    open.push(
      () => carried.close(),
      () => server.close(),
    );
    const client = net.connect(carried.ports[0], '127.0.0.1');
    await new Promise((done) => client.once('connect', done));
    await new Promise((done) => setTimeout(done, 30));
    client.destroy();
    for (let n = 0; n < 100 && gone.length === 0; n++) await new Promise((done) => setTimeout(done, 10));
    expect(gone).toEqual(['server']);
  });

  it('has names looked up once by each browser, each by itself', async () => {
    const server = net.createServer((socket) => socket.once('data', () => socket.end('x')).on('error', () => {}));
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const link = { ...FAST, dnsMs: 800 };
    const carried = await EmulatedLink.open(link, (server.address() as net.AddressInfo).port, 2);
    open.push(
      () => carried.close(),
      () => server.close(),
    );
    const took = async (port: number) => {
      const began = performance.now();
      await new Promise<void>((done, fail) => {
        const client = net.connect(port, '127.0.0.1').on('error', fail);
        client.on('data', () => {}).on('close', () => done());
        client.write('?');
      });
      return performance.now() - began;
    };
    const [one, other] = carried.ports;
    const lookedUp = (ms: number) => ms >= 800;
    expect([await took(one), await took(one), await took(other), await took(other)].map(lookedUp)).toEqual([
      ...[true, false],
      ...[true, false],
    ]);
    carried.forget();
    expect([await took(one), await took(one)].map(lookedUp)).toEqual([true, false]);
  });
});
