import fc from 'fast-check';
import { anyConditions, anyLivedApp, anyPicks, planBy } from '../../test-support/plans.ts';
import { anyApp } from '../../test-support/snapshots.ts';
import { whereTheTimeWent } from '../metrics/critical-chain.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { shipped } from '../ship/shipped.ts';
import { DEVICES, LINKS } from '../sim/conditions.ts';
import { importKey } from '../snapshot/graph-index.ts';
import { predict } from './predict.ts';

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

  it('is beaten by no decision of any kind, whatever stands on the routes', () => {
    fc.assert(
      fc.property(anyLivedApp(), anyConditions, anyPicks, (snapshot, conditions, numbers) => {
        const plan = planBy(snapshot, numbers);
        const ships = shipped(snapshot, plan).snapshot;
        const made = predict(ships, plan, '/r0', conditions).reading;
        const bound = predict(snapshot, BASELINE, '/r0', conditions).lowerBound;
        const { interactive } = made.milestones;
        // What never answers beats nothing, and says so.
        if (Number.isNaN(interactive)) expect(made.missing).not.toEqual([]);
        else expect(interactive).toBeGreaterThanOrEqual(bound);
      }),
      { numRuns: 400 },
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
