import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE } from '../plan/types.ts';
import { compileLoad } from './compile.ts';

describe('what a file is for', () => {
  it('is the start where any part of the first screen needs it, whoever asked for it first', () => {
    const app = sketch(
      {
        main: { imports: ['home'] },
        home: { imports: ['~later', '~first'] },
        later: { imports: ['shared'] },
        first: { imports: ['shared'] },
        shared: { bytes: 20_000 },
      },
      {
        routes: [route('/', 'home', { parts: [part('first', 'first'), part('later', 'later', { place: 'below' })] })],
      },
    );
    const plan = {
      ...BASELINE,
      decisions: [{ kind: 'trigger' as const, splitPoint: 'later', fetch: { on: 'after first paint' as const } }],
    };
    const { resources } = compileLoad(planned(app, plan), '/');
    const purposes = Object.fromEntries(resources.map((r) => [r.name, r.purpose]));
    expect(purposes).toMatchObject({ first: 'start', later: 'later' });
    const shared = resources.find((r) => r.bytes > 5000);
    expect(shared?.purpose).toBe('start');
  });
});
