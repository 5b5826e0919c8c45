import { parseScript } from './parse-script.ts';

describe('names that are taken of a deferred import where it is made', () => {
  it.each([
    ["const { a, b: c } = await import('x');", ['a', 'b']],
    ["const a = (await import('x')).a;", ['a']],
    ["import('x').then(({ a }) => a());", ['a']],
    ["import('x').then((m) => m.a(m.b));", ['a', 'b']],
    ["import('x').then((m) => ({ default: m.a }));", ['a']],
    ["import('x').then(() => done());", []],
    ["import('x').then((m) => keep(m));", null],
    ["import('x').then((m) => m[name]);", null],
    ["import('x').then(keep);", null],
    ["const m = await import('x');", null],
    ["const { a, ...rest } = await import('x');", null],
    ["const { [name]: a } = await import('x');", null],
    ["import('x');", null],
    ["import('x').then((m) => { const o = { m: 1 }; return o.m + m.a; });", ['a']],
  ])('%s', (statement, names) => {
    const { imports, error } = parseScript('src/a.js', `async function run() { ${statement} }`, {
      jsxImportSource: 'react',
    });
    expect(error).toBeNull();
    expect(imports[0].taken ?? null).toEqual(names);
  });
});
