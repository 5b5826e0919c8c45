import fc from 'fast-check';
import { anyApp } from '../../test-support/snapshots.ts';
import { whereTheTimeWent } from '../explain/critical-chain.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { type Conditions, DEVICES, LINKS } from '../sim/conditions.ts';
import { importKey } from '../snapshot/graph-index.ts';
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

describe('the lower bound', () => {
  it('is beaten by no plan', () => {
    const picks = fc.array(fc.record({ at: fc.nat(), kind: fc.constantFrom('detach' as const, 'join' as const) }), {
      maxLength: 8,
    });
    fc.assert(
      fc.property(anyApp(), anyConditions, picks, fc.boolean(), (snapshot, conditions, chosen, hinted) => {
        fc.pre(snapshot.imports.length > 0);
        const item = (at: number) => snapshot.imports[at % snapshot.imports.length];
        const decisions: Decision[] = chosen.map(({ at, kind }) => ({ kind, import: importKey(snapshot, item(at)) }));
        for (const { at } of hinted ? chosen : []) {
          const module = snapshot.modules[item(at).to].path;
          decisions.push({
            kind: 'hint',
            hint: { kind: 'modulepreload', target: { kind: 'split point', module }, place: 'early', routes: [] },
          });
        }
        const made = predict(snapshot, { ...BASELINE, decisions }, '/r0', conditions);
        const base = predict(snapshot, BASELINE, '/r0', conditions);
        expect(base.lowerBound).toBeLessThanOrEqual(made.reading.milestones.interactive);
        expect(made.filesBound).toBeLessThanOrEqual(made.reading.milestones.interactive);
      }),
      { numRuns: 200 },
    );
  });
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
