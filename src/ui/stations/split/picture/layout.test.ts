import { type Band, type Block, START } from '../../../../core/outline/blocks/types.ts';
import { HEADS, neighbour, placeBlocks } from './layout.ts';

const block = (id: string, band: string, kB: number, to: string | null = band): Block => ({
  ...{ id, kind: 'package', name: id, of: id, modules: 1, to, keptBy: null, opens: true, decisions: [] },
  weight: { minified: kB * 3000, compressed: kB * 1000 },
});
const band = (id: string, blocks: Block[], isNew = false): Band => ({
  ...{ id, name: id, trigger: null, onLanding: false, isNew, joins: [], blocks },
  weight: { minified: 0, compressed: blocks.reduce((sum, b) => sum + b.weight.compressed, 0) },
});
const none = { minified: 0, compressed: 0, count: 0 };
const place = (bands: Band[]) => placeBlocks({ bands, lighter: none }, 1000);

describe('placed blocks', () => {
  const still = place([
    band(START, [block('a', START, 300), block('b', START, 100)]),
    band('x', [block('c', 'x', 0.1)]),
  ]);

  it('are as wide as they weigh on one scale, one after another, and none vanishes', () => {
    const [a, b, c] = still.blocks;
    expect(a.x).toBe(HEADS);
    expect(a.width).toBeCloseTo(b.width * 3, 6);
    expect(b.x).toBeGreaterThan(a.x + a.width);
    expect(c.width).toBe(3);
    expect(b.x + b.width).toBeLessThanOrEqual(1000);
    expect(still.shore).toBeGreaterThan(a.y + a.height);
    expect(c.y).toBeGreaterThan(still.shore);
  });

  it('all fit, however many are too light to be seen', () => {
    const many = [block('a', START, 500), ...Array.from({ length: 38 }, (_, i) => block(`b${i}`, START, 0.01))];
    for (const width of [500, 1000, 2000]) {
      const { blocks } = placeBlocks({ bands: [band(START, many)], lighter: none }, width);
      const end = Math.max(...blocks.map((b) => b.x + b.width));
      expect(end).toBeLessThanOrEqual(width - 14);
      expect(end).toBeGreaterThan(width - 22);
    }
  });

  it('are drawn where they go, on the same scale, with the room that they leave', () => {
    const tried = place([
      band(START, [block('a', START, 300, 'new'), block('b', START, 100)]),
      band('x', [block('c', 'x', 0.1, null)]),
      band('new', [], true),
    ]);
    const at = (id: string) => tried.blocks.find((b) => b.block.id === id);
    expect([at('a')?.at, at('b')?.at, at('c')]).toEqual(['new', START, undefined]);
    expect(at('a')?.width).toBeCloseTo(still.blocks[0].width, 6);
    expect(at('b')?.x).toBe(HEADS);
    const [start, , added] = tried.bands;
    expect(start.was - start.end).toBeCloseTo(at('a')!.width + 2, 6);
    expect([start.bytes, added.bytes]).toEqual([100_000, 300_000]);
  });

  it('are walked by arrows: along a band, and to the nearest above and below', () => {
    const go = (id: string, key: string) => neighbour(still.blocks, id, key)?.block.id ?? null;
    expect([go('a', 'ArrowRight'), go('b', 'ArrowLeft'), go('a', 'ArrowLeft')]).toEqual(['b', 'a', null]);
    expect([go('b', 'ArrowDown'), go('c', 'ArrowUp'), go('c', 'ArrowDown')]).toEqual(['c', 'a', null]);
    expect(neighbour(still.blocks, 'nobody', 'ArrowUp')).toBeNull();
  });
});
