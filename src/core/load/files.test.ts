import { file } from '../../test-support/programs.ts';
import { part, route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE } from '../plan/types.ts';
import { compileLoad } from './compile.ts';
import { preloadOf } from './files.ts';
import type { Resource } from './types.ts';

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

describe('a file that is asked for ahead', () => {
  const asked = (type: Resource['type'], rel: 'preload' | 'modulepreload' | 'prefetch', chunk?: number) =>
    preloadOf({ resources: [file('/a', { type, chunk })] }, 0, rel);

  it('is asked for as what it is: only scripts as modules', () => {
    expect(asked('script', 'modulepreload')).toMatchObject({ rel: 'modulepreload', as: 'script' });
    for (const type of ['style', 'image', 'font', 'fetch'] as const)
      expect(asked(type, 'modulepreload')).toMatchObject({ rel: 'preload', as: type });
    expect(asked('style', 'prefetch').rel).toBe('prefetch');
  });

  it('is asked for in the mode in which it is wanted later: fonts, calls and chunks across origins', () => {
    expect(asked('font', 'preload').crossorigin).toBe(true);
    expect(asked('fetch', 'preload').crossorigin).toBe(true);
    expect(asked('script', 'preload', 0).crossorigin).toBe(true);
    expect(asked('script', 'preload').crossorigin).toBeUndefined();
    expect(asked('script', 'modulepreload', 0).crossorigin).toBeUndefined();
    for (const type of ['style', 'image'] as const) expect(asked(type, 'preload').crossorigin).toBeUndefined();
  });
});
