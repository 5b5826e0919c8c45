import { sketch } from '../../test-support/snapshots.ts';
import { evaluationCost } from '../chunks/evaluation-cost.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { packageTimes, withPackageTimes } from './package-times.ts';

const measured = {
  by: 'a browser',
  modules: {
    'node_modules/tides/index.js': { ms: 3, bytes: 1000 },
    'node_modules/.store/@kit+chart@2/node_modules/@kit/chart/dist/a.js': { ms: 5, bytes: 2000 },
    'src/main.ts': { ms: 9, bytes: 300 },
    'node_modules/empty/index.js': { ms: 0, bytes: 0 },
  },
};

it('what was measured of an app says something of the files of its packages', () => {
  expect(packageTimes(measured)).toEqual([
    { name: 'tides', file: 'index.js', ms: 3, bytes: 1000 },
    { name: '@kit/chart', file: 'dist/a.js', ms: 5, bytes: 2000 },
  ]);
  expect(packageTimes({ by: 'a browser' })).toEqual([]);
  // What was told before isn't told again.
  const before = {
    ...measured,
    modules: { ...measured.modules, 'node_modules/tides/index.js': { ms: 2, bytes: 1000 } },
  };
  expect(packageTimes(measured, before).map((t) => t.name)).toEqual(['tides']);
  expect(packageTimes(measured, measured)).toEqual([]);
});

describe('another app with the same packages', () => {
  const tides = 'packages/far/node_modules/tides/index.js';
  const chart = 'node_modules/@kit/chart/dist/a.js';
  const app = (bytes = 1000): Snapshot =>
    sketch({
      'src/main.ts': { imports: [tides, chart], bytes: 300 },
      [tides]: { package: 'tides', bytes },
      [chart]: { package: '@kit/chart', bytes: 1900 },
    });
  const told = (snapshot: Snapshot, times = packageTimes(measured)) =>
    withPackageTimes(snapshot, (name) => times.filter((t) => t.name === name)).modules.map((m) => m.elsewhereMs);

  it('is told what their files took', () => {
    expect(told(app())).toEqual([undefined, 3, 5]);
  });

  it('is told nothing of files of another size', () => {
    expect(told(app(1101))).toEqual([undefined, undefined, 5]);
    expect(told(app(1100))).toEqual([undefined, 3, 5]);
  });

  it('goes by the file of the nearest size', () => {
    const times = [
      { name: 'tides', file: 'index.js', ms: 1, bytes: 1060 },
      { name: 'tides', file: 'index.js', ms: 2, bytes: 1010 },
      { name: 'tides', file: 'other.js', ms: 7, bytes: 1000 },
    ];
    expect(told(app(), times)).toEqual([undefined, 2, undefined]);
  });

  it('counts them as measured elsewhere, behind what was measured of itself', () => {
    const known = withPackageTimes(app(), (name) => packageTimes(measured).filter((t) => t.name === name));
    known.modules[1].evaluationMs = 4;
    const { measuredMs, elsewhereMs, estimatedBytes } = evaluationCost(known, [0, 1, 2]);
    expect({ measuredMs, elsewhereMs, estimatedBytes }).toEqual({ measuredMs: 9, elsewhereMs: 5, estimatedBytes: 300 });
  });
});
