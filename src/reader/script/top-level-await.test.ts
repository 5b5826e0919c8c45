import { parseScript } from './parse-script.ts';

const parse = (text: string) => parseScript('src/a.ts', text, { jsxImportSource: 'react' });

describe('waiting at the top level of a module', () => {
  it('for a deferred import is kept with that import', () => {
    const { imports, waits } = parse("const big = await import('./big');\nimport('./late');\nexport { big };");
    expect(imports.map(({ specifier, awaited }) => [specifier, awaited ?? false])).toEqual([
      ['./big', true],
      ['./late', false],
    ]);
    expect(waits).toEqual([]);
  });

  it('for anything else is told with its line, but not inside functions', () => {
    const { waits } = parse(
      "export const got = await fetch('/api/x');\nasync function later() { await fetch('/y'); await import('./z'); }\nfor await (const x of got) later();",
    );
    expect(waits).toEqual([{ line: 1 }, { line: 3 }]);
    expect(parse("export async function f() { return await import('./z'); }").imports[0].awaited).toBeUndefined();
  });
});
