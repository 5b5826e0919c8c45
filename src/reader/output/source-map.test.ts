import fc from 'fast-check';
import { builtFile } from '../../test-support/output.ts';
import { Unreadable } from '../folder-files.ts';
import { inlineMap, mapAddress, readMap } from './source-map.ts';
import { packageOf, sourcePath } from './source-names.ts';

const bytesOf = (text: string, map: string) =>
  Object.fromEntries(readMap(map, text).sources.map((s) => [s.source, s.bytes]));

describe('a source map', () => {
  it('gives every byte to the source of the mapping before it', () => {
    const { text, map } = builtFile(
      [
        { source: 'a.ts', out: 'alpha();' },
        { source: 'b.ts', out: 'größe="€";' },
      ],
      ['(', ')'],
    );
    const read = readMap(map, text);
    expect(read.sources.map((s) => [s.source, s.text, s.bytes])).toEqual([
      ['a.ts', 'alpha();', 8],
      ['b.ts', 'größe="€";', 14],
    ]);
    expect(read).toMatchObject({ unmapped: 4, outside: 0 });
  });

  it('accounts for every byte of any file, whatever its pieces', () => {
    const piece = fc.record({
      source: fc.constantFrom('a', 'b', 'c'),
      out: fc.string({ minLength: 1, maxLength: 20 }),
    });
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), fc.string({ maxLength: 3 }), (pieces, wrap) => {
        // Line breaks would need mappings per line; the files of this test have one line.
        const flat = (t: string) => t.replace(/\n/g, ' ');
        const own = pieces.map((p) => ({ ...p, out: flat(p.out) }));
        const { text, map } = builtFile(own, [flat(wrap), ';']);
        const read = readMap(map, text);
        const expected: Record<string, number> = {};
        for (const p of own) expected[p.source] = (expected[p.source] ?? 0) + Buffer.byteLength(p.out);
        expect(bytesOf(text, map)).toEqual(expected);
        const sum = read.sources.reduce((all, s) => all + s.bytes, read.unmapped);
        expect(sum).toBe(Buffer.byteLength(text));
      }),
    );
  });

  it('is read in sections as well', () => {
    const first = builtFile([{ source: 'a.ts', out: 'aaaa' }]);
    const second = builtFile([{ source: 'b.ts', out: 'bb' }]);
    const map = JSON.stringify({
      version: 3,
      sections: [
        { offset: { line: 0, column: 0 }, map: JSON.parse(first.map) },
        { offset: { line: 1, column: 0 }, map: JSON.parse(second.map) },
      ],
    });
    expect(bytesOf(`${first.text}\n${second.text}`, map)).toEqual({ 'a.ts': 4, 'b.ts': 2 });
  });

  it('that points outside of the file is read as far as it fits', () => {
    const { map } = builtFile([
      { source: 'a.ts', out: 'aaaa' },
      { source: 'b.ts', out: 'bbbbbbbb' },
    ]);
    const read = readMap(map, 'aaaabb');
    expect(read.outside).toBe(1);
    expect(read.sources.map((s) => [s.source, s.bytes])).toEqual([
      ['a.ts', 4],
      ['b.ts', 2],
    ]);
  });

  it.each([
    ['{ "version": 3', 'JSON'],
    ['[]', 'no object'],
    ['null', 'no object'],
    ['{"version":2,"sources":[],"mappings":""}', 'version is 2'],
  ])('that is broken (%s) is refused in words', (map, words) => {
    expect(() => readMap(map, 'a()')).toThrow(words);
  });

  it('is found by the last comment, inside or beside', () => {
    expect(mapAddress('a();\n//# sourceMappingURL=a.js.map\n')).toBe('a.js.map');
    expect(mapAddress('.a{}/*# sourceMappingURL=a.css.map */')).toBe('a.css.map');
    expect(mapAddress('const s = "sourceMappingURL=x"; run();')).toBeNull();
    const data = `data:application/json;charset=utf-8;base64,${Buffer.from('{"a":"ü"}').toString('base64')}`;
    expect(inlineMap(data)).toBe('{"a":"ü"}');
    expect(inlineMap('data:application/json,%7B%7D')).toBe('{}');
    expect(inlineMap('a.js.map')).toBeNull();
  });
});

describe('names of sources', () => {
  it.each([
    ['kit:///[project]/src/a.ts?x=1', 'src/a.ts'],
    ['../../src/b.tsx', 'src/b.tsx'],
    ['kit://app/./lib/c.js', 'app/lib/c.js'],
    ['src\\win\\d.ts', 'src/win/d.ts'],
    ['../../../', 'source'],
  ])('%s is %s', (source, path) => {
    expect(sourcePath(source)).toBe(path);
  });

  it('tell the package by the last folder of packages', () => {
    expect(packageOf('node_modules/@made/x/lib/a.js')).toEqual({ name: '@made/x', folder: 'node_modules/@made/x' });
    expect(packageOf('node_modules/a/node_modules/b/i.js')?.name).toBe('b');
    expect(packageOf('src/a.ts')).toBeNull();
  });
});

describe('maps of any content', () => {
  const odd = fc.oneof(
    fc.jsonValue(),
    fc.constantFrom(3, null, [], {}, 'AAAA;AACA', '\ud800', -1, 1e308, 'x'.repeat(9000)),
  );
  const map = fc.record(
    {
      ...{ version: fc.oneof(fc.constant(3), odd), file: odd, names: odd, sourceRoot: odd },
      sources: fc.oneof(odd, fc.array(odd)),
      sourcesContent: fc.oneof(odd, fc.array(odd)),
      mappings: fc.oneof(odd, fc.string(), fc.array(odd), fc.array(fc.array(odd)), fc.array(fc.array(fc.array(odd)))),
      sections: fc.oneof(odd, fc.array(fc.record({ offset: odd, map: odd }))),
    },
    { requiredKeys: [] },
  );

  it('are read, or refused with a short reason', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          map.map((m) => JSON.stringify(m)),
          fc.string(),
        ),
        fc.string(),
        (json, text) => {
          try {
            for (const { source, content, bytes } of readMap(json, text).sources)
              expect([typeof source, content === null ? 'string' : typeof content, typeof bytes]).toEqual([
                ...['string', 'string', 'number'],
              ]);
          } catch (error) {
            expect(error).toBeInstanceOf(Unreadable);
            expect((error as Unreadable).reason.length).toBeLessThan(100);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});
