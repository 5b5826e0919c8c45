/** Sets of modules as bits, one 32-bit word for 32 modules. */
export type Bits = Uint32Array;

/** An empty set for members from 0 to below `size`. */
export function emptyBits(size: number): Bits {
  return new Uint32Array((size + 31) >>> 5);
}

/** Many empty sets in one piece of memory, which costs far less than as many pieces. */
export function manyBits(count: number, size: number): Bits[] {
  const words = (size + 31) >>> 5;
  const all = new Uint32Array(count * words);
  return Array.from({ length: count }, (_, i) => all.subarray(i * words, (i + 1) * words));
}

/** Fills a set with all of so many modules. */
export function fillBits(bits: Bits, size: number): Bits {
  bits.fill(0xffffffff);
  const rest = size & 31;
  if (rest) bits[bits.length - 1] = 2 ** rest - 1;
  return bits;
}

/** Whether a set has a member. */
export function has(bits: Bits, at: number): boolean {
  return (bits[at >>> 5] & (1 << (at & 31))) !== 0;
}

/** Adds a member to a set, in place. */
export function add(bits: Bits, at: number): void {
  bits[at >>> 5] |= 1 << (at & 31);
}

/** Adds the members of another set of the same size, in place. */
export function addAll(bits: Bits, more: Bits): void {
  for (let w = 0; w < bits.length; w++) bits[w] |= more[w];
}

/** The set of these members, for members from 0 to below `size`. */
export function bitsOf(members: ArrayLike<number>, size: number): Bits {
  const bits = emptyBits(size);
  for (let i = 0; i < members.length; i++) add(bits, members[i]);
  return bits;
}

/** Members of one set that the other doesn't have, in ascending order. */
export function difference(bits: Bits, without: Bits): Uint32Array {
  return members(bits.length, (w) => bits[w] & ~without[w]);
}

/** Members in ascending order. */
export function membersOf(bits: Bits): Uint32Array {
  return members(bits.length, (w) => bits[w]);
}

function members(words: number, wordAt: (w: number) => number): Uint32Array {
  let count = 0;
  for (let w = 0; w < words; w++) count += bitCount(wordAt(w));
  const out = new Uint32Array(count);
  let at = 0;
  for (let w = 0; w < words; w++) {
    let word = wordAt(w);
    while (word !== 0) {
      const low = word & -word;
      out[at++] = (w << 5) + (31 - Math.clz32(low));
      word ^= low;
    }
  }
  return out;
}

/** How many bits of a word are set. */
function bitCount(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}
