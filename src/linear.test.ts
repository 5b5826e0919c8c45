import { amend } from './core/amend/amend.ts';
import { NO_AMENDMENTS } from './core/amend/types.ts';
import { NavigationLog } from './core/formats/navigation-log.ts';
import { matcher } from './core/plan/match.ts';
import { FreeNames } from './core/text/free-names.ts';
import { operationOf } from './core/text/query-operation.ts';
import { wildcard } from './core/text/wildcard.ts';
import { readVisit } from './core/visits/notation.ts';
import { shapeOfQuery } from './reader/answers/shape-of-query.ts';
import { importsByName } from './reader/auto-imports.ts';
import { prunedLinks } from './reader/graph/prune.ts';
import type { ReadModule } from './reader/graph/read-module.ts';
import { readHtml } from './reader/html-document.ts';
import { inlineMap, mapAddress } from './reader/output/source-map.ts';
import { mediaIn } from './reader/parts/media.ts';
import { showsContent } from './reader/runs/page-writes.ts';
import { parseScript } from './reader/script/parse-script.ts';
import { marked } from './reader/server-only.ts';
import { splitSingleFile } from './reader/single-file.ts';
import { componentsUsed, importsInMarkup } from './reader/template-imports.ts';
import { angularMarkup } from './reader/templates/angular-markup.ts';
import { islandFile } from './reader/templates/islands.ts';
import { svelteFile } from './reader/templates/svelte.ts';
import { vueFile } from './reader/templates/vue.ts';
import { Mentions, unusedRules } from './reader/unused-rules.ts';
import { minifyStyle } from './reader/weigh.ts';
import { withoutExports } from './reader/without-exports.ts';
import { sketch } from './test-support/snapshots.ts';

const quietly = (work: () => unknown) => {
  try {
    work();
  } catch {
    // How long it takes is what is looked at.
  }
};

/** Reads a navigation log as it comes from a slow network: a few letters at a time. */
function readLog(text: string): void {
  const log = new NavigationLog(
    'a.csv',
    (piece) => piece.split('\n').map((line) => line.split(',')),
    () => {},
    () => {},
  );
  for (let at = 0; at < text.length; at += 10) log.push(text.slice(at, at + 10));
  log.end();
}

