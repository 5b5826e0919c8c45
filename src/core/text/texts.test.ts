import { addressOfFile, fileOfAddress, originOf, withoutQuery } from './address.ts';
import { alignedKilobytes, kilobytes, milliseconds } from './amounts.ts';
import { FreeNames } from './free-names.ts';
import { oneLine, plainAddress } from './one-line.ts';
import { csvLines, plain, tablesCsv, tablesMarkdown } from './table-text.ts';

it('amounts are written as reports write them', () => {
  expect([0, 49, 50, 1000, 12_340, 1_234_567].map(kilobytes)).toEqual([
    ...['0 kB', '0 kB', '0.1 kB', '1 kB', '12.3 kB', '1234.6 kB'],
  ]);
  expect([0, 1000, 12_340].map(alignedKilobytes)).toEqual(['0.0 kB', '1.0 kB', '12.3 kB']);
  expect([0, 12.4, 12.5, Number.NaN, Number.POSITIVE_INFINITY].map(milliseconds)).toEqual([
    ...['0 ms', '12 ms', '13 ms', 'never', 'never'],
  ]);
});

it('addresses are taken apart, and files get addresses that lead back to them', () => {
  expect(['/a?b#c', '/a#b?c', '/a', '?x', ''].map(withoutQuery)).toEqual(['/a', '/a', '/a', '', '']);
  expect(['https://x.example/a', 'http://x.example', '/a', 'ftp://x/a', 'https:///a'].map(originOf)).toEqual([
    ...['https://x.example', 'http://x.example', '', '', ''],
  ]);
  expect(addressOfFile('src/[id]/a b"ü.js')).toBe('src/%5Bid%5D/a%20b%22%C3%BC.js');
  expect(addressOfFile("-._~!$&'()*+,;=:@/")).toBe("-._~!$&'()*+,;=:@/");
  expect(addressOfFile('a\ud800b')).toBe('a%EF%BF%BDb');
  for (const path of ['src/[id]/a b.js', 'ü', '100%', 'a?b#c']) expect(fileOfAddress(addressOfFile(path))).toBe(path);
  expect(fileOfAddress('/a%zz')).toBe('/a%zz');
});

it('names are given once each, with the next number', () => {
  const names = new FreeNames();
  const give = (base: string) => names.give(base, (n) => `${base} ${n}`);
  expect([give('a'), give('a'), give('a 3'), give('a'), give('b'), give('a')]).toEqual([
    ...['a', 'a 2', 'a 3', 'a 4', 'b', 'a 5'],
  ]);
});

it('texts from outside stay in one line, and no markup', () => {
  expect(oneLine('a\r\n\tb\u2028c\u202ed\u0007')).toBe('a b\ufffdc\ufffdd\ufffd');
  expect(plain('a | *b* <c> `d`\n#e \\')).toBe('a \\| \\*b\\* \\<c\\> \\`d\\` \\#e \\\\');
  expect(plainAddress('/a b"<>ü\u0000')).toBe('/a%20b%22%3C%3E%C3%BC%00');
  expect(plainAddress("/a?b='c'&d=[e]")).toBe("/a?b='c'&d=[e]");
});

it('tables are Markdown, or values that no table program takes for formulas', () => {
  const table = { title: 'T|1', head: ['name', 'kB', 'ms'], rows: [['a|b', '1', '2']] };
  expect(tablesMarkdown([table, { ...table, title: 'U', rows: [] }])).toBe(
    '### T\\|1\n\n| name | kB | ms |\n| --- | ---: | ---: |\n| a\\|b | 1 | 2 |\n\n### U\n\n| name | kB | ms |\n| --- | ---: | ---: |\n',
  );
  expect(tablesCsv([table])).toBe('table,name,kB,ms\r\nT|1,a|b,1,2\r\n');
  expect(csvLines([['=1+1', '-5', '-a', ' @x', 'a,b', 'say "x"', 'a\nb', '\t=x']])).toBe(
    '\'=1+1,-5,\'-a,\' @x,"a,b","say ""x""","a\nb",\'\t=x\r\n',
  );
});
