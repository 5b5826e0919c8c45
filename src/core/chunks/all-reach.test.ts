import fc from 'fast-check';
import { anyApp, sketch } from '../../test-support/snapshots.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import { AllReach } from './all-reach.ts';
import { membersOf } from './bits.ts';
import { Reacher } from './reach.ts';

describe('what many starts reach, all at once', () => {
  it('is what walking from each of them finds', () => {
    fc.assert(
      fc.property(
        anyApp(80),
        fc.array(fc.array(fc.nat(), { minLength: 1, maxLength: 3 }), { maxLength: 70 }),
        (app, picks) => {
          const deferred = Uint8Array.from(app.imports, (i) => (i.kind === 'dynamic' ? 1 : 0));
          const starts = picks.map((p) => p.map((m) => m % app.modules.length));
          const all = new AllReach(graphIndex(app), deferred, starts);
          const walker = new Reacher(graphIndex(app), deferred);
          for (const start of starts) expect(membersOf(all.of(start))).toEqual(walker.from(start).sort());
        },
      ),
    );
  });

  it('follows cycles that lead back up', () => {
    const app = sketch({
      a: { imports: ['b'] },
      b: { imports: ['c'] },
      c: { imports: ['a', 'd'] },
      d: {},
      e: { imports: ['c'] },
    });
    const all = new AllReach(graphIndex(app), new Uint8Array(app.imports.length), [[4], [3]]);
    expect([...membersOf(all.of([4]))]).toEqual([0, 1, 2, 3, 4]);
    expect([...membersOf(all.of([3]))]).toEqual([3]);
    expect(() => all.of([0])).toThrow('not one of the starts');
  });
});
