import net from 'node:net';
import type { Link } from '../../core/sim/conditions.ts';
import { LinkQueue } from '../../core/sim/link-queue.ts';
import { seeded } from '../../core/sim/random.ts';
import { Flow } from './flow.ts';
import { LiveClock } from './live-clock.ts';
import { onLoopback } from './loopback.ts';

/** What a connection is asked with, and answered. */
const SYN_BYTES = 60;

/** What a server sends by itself once TLS is there (tickets, settings) isn’t in the way of its first answer, as recorded loads show. */
const GREETING_PACKETS = 4;

/** What has to be known of a link to carry something over it; see `Link`. */
export interface CarriedLink
  extends Pick<Link, 'tls' | 'rttMs' | 'downKbps' | 'upKbps' | 'dnsMs' | 'queuePackets' | 'lossPercent' | 'lossSeed'> {
  /** So much earlier the first connection would have been begun by a browser that connects ahead of what it navigates to. */
  headStartMs: number;
}

/**
 * A link without leave of the system: connections that come to a port of this machine are passed on to another one, and what they carry takes
 * the time that it would take on the link. One queue and one line rate for all of them in each direction, packets that are dropped at a full
 * queue or lost, TCP’s windows and acknowledgements: the simulator’s own, with real bytes and at real time. The handshake of TCP, which costs
 * nothing on the loopback, is waited for here, and so is looking a name up: each has a port of its own.
 */
export class EmulatedLink {
  private readonly clock = new LiveClock();
  private readonly up: LinkQueue;
  private readonly down: LinkQueue;
  /** Of each name. */
  ports: number[] = [];
  private readonly near: net.Server[];
  private readonly sockets = new Set<net.Socket>();
  /** When each name is known that somebody has asked for: it is looked up for the first connection. */
  private readonly knownAt = new Map<number, number>();
  private random: (() => number) | null = null;

  private constructor(
    private readonly link: CarriedLink,
    private readonly target: number,
    names: number,
  ) {
    const { rttMs, upKbps, downKbps, queuePackets, lossPercent = 0, lossSeed } = link;
    const loses = lossSeed === undefined || lossPercent === 0 ? undefined : () => this.random!() < lossPercent / 100;
    this.forget();
    this.up = new LinkQueue(upKbps, rttMs / 2);
    this.down = new LinkQueue(downKbps, rttMs / 2, queuePackets, loses);
    this.near = Array.from({ length: names }, (_, name) =>
      net.createServer({ noDelay: true, pauseOnConnect: true, allowHalfOpen: true }, (socket) =>
        this.connect(socket, name),
      ),
    );
  }

  /** Opens ports, one for each name, whose connections go over the link to another port of this machine. */
  static async open(link: CarriedLink, target: number, names = 1): Promise<EmulatedLink> {
    const made = new EmulatedLink(link, target, names);
    made.ports = await Promise.all(made.near.map(onLoopback));
    return made;
  }

  /** Begins anew, for a browser that knows no name yet. */
  forget(): void {
    this.knownAt.clear();
    this.random = seeded(this.link.lossSeed ?? 1);
  }

  close(): void {
    this.clock.stop();
    for (const server of this.near) server.close();
    for (const socket of this.sockets) socket.destroy();
  }

  private connect(socket: net.Socket, name: number): void {
    const { clock, up, down, link } = this;
    const { events } = clock;
    const far = net.connect({ port: this.target, host: '127.0.0.1', noDelay: true, allowHalfOpen: true });
    const ways = { clock: events, rttMs: link.rttMs };
    const toServer = new Flow(
      { ...ways, over: up, back: down },
      (bytes) => far.write(bytes),
      () => far.end(),
      link.tls !== 'none',
    );
    const toBrowser = new Flow(
      { ...ways, over: down, back: up },
      (bytes) => socket.write(bytes),
      () => socket.end(),
      false,
    );
    if (link.tls !== 'none') toBrowser.widen(GREETING_PACKETS);
    for (const [from, flow] of [
      [socket, toServer],
      [far, toBrowser],
    ] as const) {
      this.sockets.add(from);
      from.on('data', (bytes: Buffer) => clock.do(() => flow.take(bytes)));
      from.on('end', () => clock.do(() => flow.end()));
      from.on('error', () => {});
      from.once('close', (broke) => {
        this.sockets.delete(from);
        // What the server has sent whole is still on its way when it closes.
        if (broke || from === socket) for (const end of [socket, far]) end.destroy();
      });
    }
    clock.do(() => {
      const ahead = this.knownAt.size === 0 ? link.headStartMs : 0;
      const known = Math.max(events.now, this.knownAt.get(name) ?? events.now + link.dnsMs);
      this.knownAt.set(name, known);
      // Both ends are asked and have answered before the browser’s first byte leaves.
      events.at(known, () =>
        events.at(up.send(events.now, SYN_BYTES), () =>
          events.at(down.send(events.now, SYN_BYTES) - ahead, () => {
            socket.resume();
          }),
        ),
      );
    });
  }
}
