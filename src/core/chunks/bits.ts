/** Sets of modules as bits, one 32-bit word for 32 modules. */
export type Bits = Uint32Array;

export function emptyBits(size: number): Bits {
  return new Uint32Array((size + 31) >>> 5);
}

export function fullBits(size: number): Bits {
  const bits = emptyBits(size).fill(0xffffffff);
  const rest = size & 31;
  if (rest) bits[bits.length - 1] = 2 ** rest - 1;
  return bits;
}

export function has(bits: Bits, at: number): boolean {
  return (bits[at >>> 5] & (1 << (at & 31))) !== 0;
}

export function add(bits: Bits, at: number): void {
  bits[at >>> 5] |= 1 << (at & 31);
}

export function addAll(bits: Bits, more: Bits): void {
  for (let w = 0; w < bits.length; w++) bits[w] |= more[w];
}

export function bitsOf(members: ArrayLike<number>, size: number): Bits {
  const bits = emptyBits(size);
  for (let i = 0; i < members.length; i++) add(bits, members[i]);
  return bits;
}

/** Members of one set that the other doesn't have, in ascending order. */
export function difference(bits: Bits, without: Bits): Uint32Array {
  const rest = bits.slice();
  for (let w = 0; w < rest.length; w++) rest[w] &= ~without[w];
  return membersOf(rest);
}

/** Members in ascending order. */
export function membersOf(bits: Bits): Uint32Array {
  const out: number[] = [];
  for (let w = 0; w < bits.length; w++) {
    let word = bits[w];
    while (word !== 0) {
      const low = word & -word;
      out.push((w << 5) + (31 - Math.clz32(low)));
      word ^= low;
    }
  }
  return Uint32Array.from(out);
}
