import { LINKS, type Link } from './conditions.ts';
import { EventQueue } from './event-queue.ts';
import { LinkQueue } from './link-queue.ts';
import { Network } from './network.ts';

const link: Link = { ...LINKS[0], rttMs: 100, downKbps: 8000, upKbps: 8000, dnsMs: 0, tls: '1.3', protocol: 'h2' };

/** Runs exchanges of so many body bytes, all asked for at 0, and gives when each was complete. */
function run(
  sizes: number[],
  over: Partial<Link> = {},
  more: Partial<Parameters<Network['exchange']>[0]>[] = [],
): number[] {
  const clock = new EventQueue();
  const network = new Network(clock, { ...link, ...over }, false);
  const ends = sizes.map(() => Number.NaN);
  sizes.forEach((bytes, i) => {
    network.exchange({
      origin: '',
      anonymous: false,
      priority: 1,
      incremental: false,
      serverMs: 0,
      pieces: [{ bytes, atMs: 0 }],
      sent: () => {},
      reached: () => {},
      served: () => {},
      progress: (total) => {
        if (total >= bytes) ends[i] = clock.now;
      },
      ...more[i],
    });
  });
  expect(clock.run(1_000_000)).toBe(true);
  return ends;
}

describe('EventQueue', () => {
  it('runs in order of time, ties in order of scheduling, and stops at its limit', () => {
    const clock = new EventQueue();
    const seen: string[] = [];
    for (const [at, name] of [
      [5, 'c'],
      [1, 'a'],
      [5, 'd'],
      [3, 'b'],
      [5, 'e'],
    ] as const)
      clock.at(at, () => seen.push(`${name}${clock.now}`));
    expect(clock.run(100)).toBe(true);
    expect(seen).toEqual(['a1', 'b3', 'c5', 'd5', 'e5']);
    const again = () => clock.at(clock.now + 1, again);
    again();
    expect(clock.run(50)).toBe(false);
  });
});

describe('LinkQueue', () => {
  it('queues packets behind each other and delays each by half a round trip', () => {
    const pipe = new LinkQueue(8000, 50);
    expect(pipe.send(0, 1000)).toBe(51);
    expect(pipe.send(0, 1000)).toBe(52);
    expect(pipe.send(100, 1000)).toBe(151);
  });
});

