import fc from 'fast-check';
import { anyApp, sketch } from '../../test-support/snapshots.ts';
import { estimateBytes, OVERHEAD, overheadOf } from './sizes.ts';

/** Modules that are measured to add 20 after their neighbours, 60 after other code, and 118 alone. */
const alike = (count: number, bytes = 1000) => {
  const app = sketch(
    Object.fromEntries(Array.from({ length: count }, (_, i) => [`m${String(i).padStart(3, '0')}`, { bytes }])),
  );
  const sizes = { source: 2 * bytes, minified: bytes, gzip: 118, brotli: 100, marginal: 20, distant: 60 };
  return { ...app, modules: app.modules.map((m) => ({ ...m, bytes: sizes })) };
};
const range = (from: number, to: number) => Array.from({ length: to - from }, (_, i) => from + i);

describe('the size of a chunk', () => {
  it('is that of its module where there is one, and the sums of source and minified text', () => {
    expect(estimateBytes(alike(9), [4])).toEqual({ source: 2000, minified: 1000, gzip: 118, brotli: 100 });
    expect(estimateBytes(alike(9), range(0, 9))).toMatchObject({ source: 18_000, minified: 9000 });
    expect(estimateBytes(alike(9), [])).toEqual({ source: 0, minified: 0, gzip: 0, brotli: 0 });
  });

  it('grows by what a module adds after its neighbours where they are there', () => {
    expect(estimateBytes(alike(9), range(0, 9)).gzip).toBe(118 + 8 * 20);
    // A sixth of the neighbourhood is enough.
    const app = alike(100);
    const sparse = range(0, 100).filter((m) => m % 6 === 0);
    expect(estimateBytes(app, sparse).gzip).toBeLessThan(118 + 20 * (sparse.length - 1) + 60);
  });

  it('grows by what a module adds after other code where its neighbours are elsewhere, alone at the beginning', () => {
    const app = alike(400);
    // 64 kB back there is nothing of this one; the stream knows 1 of the 8 kB after which it knows all words.
    const known = 1000 / 8192;
    expect(estimateBytes(app, [0, 200]).gzip).toBe(Math.round(118 + known * 60 + (1 - known) * 100));
    expect(estimateBytes(app, [...range(0, 30), 399]).gzip).toBe(118 + 29 * 20 + 60);
  });

  it('is smaller by the same share in the denser code, as far as it is known', () => {
    const { gzip, brotli } = estimateBytes(alike(9), range(0, 9));
    expect(brotli).toBe(Math.round((900 * gzip) / (9 * 118)));
    const none = alike(3);
    const empty = { ...none, modules: none.modules.map((m) => ({ ...m, bytes: { ...m.bytes, gzip: 0, brotli: 7 } })) };
    expect(estimateBytes(empty, [0]).brotli).toBe(7);
  });

  it('hangs on what is in it, not on the order in which it is named, and is never less than each alone', () => {
    fc.assert(
      fc.property(anyApp(20), fc.array(fc.nat(19), { minLength: 1 }), (app, wanted) => {
        const modules = [...new Set(wanted.map((m) => m % app.modules.length))];
        const found = estimateBytes(app, modules);
        expect(estimateBytes(app, [...modules].reverse())).toEqual(found);
        expect(found.minified).toBe(modules.reduce((sum, m) => sum + app.modules[m].bytes.minified, 0));
        expect(found.gzip).toBeLessThanOrEqual(modules.reduce((sum, m) => sum + app.modules[m].bytes.gzip, 0) + 1);
        expect(found.gzip).toBeGreaterThanOrEqual(Math.min(...modules.map((m) => app.modules[m].bytes.gzip)));
      }),
      { numRuns: 200 },
    );
  });

  it('has what a build puts around its modules', () => {
    const { wrapper, loader, mapLine } = OVERHEAD;
    expect(overheadOf(3, false, 9)).toEqual({ minified: 3 * wrapper.minified, gzip: 3 * wrapper.gzip });
    expect(overheadOf(3, true, 9)).toEqual({
      minified: 3 * wrapper.minified + loader.minified + 9 * mapLine.minified,
      gzip: 3 * wrapper.gzip + loader.gzip + 9 * mapLine.gzip,
    });
  });
});
