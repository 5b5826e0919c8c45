import fc from 'fast-check';
import { EventQueue } from './event-queue.ts';

describe('the queue of events', () => {
  it('runs what is due in the order of time, ties as they were scheduled, also what is scheduled meanwhile', () => {
    const plan = fc.array(
      fc.record({
        time: fc.integer({ min: 0, max: 9 }),
        more: fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 3 }),
      }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(plan, (wanted) => {
        const queue = new EventQueue();
        const ran: string[] = [];
        for (const [i, { time, more }] of wanted.entries())
          queue.at(time, () => {
            ran.push(`${queue.now} ${i}`);
            for (const [k, later] of more.entries()) queue.at(later, () => ran.push(`${queue.now} ${i}.${k}`));
          });
        expect(queue.run(1000)).toBe(true);
        // The same by looking through all of them each time.
        const open = wanted.map(({ time, more }, i) => ({ time, more, name: String(i) }));
        const slow: string[] = [];
        while (open.length > 0) {
          const next = open.reduce((a, b) => (b.time < a.time ? b : a));
          open.splice(open.indexOf(next), 1);
          slow.push(`${next.time} ${next.name}`);
          for (const [k, later] of next.more.entries())
            open.push({ time: Math.max(later, next.time), more: [], name: `${next.name}.${k}` });
        }
        expect(ran).toEqual(slow);
      }),
      { numRuns: 500 },
    );
  });

  it('stops after so many, and tells whether something is left and when it is due', () => {
    const queue = new EventQueue(-20);
    const ran: number[] = [];
    for (const time of [5, 3, -30]) queue.at(time, () => ran.push(queue.now));
    expect(queue.nextAt).toBe(-20);
    expect(queue.run(1)).toBe(false);
    expect([ran, queue.nextAt]).toEqual([[-20], 3]);
    expect(queue.run(2)).toBe(true);
    expect([ran, queue.nextAt]).toEqual([[-20, 3, 5], null]);
    expect(queue.run(0)).toBe(true);
  });

  it('runs up to an instant and what is due at it, which is the present from then on', () => {
    const queue = new EventQueue();
    const ran: number[] = [];
    for (const time of [2, 4, 6]) queue.at(time, () => ran.push(time));
    queue.runUntil(4);
    expect([ran, queue.now]).toEqual([[2, 4], 4]);
    queue.runUntil(5);
    expect([ran, queue.now]).toEqual([[2, 4], 5]);
    queue.runUntil(1);
    expect(queue.now).toBe(5);
    queue.at(0, () => ran.push(queue.now));
    queue.runUntil(5);
    expect(ran).toEqual([2, 4, 5]);
  });
});
