import fc from 'fast-check';
import { TlsRecords } from './tls-records.ts';

/** Records of these lengths, and where each ends. */
function stream(lengths: readonly number[]): { bytes: Buffer; ends: number[] } {
  const parts = lengths.map((n) => Buffer.concat([Buffer.from([23, 3, 3, n >> 8, n & 255]), Buffer.alloc(n, 7)]));
  let at = 0;
  return { bytes: Buffer.concat(parts), ends: parts.map((p) => (at += p.length)) };
}

describe('TLS records', () => {
  it('are found however the stream comes in pieces', () => {
    const cuts = fc.array(fc.nat({ max: 3000 }), { maxLength: 12 });
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 700 }), { minLength: 1, maxLength: 8 }), cuts, (lengths, at) => {
        const { bytes, ends } = stream(lengths);
        const records = new TlsRecords();
        const places = [...new Set([0, ...at.filter((c) => c < bytes.length), bytes.length])].sort((a, b) => a - b);
        for (const [i, to] of places.slice(1).entries()) records.take(bytes.subarray(places[i], to));
        // As a sender asks: from the end of each on to the next.
        const found: number[] = [];
        for (let position = 0; position < bytes.length; ) {
          const end = records.endAfter(position)!;
          found.push(end);
          position = end;
        }
        expect(found).toEqual(ends);
      }),
    );
  });

  it('that aren’t whole have no end yet', () => {
    const records = new TlsRecords();
    records.take(Buffer.from([23, 3, 3, 0, 4, 1, 2]));
    expect(records.endAfter(0)).toBeNull();
    records.take(Buffer.from([3, 4]));
    expect(records.endAfter(0)).toBe(9);
    expect(records.endAfter(9)).toBeNull();
  });
});
