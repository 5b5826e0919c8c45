import type { Snapshot } from '../core/snapshot/types.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';

afterAll(removeFolders);

const html = '<script type="module" src="/main.ts"></script>';

function read(files: Record<string, string>): Snapshot {
  return readSource(folderOf({ 'index.html': html, ...files })).snapshot;
}

function edges(snapshot: Snapshot, from: string): string[] {
  return snapshot.imports
    .filter((i) => snapshot.modules[i.from].path === from)
    .map((i) => `${i.kind === 'dynamic' ? '~' : ''}${snapshot.modules[i.to].path} ${i.names.join(',')}`);
}

const paths = (snapshot: Snapshot) => snapshot.modules.map((m) => m.path);

describe('named imports through files that only pass names on', () => {
  const kit = (sideEffects: string) => ({
    'node_modules/kit/package.json': `{ "name": "kit", "version": "1.0.0", "main": "index.js"${sideEffects} }`,
    'node_modules/kit/index.js':
      "export { Button, Other as Renamed } from './button.js';\nexport * from './more.js';\nexport * as tools from './tools.js';\nexport { default as Chart } from './chart.js';\nexport const own = 1;",
    'node_modules/kit/button.js': 'export const Button = 1;\nexport const Other = 2;',
    'node_modules/kit/more.js': "export { deep } from './deep.js';\nexport const near = 1;",
    'node_modules/kit/deep.js': 'export const deep = 1;',
    'node_modules/kit/tools.js': 'export const a = 1;',
    'node_modules/kit/chart.js': 'export default function chart() {}',
  });

  it('reach only the modules that define them, in side-effect-free packages', () => {
    const snapshot = read({
      ...kit(', "sideEffects": false'),
      'main.ts':
        "import { Renamed, deep } from 'kit';\nimport { Chart } from 'kit';\nconsole.log(Renamed, deep, Chart);",
    });
    expect(edges(snapshot, 'main.ts')).toEqual([
      'node_modules/kit/button.js Other',
      'node_modules/kit/deep.js deep',
      'node_modules/kit/chart.js default',
    ]);
    expect(paths(snapshot)).toEqual([
      'main.ts',
      'node_modules/kit/button.js',
      'node_modules/kit/chart.js',
      'node_modules/kit/deep.js',
    ]);
    expect(snapshot.imports.map((i) => i.ordinal)).toEqual([0, 1, 2]);
  });

  it('stop at a name that the file defines itself, and at a namespace', () => {
    const own = read({ ...kit(', "sideEffects": false'), 'main.ts': "import { own } from 'kit';\nconsole.log(own);" });
    expect(edges(own, 'main.ts')).toEqual(['node_modules/kit/index.js own']);
    const tools = read({
      ...kit(', "sideEffects": false'),
      'main.ts': "import { tools } from 'kit';\nconsole.log(tools);",
    });
    expect(edges(tools, 'main.ts')).toEqual(['node_modules/kit/tools.js *']);
    const all = read({ ...kit(', "sideEffects": false'), 'main.ts': "import * as kit from 'kit';\nconsole.log(kit);" });
    expect(paths(all)).toHaveLength(7);
  });

  it('take the whole file along where importing it may do something', () => {
    const snapshot = read({ ...kit(''), 'main.ts': "import { near } from 'kit';\nconsole.log(near);" });
    expect(edges(snapshot, 'main.ts')).toEqual(['node_modules/kit/index.js near']);
    expect(paths(snapshot)).toContain('node_modules/kit/chart.js');
  });

  it('end in files that pass names around in a circle', () => {
    const snapshot = read({
      'node_modules/ring/package.json': '{ "name": "ring", "main": "a.js", "sideEffects": false }',
      'node_modules/ring/a.js': "export * from './b.js';",
      'node_modules/ring/b.js': "export * from './a.js';",
      'main.ts': "import { lost } from 'ring';\nconsole.log(lost);",
    });
    expect(edges(snapshot, 'main.ts')).toEqual(['node_modules/ring/a.js lost']);
  });
});

