import net from 'node:net';
import type { Link } from '../../core/sim/conditions.ts';
import { LinkQueue } from '../../core/sim/link-queue.ts';
import { seeded } from '../../core/sim/random.ts';
import { Flow } from './flow.ts';
import { LiveClock } from './live-clock.ts';
import { TlsRecords } from './tls-records.ts';

/** What a connection is asked with, and answered. */
const SYN_BYTES = 60;

/** What the relay has to know of a link; see `Link`. */
export type RelayedLink = Pick<
  Link,
  'tls' | 'rttMs' | 'downKbps' | 'upKbps' | 'dnsMs' | 'queuePackets' | 'lossPercent' | 'lossSeed'
>;

/**
 * A link without leave of the system: connections that come to a port of this machine are passed on to a server of this machine, and what they
 * carry takes the time that it would take on the link. One queue and one line rate for all of them in each direction, packets that are dropped
 * at a full queue or lost, TCP’s windows and acknowledgements: the simulator’s own, with real bytes and at real time. What the systems at both
 * ends do on the loopback (the handshake of TCP) costs nothing there and is waited for here.
 */
export class Relay {
  private readonly clock = new LiveClock();
  private readonly up: LinkQueue;
  private readonly down: LinkQueue;
  private readonly server: net.Server;
  private readonly sockets = new Set<net.Socket>();
  /** When the name of the server is known: it is looked up for the first connection. */
  private knownAt: number | null = null;

  private constructor(
    private readonly link: RelayedLink,
    private readonly target: number,
  ) {
    const { rttMs, upKbps, downKbps, queuePackets, lossPercent = 0, lossSeed } = link;
    const random = lossSeed === undefined || lossPercent === 0 ? null : seeded(lossSeed);
    this.up = new LinkQueue(upKbps, rttMs / 2);
    this.down = new LinkQueue(
      downKbps,
      rttMs / 2,
      queuePackets,
      random ? () => random() < lossPercent / 100 : undefined,
    );
    this.server = net.createServer({ noDelay: true, pauseOnConnect: true, allowHalfOpen: true }, (client) =>
      this.connect(client),
    );
  }

  /** Starts a relay to a port of this machine. */
  static async start(link: RelayedLink, target: number): Promise<Relay> {
    const relay = new Relay(link, target);
    await new Promise<void>((done, fail) => relay.server.once('error', fail).listen(0, '127.0.0.1', done));
    return relay;
  }

  get port(): number {
    return (this.server.address() as net.AddressInfo).port;
  }

  stop(): void {
    this.clock.stop();
    this.server.close();
    for (const socket of this.sockets) socket.destroy();
  }

  private connect(client: net.Socket): void {
    const { clock, up, down, link } = this;
    const { events } = clock;
    const server = net.connect({ port: this.target, host: '127.0.0.1', noDelay: true, allowHalfOpen: true });
    server.pause();
    for (const socket of [client, server]) {
      this.sockets.add(socket);
      socket.once('close', () => {
        this.sockets.delete(socket);
        client.destroy();
        server.destroy();
      });
      socket.on('error', () => {});
    }
    const flow = (from: net.Socket, to: net.Socket, over: LinkQueue, back: LinkQueue, records: TlsRecords | null) => {
      const one = new Flow(
        ...([events, over, back, link.rttMs] as const),
        (bytes) => to.write(bytes),
        () => from.resume(),
        () => to.end(),
        records,
      );
      from.on('data', (bytes: Buffer) => clock.do(() => one.take(bytes) || from.pause()));
      from.on('end', () => clock.do(() => one.end()));
    };
    flow(client, server, up, down, link.tls === 'none' ? null : new TlsRecords());
    flow(server, client, down, up, null);
    clock.do(() => {
      this.knownAt ??= events.now + link.dnsMs;
      // Both ends are asked and have answered before the browser’s first byte leaves.
      events.at(this.knownAt, () =>
        events.at(up.send(events.now, SYN_BYTES), () =>
          events.at(down.send(events.now, SYN_BYTES), () => {
            client.resume();
            server.resume();
          }),
        ),
      );
    });
  }
}
