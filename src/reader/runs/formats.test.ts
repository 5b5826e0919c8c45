import { sketch } from '../../test-support/snapshots.ts';
import { addFormats, startsFormats } from './formats.ts';
import { FunctionsOf } from './functions-of.ts';

describe('what formats texts of a language', () => {
  it.each<[code: string, starts: boolean]>([
    ["export const money = new Intl.NumberFormat('en', { style: 'currency', currency: 'EUR' });", true],
    ["const day = Intl.DateTimeFormat('en');", true],
    ["const kit = { day: new Intl.DateTimeFormat('de') };", true],
    ['class Text { static order = new Intl.NumberFormat(); }', true],
    ['export const today = new Date().toLocaleDateString();', true],
    ["const kit = { sort: new Intl.Collator('de') };", true],
    ["const rules = new Intl.PluralRules('en');", false],
    ["function dayOf() { return Intl.DateTimeFormat('en'); } export const day = dayOf();", true],
    ["(function () { this.day = new Intl.DateTimeFormat('en'); }).call(this);", true],
    ["(function (root, make) { make(root); })(this, function (root) { root.day = Intl.DateTimeFormat('en'); });", true],
    ["['en', 'de'].forEach((name) => { days[name] = new Intl.DateTimeFormat(name); });", true],
    ["class Text { order = new Intl.Collator('de'); } export const text = new Text();", true],
    ["class Text { constructor() { this.order = new Intl.Collator('de'); } } new Text();", true],
    ["class Text { static { Text.order = new Intl.Collator('de'); } }", true],
    ["function(e, t, n) { t.day = Intl.DateTimeFormat('en'); }", true],
    ["function* days() { yield Intl.DateTimeFormat('en'); } days();", false],
    ["button.addEventListener('click', () => { day = Intl.DateTimeFormat('en'); });", false],
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

describe('what formats by what it calls', () => {
  const MONEY = "export const money = (n) => n.toLocaleString('en');";
  const formats = (texts: Record<string, string>) => {
    const imports = (text: string) => [...text.matchAll(/from '([^']+)'/g)].map((m) => m[1]);
    const snapshot = sketch(
      Object.fromEntries(Object.entries(texts).map(([path, text]) => [path, { imports: imports(text) }])),
    );
    addFormats(snapshot, texts, new FunctionsOf(texts));
    return Object.fromEntries(snapshot.modules.flatMap((m) => (m.formats ? [[m.path, m.formats]] : [])));
  };

  it('follows functions of other modules, in whatever order, and stands a circle', () => {
    expect(
      formats({
        page: "import { price } from 'price'; export const Page = (p) => price(p);",
        price:
          "import { money } from 'money'; import { Page } from 'page'; export const price = (p) => money(Page(p));",
        list: "import { price } from 'price'; export const List = (p) => p.all.map((x) => price(x));",
        money: MONEY,
        other: "import { money } from 'money'; export const keep = money;",
      }),
    ).toEqual({ page: 'always', price: 'always', list: 'with data', money: 'always' });
  });

  it('is more often what is so in any of several ways', () => {
    expect(
      formats({
        page: "import { some } from 'some'; import { money } from 'money'; export const f = (p) => [some(p), money(p)];",
        some: "import { money } from 'money'; export const some = (p) => p && money(p);",
        money: MONEY,
      }),
    ).toEqual({ page: 'always', some: 'with data', money: 'always' });
  });

  it('doesn’t follow components that a compiler has called', () => {
    expect(
      formats({
        'card.svelte': MONEY,
        page: "import Card from 'card.svelte'; export function Page(a) { Card(a); }",
      }),
    ).toEqual({ 'card.svelte': 'always' });
  });
});
