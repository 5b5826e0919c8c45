import type { Link } from './conditions.ts';
import { Connection } from './connection.ts';
import type { EventQueue } from './event-queue.ts';
import { LinkQueue } from './link-queue.ts';
import { Names } from './names.ts';
import { seeded } from './random.ts';
import { Stream } from './stream.ts';
import type { Spoken } from './transport.ts';
import type { Priority } from './types.ts';

const HEADER_BYTES = 300;
const FIRST_REQUEST_BYTES = 515;
const REQUEST_BYTES = 120;
const H1_REQUEST_BYTES = 450;
const H1_CONNECTIONS = 6;
/** Where the server hasn't answered a first connection by then, another one is tried as well, once per pool. In ms. */
const BACKUP_AFTER = 250;
/** A request that has arrived is read, and its answer begun, so much later than the server's own time says (recorded: 1.5 and 0.3 ms). */
const READ_MS = 1.5;
const ANSWER_MS = 0.3;
/** A second connection to the page's origin is opened this long after the first, on a first visit. */
const EXTRA_AFTER = 20;

export interface Exchange {
  origin: string;
  /** Requests without credentials use connections of their own. */
  anonymous: boolean;
  priority: Priority;
  incremental: boolean;
  serverMs: number;
  /** Body pieces, with the instant (after the answer is ready) at which the server writes them. */
  pieces: { bytes: number; atMs: number }[];
  /** The server sends the headers before the body, which it streams. */
  streams?: boolean;
  /** Sends a header-only answer ahead as soon as the request is read (103). */
  early?: () => void;
  sent(connection: number): void;
  reached(): void;
  served(): void;
  /** Whether nobody wants the answer any more: the server is told, and sends no more of it. */
  dropped?(): boolean;
  /** Body bytes that have arrived so far, and the piece that made it so. */
  progress(total: number, piece: { from: number; to: number; bytes: number }): void;
}

interface Pool {
  protocol: Spoken;
  connections: Connection[];
  /** h1: exchanges that wait for a free connection. */
  queue: { exchange: Exchange; released: () => void }[];
  /** Another connection was tried as well as one that took long. */
  backedUp: boolean;
  /** Over HTTP/3, once the origin has told that it speaks it too. */
  newer: Connection | null;
}

/** Who a connection serves: requests with credentials, those without, or (where the browser lets none use it) nobody. */
type Kind = 'usual' | 'anonymous' | 'unused';

/** Connections to origins over one shared link. */
export class Network {
  private readonly up: LinkQueue;
  private readonly down: LinkQueue;
  private readonly names: Names;
  private readonly pools = new Map<string, Pool>();
  private opened = 0;
  private firstRequest = true;

  constructor(
    private readonly clock: EventQueue,
    private readonly link: Link,
    private readonly firstVisit: boolean,
  ) {
    const { lossPercent = 0, lossSeed } = link;
    const next = seeded(lossSeed ?? 0);
    this.up = new LinkQueue(link.upKbps, link.rttMs / 2);
    this.down = new LinkQueue(
      link.downKbps,
      link.rttMs / 2,
      link.queuePackets,
      lossPercent > 0 && lossSeed !== undefined ? () => next() * 100 < lossPercent : undefined,
    );
    this.names = new Names(clock, link, this.up, this.down);
  }

  /** Looks a name up ahead of any request. */
  lookUp(origin: string): void {
    this.names.whenKnown(origin, () => {});
  }

  /**
   * Connects ahead of any request. What an early answer's hint connects to another origin serves nobody: only the name is known then
   * (fact 35).
   */
  preconnect(origin: string, anonymous: boolean, byEarlyHint = false): void {
    this.whenPool(origin, byEarlyHint && origin !== '' ? 'unused' : anonymous ? 'anonymous' : 'usual', (pool) => {
      if (pool.connections.length === 0) this.addConnection(pool).whenOpen(() => this.serveQueue(pool));
    });
  }

  exchange(exchange: Exchange): void {
    this.whenPool(exchange.origin, exchange.anonymous ? 'anonymous' : 'usual', (pool) => {
      if (pool.protocol === 'h1') this.exchangeAlone(pool, exchange);
      else this.exchangeShared(pool, exchange);
    });
  }

  private whenPool(origin: string, kind: Kind, then: (pool: Pool) => void): void {
    this.names.whenKnown(origin, () => then(this.pool(origin, kind)));
  }

  private pool(origin: string, kind: Kind): Pool {
    const key = `${origin} ${origin === '' ? 'usual' : kind}`;
    let pool = this.pools.get(key);
    if (!pool) {
      pool = { protocol: this.firstSpoken(), connections: [], queue: [], backedUp: false, newer: null };
      this.pools.set(key, pool);
      if (origin === '' && this.firstVisit) this.openExtra(pool);
    }
    return pool;
  }

  /** What an origin is spoken to in at first: it is known from an earlier visit where it speaks HTTP/3 (fact 54). */
  private firstSpoken(): Spoken {
    const { protocol } = this.link;
    return protocol === 'h2-h3' ? (this.firstVisit ? 'h2' : 'h3') : protocol;
  }

