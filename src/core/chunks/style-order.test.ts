import fc from 'fast-check';
import { anyApp, sketch } from '../../test-support/snapshots.ts';
import { effectivePlan } from '../plan/effective.ts';
import { BASELINE } from '../plan/types.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import { planned } from './planned.ts';
import { postOrder } from './reach.ts';
import { styleConflicts } from './style-order.ts';

describe('the order of style sheets', () => {
  it('is told where two split points want it differently', () => {
    const sheets = {
      'a.css': { kind: 'style' as const },
      'b.css': { kind: 'style' as const },
      'c.css': { kind: 'style' as const },
    };
    const app = sketch({
      main: { imports: ['~one', '~two', '~three'] },
      one: { imports: ['a.css', 'b.css'] },
      two: { imports: ['b.css', 'c.css', 'a.css'] },
      three: { imports: ['a.css', 'c.css'] },
      ...sheets,
    });
    expect(styleConflicts(app, BASELINE)).toEqual([
      { realm: 'site', first: 'a.css', second: 'b.css', asSaid: 'one', reversed: 'two', pairs: 1 },
      { realm: 'site', first: 'a.css', second: 'c.css', asSaid: 'three', reversed: 'two', pairs: 1 },
    ]);
  });

  it('has a conflict between two roots exactly when some pair that both have is in two orders', () => {
    fc.assert(
      fc.property(anyApp(), (app) => {
        const { deferred } = effectivePlan(app, BASELINE);
        const { roots } = planned(app, BASELINE).graph;
        const orders = roots.map((r) =>
          postOrder(graphIndex(app), deferred, r.target).filter((m) => app.modules[m].kind === 'style'),
        );
        let expected = 0;
        orders.forEach((one, i) => {
          for (const other of orders.slice(i + 1)) {
            const both = one.filter((m) => other.includes(m));
            if (both.some((m, at) => both.slice(at + 1).some((n) => other.indexOf(n) < other.indexOf(m)))) expected++;
          }
        });
        const found = styleConflicts(app, BASELINE);
        expect(found.reduce((sum, c) => sum + c.pairs, 0)).toBe(expected);
        const told = found.map((c) => [c.first, c.second].sort().join(' '));
        expect(new Set(told).size).toBe(told.length);
      }),
    );
  });
});