describe('a connection', () => {
  it('takes one round trip for TCP, one for TLS 1.3, one for a small answer', () => {
    const [end] = run([1000]);
    expect(end).toBeGreaterThan(300);
    expect(end).toBeLessThan(311);
  });

  it.each([
    ['none', 'h2', 200],
    ['1.2', 'h2', 400],
    ['1.3', 'h3', 200],
  ] as const)('with TLS %s over %s takes %d ms for the same', (tls, protocol, ms) => {
    const [end] = run([1000], { tls, protocol });
    expect(end).toBeGreaterThan(ms);
    expect(end).toBeLessThan(ms + 14);
  });

  it('opens its window by doubling: ten packets, then over twenty, one round trip apart', () => {
    const fast = { downKbps: 1_000_000, upKbps: 1_000_000 };
    const [ten] = run([10 * 1448 - 300], fast);
    const [eleven] = run([11 * 1448 - 300], fast);
    const [thirty] = run([30 * 1448 - 300], fast);
    const [more] = run([60 * 1448 - 300], fast);
    expect(eleven - ten).toBeGreaterThan(96);
    expect(eleven - ten).toBeLessThan(102);
    expect(thirty - ten).toBeLessThan(102);
    expect(more - thirty).toBeGreaterThan(95);
  });

  it('comes down to the line rate for a long answer', () => {
    const bytes = 4_000_000;
    const [end] = run([bytes], { downKbps: 2000 });
    const atLineRate = ((bytes * 1500) / 1448 / 2000) * 8;
    expect(end).toBeGreaterThan(atLineRate);
    expect(end).toBeLessThan(atLineRate * 1.05 + 500);
  });

  it('sends answers in the order in which they became ready, or by urgency where the server can', () => {
    const asks = [
      { priority: 3 as const, serverMs: 0 },
      { priority: 1 as const, serverMs: 5 },
    ];
    const [low, high] = run([400_000, 50_000], {}, asks);
    expect(low).toBeLessThan(high);
    const [lowUrgent, highUrgent] = run([400_000, 50_000], { serverScheduling: 'urgency' }, asks);
    expect(highUrgent).toBeLessThan(lowUrgent);
  });

  it('carries one answer at a time over HTTP/1.1, on up to six connections', () => {
    const ends = run(new Array(12).fill(20_000), { protocol: 'h1' }, new Array(12).fill({ serverMs: 200 }));
    const firstSix = ends.slice(0, 6);
    expect(Math.min(...ends.slice(6))).toBeGreaterThan(Math.min(...firstSix) + 200);
  });

  it('needs a connection of its own for requests without credentials to another origin', () => {
    const far = { origin: 'https://far.example' };
    const [a, b] = run([1000, 1000], {}, [{ ...far }, { ...far, anonymous: true }]);
    const [c, d] = run([1000, 1000], {}, [{ ...far }, { ...far }]);
    expect(Math.abs(a - b)).toBeGreaterThan(0.5);
    expect(Math.abs(c - d)).toBeLessThan(3);
  });

  it('shows small answers that became ready together only with the record that they share', () => {
    const [first, second, late] = run([3000, 3000, 3000], { downKbps: 1000 }, [{}, {}, { serverMs: 40 }]);
    expect(second).toBeCloseTo(first, 5);
    expect(late - first).toBeGreaterThan(20);
  });

  it('loses packets at a full queue, and is slowed down by finding and sending them again', () => {
    const bytes = 600_000;
    const [free] = run([bytes], { downKbps: 4000 });
    const [tight] = run([bytes], { downKbps: 4000, queuePackets: 12 });
    expect(tight).toBeGreaterThan(free + 50);
    expect(tight).toBeLessThan(3 * free);
    const many = run(new Array(6).fill(60_000), { protocol: 'h1', downKbps: 2000, queuePackets: 20 });
    for (const end of many) expect(end).toBeGreaterThan(0);
  });

  it.each([8, 20, 64])('delivers everything whatever the queue holds (%d packets)', (queuePackets) => {
    for (const bytes of [500, 14_000, 90_000, 700_000])
      for (const downKbps of [300, 3000, 30_000]) {
        const [end] = run([bytes], { downKbps, queuePackets });
        expect(end).toBeGreaterThan(300 + (bytes * 8) / downKbps);
        expect(end).toBeLessThan(5000 + ((bytes * 8) / downKbps) * 4);
      }
  });
});