  private openExtra(pool: Pool): void {
    if (pool.protocol !== 'h3') this.clock.at(this.clock.now + EXTRA_AFTER, () => this.openAnother(pool));
  }

  private make(protocol: Spoken): Connection {
    return new Connection(this.opened++, this.clock, this.up, this.down, this.link, protocol);
  }

  /** A connection that nobody asked for: over HTTP/1.1 it serves like any other, else it only takes its handshake. */
  private openAnother(pool: Pool): void {
    if (pool.protocol === 'h1' && pool.connections.length >= H1_CONNECTIONS) return;
    const made = this.make(pool.protocol);
    if (pool.protocol === 'h1') pool.connections.push(made);
    made.whenOpen(() => this.serveQueue(pool));
  }

  private addConnection(pool: Pool): Connection {
    const made = this.make(pool.protocol);
    pool.connections.push(made);
    if (!pool.backedUp && pool.protocol !== 'h3') {
      pool.backedUp = true;
      this.clock.at(this.clock.now + BACKUP_AFTER, () => {
        if (!made.reached) this.openAnother(pool);
      });
    }
    return made;
  }

  private exchangeShared(pool: Pool, exchange: Exchange): void {
    const newer = pool.newer?.state === 'open' ? pool.newer : null;
    const connection = newer ?? pool.connections[0] ?? this.addConnection(pool);
    connection.whenOpen(() =>
      this.send(
        connection,
        exchange,
        () => {},
        () => this.learn(pool),
      ),
    );
  }

  /** An answer's headers have told of HTTP/3: a connection is made beside the one that serves, and serves once it is there. */
  private learn(pool: Pool): void {
    if (this.link.protocol !== 'h2-h3' || pool.protocol === 'h3' || pool.newer) return;
    pool.newer = this.make('h3');
    pool.newer.whenOpen(() => {});
  }

  private exchangeAlone(pool: Pool, exchange: Exchange): void {
    pool.queue.push({ exchange, released: () => this.serveQueue(pool) });
    const idle = pool.connections.some((c) => c.state === 'open' && !c.busy);
    const opening = pool.connections.filter((c) => c.state !== 'open').length;
    if (!idle && opening < pool.queue.length && pool.connections.length < H1_CONNECTIONS) {
      this.addConnection(pool).whenOpen(() => this.serveQueue(pool));
    }
    this.serveQueue(pool);
  }

  private serveQueue(pool: Pool): void {
    for (const connection of pool.connections) {
      if (connection.state !== 'open' || connection.busy) continue;
      if (pool.queue.length === 0) return;
      let first = 0;
      for (let i = 1; i < pool.queue.length; i++) {
        if (pool.queue[i].exchange.priority < pool.queue[first].exchange.priority) first = i;
      }
      const [{ exchange, released }] = pool.queue.splice(first, 1);
      connection.busy = true;
      this.send(connection, exchange, () => {
        connection.busy = false;
        released();
      });
    }
  }

  /** `answered`: called with the first of the answer. */
  private send(connection: Connection, exchange: Exchange, over: () => void, answered: () => void = () => {}): void {
    const { clock } = this;
    const { protocol } = connection;
    if (exchange.dropped?.()) {
      over();
      return;
    }
    const body = exchange.pieces.reduce((sum, p) => sum + p.bytes, 0);
    const size = this.firstRequest ? FIRST_REQUEST_BYTES : protocol === 'h1' ? H1_REQUEST_BYTES : REQUEST_BYTES;
    this.firstRequest = false;
    let arrivedWire = 0;
    let ahead = exchange.early ? HEADER_BYTES : 0;
    const total = body + HEADER_BYTES;
    const dropped = protocol === 'h1' ? undefined : exchange.dropped;
    const received = (all: number, from: number) => {
      const bytes = Math.max(0, all - ahead);
      if (ahead > 0) {
        ahead = Math.max(0, ahead - all);
        if (ahead < 0.5) {
          ahead = 0;
          exchange.early?.();
        }
        // What follows the early answer may come in the same packet.
        if (bytes < 0.5) return;
      }
      if (arrivedWire === 0) answered();
      arrivedWire += bytes;
      exchange.progress(Math.max(0, Math.min(body, arrivedWire - HEADER_BYTES)), { from, to: clock.now, bytes });
      if (arrivedWire >= total - 0.5) over();
    };
    const stream = new Stream(exchange.priority, exchange.incremental, connection.sending, received, dropped);
    exchange.sent(connection.id);
    const arrived = () => {
      exchange.reached();
      if (exchange.early) {
        stream.write(HEADER_BYTES);
        connection.respond(stream);
      }
      clock.at(clock.now + exchange.serverMs + ANSWER_MS, () => {
        if (exchange.dropped?.()) {
          over();
          return;
        }
        exchange.served();
        const isApart = exchange.streams || connection.sending.serverScheduling === 'urgency';
        if (isApart) stream.writeApart(HEADER_BYTES);
        exchange.pieces.forEach((piece, at) => {
          clock.at(clock.now + piece.atMs, () => {
            stream.write(piece.bytes + (at === 0 && !isApart ? HEADER_BYTES : 0));
            connection.respond(stream);
          });
        });
      });
    };
    connection.request(size, () => clock.at(clock.now + READ_MS, arrived));
  }
}
