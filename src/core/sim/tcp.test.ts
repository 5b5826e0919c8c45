import { EventQueue } from './event-queue.ts';
import { LinkQueue } from './link-queue.ts';
import { TcpSender } from './tcp.ts';
import { transportOf } from './transport.ts';

/** Sends so many full packets over a link; counts what is put on it, and when all of it had arrived. */
function send(packets: number, { kbps = 2000, rttMs = 100, queue = Number.POSITIVE_INFINITY } = {}) {
  const clock = new EventQueue();
  const down = new LinkQueue(kbps, rttMs / 2, queue);
  const up = new LinkQueue(kbps, rttMs / 2);
  const offered = countOf(down);
  let left = packets;
  let arrived = 0;
  const order: number[] = [];
  const sender = new TcpSender(
    clock,
    down,
    up,
    rttMs,
    transportOf('h2'),
    () => {
      if (left === 0) return null;
      const own = packets - left--;
      return {
        bytes: transportOf('h2').segment,
        arrived: () => {
          arrived++;
          order.push(own);
        },
      };
    },
    () => {},
  );
  sender.pump();
  expect(clock.run(1_000_000)).toBe(true);
  return { offered: offered(), arrived, order };
}

/** Counts the packets that are offered to a link. */
function countOf(queue: LinkQueue): () => number {
  let count = 0;
  const offer = queue.offer.bind(queue);
  queue.offer = (now, bytes) => {
    count++;
    return offer(now, bytes);
  };
  return () => count;
}

describe('a sender of packets', () => {
  it('sends nothing twice where nothing is dropped, however long packets wait behind each other', () => {
    for (const kbps of [400, 2000, 20_000])
      for (const packets of [1, 2, 30, 400]) {
        const { offered, arrived } = send(packets, { kbps });
        expect([arrived, offered]).toEqual([packets, packets]);
      }
  });

  it('sends again what a full queue dropped, and delivers all of it in order', () => {
    const { offered, arrived, order } = send(600, { kbps: 1500, queue: 10 });
    expect(arrived).toBe(600);
    expect(order).toEqual(Array.from({ length: 600 }, (_, i) => i));
    expect(offered).toBeGreaterThan(600);
    // Only what was lost, and a few probes: not what flew beside it.
    expect(offered).toBeLessThan(600 * 1.25);
  });
});