describe('connecting', () => {
  it('tries another connection beside one that the server hasn’t answered for 250 ms, once per origin', () => {
    const used = (over: Partial<Link>) => {
      const connections = new Set<number>();
      const sent = (connection: number) => connections.add(connection);
      run(new Array(3).fill(20_000), over, new Array(3).fill({ sent }));
      return connections;
    };
    expect(used({ protocol: 'h1', rttMs: 240 })).toEqual(new Set([0, 1, 2]));
    expect(used({ protocol: 'h2', rttMs: 300 })).toEqual(new Set([0]));
    const late = (rttMs: number) => {
      const clock = new EventQueue();
      const network = new Network(clock, { ...link, rttMs, protocol: 'h1' }, false);
      const connections: number[] = [];
      const ask = () =>
        network.exchange({
          ...{ origin: '', anonymous: false, priority: 1, incremental: false, serverMs: 400 },
          pieces: [{ bytes: 100, atMs: 0 }],
          sent: (connection) => connections.push(connection),
          reached: () => {},
          served: () => {},
          progress: () => {},
        });
      ask();
      // The second request finds the first connection busy.
      clock.at(3 * rttMs + 100, ask);
      clock.run(100_000);
      return connections;
    };
    // A connection that has yet to be made is later than the first one is free again; one that is there already isn't.
    expect(late(240)).toEqual([0, 0]);
    expect(late(300)).toEqual([0, 1]);
  });

  it('waits for the lookup of a name, also ahead of any request', () => {
    const sentAt = (ahead: boolean, dnsMs: number, asked: number) => {
      const clock = new EventQueue();
      const network = new Network(clock, { ...link, dnsMs }, false);
      let at = Number.NaN;
      if (ahead) network.preconnect('https://cdn.example', false);
      clock.at(asked, () =>
        network.exchange({
          ...{ origin: 'https://cdn.example', anonymous: false, priority: 1, incremental: false, serverMs: 0 },
          pieces: [{ bytes: 100, atMs: 0 }],
          sent: () => {
            at = clock.now;
          },
          reached: () => {},
          served: () => {},
          progress: () => {},
        }),
      );
      clock.run(100_000);
      return at;
    };
    expect(sentAt(true, 150, 0)).toBeCloseTo(sentAt(false, 150, 0), 6);
    expect(sentAt(true, 150, 0)).toBeCloseTo(sentAt(true, 0, 0) + 150, 6);
    expect(sentAt(true, 150, 300)).toBeCloseTo(sentAt(true, 150, 0), 6);
    expect(sentAt(true, 150, 1000)).toBe(1000);
  });
});

describe('names over the link', () => {
  /** When a request for another origin leaves that is asked for at 0, with what goes before it. */
  const sentAt = (over: Partial<Link>, before: (network: Network) => void = () => {}, asked = 0, busy = 0) => {
    const clock = new EventQueue();
    const network = new Network(clock, { ...link, ...over }, false);
    let at = Number.NaN;
    const ask = (origin: string, bytes: number, sent: () => void) =>
      network.exchange({
        ...{ origin, anonymous: false, priority: 1, incremental: false, serverMs: 0, pieces: [{ bytes, atMs: 0 }] },
        sent,
        reached: () => {},
        served: () => {},
        progress: () => {},
      });
    if (busy > 0) ask('', busy, () => {});
    before(network);
    clock.at(asked, () =>
      ask('https://cdn.example', 100, () => {
        at = clock.now;
      }),
    );
    clock.run(1_000_000);
    return at;
  };
  const named = { resolverMs: 40 };

  it('take a round trip and the time of the name server, once for each name', () => {
    expect(sentAt(named) - sentAt({})).toBeCloseTo(140, 0);
    // Connections with and without credentials are two, of one name.
    const both = (network: Network) => network.preconnect('https://cdn.example', true);
    expect(Math.abs(sentAt(named, both) - sentAt(named))).toBeLessThan(5);
  });

  it('are ready where they were looked up ahead', () => {
    const ahead = (network: Network) => network.lookUp('https://cdn.example');
    expect(sentAt(named, ahead, 500)).toBeCloseTo(
      sentAt({}, () => {}, 500),
      6,
    );
  });

  it('wait behind what the link is busy with', () => {
    const slow = { ...named, downKbps: 400 };
    const idle = sentAt(slow, () => {}, 320);
    expect(sentAt(slow, () => {}, 320, 30_000)).toBeGreaterThan(idle + 100);
  });

  it('are all that an early hint’s connection to another origin leaves', () => {
    const early = (network: Network) => network.preconnect('https://cdn.example', false, true);
    expect(sentAt(named, early, 1000)).toBeCloseTo(
      sentAt({}, () => {}, 1000),
      0,
    );
    const usual = (network: Network) => network.preconnect('https://cdn.example', false);
    expect(sentAt(named, usual, 1000)).toBe(1000);
  });
});