describe('CommonJS packages', () => {
  it('ship only the production branch', () => {
    const snapshot = read({
      'main.ts': "import lib from 'lib';\nconsole.log(lib);",
      'node_modules/lib/package.json': '{ "name": "lib", "main": "index.js" }',
      'node_modules/lib/index.js':
        "'use strict';\nif (process.env.NODE_ENV === 'production') {\n  module.exports = require('./lib.production.js');\n} else {\n  module.exports = require('./lib.development.js');\n}",
      'node_modules/lib/lib.production.js': 'exports.a = 1;',
      'node_modules/lib/lib.development.js': "exports.a = require('./warnings.js');",
      'node_modules/lib/warnings.js': 'exports.w = 1;',
    });
    expect(paths(snapshot)).toEqual(['main.ts', 'node_modules/lib/index.js', 'node_modules/lib/lib.production.js']);
  });

  it('are found through exports with conditions and the browser field', () => {
    const snapshot = read({
      'main.ts': "import a from 'with-exports/sub';\nimport b from 'with-browser';\nconsole.log(a, b);",
      'node_modules/with-exports/package.json':
        '{ "name": "with-exports", "exports": { "./sub": { "node": "./node.js", "import": "./esm.js", "default": "./cjs.js" } } }',
      'node_modules/with-exports/esm.js': 'export default 1;',
      'node_modules/with-exports/cjs.js': 'module.exports = 1;',
      'node_modules/with-exports/node.js': 'export default 0;',
      'node_modules/with-browser/package.json': '{ "name": "with-browser", "main": "node.js", "browser": "web.js" }',
      'node_modules/with-browser/web.js': 'module.exports = 1;',
      'node_modules/with-browser/node.js': 'module.exports = 0;',
    });
    expect(paths(snapshot)).toEqual([
      'main.ts',
      'node_modules/with-browser/web.js',
      'node_modules/with-exports/esm.js',
    ]);
  });

  it('whose exports point nowhere are listed, and the rest is read', () => {
    const snapshot = read({
      'main.ts': "import a from 'broken';\nimport './fine';\nconsole.log(a);",
      'fine.ts': 'export {};',
      'node_modules/broken/package.json': '{ "name": "broken", "exports": "./missing.js" }',
    });
    expect(snapshot.unresolved).toMatchObject([{ from: 'main.ts', specifier: 'broken', line: 1 }]);
    expect(paths(snapshot)).toContain('fine.ts');
  });
});

describe('addresses that are computed or only named', () => {
  it('with a constant beginning lead to every file that fits', () => {
    const snapshot = read({
      'main.ts':
        'export const load = (n: string) => import(`./parts/part-${n}.ts`);\nexport const any = (n: string) => import(`./none/${n}`);',
      'parts/part-a.ts': '',
      'parts/part-b.ts': '',
      'parts/other.ts': '',
      'parts/part-c.css': '',
    });
    expect(edges(snapshot, 'main.ts')).toEqual(['~parts/part-a.ts *', '~parts/part-b.ts *']);
    expect(snapshot.unresolved).toMatchObject([{ line: 2, reason: 'no file fits the computed address' }]);
  });

  it('in new URL and in styles are assets', () => {
    const snapshot = read({
      'main.ts': "import './a.css';\nexport const pic = new URL('./pic.png', import.meta.url);",
      'a.css': ".a { background: url('./back.png'); }\n.b { background: url(data:image/png;base64,AAAA); }",
      'pic.png': 'x',
      'back.png': 'xy',
    });
    expect(edges(snapshot, 'main.ts')).toEqual(['a.css ', 'pic.png default']);
    expect(edges(snapshot, 'a.css')).toEqual(['back.png ']);
    expect(snapshot.unresolved).toEqual([]);
  });
});

