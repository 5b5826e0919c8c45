import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { sketch } from '../../test-support/snapshots.ts';
import { readLeft, writeLeft } from './left-file.ts';
import type { Left } from './work.ts';

const newFile = () => path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-left-')), 'left');

/** A reading with so many texts of such a length, and as many sources, one of which holds all that a text may. */
function reading(count: number, length: number): Left {
  const texts = Object.fromEntries(
    Array.from({ length: count }, (_, i) => [`src/${i}.ts`, `${i};`.repeat(Math.ceil(length / 2)).slice(0, length)]),
  );
  const odd = '\0 \u2028 “…” 😀 \ud800';
  return {
    kind: 'read',
    read: {
      snapshot: sketch({ 'src/0.ts': {} }),
      texts,
      sources: { ...texts, __proto__x: odd, 'empty.ts': '' },
      ms: 7,
    },
  };
}

describe('what a reading leaves in a file', () => {
  it.each([
    ['nothing', reading(0, 0)],
    ['a few texts', reading(3, 20)],
    ['more than one piece of each', reading(25, 700_000)],
    ['a refusal', { kind: 'refused', error: { title: 'No', detail: 'Do that', at: 'a.ts' } } as Left],
    ['what broke', { kind: 'broke', message: 'RangeError: stack' } as Left],
  ])('is read as it was written: %s', (_, left) => {
    const file = newFile();
    writeLeft(file, left);
    expect(readLeft(file)).toEqual(left);
    if (left.kind !== 'read') return;
    const again = readLeft(file) as typeof left;
    expect(Object.keys(again.read.texts)).toEqual(Object.keys(left.read.texts));
  });

  it('is nothing where the process didn’t come to the end of writing it', () => {
    const file = newFile();
    expect(readLeft(file)).toBeNull();
    writeLeft(file, reading(25, 400_000));
    const { size } = fs.statSync(file);
    for (const kept of [size - 1, size / 2, 9, 8, 3, 0]) {
      fs.truncateSync(file, Math.floor(kept));
      expect(readLeft(file)).toBeNull();
    }
  });
});
