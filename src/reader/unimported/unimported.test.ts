// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { scriptSaid } from '../graph/script-said.ts';
import { digestOf, rememberWith } from '../memory/memory.ts';
import { readSource } from '../read-source.ts';
import type { Unimported } from './unimported.ts';
import { unimportedNames } from './unimported-names.ts';
import { importsOf, lackedBy, mayMean } from './weave.ts';

afterAll(removeFolders);

const VUETIFY = {
  'node_modules/vuetify/package.json':
    '{ "name": "vuetify", "version": "3.7.0", "exports": { "./components/*": "./lib/components/*/index.js" } }',
  'node_modules/vuetify/dist/json/importMap.json':
    '{ "components": { "VBtn": { "from": "components/VBtn", "styles": [] }, "VCard": { "from": "components/VCard/index.mjs", "styles": [] } } }',
  'node_modules/vuetify/lib/components/VBtn/index.js': 'export const VBtn = { render: () => "button" };',
  'node_modules/vuetify/lib/components/VCard/index.js': 'export const VCard = { render: () => "card" };',
};

const read = (files: Record<string, string>) =>
  readSource(
    folderOf({
      'index.html': '<script type="module" src="/src/main.ts"></script>',
      'src/main.ts': "import Home from './home.vue'; mount(Home);",
      'package.json': '{ "dependencies": { "vue": "3.5.0", "vuetify": "3.7.0" } }',
      'node_modules/vue/package.json': '{ "name": "vue", "version": "3.5.0", "main": "index.js", "type": "module" }',
      'node_modules/vue/index.js':
        'export const openBlock = () => {}; export const createBlock = () => {}; export const withCtx = (f) => f; export const ref = (value) => ({ value }); export const createVNode = () => {}; export const createTextVNode = () => {};',
      ...files,
    }),
  );

/** What a module of the app imports, and what of it ships. */
function of(files: Record<string, string>, path: string) {
  const { snapshot, texts } = read(files);
  const to = snapshot.imports.flatMap((i) =>
    snapshot.modules[i.from].path === path ? [snapshot.modules[i.to].path] : [],
  );
  return { to, text: texts[path], draws: snapshot.modules.find((m) => m.path === path)!.draws ?? [], snapshot };
}

const CONFIG = { 'vite.config.ts': "import vuetify from 'x-vuetify'; export default { plugins: [vuetify()] };" };

describe('what a build imports by itself', () => {
  it('is what the types say that it writes beside the app', () => {
    const root = folderOf({
      'components.d.ts':
        "declare module 'vue' {\n  export interface GlobalComponents {\n    TideCard: typeof import('./src/parts/tide-card.vue')['default']\n    RouterLink: typeof import('vue-router')['RouterLink']\n  }\n}",
      'src/auto-imports.d.ts':
        "export {}\ndeclare global {\n  const ref: typeof import('vue')['ref']\n  const useTides: typeof import('./tides')['useTides']\n}",
      'src/env.d.ts': '/// <reference types="client" />',
    });
    expect(unimportedNames(root, {})).toEqual({
      components: {
        TideCard: { from: '/src/parts/tide-card.vue', name: 'default' },
        RouterLink: { from: 'vue-router', name: 'RouterLink' },
      },
      names: { ref: { from: 'vue', name: 'ref' }, useTides: { from: '/src/tides', name: 'useTides' } },
    });
  });

  it('is what the configuration says, where no types are there', () => {
    const root = folderOf({
      'build.config.ts':
        "export default { plugins: [AutoImport({ imports: ['pinia', { '@kit/core': ['useMouse'] }, preset] }), Components({ dts: false })] };",
      'src/components/tide-card.vue': '<template><b /></template>',
      'src/components/maps/index.vue': '<template><b /></template>',
      'src/components/notes.txt': '',
    });
    const { components, names } = unimportedNames(root, {})!;
    expect(components).toEqual({
      Maps: { from: '/src/components/maps/index.vue', name: 'default' },
      TideCard: { from: '/src/components/tide-card.vue', name: 'default' },
    });
    expect(names.defineStore).toEqual({ from: 'pinia', name: 'defineStore' });
    expect(names.useMouse).toEqual({ from: '@kit/core', name: 'useMouse' });
  });

  it('is nothing where nothing says so', () => {
    const root = folderOf({
      'vite.config.ts': 'export default {};',
      'src/components/a.vue': '<template><b /></template>',
    });
    expect(unimportedNames(root, { dependencies: { vuetify: '3' } })).toBeUndefined();
  });
});

