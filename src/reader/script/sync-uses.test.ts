import { parseScript } from './parse-script.ts';

function reason(code: string): string | null {
  const { imports, error } = parseScript('src/x.tsx', `import a, { b } from './a';\n${code}`, {
    jsxImportSource: 'react',
  });
  expect(error).toBeNull();
  return imports.find((i) => i.specifier === './a')?.sync?.reason ?? null;
}

describe('an import that a module needs while it starts', () => {
  it.each([
    ['export const go = () => a() + b;', null],
    ['export function X() { return <a.Part value={b} />; }', null],
    ['export const routes = [{ path: "/", component: a, other: [b] }];', null],
    ['class X { m() { return a(); } }', null],
    ['class X extends a {}', 'a class extends it'],
    ['export const made = a(1);', 'it is called while the module starts'],
    ['const thing = new a();', 'it is called while the module starts'],
    ['const t = a`x`;', 'it is called while the module starts'],
    ['export const LIMIT = b * 2;', 'it is read while the module starts'],
    ['if (b.on) start();', 'it is read while the module starts'],
    ['start(b);', 'it is read while the module starts'],
    ['export { b };', 'it is passed on to other modules'],
    ['const o = { a: 1, b: () => 2 }; console.log(o.a);', null],
  ])('%s: %s', (code, expected) => {
    const used = /\ba\b|\bb\b/.test(code);
    expect(used).toBe(true);
    expect(reason(`${code}\nexport const keep = () => [a, b];`)).toBe(expected);
  });

  it('may only pass it on, or want what it does by itself', () => {
    const of = (text: string) =>
      parseScript('src/x.ts', text, { jsxImportSource: 'react' }).imports.map((i) => [i.specifier, i.sync?.line ?? 0]);
    expect(of("\nexport { a } from './a';\nexport * from './b';\nimport './c.css';\nimport './d';")).toEqual([
      ['./a', 2],
      ['./b', 3],
      ['./c.css', 4],
      ['./d', 5],
    ]);
  });
});