/** Everything that foreign text meets by a pattern, with text that is as bad for it as can be. */
const MEETINGS: [string, (n: number) => () => unknown][] = [
  ...['\n', '\r\n', ' ', ', ', 'constructor '].map((piece): (typeof MEETINGS)[number] => [
    `${JSON.stringify(piece)} without end in a script`,
    (n) => () => parseScript('a.ts', `x;${piece.repeat(n / piece.length)}`, { jsxImportSource: 'react' }),
  ]),
  ['fields of a query', (n) => () => shapeOfQuery('A', [`query A {${'a '.repeat(n / 2)}`])],
  ['fields in fields of a query', (n) => () => shapeOfQuery('A', [`query A ${'{a'.repeat(n / 2)}`])],
  ['queries that are no such', (n) => () => shapeOfQuery('A', ['query '.repeat(n / 6)])],
  [
    'fragments that name one another',
    (n) => () => shapeOfQuery('A', [`query A { ...B } fragment B on C {${' ...B'.repeat(n / 5)} }`]),
  ],
  ['what is sent, if it is a query', (n) => () => operationOf(`{"query":"query ${' '.repeat(n)}"}`)],
  ['text without end in an element', (n) => () => showsContent(`>${'a'.repeat(n)}`)],
  ['ends of arrows', (n) => () => showsContent('> a'.repeat(n / 3))],
  ['comments before a directive', (n) => () => marked('/* a */ '.repeat(n))],
  ['a banner of slashes', (n) => () => marked(`${'/'.repeat(n)}\n/**/x`)],
  ['a comment that isn’t closed', (n) => () => marked('/*'.repeat(n))],
  ['script blocks that aren’t closed', (n) => () => splitSingleFile('a.vue', '<script>'.repeat(n))],
  ['script blocks without an end of their tag', (n) => () => splitSingleFile('a.vue', '<script '.repeat(n))],
  ['tags of components', (n) => () => componentsUsed('<a-b'.repeat(n / 4), new Map([['AB', 'x']]))],
  ['imports in markup', (n) => () => importsInMarkup('import('.repeat(n / 7))],
  ['space in an import of markup', (n) => () => importsInMarkup(`import(${' '.repeat(n)}`)],
  ['statements in a text', (n) => () => splitSingleFile('a.mdx', 'import x\n```\n'.repeat(n / 13))],
  ['islands without an end', (n) => () => islandFile('a.astro', '<A client:load '.repeat(n / 15))],
  [
    'front matter of imports',
    (n) => () => islandFile('a.astro', `---\n${'import { a } from "./a";\n'.repeat(n / 24)}`),
  ],
  ['imports that aren’t ended', (n) => () => islandFile('a.astro', `---\n${'import a '.repeat(n / 9)}`)],
  ['blocks of style', (n) => () => islandFile('a.astro', '<style>'.repeat(n / 7))],
  ['a width that never comes', (n) => () => mediaIn(`matchMedia${'max-width: '.repeat(n / 11)}`)],
  ['digits of a width', (n) => () => mediaIn(`matchMedia max-width: ${'9'.repeat(n)}`)],
  [
    'names that need no import',
    (n) => () => importsByName('import { a } '.repeat(n / 13), 'x.ts', new Map([['useReeds', 'b.ts']])),
  ],
  [
    'a name after many imports',
    (n) => () => importsByName(`${'import '.repeat(n / 7)}useReeds`, 'x.ts', new Map([['useReeds', 'b.ts']])),
  ],
  [
    'contents with triggers',
    (n) => () =>
      quietly(() =>
        parseScript(
          'a.jsx',
          `export const A = () => <D>${'<DTrigger>a</DTrigger><DContent><B/></DContent>'.repeat(n / 100)}</D>;import B from './b'`,
          { jsxImportSource: 'react' },
        ),
      ),
  ],
  [
    'functions that draw one another',
    (n) => () =>
      quietly(() =>
        parseScript(
          'a.jsx',
          `import B from './b';${Array.from({ length: n / 200 }, (_, i) => `const a${i} = () => [a${i + 1}(), a${i + 1}(), <B/>];`).join('\n')}`,
          { jsxImportSource: 'react' },
        ),
      ),
  ],
  [
    'what a function that asks a server sets',
    (n) => () =>
      parseScript(
        'a.js',
        `export let a; export async function load() { await fetch('/a'); ${'a = b.c(); '.repeat(n / 12)} }`,
        { jsxImportSource: 'react' },
      ),
  ],
  [
    'objects whose functions are called, under imports',
    (n) => () =>
      quietly(() =>
        parseScript(
          'a.jsx',
          `${Array.from({ length: n / 60 }, (_, i) => `import { c${i} } from './c';`).join('')}fetch('/a'); export const A = () => { ${'b.c(1); '.repeat(n / 16)} return <D />; }`,
          {
            jsxImportSource: 'react',
          },
        ),
      ),
  ],
  [
    'a template of Vue',
    (n) => () => vueFile('a.vue', `<template>${'<a v-if="b" @c="d">e</a>'.repeat(n / 400)}</template>`),
  ],
  ['conditions of Svelte', (n) => () => svelteFile('a.svelte', '{#if a}b{/if}'.repeat(n / 400))],
  ['blocks of Angular', (n) => () => angularMarkup('@if (a) { <b-c/> }'.repeat(n / 400), 0)],
  [
    'a tagged template',
    (n) => () =>
      quietly(() =>
        parseScript('a.js', `const a = html\`${`<b-c .d=\${e}>f</b-c>`.repeat(n / 400)}\``, {
          jsxImportSource: 'react',
        }),
      ),
  ],
  [
    'routes in lists',
    (n) => () =>
      quietly(() =>
        parseScript('a.tsx', `export const r = [${'{path:"a",element:<A/>},'.repeat(n / 50)}]`, {
          jsxImportSource: 'react',
        }),
      ),
  ],
  [
    'names that are only passed on',
    (n) => () =>
      quietly(() =>
        parseScript(
          'a.ts',
          'const a = b;\n'.repeat(1) +
            Array.from({ length: n / 50 }, (_, i) => `export const r${i} = r${i + 1};`).join('\n'),
          { jsxImportSource: 'react' },
        ),
      ),
  ],
  [
    'exports that are left out',
    (n) => () =>
      withoutExports(
        'a.js',
        `${Array.from({ length: n / 100 }, (_, i) => `const a${i} = () => a${i + 1};`).join('\n')}\nexport const loader = () => a0;`,
        ['loader'],
      ),
  ],
  ['space in a template', (n) => () => splitSingleFile('a.vue', `${' '.repeat(n)}x`)],
  ['space after the address of a map', (n) => () => mapAddress(`//# sourceMappingURL=a${' '.repeat(n)}b`)],
  ['an inline map', (n) => () => quietly(() => inlineMap(`data:application/json${';'.repeat(n)}`))],
  ['words that go on', (n) => () => new Mentions().add('a'.repeat(n))],
  ['words of many beginnings', (n) => () => new Mentions().add('aa-'.repeat(n))],
  [
    'names among many beginnings',
    (n) => () => {
      const mentions = new Mentions();
      for (let i = 0; i < n / 100; i++) mentions.add(`tone${'x'.repeat(i % 9)}${i}ab-`);
      for (let i = 0; i < n / 100; i++) mentions.has(`name-of-${i}`);
    },
  ],
  [
    'comments in rules',
    (n) => () => unusedRules([{ path: 'a', text: `.x{content:"${'/*'.repeat(n)}"}` }], new Mentions()),
  ],
  ['imports in a sheet', (n) => () => quietly(() => minifyStyle('a.css', '@import '.repeat(n / 10)))],
  ['a log of one line in many pieces', (n) => () => quietly(() => readLog('a'.repeat(n)))],
  ['a log that begins with empty lines', (n) => () => quietly(() => readLog('\n'.repeat(n)))],
  ['a pattern of stars', (n) => () => wildcard('*a'.repeat(20))('a'.repeat(n))],
  ['a pattern of folders', (n) => () => matcher({ path: '**/a'.repeat(10) })({ path: 'a/'.repeat(n), package: null })],
  [
    'names that are kept',
    (n) => () =>
      amend(
        sketch(
          { a: {} },
          { unusedRules: [{ module: 'a', line: 1, selector: '', bytes: 1, missing: ['a'.repeat(n)] }] },
        ),
        { ...NO_AMENDMENTS, keep: [`${'a*'.repeat(12)}b`] },
      ),
  ],
  [
    'names that are all the same',
    (n) => () => {
      const names = new FreeNames();
      for (let i = 0; i < n / 10; i++) names.give('a', (number) => `a ${number}`);
    },
  ],
  ['a visit', (n) => () => quietly(() => readVisit(`/ > act ${'{'.repeat(n)}`))],
  ['HTML in HTML', (n) => () => readHtml('<div>'.repeat(n / 100))],
  [
    'a chain of modules that pass names on',
    (n) => {
      const count = n / 20;
      const modules = new Map<string, ReadModule>();
      for (let i = 0; i < count; i++) {
        const to = `m${i + 1}`;
        const found = { kind: 'static', specifier: to, names: ['x'], line: 1, column: 1, start: 0, end: 1 };
        modules.set(`m${i}`, {
          path: `m${i}`,
          imports: [{ found, to }],
          module: { sideEffects: false },
          reexports: { named: new Map([['x', { to, name: 'x' }]]), stars: [], own: new Set() },
        } as unknown as ReadModule);
      }
      return () => prunedLinks(modules);
    },
  ],
];

/** The least of several runs, in ms. */
function took(work: () => unknown, runs = 3): number {
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < runs; i++) {
    const began = performance.now();
    work();
    least = Math.min(least, performance.now() - began);
  }
  return least;
}

/** Eight times the text may take so many times as long: 8 where time is linear, 64 where it is quadratic. */
const MOST = 30;
/** Below this, in ms, the clock tells nothing. */
const NOTHING = 20;

it.each(MEETINGS)('takes time in step with the length of what is read: %s', (_, of) => {
  const [small, large] = [50_000, 400_000].map((n) => took(of(n)));
  expect(large).toBeLessThan(NOTHING + MOST * Math.max(small, 0.5));
  expect(large).toBeLessThan(30_000);
});

it('reads the beginning of real files that begin with long comments', () => {
  // A banner of 40 slashes, and 26 block comments, as published packages have them.
  const banner = `${'/'.repeat(40)}\n${'/* line of a license */\n'.repeat(26)}"use client";`;
  expect(marked(banner)).toBe('client');
  expect(marked(`${banner.slice(0, -13)}x`)).toBeNull();
});
