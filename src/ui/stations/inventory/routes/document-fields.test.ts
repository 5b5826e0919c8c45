import { flushesOf, flushesText, redirectsOf, redirectsText } from './document-fields.ts';

const document = { bytes: 20_000, serverMs: 40 };

describe('redirects and pieces of a document, as written', () => {
  it('come back as they were', () => {
    const redirects = [
      { origin: 'https://go.example', serverMs: 20 },
      { origin: '', serverMs: 30.5 },
    ];
    expect(redirectsOf(redirectsText({ ...document, redirects }))).toEqual(redirects);
    const flushes = [
      { upTo: 4000, atMs: 0 },
      { upTo: 20_500, atMs: 600 },
    ];
    expect(flushesOf(flushesText({ ...document, flushes }))).toEqual(flushes);
    expect([redirectsOf(''), flushesOf(' ')]).toEqual([[], []]);
    expect([redirectsText(document), flushesText(document)]).toEqual(['', '']);
  });

  it('are refused where they say nothing that can be', () => {
    for (const text of ['soon', '30, x', 'go.example 20', '-4']) expect(redirectsOf(text)).toBeNull();
    for (const text of ['4 kB', '4 kB at 0 ms, 3 kB at 9 ms', '4 kB at 9 ms, 8 kB at 0 ms', 'x at 3'])
      expect(flushesOf(text)).toBeNull();
  });
});
