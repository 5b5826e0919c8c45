import { startsFormats } from './starts-formats.ts';

describe('what formats texts of a language', () => {
  it.each<[code: string, starts: boolean]>([
    ["export const money = new Intl.NumberFormat('en', { style: 'currency', currency: 'EUR' });", true],
    ["const day = Intl.DateTimeFormat('en');", true],
    ["const kit = { sort: new Intl.Collator('de') };", true],
    ['class Text { static order = new Intl.Collator(); }', true],
    ['if (on) { list = new Intl.ListFormat(); }', true],
    ["export const money = (n) => new Intl.NumberFormat('en').format(n);", false],
    ["function day() { return Intl.DateTimeFormat('en'); }", false],
    ['class Text { order = new Intl.Collator(); }', false],
    ["const zones = Intl.supportedValuesOf('timeZone');", false],
    ["const text = 'new Intl.Collator()';", false],
    ['const other = new Kit.NumberFormat();', false],
  ])('%s', (code, starts) => {
    expect(startsFormats(code)).toBe(starts);
  });
});
