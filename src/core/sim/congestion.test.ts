import { Congestion } from './congestion.ts';

/** A window that has just been used up, as it is while there is more to send. */
function busy(window = 10): Congestion {
  const c = new Congestion(10, true);
  c.sample(100);
  c.window = window;
  c.used(window, true, window, 0);
  return c;
}

describe('the congestion window', () => {
  it('grows by what is acknowledged in slow start, but only while it is used', () => {
    const used = busy();
    used.acknowledged(4, 4, 10, 100);
    expect(used.window).toBe(14);
    const idle = new Congestion(10, true);
    idle.sample(100);
    idle.used(3, false, 3, 0);
    idle.acknowledged(3, 3, 3, 100);
    expect(idle.window).toBe(10);
    // More than half of it in use counts as used.
    const half = new Congestion(10, true);
    half.sample(100);
    half.used(6, false, 6, 0);
    half.acknowledged(6, 6, 6, 100);
    expect(half.window).toBe(16);
  });

  it('leaves slow start when even the shortest delays of a round show a standing queue', () => {
    const free = busy(20);
    const queued = busy(20);
    for (let ack = 1; ack <= 12; ack++) {
      free.sample(100);
      free.acknowledged(1, ack, 60, 100 + ack);
      queued.sample(130);
      queued.acknowledged(1, ack, 60, 100 + ack);
    }
    expect(free.window).toBe(32);
    expect(queued.window).toBeLessThan(30);
  });

  it('shrinks to seven tenths at a loss, and comes back slowly at first, then past where it was', () => {
    const c = busy(60);
    c.lost();
    c.recovering(60, 40);
    c.recovered();
    expect(c.window).toBe(42);
    let now = 0;
    const growFor = (ms: number) => {
      for (const until = now + ms; now < until; now += 100) {
        c.used(Math.floor(c.window), true, now, 0);
        c.acknowledged(Math.floor(c.window), now, now + 1, now);
      }
      return c.window;
    };
    const soon = growFor(1000);
    const later = growFor(3000);
    expect(soon).toBeGreaterThan(42);
    expect(soon).toBeLessThan(60);
    expect(later).toBeGreaterThan(55);
    expect(growFor(6000)).toBeGreaterThan(60);
  });

  it('sends about as much as arrives while what was lost is sent again', () => {
    const c = busy(100);
    c.lost();
    let flying = 90;
    let sent = 0;
    for (let ack = 0; ack < 90; ack++) {
      flying--;
      c.recovering(1, flying);
      while (flying < Math.floor(c.window)) {
        flying++;
        sent++;
      }
    }
    expect(sent).toBeGreaterThan(50);
    expect(sent).toBeLessThan(95);
  });

  it('halves for every timeout of rest, down to ten packets, and knows its timeout from the round trips', () => {
    const c = busy(80);
    for (let i = 0; i < 30; i++) c.sample(100);
    expect(c.timeoutMs).toBeCloseTo(300, 0);
    c.idle(250);
    expect(c.window).toBe(80);
    c.idle(310);
    expect(c.window).toBe(40);
    c.idle(100_000);
    expect(c.window).toBe(10);
    c.timedOut();
    expect(c.window).toBe(1);
  });
});
