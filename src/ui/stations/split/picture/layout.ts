import { type Band, type Block, START, type WeightPicture } from '../../../../core/outline/blocks/types.ts';

/** Height of the start's blocks and of those of other bands, and what lies between bands. */
export const HEIGHTS = { start: 76, later: 34, gap: 12, shore: 30 } as const;
/** Where blocks begin: the names of bands stand before. */
export const HEADS = 176;
const BETWEEN = 2;
const LEAST = 3;

export interface PlacedBlock {
  block: Block;
  /** The band that it was in, and the one that it is drawn in. */
  from: string;
  at: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface PlacedBand {
  band: Band;
  y: number;
  height: number;
  /** Where what is drawn in it ends, and where it ended before what is tried. */
  end: number;
  was: number;
  /** Compressed bytes of what is drawn in it. */
  bytes: number;
}

export interface Placed {
  bands: PlacedBand[];
  blocks: PlacedBlock[];
  height: number;
  /** Where the start ends and what comes later begins. */
  shore: number;
}

/**
 * Places blocks one after another in their bands, as wide as they weigh on one scale; what moves is drawn where it goes, at the end of what is there.
 * What no band has any more isn't drawn.
 */
export function placeBlocks({ bands }: WeightPicture, width: number): Placed {
  const scale = scaleOf(bands, width - HEADS - 16);
  const widthOf = (block: Block) => Math.max(LEAST, block.weight.compressed * scale);
  const blocks: PlacedBlock[] = [];
  const placed: PlacedBand[] = [];
  let y = 8;
  let shore = 0;
  for (const band of bands) {
    const height = band.id === START ? HEIGHTS.start : HEIGHTS.later;
    const own = band.blocks.filter((b) => b.to === band.id);
    const come = bands.flatMap((b) =>
      b.blocks.filter((x) => b.id !== band.id && x.to === band.id).map((x) => ({ block: x, from: b.id })),
    );
    let x = HEADS;
    for (const { block, from } of [...own.map((b) => ({ block: b, from: band.id })), ...come]) {
      blocks.push({ block, from, at: band.id, x, y, width: widthOf(block), height });
      x += widthOf(block) + BETWEEN;
    }
    const was = band.blocks.reduce((sum, b) => sum + widthOf(b) + BETWEEN, HEADS);
    placed.push({ band, y, height, end: x, was, bytes: drawnBytes(bands, band.id) });
    y += height + HEIGHTS.gap;
    if (band.id === START) {
      shore = y;
      y += HEIGHTS.shore;
    }
  }
  return { bands: placed, blocks, height: y, shore };
}

/** Pixels for a byte, so that the longest band fits, as it is and as it would be, with all that is drawn wider than it weighs. */
function scaleOf(bands: readonly Band[], room: number): number {
  const rows = bands.flatMap((band) => [band.blocks, bands.flatMap((b) => b.blocks.filter((x) => x.to === band.id))]);
  const fits = (scale: number) =>
    rows.every(
      (row) => row.reduce((sum, b) => sum + Math.max(LEAST, b.weight.compressed * scale) + BETWEEN, 0) <= room,
    );
  let [low, high] = [0, room / Math.max(1, ...bands.map((b) => b.weight.compressed))];
  if (fits(high)) return high;
  for (let step = 0; step < 30; step++) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  return low;
}

function drawnBytes(bands: readonly Band[], id: string): number {
  return bands.reduce((all, b) => b.blocks.reduce((sum, x) => sum + (x.to === id ? x.weight.compressed : 0), all), 0);
}

/** The block that an arrow key leads to: the next one in its band, or the nearest in the band above or below. */
export function neighbour(blocks: readonly PlacedBlock[], id: string, key: string): PlacedBlock | null {
  const here = blocks.find((b) => b.block.id === id);
  if (!here) return null;
  const rows = [...new Set(blocks.map((b) => b.y))].sort((a, b) => a - b);
  const row = blocks.filter((b) => b.y === here.y).sort((a, b) => a.x - b.x);
  if (key === 'ArrowRight' || key === 'ArrowLeft')
    return row[row.indexOf(here) + (key === 'ArrowRight' ? 1 : -1)] ?? null;
  const next = rows[rows.indexOf(here.y) + (key === 'ArrowDown' ? 1 : -1)];
  const middle = (b: PlacedBlock) => b.x + b.width / 2;
  const others = blocks.filter((b) => b.y === next);
  return others.sort((a, b) => Math.abs(middle(a) - middle(here)) - Math.abs(middle(b) - middle(here)))[0] ?? null;
}
