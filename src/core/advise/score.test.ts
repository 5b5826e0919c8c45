import { part, route, sketch } from '../../test-support/snapshots.ts';
import { BASELINE } from '../plan/types.ts';
import { DEFAULT_CONDITIONS } from '../sim/conditions.ts';
import { modelOf } from '../visitors/model.ts';
import { Scorer } from './score.ts';

it('counts code that comes after first paint and is shown as no waste', () => {
  const hero = sketch(
    {
      main: { imports: ['home'] },
      home: { imports: ['~hero', '~help'] },
      hero: { bytes: 30_000 },
      help: { bytes: 30_000 },
    },
    {
      routes: [
        route('/', 'home', { parts: [part('hero', 'hero'), part('help', 'help', { place: 'action', share: 0.25 })] }),
      ],
    },
  );
  const waste = (splitPoint: string) =>
    new Scorer(hero, modelOf(hero).model, DEFAULT_CONDITIONS).score({
      ...BASELINE,
      decisions: [{ kind: 'trigger', splitPoint, fetch: { on: 'after first paint' } }],
    }).waste;
  expect(waste('hero')).toBe(0);
  // What a quarter of the people use is wasted on the others.
  expect(waste('help')).toBeGreaterThan(5000);
});
