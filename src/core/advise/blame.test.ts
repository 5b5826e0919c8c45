import { ROUND } from '../../test-support/programs.ts';
import { route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { modelOf } from '../visitors/model.ts';
import { blame } from './blame.ts';

const snapshot = sketch(
  {
    main: { imports: ['frame', '~a', '~b'] },
    frame: { imports: ['small', 'big'] },
    small: { bytes: 300 },
    big: { bytes: 600_000 },
    a: {},
    b: { imports: ['heavy'] },
    heavy: { bytes: 300_000 },
  },
  {
    routes: [
      route('/a', 'a', { layouts: ['frame'], landings: 3 }),
      route('/b', 'b', { layouts: ['frame'], landings: 1 }),
    ],
  },
);
const price = (key: string) => blame(snapshot, BASELINE, key, modelOf(snapshot).model, ROUND);

it('tells who pays for an import, and how much', () => {
  const heavy = price('b::heavy');
  expect(heavy.paidBy).toBe(0.25);
  expect(heavy.effect.routes[0].pattern).toBe('/b');
  // 300 kB minified are some 100 kB on the link, 100 ms at this rate, and cost the thread time as well.
  expect(heavy.effect.routes[0].interactive).toBeLessThan(-60);
});

it('finds nobody who pays for an import that keeps nothing in the start', () => {
  expect(price('main::a').effect).toMatchObject({ cost: 0, waste: 0, routes: [], waits: [] });
});
