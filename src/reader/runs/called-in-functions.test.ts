import { parse } from '../script/parse.ts';
import { calledInFunctions } from './called-in-functions.ts';

const called = (code: string) => calledInFunctions(parse('out.js', code).program());
const often = (body: string) => called(`import { money } from './money';\n${body}`).imports.get('./money');

describe('how often functions call something', () => {
  it.each<[string, string]>([
    ['in their body', 'export const Price = (p) => jsx("b", { children: money(p.cents) });'],
    ['what decides', 'export function f(p) { if (money(p)) return 1; }'],
    ['before they may come back', 'export function f(p) { const m = money(p); if (!p) return; return m; }'],
    ['in what is computed at once', 'export function f(p) { return useMemo(() => money(p), [p]); }'],
    ['in the left of two', 'export const f = (p) => money(p) || p;'],
    ['once always and once not', 'export const f = (p) => [p && money(p), money(p)];'],
  ])('always: %s', (_, body) => expect(often(body)).toBe('always'));

  it.each<[string, string]>([
    ['under a condition', 'export const f = (p) => p.on ? money(p) : null;'],
    ['in the right of two', 'export const f = (p) => p.on && money(p);'],
    ['in a branch', 'export function f(p) { if (p.on) { return money(p); } }'],
    ['behind a return', 'export function f(p) { if (!p) return null; return money(p); }'],
    ['behind an error', 'export function f(p) { if (!p) { throw p; } return money(p); }'],
    ['for what is in a list', 'export const f = (p) => p.all.map((x) => money(x));'],
    ['in a loop', 'export function f(p) { for (const x of p.all) money(x); }'],
    ['once something has come', 'export const f = (p) => p.then((x) => money(x));'],
    ['in a case', 'export function f(p) { switch (p) { case 1: return money(p); } }'],
    [
      'in a list of a compiled template, under whatever name',
      "import { renderList as e } from 'vue'; export const f = (p) => e(p.all, (x) => money(x));",
    ],
    ['in a block of a compiled template', 'export const f = (p) => $.if(p, (c) => money(c));'],
  ])('with data: %s', (_, body) => expect(often(body)).toBe('with data'));

  it.each<[string, string]>([
    ['as the module runs', 'export const all = money(1);'],
    ['to answer an act', 'export const f = () => ({ onClick: () => money(1) });'],
    ['never', 'export const f = () => money;'],
  ])('not: %s', (_, body) => expect(often(body)).toBeUndefined());
});

describe('what formats in functions', () => {
  it.each<[string, string | undefined]>([
    ["export const money = (n) => new Intl.NumberFormat('en').format(n);", 'always'],
    ['export const f = (d) => jsx("td", { children: d.toLocaleDateString() });', 'always'],
    ['export const f = (all) => all.map((d) => d.toLocaleString());', 'with data'],
    ['export const f = (all) => all.sort((a, b) => a.localeCompare(b));', 'with data'],
    ['const day = new Date().toLocaleString();', undefined],
    ['export const f = (o) => o.toString() + Intl.getCanonicalLocales("en");', undefined],
    ['export const f = () => ({ onclick: () => new Date().toLocaleString() });', undefined],
  ])('%s', (code, formats) => expect(called(code).formats).toBe(formats));
});