describe('files that only pass names on', () => {
  const many = Object.fromEntries(
    Array.from({ length: 30 }, (_, i) => [
      `node_modules/kit/i${i}.js`,
      `import './deep${i}.js';\nexport default ${i};`,
    ]),
  );
  const passing = Array.from({ length: 30 }, (_, i) => `export { default as I${i} } from './i${i}.js';`).join('\n');
  const kit = {
    'node_modules/kit/package.json': '{ "name": "kit", "version": "1.0.0", "main": "index.js", "sideEffects": false }',
    ...many,
  };

  it('have only read what is asked for, and nothing told of the rest', () => {
    const snapshot = read({
      ...kit,
      'node_modules/kit/index.js': passing,
      'main.ts': "import { I3 } from 'kit';\nimport { I4 as four } from './own';\nconsole.log(I3, four);",
      'own.ts': "export { I4 } from 'kit';",
    });
    expect(paths(snapshot)).toEqual(['main.ts', 'node_modules/kit/i3.js', 'node_modules/kit/i4.js', 'own.ts']);
    expect(snapshot.unresolved.map((u) => u.specifier).sort()).toEqual(['./deep3.js', './deep4.js']);
  });

  it('pass on what they import first, and what others pass on whole', () => {
    const snapshot = read({
      ...kit,
      'node_modules/kit/index.js':
        "import I1 from './i1.js';\nimport I2 from './i2.js';\nexport { I1, I2 };\nexport * from './more.js';",
      'node_modules/kit/more.js': "export { default as I5 } from './i5.js';\nexport * from './most.js';",
      'node_modules/kit/most.js': "export { default as I6 } from './i6.js';",
      'main.ts': "import { I2, I6 } from 'kit';\nconsole.log(I2, I6);",
    });
    expect(paths(snapshot)).toEqual(['main.ts', 'node_modules/kit/i2.js', 'node_modules/kit/i6.js']);
  });

  it('are read whole where all of them is asked for', () => {
    const snapshot = read({
      ...kit,
      'node_modules/kit/index.js': passing,
      'main.ts': "import * as kit from 'kit';\nconsole.log(kit);",
    });
    expect(paths(snapshot)).toHaveLength(32);
  });

  it('lead a deferred import of one name to what defines it', () => {
    const snapshot = read({
      ...kit,
      'node_modules/kit/index.js': passing,
      'main.ts': "document.onclick = async () => { const { I7 } = await import('kit'); console.log(I7); };",
    });
    expect(edges(snapshot, 'main.ts')).toEqual(['~node_modules/kit/i7.js *']);
  });
});

describe('single-file components', () => {
  const panel = `<template>
  <Button @click="open">Open the panel</Button>
</template>

<script lang="ts">
import { helper, type Shape } from './helper';
import Button from './button.vue';
const shape: Shape = helper();
export default { components: { Button }, open: () => import('./later.vue'), shape };
</script>

<style>
.panel { color: red; }
</style>
`;

  it('have their script followed with its places, and all of them weighed', () => {
    const snapshot = read({
      'main.ts': "import Panel from './panel.vue';\nconsole.log(Panel);",
      'panel.vue': panel,
      'later.vue': '<template>later</template>',
      'button.vue': '<template>button</template>',
      'helper.ts': 'export interface Shape {}\nexport const helper = (): Shape => ({});',
    });
    expect(edges(snapshot, 'panel.vue')).toEqual([
      'helper.ts helper',
      'button.vue default',
      '~later.vue *',
      'panel.vue?style ',
    ]);
    const found = snapshot.imports.find((i) => i.specifier === './helper')!;
    expect(found.line).toBe(6);
    expect(panel.slice(found.start, found.end)).toBe("import { helper, type Shape } from './helper';");
    const weight = snapshot.modules.find((m) => m.path === 'panel.vue')!.bytes;
    expect(weight.source).toBe(panel.length);
    expect(weight.minified).toBeGreaterThan(100);
    const sheet = snapshot.modules.find((m) => m.path === 'panel.vue?style')!;
    expect([sheet.kind, sheet.bytes.minified]).toEqual(['style', '.panel{color:red}'.length]);
    expect(snapshot.failed).toEqual([]);
  });
});

