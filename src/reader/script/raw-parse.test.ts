// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import fs from 'node:fs';
import path from 'node:path';
import { parseByText } from './parse.ts';
import { rawParse, rawRecords, shareParserMemory } from './raw-parse.ts';

shareParserMemory();

/** Scripts below a folder, a number of them from all over it. */
function scriptsBelow(folder: string, most: number): string[] {
  const all = fs
    .readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((f) => /\.([cm]?[jt]sx?)$/.test(f) && fs.statSync(path.join(folder, f)).isFile())
    .sort();
  const step = Math.max(1, Math.floor(all.length / most));
  return all.filter((_, i) => i % step === 0).map((f) => path.join(folder, f));
}

const PATTERN = /^(Identifier|RestElement|(Object|Array|Assignment)Pattern)$/;

/**
 * What a parse gives, in words, whatever order its keys have. Values of patterns and large numbers are left out: nobody asks for them, and a text has none. So are
 * the ends of names and patterns in trees without types: with a type behind them the two ways tell them otherwise, and nobody asks for them there either.
 */
function inWords(parsed: { program: unknown; module: unknown; errors: unknown }, { astType }: Options): string {
  return JSON.stringify(parsed, (_, value) => {
    if (value === null || typeof value !== 'object' || Array.isArray(value)) return value;
    const noValue = value.type === 'Literal' && (value.regex || value.bigint) ? { value: null } : {};
    const noEnd = astType === 'js' && PATTERN.test(value.type) ? { end: null } : {};
    return Object.fromEntries(Object.entries({ ...value, ...noValue, ...noEnd }).sort());
  });
}

type Options = NonNullable<Parameters<typeof rawParse>[2]>;
function bothWays(name: string, text: string, options: Options): [straight: string, byText: string] {
  const straight = rawParse(name, text, options);
  expectSameRecords(name, text, options, straight);
  const { program, module, errors } = parseByText(name, text, options);
  return [
    straight === null ? 'not at all' : inWords(straight, options),
    inWords({ program: program(), module, errors }, options),
  ];
}

/** What is told of a script without its tree is what is told with it, and no tree is made. */
function expectSameRecords(name: string, text: string, options: Options, whole: ReturnType<typeof rawParse>): void {
  const records = rawRecords(name, text, options) as ReturnType<typeof rawParse>;
  const told = (of: typeof whole) => of && JSON.stringify([of.module, of.errors]);
  if (told(records) !== told(whole)) throw new Error(`other records of ${name}`);
  expect(records?.program.body ?? []).toEqual([]);
}

const ODD: [string, string][] = [
  ['nothing', ''],
  ['a mark of order', '\uFEFFexport const a = 1;'],
  ['a first line for a shell', '#!/usr/bin/env node\nimport a from "a";'],
  ['texts of all planes', 'const ä = "żółć 🚣 \u2028"; f("🚣", `${ä}🚣`, ä); import "./ä.js";'],
  ['patterns and large numbers', 'f(/a+(?<n>b)/giu, 12345678901234567890n, 0x1fn, 1e400, 0.1)'],
  ['an error', 'const a = ;'],
  ['an error far down', `${'f();\n'.repeat(200)}const ä = {;`],
  ['markup', 'const a = <A b="ü" {...c}>text &amp; {d}<></></A>;'],
  [
    'types',
    'export type A = string; const b = <T,>(c: T): c is string => c as never; enum E { A = 1 } @d class C<T> { private e?: T; constructor(readonly f: A) {} }',
  ],
  [
    'imports and exports of all kinds',
    'import a, { b as c, "d e" as f } from "g"; import * as h from "i" with { type: "json" }; export * from "j"; export * as k from "l"; export { c, m as "n o" }; export default class {} import("p"); import.meta.url; export let m = 1, { q, r: [s] } = t;',
  ],
  ['a long text', `f(${JSON.stringify('x'.repeat(900_000))});`],
];

describe('trees made straight from the parser’s memory', () => {
  it.each(ODD)('are those that its text tells: %s', (_, text) => {
    for (const lang of ['js', 'jsx', 'ts', 'tsx'] as const)
      for (const astType of ['js', 'ts'] as const) {
        const [straight, byText] = bothWays(`a.${lang}`, text, { lang, astType });
        expect(straight).toBe(byText);
      }
  });

  it.each([
    ['examples/styles', 60],
    ['src', 80],
    ['node_modules/recharts', 60],
    ['node_modules/typescript/lib', 12],
    ['node_modules/react-dom', 2],
    ['node_modules/@babel', 60],
    ['node_modules/svelte', 60],
  ])('are those that its text tells: scripts of %s', (folder, most) => {
    if (!fs.existsSync(folder)) throw new Error(`no folder ${folder}`);
    for (const file of scriptsBelow(folder, most)) {
      const text = fs.readFileSync(file, 'utf8');
      if (text.length > 1_000_000) continue;
      const lang = /\.[cm]?ts$/.test(file) ? 'ts' : file.endsWith('.tsx') ? 'tsx' : 'jsx';
      const [straight, byText] = bothWays(file, text, { lang, astType: text.length % 2 ? 'ts' : 'js' });
      if (straight !== byText) throw new Error(`another tree of ${file}`);
    }
  });

  it('hold half a character as something', () => {
    const [statement] = rawParse('a.js', `f("${'\uD83D'}ä")`)!.program.body as {
      expression: { arguments: { value: string }[] };
    }[];
    expect(statement.expression.arguments[0].value).toHaveLength(2);
  });

  it('aren’t made of very long texts, which would take the memory up for good', () => {
    expect(rawParse('a.js', ' '.repeat(1_000_001))).toBeNull();
  });
});
