// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code of an app
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const HTML = { 'index.html': '<div id="app"></div><script type="module" src="/main.js"></script>' };
const REACT = {
  ...HTML,
  'main.js':
    "import { App } from './App.jsx'; import { createRoot } from 'react-dom/client'; createRoot(app).render(App());",
  'Form.jsx': 'export default function Form() { return <form>{"x"}</form>; }',
};
/** A page that opens a form by what stands here, with these components beside it. */
const react = (use: string, files: Record<string, string>) => ({
  ...REACT,
  'App.jsx': `import { lazy, useState } from 'react';
    ${Object.keys(files)
      .map((f) => `import { ${f.split('.')[0]} } from './${f}';`)
      .join('\n')}
    const Form = lazy(() => import('./Form.jsx'));
    export function App() { const [open, setOpen] = useState(false); return <main>${use}{open && <Form />}</main>; }`,
  ...files,
});
const vue = (use: string, files: Record<string, string>) => ({
  ...HTML,
  'main.js': "import { createApp } from 'vue'; import App from './App.vue'; createApp(App).mount('#app');",
  'App.vue': `<script setup>
    import { defineAsyncComponent, ref } from 'vue';
    ${Object.keys(files)
      .map((f) => `import ${f.split('.')[0]} from './${f}';`)
      .join('\n')}
    const Form = defineAsyncComponent(() => import('./Form.vue'));
    const open = ref(false);
    </script><template><main>${use}<Form v-if="open" /></main></template>`,
  'Form.vue': '<template><form>x</form></template>',
  ...files,
});
const OPENS = 'onAdd={() => setOpen(true)}';

describe('an act in a component is told by the words in it', () => {
  it.each<[string, Record<string, string>, string]>([
    [
      'that call what they are given',
      react(`<Bar ${OPENS} />`, {
        'Bar.jsx': 'export function Bar({ onAdd }) { return <p><button onClick={onAdd}>Add one</button></p>; }',
      }),
      'Add one',
    ],
    [
      'by properties, in functions of their own',
      react(`<Bar ${OPENS} />`, {
        'Bar.jsx':
          'export function Bar(props) { const press = () => { props.onAdd(1); }; return <p><a onClick={() => 1}>Other</a><button onClick={press}>Add one</button></p>; }',
      }),
      'Add one',
    ],
    [
      'through a component between',
      react(`<Bar ${OPENS} />`, {
        'Bar.jsx':
          "import { Plus } from './Plus.jsx'; export function Bar({ onAdd }) { return <p><Plus onClick={onAdd} /></p>; }",
        'Plus.jsx': 'export const Plus = (props) => <button {...props}>Add one</button>;',
      }),
      'Add one',
    ],
    [
      'that pass all on',
      react('<Plus onClick={() => setOpen(true)} />', {
        'Plus.jsx': 'export const Plus = ({ ...rest }) => <button {...rest}>Add one</button>;',
      }),
      'Add one',
    ],
    [
      'but by the name of one that hands all to what only holds others',
      react('<Plate onClick={() => setOpen(true)} />', {
        'Plate.jsx': 'export const Plate = (props) => <section {...props}><h2>Tides</h2><p>Of today</p></section>;',
      }),
      'click in Plate',
    ],
    [
      'unless there are words at the component itself',
      react(`<Bar ${OPENS}>More</Bar>`, {
        'Bar.jsx': 'export function Bar({ onAdd }) { return <button onClick={onAdd}>Add one</button>; }',
      }),
      'More',
    ],
    [
      'unless none tells, or components draw themselves',
      react(`<Bar ${OPENS} />`, { 'Bar.jsx': 'export function Bar(props) { return <Bar onAdd={props.onAdd} />; }' }),
      'add in Bar',
    ],
    [
      'that emit',
      vue('<Bar @add-row="open = true" />', {
        'Bar.vue': `<script setup>const emit = defineEmits(['addRow']); const add = () => emit('addRow', 1);</script><template><p><button @click="add">Add one</button></p></template>`,
      }),
      'Add one',
    ],
    [
      'that emit in the template',
      vue('<Bar @add="open = true" />', {
        'Bar.vue': `<template><p><button @click="$emit('add')">Add one</button></p></template>`,
      }),
      'Add one',
    ],
    [
      'with the message that is named there',
      {
        ...vue('<Bar @add="open = true" />', {
          'Bar.vue': `<template><p><button @click="$emit('add')">{{ $t('add.one') }}</button></p></template>`,
        }),
        'locales/en.json': '{ "add": { "one": "Add one" } }',
      },
      'Add one',
    ],
  ])('%s', (_, files, words) => {
    const { routes } = readSource(folderOf(files)).snapshot;
    const part = routes.flatMap((r) => r.parts).find((p) => /Form/.test(p.module));
    expect(part?.action).toBe(words);
  });

  it('unless it only runs code, which is told by the component', () => {
    const files = react('<Bar onAdd={() => print()} />', {
      'Bar.jsx': 'export function Bar({ onAdd }) { return <button onClick={onAdd}>Add one</button>; }',
    });
    const heavy = `export function print() { console.log(${JSON.stringify('0123456789abcdef'.repeat(600))}); }`;
    const app = files['App.jsx'].replace('import { Bar }', "import { print } from './print.js'; import { Bar }");
    const { routes } = readSource(folderOf({ ...files, 'App.jsx': app, 'print.js': heavy })).snapshot;
    const part = routes.flatMap((r) => r.parts).find((p) => p.module === 'print.js');
    expect(part?.action).toBe('add in Bar');
  });
});
