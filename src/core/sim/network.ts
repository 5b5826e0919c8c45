import type { Link } from './conditions.ts';
import { Connection } from './connection.ts';
import type { EventQueue } from './event-queue.ts';
import { LinkQueue } from './link-queue.ts';
import { Stream } from './stream.ts';
import type { Priority } from './types.ts';

const HEADER_BYTES = 300;
const FIRST_REQUEST_BYTES = 515;
const REQUEST_BYTES = 120;
const H1_REQUEST_BYTES = 450;
const H1_CONNECTIONS = 6;
/** Where the server hasn't answered a first connection by then, another one is tried as well, once per pool. In ms. */
const BACKUP_AFTER = 250;
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
  connections: Connection[];
  /** h1: exchanges that wait for a free connection. */
  queue: { exchange: Exchange; released: () => void }[];
  /** When the origin's name has been looked up. */
  resolved: number;
  /** Another connection was tried as well as one that took long. */
  backedUp: boolean;
}

/** Connections to origins over one shared link. */
export class Network {
  private readonly up: LinkQueue;
  private readonly down: LinkQueue;
  private readonly pools = new Map<string, Pool>();
  private opened = 0;
  private firstRequest = true;

  constructor(
    private readonly clock: EventQueue,
    private readonly link: Link,
    private readonly firstVisit: boolean,
  ) {
    this.up = new LinkQueue(link.upKbps, link.rttMs / 2);
    this.down = new LinkQueue(link.downKbps, link.rttMs / 2, link.queuePackets);
  }

  /** Connects ahead of any request. */
  preconnect(origin: string, anonymous: boolean): void {
    const pool = this.pool(origin, anonymous);
    this.clock.at(pool.resolved, () => {
      if (pool.connections.length === 0) this.addConnection(pool).whenOpen(() => this.serveQueue(pool));
    });
  }

  exchange(exchange: Exchange): void {
    const pool = this.pool(exchange.origin, exchange.anonymous);
    this.clock.at(pool.resolved, () => {
      if (this.link.protocol === 'h1') this.exchangeAlone(pool, exchange);
      else this.exchangeShared(pool, exchange);
    });
  }

  private pool(origin: string, anonymous: boolean): Pool {
    const key = `${origin} ${anonymous && origin !== '' ? 'anonymous' : ''}`;
    let pool = this.pools.get(key);
    if (!pool) {
      const twin = this.pools.get(`${origin} `) ?? this.pools.get(`${origin} anonymous`);
      const resolved = twin ? twin.resolved : this.clock.now + this.link.dnsMs;
      pool = { connections: [], queue: [], resolved, backedUp: false };
      this.pools.set(key, pool);
      if (origin === '' && this.firstVisit) this.openExtra(pool);
    }
    return pool;
  }

  private openExtra(pool: Pool): void {
    this.clock.at(pool.resolved + EXTRA_AFTER, () => this.openAnother(pool));
  }

  /** A connection that nobody asked for: over HTTP/1.1 it serves like any other, else it only takes its handshake. */
  private openAnother(pool: Pool): void {
    if (this.link.protocol === 'h1' && pool.connections.length >= H1_CONNECTIONS) return;
    const made = new Connection(this.opened++, this.clock, this.up, this.down, this.link);
    if (this.link.protocol === 'h1') pool.connections.push(made);
    made.whenOpen(() => this.serveQueue(pool));
  }

  private addConnection(pool: Pool): Connection {
    const made = new Connection(this.opened++, this.clock, this.up, this.down, this.link);
    pool.connections.push(made);
    if (!pool.backedUp && this.link.protocol !== 'h3') {
      pool.backedUp = true;
      this.clock.at(this.clock.now + BACKUP_AFTER, () => {
        if (!made.reached) this.openAnother(pool);
      });
    }
    return made;
  }

  private exchangeShared(pool: Pool, exchange: Exchange): void {
    const connection = pool.connections[0] ?? this.addConnection(pool);
    connection.whenOpen(() => this.send(connection, exchange, () => {}));
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

  private send(connection: Connection, exchange: Exchange, over: () => void): void {
    const { clock, link } = this;
    const body = exchange.pieces.reduce((sum, p) => sum + p.bytes, 0);
    const size = this.firstRequest ? FIRST_REQUEST_BYTES : link.protocol === 'h1' ? H1_REQUEST_BYTES : REQUEST_BYTES;
    this.firstRequest = false;
    let arrivedWire = 0;
    let ahead = exchange.early ? HEADER_BYTES : 0;
    const total = body + HEADER_BYTES;
    const dropped = link.protocol === 'h1' ? undefined : exchange.dropped;
    const received = (bytes: number, from: number) => {
      if (ahead > 0) {
        ahead = 0;
        exchange.early?.();
        return;
      }
      arrivedWire += bytes;
      exchange.progress(Math.max(0, Math.min(body, arrivedWire - HEADER_BYTES)), { from, to: clock.now, bytes });
      if (arrivedWire >= total - 0.5) over();
    };
    const stream = new Stream(exchange.priority, exchange.incremental, link.serverScheduling, received, dropped);
    exchange.sent(connection.id);
    connection.request(size, () => {
      exchange.reached();
      if (exchange.early) {
        stream.write(HEADER_BYTES);
        connection.respond(stream);
      }
      clock.at(clock.now + exchange.serverMs, () => {
        if (exchange.dropped?.()) {
          over();
          return;
        }
        exchange.served();
        exchange.pieces.forEach((piece, at) => {
          clock.at(clock.now + piece.atMs, () => {
            stream.write(piece.bytes + (at === 0 ? HEADER_BYTES : 0));
            connection.respond(stream);
          });
        });
      });
    });
  }
}