describe('HTTP/3', () => {
  it('takes one round trip to connect, and a window of thirty-two packets', () => {
    const fast = { downKbps: 1_000_000, upKbps: 1_000_000 };
    const [h2] = run([30_000], fast);
    const [h3] = run([30_000], { ...fast, protocol: 'h3' });
    // A round trip less to connect, another one less for what doesn't fit into ten packets; but they leave spread over a round trip.
    expect(h2 - h3).toBeGreaterThan(140);
    expect(h2 - h3).toBeLessThan(205);
  });

  it('lets requests go without a window of ten', () => {
    const many = Array.from({ length: 25 }, () => 500);
    const last = (protocol: Link['protocol']) => Math.max(...run(many, { protocol, serverScheduling: 'shared' }));
    const alone = (protocol: Link['protocol']) => run([500], { protocol, serverScheduling: 'shared' })[0];
    expect(last('h2') - alone('h2')).toBeGreaterThan(last('h3') - alone('h3'));
  });

  it('is gone over to once an answer has told of it, and known on the next visit', () => {
    const used = (firstVisit: boolean) => {
      const clock = new EventQueue();
      const network = new Network(clock, { ...link, protocol: 'h2-h3' }, firstVisit);
      const sent: [number, number][] = [];
      for (const at of [0, 1000])
        clock.at(at, () =>
          network.exchange({
            ...{ origin: '', anonymous: false, priority: 1, incremental: false, serverMs: 0 },
            pieces: [{ bytes: 100, atMs: 0 }],
            sent: (connection) => sent.push([connection, clock.now]),
            reached: () => {},
            served: () => {},
            progress: () => {},
          }),
        );
      clock.run(100_000);
      return sent;
    };
    const [[first, begun], [second]] = used(true);
    expect(second).not.toBe(first);
    expect(begun).toBeGreaterThan(200);
    const [[known, soon], [same]] = used(false);
    expect(same).toBe(known);
    expect(soon).toBeLessThan(begun - 90);
  });

  it('shares the link among answers where its server does', () => {
    const sizes = [60_000, 60_000];
    const [first, second] = run(sizes, {
      protocol: 'h3',
      serverScheduling: 'fifo',
      overHttp3: { serverScheduling: 'shared' },
    });
    expect(second - first).toBeLessThan(10);
    const [one, other] = run(sizes, { protocol: 'h3', serverScheduling: 'fifo' }, [{}, { serverMs: 5 }]);
    expect(other - one).toBeGreaterThan(30);
  });
});

describe('random loss', () => {
  const lossy = { lossPercent: 3, lossSeed: 7 };

  it('is the same for the same seed, and makes loads later, the worst ones by much', () => {
    const ends = (seed: number, percent = 3) => run([250_000], { lossPercent: percent, lossSeed: seed })[0];
    expect(ends(7)).toBe(ends(7));
    const all = Array.from({ length: 60 }, (_, seed) => ends(seed)).sort((a, b) => a - b);
    const [none] = run([250_000]);
    expect(all[30]).toBeGreaterThan(none);
    expect(all[54]).toBeGreaterThan(all[30]);
    expect(ends(7, 0)).toBe(none);
  });

  it('still brings every byte, over all protocols', () => {
    for (const protocol of ['h1', 'h2', 'h3'] as const)
      for (let seed = 0; seed < 20; seed++)
        expect(run([40_000, 90_000, 500], { ...lossy, lossSeed: seed, protocol }).every(Number.isFinite)).toBe(true);
  });
});

describe('requests that waited for a connection', () => {
  it('reach the server together', () => {
    const reached: number[] = [];
    const clock = new EventQueue();
    const network = new Network(clock, { ...link, upKbps: 100 }, false);
    for (let n = 0; n < 3; n++)
      network.exchange({
        ...{ origin: '', anonymous: false, priority: 1, incremental: false, serverMs: 0 },
        pieces: [{ bytes: 100, atMs: 0 }],
        sent: () => {},
        reached: () => reached.push(clock.now),
        served: () => {},
        progress: () => {},
      });
    clock.run(100_000);
    expect(new Set(reached).size).toBe(1);
  });
});