describe('names without an import', () => {
  const provided = (...names: string[]) => ({
    names: Object.fromEntries(names.map((name) => [name, { from: 'vue', name }])),
    components: { TideCard: { from: '/src/tide-card.vue', name: 'default' } },
  });
  const lacked = (text: string) => lackedBy('a.ts', text, provided('ref', 'watch')).map((l) => l.as);

  it.each([
    ['const n = ref(0);', ['ref']],
    ['watch(ref(1), () => {});', ['ref', 'watch']],
    ['const o = { ref };', ['ref']],
    ["import { ref } from 'other'; ref(1);", []],
    ["import * as ref from 'other'; ref(1);", []],
    ['const { ref } = kit; ref(1);', []],
    ['function ref() {} ref(1);', []],
    ['const go = (ref) => ref(1);', []],
    ['kit.ref(1); const o = { ref: 1 };', []],
    ['const s = "ref"; // ref(1)', []],
    ['class A { ref = 1 }', []],
  ])('%s', (text, names) => {
    expect(lacked(text)).toEqual(names);
  });

  it('are components of templates by either way to write them, unless the script has them', () => {
    const of = (script: string, markup: string) => lackedBy('a.vue.ts', script, provided(), markup).map((l) => l.as);
    expect(of('', '<TideCard /><tide-card></tide-card>')).toEqual(['TideCard']);
    expect(of("import TideCard from './own.vue';", '<tide-card />')).toEqual([]);
    expect(of('', '<p title="TideCard" />')).toEqual([]);
    expect(importsOf([{ as: 'TideCard', from: '/src/tide-card.vue', name: 'default' }])).toBe(
      'import { default as TideCard } from "/src/tide-card.vue";',
    );
  });
});

describe('what a text may mean', () => {
  const all = {
    names: { ref: { from: 'vue', name: 'ref' }, watch: { from: 'vue', name: 'watch' } },
    components: { TideCard: { from: '/a.vue', name: 'default' }, VBtn: { from: 'kit', name: 'VBtn' } },
  };

  it('is only what it says, so that it is known again whatever else a build imports', () => {
    expect(mayMean('<script setup>const n = ref(1)</script><template><v-btn /></template>', all)).toEqual({
      names: { ref: all.names.ref },
      components: { VBtn: all.components.VBtn },
    });
    expect(mayMean('export const n = 1; // TideCard', all)).toBeUndefined();
  });

  it('leaves what is known of all others, when one more is imported', () => {
    const kept = new Map<string, unknown>();
    const before = rememberWith({
      recall: (key) => kept.get(key),
      keep: (key, value) => void kept.set(key, value),
      ...{ digest: digestOf, files: null, foresee: null },
    });
    const said = (unimported: Unimported, of = 'src/a.ts') => {
      const compiling = { jsxImportSource: 'vue', unimported };
      scriptSaid(of, 'export const n = ref(1);', { compiling, bindings: new Map(), without: [], resource: () => null });
      return kept.size;
    };
    try {
      expect(said(all)).toBe(1);
      expect(said({ ...all, names: { ...all.names, computed: { from: 'vue', name: 'computed' } } })).toBe(1);
      expect(said({ ...all, names: { ...all.names, ref: { from: '/own', name: 'ref' } } })).toBe(2);
      expect(said(all, 'node_modules/kit/a.js')).toBe(3);
      expect(said({ names: {}, components: {} }, 'node_modules/kit/a.js')).toBe(3);
    } finally {
      rememberWith(before);
    }
  });
});

describe('an app whose build imports by itself', () => {
  it.each([
    ['a setup', '<script setup lang="ts">\nconst n = 1;\n</script>\n<template><v-btn>{{ n }}</v-btn></template>'],
    [
      'a plain script',
      '<script>\nexport default { data: () => ({ n: 1 }) };\n</script>\n<template><VBtn>{{ n }}</VBtn></template>',
    ],
    ['no script', '<template><v-btn>go</v-btn></template>'],
  ])('has components of its templates: %s', (_, home) => {
    const { to, text, draws, snapshot } = of({ ...VUETIFY, ...CONFIG, 'src/home.vue': home }, 'src/home.vue');
    expect(to).toContain('node_modules/vuetify/lib/components/VBtn/index.js');
    expect(snapshot.modules.some((m) => m.path.includes('VCard'))).toBe(false);
    expect(text).not.toContain('resolveComponent');
    expect(draws.map((d) => snapshot.modules[d.module].path)).toEqual([
      'node_modules/vuetify/lib/components/VBtn/index.js',
    ]);
    expect(snapshot.failed).toEqual([]);
  });

  it('has names of its scripts, in components and beside them', () => {
    const files = {
      'auto-imports.d.ts':
        "declare global {\n const ref: typeof import('vue')['ref']\n const useTide: typeof import('./src/tide')['useTide']\n}",
      'src/home.vue': '<script setup>\nconst tide = useTide();\n</script>\n<template><b>{{ tide }}</b></template>',
      'src/tide.ts': 'export const useTide = () => ref(1);',
    };
    expect(of(files, 'src/home.vue').to).toContain('src/tide.ts');
    expect(of(files, 'src/tide.ts').to).toEqual(['node_modules/vue/index.js']);
  });

  it('keeps the places of what is written', () => {
    const home =
      '<script setup>\nconst Far = () => import("./far.vue");\n</script>\n<template><v-btn /><component :is="Far" /></template>';
    const { snapshot } = of(
      { ...VUETIFY, ...CONFIG, 'src/home.vue': home, 'src/far.vue': '<template><i /></template>' },
      'src/home.vue',
    );
    const far = snapshot.imports.find((i) => i.kind === 'dynamic')!;
    expect(far.line).toBe(2);
  });
});
