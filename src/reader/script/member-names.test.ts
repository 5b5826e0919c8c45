import { memberNames } from './member-names.ts';
import { parse } from './parse.ts';

const namesIn = (code: string) => memberNames(parse('a.tsx', code, { lang: 'tsx' }).program(), 'kit')?.sort() ?? null;

describe('names that are taken of a whole module', () => {
  it.each([
    ['import * as kit from "kit"; kit.a(kit.b.c);', ['a', 'b']],
    ['import * as kit from "kit"; const x = <kit.Root kit="1"><kit.Item /></kit.Root>;', ['Item', 'Root']],
    ['import * as kit from "kit"; let x: kit.Props; kit.a();', ['a']],
    ['const o = { kit: 1, b: o.kit }; class K { kit = 1 }', []],
    ['import * as kit from "kit"; hand(kit);', null],
    ['import * as kit from "kit"; kit[name]();', null],
    ['import * as kit from "kit"; kit.a = 1;', null],
    ['import * as kit from "kit"; delete kit.a;', null],
    ['import * as kit from "kit"; const { a } = kit;', null],
    ['import * as kit from "kit"; const o = { kit };', null],
    ['import * as kit from "kit"; export { kit };', null],
    ['import * as kit from "kit"; const x = <Box {...kit} />;', null],
    // The same name of something nearer.
    ['import * as kit from "kit"; kit.a(); function f(kit) { return kit; }', null],
    ['import * as kit from "kit"; kit.a(); function f(kit) { return kit.b; }', null],
  ])('%s', (code, names) => expect(namesIn(code)).toEqual(names));
});
