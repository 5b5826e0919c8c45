import { sketch } from '../../test-support/snapshots.ts';
import { apportion } from './apportion.ts';
import type { Chunk } from './types.ts';

const shares = (sizes: number[]) => {
  const app = sketch(Object.fromEntries(sizes.map((bytes, i) => [`${i}.ts`, { bytes }])));
  const chunk = {
    modules: sizes.map((_, i) => i),
    bytes: { minified: 1000, gzip: 300, brotli: 200 },
  } as unknown as Chunk;
  return apportion(app, chunk);
};

describe('what each module has of its chunk', () => {
  it('is in proportion to its own, and all of it together the chunk', () => {
    expect(shares([300, 100])).toEqual([
      { module: 0, minified: 750, compressed: expect.closeTo(300 * (100 / 133)) },
      { module: 1, minified: 250, compressed: expect.closeTo(300 * (33 / 133)) },
    ]);
  });

  it('is the same for all where none of them weighs anything', () => {
    expect(shares([0, 0, 0, 0])).toEqual([0, 1, 2, 3].map((module) => ({ module, minified: 250, compressed: 75 })));
  });
});
