import type { GraphIndex } from '../snapshot/graph-index.ts';
import { type Bits, manyBits } from './bits.ts';
import { postOrder } from './reach.ts';

/**
 * What each of many starts reaches over static imports, all at once: every module has a row of bits, one per start,
 * and hands it down its imports in one pass over the graph (more where imports form cycles). So one decision costs one
 * pass, however many starts reach the importer that it speaks of.
 */
export class AllReach {
  private readonly at = new Map<string, number>();
  private readonly columns: Bits[];

  /** `starts`: each the modules that one root begins with. */
  constructor(index: GraphIndex, deferred: Uint8Array, starts: readonly (readonly number[])[]) {
    const distinct: (readonly number[])[] = [];
    for (const s of starts) {
      const key = s.join(' ');
      if (this.at.has(key)) continue;
      this.at.set(key, distinct.length);
      distinct.push(s);
    }
    const words = (distinct.length + 31) >>> 5;
    const order = postOrder(index, deferred, distinct.flat()).reverse();
    // Rows lie in the order of the walk, so that what is handed down lies close by.
    const place = new Int32Array(index.rank.length).fill(-1);
    for (let at = 0; at < order.length; at++) place[order[at]] = at;
    const rows = new Uint32Array(order.length * words);
    distinct.forEach((s, r) => {
      for (const m of s) rows[place[m] * words + (r >>> 5)] |= 1 << (r & 31);
    });
    handDown(index, deferred, { order, place, rows, words });
    this.columns = columnsOf({ place, rows, words }, distinct.length);
  }

  /** What one of the given starts reaches, itself included. Throws for any other. */
  of(start: readonly number[]): Bits {
    const r = this.at.get(start.join(' '));
    if (r === undefined) throw new Error(`not one of the starts: ${start.join(' ')}`);
    return this.columns[r];
  }
}

interface Rows {
  /** Modules with importers first, but for cycles. */
  order: Uint32Array;
  /** module → position in the order; −1: no start reaches it. */
  place: Int32Array;
  /** By position, `words` words each. */
  rows: Uint32Array;
  words: number;
}

/** Hands rows down along static imports until nothing changes. */
function handDown(index: GraphIndex, deferred: Uint8Array, { order, place, rows, words }: Rows): void {
  const { outStart, outgoing, target } = index;
  // Positions whose row has grown since it was handed down.
  const grown = new Uint8Array(order.length).fill(1);
  for (let again = true; again; ) {
    again = false;
    for (let at = 0; at < order.length; at++) {
      if (grown[at] === 0) continue;
      grown[at] = 0;
      const from = at * words;
      const last = outStart[order[at] + 1];
      for (let e = outStart[order[at]]; e < last; e++) {
        const i = outgoing[e];
        if (deferred[i]) continue;
        const next = place[target[i]];
        const to = next * words;
        let more = 0;
        for (let w = 0; w < words; w++) {
          const had = rows[to + w];
          const now = had | rows[from + w];
          more |= now ^ had;
          rows[to + w] = now;
        }
        if (more === 0) continue;
        grown[next] = 1;
        if (next <= at) again = true;
      }
    }
  }
}

/** The same bits by start, turned over in squares of 32 by 32. */
function columnsOf({ place, rows, words }: Omit<Rows, 'order'>, starts: number): Bits[] {
  const columns = manyBits(starts, place.length);
  const square = new Uint32Array(32);
  for (let block = 0; block << 5 < place.length; block++) {
    const count = Math.min(32, place.length - (block << 5));
    for (let w = 0; w < words; w++) {
      let any = 0;
      for (let i = 0; i < 32; i++) {
        const at = i < count ? place[(block << 5) + i] : -1;
        square[i] = at < 0 ? 0 : rows[at * words + w];
        any |= square[i];
      }
      if (any === 0) continue;
      turnOver(square);
      const wide = Math.min(32, starts - (w << 5));
      for (let i = 0; i < wide; i++) columns[(w << 5) + i][block] = square[i];
    }
  }
  return columns;
}

/** Transposes 32 words of 32 bits in place (H. S. Warren, "Hacker's Delight", 7-3), lowest bit first. */
function turnOver(square: Uint32Array): void {
  let mask = 0x0000ffff;
  for (let step = 16; step !== 0; step >>>= 1, mask ^= mask << step) {
    for (let k = 0; k < 32; k = (k + step + 1) & ~step) {
      const swap = ((square[k] >>> step) ^ square[k + step]) & mask;
      square[k] ^= swap << step;
      square[k + step] ^= swap;
    }
  }
}
