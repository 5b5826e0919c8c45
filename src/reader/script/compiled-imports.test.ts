import fs from 'node:fs';
import path from 'node:path';
import { parseSync } from 'oxc-parser';
import { scriptSaid } from '../graph/script-said.ts';

const AROUND = { compiling: { jsxImportSource: 'react' }, bindings: new Map(), without: [], resource: () => null };

/** Names that the code which ships takes of other modules and that reading didn't find, as `specifier name`. */
function missed(file: string, text: string): string[] {
  const { parsed } = scriptSaid(file, text, AROUND);
  const found = new Map<string, Set<string>>();
  for (const { specifier, names } of parsed.imports)
    found.set(specifier, new Set([...(found.get(specifier) ?? []), ...names]));
  const { module } = parseSync('out.js', parsed.code);
  return module.staticImports.flatMap(({ moduleRequest, entries }) =>
    entries.flatMap(({ importName }) => {
      const name = importName.kind === 'Default' ? 'default' : importName.name;
      const names = found.get(moduleRequest.value);
      return name === null || names?.has(name) || names?.has('*') ? [] : [`${moduleRequest.value} ${name}`];
    }),
  );
}

const FILES = fs
  .readdirSync('examples', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.(vue|svelte|astro|[tj]sx?|mjs)$/.test(file) && !/node_modules|\/body\//.test(file))
  .map((file) => path.join('examples', file));

describe('what the code that ships imports', () => {
  it('is found in every file of the examples, also what a compiler takes of modules that the file itself names', () => {
    expect(FILES.length).toBeGreaterThan(200);
    const all = FILES.flatMap((file) => missed(file, fs.readFileSync(file, 'utf8')).map((m) => `${file}: ${m}`));
    expect(all).toEqual([]);
  });

  it.each([
    [
      'list.vue',
      "<script setup>\nimport { ref } from 'vue';\nconst rows = ref([]);\n</script>\n<template><p v-if='rows'><b v-for='r in rows'>{{ r }}</b></p></template>",
    ],
    [
      'list.tsx',
      "import { jsx } from 'react/jsx-runtime';\nexport const List = () => [jsx('i', {}), <p><b /><i /></p>];",
    ],
  ])('is found in %s', (file, text) => {
    expect(missed(path.join('src', file), text)).toEqual([]);
  });
});
