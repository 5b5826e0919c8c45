import fs from 'node:fs';
import path from 'node:path';

/** It draws as many rows as there is room for, beside a table of all of them. */
const TOLD_ELSEWHERE = new Set(['stations/visits/moment-waterfall.tsx', 'frame/behind/time-behind.tsx']);

it('no list of the interface is cut where the rest is out of reach', () => {
  const root = path.resolve('src/ui');
  const cut = fs
    .readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.tsx') && f !== path.join('parts', 'few.tsx') && !TOLD_ELSEWHERE.has(f))
    .filter((f) =>
      /\.slice\(0, (?:[A-Z_]{1,40}|\d{1,9})\)\)?\s{0,40}\.map\(/.test(fs.readFileSync(path.join(root, f), 'utf8')),
    );
  expect(cut).toEqual([]);
});