describe('branches of other builds', () => {
  it('are left out with what they import', () => {
    const snapshot = read({
      'main.ts': `if (import.meta.env.DEV) import('./tools');
if (!import.meta.env.PROD) import('./tools');
if (process.env.NODE_ENV !== 'production') import('./tools');
if (import.meta.env.SSR) import('./tools');
if (import.meta.env.PROD) import('./live');
if (import.meta.env.VITE_FLAG) import('./maybe');`,
      'tools.ts': '',
      'live.ts': '',
      'maybe.ts': '',
    });
    expect(paths(snapshot)).toEqual(['live.ts', 'main.ts', 'maybe.ts']);
  });
});

describe('what leads nowhere or is left out', () => {
  it('is told apart, with the reason', () => {
    const snapshot = read({
      'main.ts': "import 'node:fs';\nimport 'https://cdn.example/x.js';\nimport 'with-exports/lost';\nimport './gone';",
      'node_modules/with-exports/package.json': '{ "name": "with-exports", "exports": { "./lost": "./not-there.js" } }',
    });
    expect(snapshot.unresolved.map((u) => [u.specifier, u.line, u.leftOut])).toEqual([
      ['node:fs', 1, true],
      ['https://cdn.example/x.js', 2, true],
      ['with-exports/lost', 3, false],
      ['./gone', 4, false],
    ]);
    expect(snapshot.unresolved[0].reason).toContain('server platform');
  });
});

describe('documents', () => {
  const document = (head: string, files: Record<string, string> = {}) =>
    readSource(
      folderOf({
        'index.html': `${head}<script type="module" src="/main.ts"></script>`,
        'main.ts': "import { a } from 'kit';\nimport 'far/b.js';\nconsole.log(a);",
        'lib/kit.js': 'export const a = 1;',
        ...files,
      }),
    ).snapshot;

  it('say by their import map where names lead', () => {
    const snapshot = document(
      '<script type="importmap">{"imports":{"kit":"/lib/kit.js","far/":"https://cdn.example/far/"}}</script>',
    );
    expect(edges(snapshot, 'main.ts')).toEqual(['lib/kit.js a']);
    expect(snapshot.unresolved).toMatchObject([
      { specifier: 'far/b.js', leftOut: true, reason: 'the import map sends it to https://cdn.example/far/b.js' },
    ]);
  });

  it('bring inline scripts, classic scripts with their size, and links with what they name', () => {
    const snapshot = document(
      `<base href="/app/">
<script>${'warm();'.repeat(100)}</script>
<script src="/old.js" defer></script>
<link rel="preload" as="image" href="/hero.jpg" fetchpriority="high">
<link rel="preconnect" href="https://cdn.example">`,
      { 'old.js': 'old();'.repeat(500), 'public/hero.jpg': 'jpg'.repeat(400) },
    );
    expect(snapshot.base).toBe('/app/');
    expect(snapshot.scripts.map((s) => [s.id, s.placement, s.evidence?.line])).toEqual([
      ['old', 'defer', 3],
      ['inline script, line 2', 'inlined', 2],
    ]);
    expect(snapshot.scripts[0].bytes).toBeLessThan(200);
    expect(snapshot.scripts[1].bytes).toBe(700);
    expect(snapshot.scripts[1].evaluationMs).toBeGreaterThan(0);
    expect(snapshot.links.map((l) => [l.rel, l.address, l.bytes === null])).toEqual([
      ['preload', '/hero.jpg', false],
      ['preconnect', 'https://cdn.example', true],
    ]);
  });

  it('start the modules that an inline module script imports', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html':
          '<script type="module">\nimport { go } from "./src/go.js";\nimport "/src/b.js";\ngo();\n</script>',
        'src/go.js': 'export const go = () => 1;',
        'src/b.js': '',
      }),
    );
    expect(snapshot.entries[0].modules).toEqual(['src/go.js', 'src/b.js']);
    const none = { 'index.html': '<base href="app"><script type="module" src="/a.js"></script>', 'a.js': '' };
    const odd = readSource(folderOf(none)).snapshot;
    expect(odd.base).toBe('/');
    expect(odd.failed[0].message).toContain('the base address app is left aside');
  });
});
