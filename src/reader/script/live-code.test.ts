import { liveCode } from './live-code.ts';

const taken = (takes: ReadonlyMap<string, ReadonlySet<string>>) =>
  Object.fromEntries([...takes].map(([from, names]) => [from, [...names].sort()]));

const left = (code: string, ...wanted: string[]) => {
  const { small, takes } = liveCode('a', code, new Set(wanted));
  return { small, takes: taken(takes) };
};

describe('a script of which some exports are taken', () => {
  it.each([
    ['const', 'export const a = "one", b = "two";', ['a'], ['one'], ['two']],
    [
      'functions',
      'export function a() { return "one" }\nexport function b() { return "two" }',
      ['b'],
      ['two'],
      ['one'],
    ],
    ['classes', 'export class A { x = "one" }\nexport class B extends A { y = "two" }', ['A'], ['one'], ['two']],
    ['a class that another one needs', 'export class A { x = "one" }\nexport class B extends A {}', ['B'], ['one'], []],
    ['patterns', 'export const { a, b: [c] } = made("one"), d = "two";', ['c'], ['one', 'export'], ['two']],
    ['lists', 'const a = "one", b = "two";\nexport { a, b as c };', ['c'], ['two'], ['one']],
    ['lists with comments', 'const a = "one", b = "two";\nexport { a /* , */, b // ,\n};', ['b'], ['two'], ['one']],
    ['the last of a list', 'const a = "one", b = "two";\nexport { a, b };', ['a'], ['one'], ['two']],
    ['a default value', 'export default "one";\nexport const b = "two";', ['b'], ['two'], ['one']],
    [
      'a default function',
      'export default function () { return "one" }\nexport const b = "two";',
      ['b'],
      ['two'],
      ['one'],
    ],
    [
      'a default function with a name',
      'export default function a() { return "one" }\nexport const b = () => a();',
      ['b'],
      ['one'],
      [],
    ],
    ['a default that does something', 'export default made("one")\nexport const b = "two";', [], ['one'], ['two']],
    ['a default before brackets', 'export default function () {}\n(function () { made("one") })();', [], ['one'], []],
    ['what it does by being run', 'made("one");\nexport const b = "two";', [], ['one'], ['two']],
    [
      'calls that are marked as pure',
      'export const a = /* @__PURE__ */ made("one");\nexport const b = made("two");',
      [],
      ['two'],
      ['one'],
    ],
    ['what is used inside as well', 'export const a = "one";\nmade(a);', [], ['one'], ['export']],
    ['everything', 'export const a = "one", b = "two";', ['a', 'b'], ['one', 'two'], []],
    ['strings as names', 'const a = "one";\nexport { a as "some name" };', ['some name'], ['one', 'some name'], []],
  ])('%s', (_, code, wanted, there, gone) => {
    const { small } = left(code, ...wanted);
    for (const word of there) expect(small).toContain(word);
    for (const word of gone) expect(small).not.toContain(word);
  });

  it('takes of others only what is left of it needs', () => {
    const code = `import { x, y } from './x';
      import z from './z';
      import * as all from './all';
      import './effect';
      export { p, q as r } from './passed';
      export * as whole from './whole';
      export * from './star';
      export const a = () => x;
      export const b = () => y + z + all.c;`;
    expect(left(code, 'a', 'r').takes).toEqual({
      './x': ['x'],
      ...{ './z': [], './all': [], './effect': [], './passed': ['q'], './whole': [], './star': ['*'] },
    });
    expect(left(code, 'b', 'whole').takes).toEqual({
      './x': ['y'],
      ...{ './z': ['default'], './all': ['*'], './effect': [], './whole': ['*'], './star': ['*'] },
    });
  });

  it('stays as it is where the minifier refuses it', () => {
    expect(liveCode('a', 'export const a = = 1', new Set()).small).toContain('= = 1');
  });
});
