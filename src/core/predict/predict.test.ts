import fc from 'fast-check';
import { anyApp } from '../../test-support/snapshots.ts';
import { whereTheTimeWent } from '../explain/critical-chain.ts';
import { BASELINE } from '../plan/types.ts';
import { type Conditions, DEVICES, LINKS } from '../sim/conditions.ts';
import { predict } from './predict.ts';

const anyConditions: fc.Arbitrary<Conditions> = fc.record({
  link: fc.record({
    id: fc.constant('any'),
    name: fc.constant('any'),
    protocol: fc.constantFrom('h1' as const, 'h2' as const, 'h3' as const),
    tls: fc.constantFrom('none' as const, '1.2' as const, '1.3' as const),
    rttMs: fc.integer({ min: 1, max: 800 }),
    downKbps: fc.integer({ min: 50, max: 100_000 }),
    upKbps: fc.integer({ min: 50, max: 50_000 }),
    dnsMs: fc.integer({ min: 0, max: 200 }),
    serverScheduling: fc.constantFrom('fifo' as const, 'urgency' as const),
  }),
  device: fc.constantFrom(...DEVICES),
  cache: fc.constantFrom('empty' as const, 'returning' as const),
});

describe('a prediction of any app under any conditions', () => {
  it('comes to an end, with times in order and a chain that adds up to interactive', () => {
    fc.assert(
      fc.property(anyApp(), anyConditions, (snapshot, conditions) => {
        const { timeline, reading, chain, lowerBound } = predict(snapshot, BASELINE, '/r0', conditions);
        expect(timeline.stopped).toBeUndefined();
        for (const r of timeline.requests) {
          const order = [r.cause.at, r.discovered, r.queued, r.released, r.sent, r.firstByte, r.end];
          for (let i = 1; i < order.length; i++) expect(order[i]).toBeGreaterThanOrEqual(order[i - 1] - 1e-6);
        }
        const { interactive, firstContent } = reading.milestones;
        expect(Number.isFinite(firstContent)).toBe(true);
        expect(interactive).toBeGreaterThanOrEqual(firstContent - 1e-6);
        expect(chain[0].from).toBe(0);
        for (let i = 1; i < chain.length; i++) expect(chain[i].from).toBe(chain[i - 1].to);
        const sum = whereTheTimeWent(chain).reduce((total, part) => total + part.ms, 0);
        expect(sum).toBeCloseTo(interactive, 6);
        expect(lowerBound).toBeLessThanOrEqual(interactive);
      }),
      { numRuns: 200 },
    );
  });

  it('names what it waited for along the chain', () => {
    const [snapshot] = fc.sample(anyApp(), { numRuns: 1, seed: 7 });
    const { chain } = predict(snapshot, BASELINE, '/r0', { link: LINKS[0], device: DEVICES[0], cache: 'empty' });
    expect(chain.map((l) => l.kind)).toEqual(
      expect.arrayContaining(['connecting', 'round trips', 'server', 'running']),
    );
    expect(chain.every((l) => l.what !== '')).toBe(true);
  });
});
