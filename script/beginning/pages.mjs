// One page in the way of each component system, twice: a small one (a heading, a button, five items), and one of usual size (a frame with a menu, a form whose fields
// are kept, a filtered list of components with a state of their own, something handed down through all, something that is done once it shows).

const ITEMS =
  "Array.from({ length: 12 }, (_, id) => ({ id, name: 'Ferry ' + id, late: id % 3 === 0, berth: (id % 5) + 1 }))";
const MENU = "['Tides', 'Ferries', 'Ports', 'Notices', 'Help']";

const react = {
  packages: ['react@19', 'react-dom@19'],
  main: (page) => `import { createRoot } from 'react-dom/client';
import { flushSync } from 'react-dom';
import { Page } from './${page}';
export const mount = (element) => flushSync(() => createRoot(element).render(<Page />));`,
};
const smallOfReact = `export function Page() { return <main><h1>Ferries</h1><button onClick={() => {}}>All</button><ul>{[1, 2, 3, 4, 5].map((n) => <li key={n}>Ferry {n}</li>)}</ul></main>; }`;
const usualOfReact = (
  from,
) => `import { createContext, memo, useCallback, useContext, useEffect, useMemo, useReducer, useRef, useState } from '${from}';
const Theme = createContext('day');
const Icon = ({ late }) => <svg width="12" height="12" viewBox="0 0 12 12"><circle cx="6" cy="6" r="5" fill={late ? 'red' : 'green'} /></svg>;
const Row = memo(function Row({ item, onPick }) {
  const theme = useContext(Theme);
  const [open, setOpen] = useState(false);
  return <li className={item.late ? 'late ' + theme : theme} style={{ padding: 4 }}><Icon late={item.late} /><b>{item.name}</b>{open && <i>open</i>}<span>Berth {item.berth}</span><button onClick={() => setOpen(!open)}>More</button><button onClick={() => onPick(item.id)}>Pick</button></li>;
});
const Field = ({ label, value, onChange }) => <label>{label}<input value={value} onChange={(e) => onChange(e.target.value)} placeholder={label} /></label>;
function Form() {
  const [state, set] = useReducer((s, [k, v]) => ({ ...s, [k]: v }), { name: '', berth: '', note: '' });
  const ref = useRef(null);
  return <form ref={ref} onSubmit={(e) => e.preventDefault()}>{Object.keys(state).map((k) => <Field key={k} label={k} value={state[k]} onChange={(v) => set([k, v])} />)}<select defaultValue="1"><option>1</option><option>2</option></select><textarea defaultValue="Notes" /><label><input type="checkbox" /> Late only</label></form>;
}
export function Page() {
  const [items] = useState(() => ${ITEMS});
  const [text, setText] = useState('');
  const [shown, setShown] = useState(false);
  const pick = useCallback(() => setText(''), []);
  const seen = useMemo(() => items.filter((i) => i.name.includes(text)), [items, text]);
  useEffect(() => { setShown(true); return () => setShown(false); }, []);
  return <Theme.Provider value="night"><header><a href="/">Harbour</a><nav>{${MENU}.map((m) => <a key={m} href={'/' + m}>{m}</a>)}</nav></header><main><h1>Ferries</h1>{shown ? <p>{seen.length} today</p> : <p>…</p>}<Form /><ul>{seen.map((i) => <Row key={i.id} item={i} onPick={pick} />)}</ul></main><footer>Made up</footer></Theme.Provider>;
}`;

export const SYSTEMS = [
  {
    name: 'react-dom 19',
    ...react,
    files: { small: { 'page.jsx': smallOfReact }, usual: { 'page.jsx': usualOfReact('react') } },
  },
  {
    ...{ name: 'react-dom 18', ...react, packages: ['react@18', 'react-dom@18'] },
    files: { small: { 'page.jsx': smallOfReact }, usual: { 'page.jsx': usualOfReact('react') } },
  },
  {
    name: 'preact',
    packages: ['preact@10'],
    main: (page) => `import { render } from 'preact';
import { Page } from './${page}';
export const mount = (element) => render(<Page />, element);`,
    files: {
      small: { 'page.jsx': smallOfReact },
      usual: {
        'page.jsx': usualOfReact('preact/hooks')
          .replace('createContext, memo, ', '')
          .replace(/^/, "import { createContext } from 'preact';\nconst memo = (f) => f;\n"),
      },
    },
  },
  {
    name: 'solid-js',
    packages: ['solid-js@1'],
    main: (page) => `import { render } from 'solid-js/web';
import { Page } from './${page}';
export const mount = (element) => render(() => <Page />, element);`,
    files: {
      small: {
        'page.jsx': `import { For } from 'solid-js';
export function Page() { return <main><h1>Ferries</h1><button onClick={() => {}}>All</button><ul><For each={[1, 2, 3, 4, 5]}>{(n) => <li>Ferry {n}</li>}</For></ul></main>; }`,
      },
      usual: {
        'page.jsx': `import { createContext, createMemo, createSignal, For, onMount, Show, useContext } from 'solid-js';
import { createStore } from 'solid-js/store';
const Theme = createContext('day');
const Icon = (p) => <svg width="12" height="12" viewBox="0 0 12 12"><circle cx="6" cy="6" r="5" fill={p.late ? 'red' : 'green'} /></svg>;
function Row(p) {
  const theme = useContext(Theme);
  const [open, setOpen] = createSignal(false);
  return <li class={p.item.late ? 'late ' + theme : theme} style={{ padding: '4px' }}><Icon late={p.item.late} /><b>{p.item.name}</b><Show when={open()}><i>open</i></Show><span>Berth {p.item.berth}</span><button onClick={() => setOpen(!open())}>More</button><button onClick={() => p.onPick(p.item.id)}>Pick</button></li>;
}
const Field = (p) => <label>{p.label}<input value={p.value} onInput={(e) => p.onChange(e.target.value)} placeholder={p.label} /></label>;
function Form() {
  const [state, set] = createStore({ name: '', berth: '', note: '' });
  let form;
  return <form ref={form} onSubmit={(e) => e.preventDefault()}><For each={Object.keys(state)}>{(k) => <Field label={k} value={state[k]} onChange={(v) => set(k, v)} />}</For><select><option>1</option><option>2</option></select><textarea>Notes</textarea><label><input type="checkbox" /> Late only</label></form>;
}
export function Page() {
  const [items] = createSignal(${ITEMS});
  const [text, setText] = createSignal('');
  const [shown, setShown] = createSignal(false);
  const seen = createMemo(() => items().filter((i) => i.name.includes(text())));
  onMount(() => setShown(true));
  return <Theme.Provider value="night"><header><a href="/">Harbour</a><nav><For each={${MENU}}>{(m) => <a href={'/' + m}>{m}</a>}</For></nav></header><main><h1>Ferries</h1><Show when={shown()} fallback={<p>…</p>}><p>{seen().length} today</p></Show><Form /><ul><For each={seen()}>{(i) => <Row item={i} onPick={() => setText('')} />}</For></ul></main><footer>Made up</footer></Theme.Provider>;
}`,
      },
    },
  },
  {
    name: 'vue',
    packages: ['vue@3'],
    main: (page) => `import { createApp } from 'vue';
import Page from './${page.replace('.jsx', '.vue')}';
export const mount = (element) => createApp(Page).mount(element);`,
    files: {
      small: {
        'page.vue':
          '<template><main><h1>Ferries</h1><button @click="() => {}">All</button><ul><li v-for="n in 5" :key="n">Ferry {{ n }}</li></ul></main></template>',
      },
      usual: {
        'icon.vue':
          '<script setup>defineProps([\'late\'])</script><template><svg width="12" height="12" viewBox="0 0 12 12"><circle cx="6" cy="6" r="5" :fill="late ? \'red\' : \'green\'" /></svg></template>',
        'row.vue': `<script setup>
import { inject, ref } from 'vue';
import Icon from './icon.vue';
defineProps({ item: { type: Object, required: true } });
const emit = defineEmits(['pick']);
const theme = inject('theme', 'day');
const open = ref(false);
</script><template><li :class="[theme, { late: item.late }]" :style="{ padding: '4px' }"><Icon :late="item.late" /><b>{{ item.name }}</b><i v-if="open">open</i><span>Berth {{ item.berth }}</span><button @click="open = !open">More</button><button @click="emit('pick', item.id)">Pick</button></li></template>`,
        'field.vue':
          '<script setup>const value = defineModel(); defineProps([\'label\'])</script><template><label>{{ label }}<input v-model="value" :placeholder="label" /></label></template>',
        'form.vue': `<script setup>
import { reactive, ref } from 'vue';
import Field from './field.vue';
const state = reactive({ name: '', berth: '', note: '' });
const form = ref(null);
</script><template><form ref="form" @submit.prevent><Field v-for="(v, k) in state" :key="k" v-model="state[k]" :label="k" /><select><option>1</option><option>2</option></select><textarea>Notes</textarea><label><input type="checkbox" /> Late only</label></form></template>`,
        'page.vue': `<script setup>
import { computed, onMounted, provide, ref } from 'vue';
import Form from './form.vue';
import Row from './row.vue';
const items = ref(${ITEMS});
const text = ref('');
const shown = ref(false);
const menu = ${MENU};
provide('theme', 'night');
const seen = computed(() => items.value.filter((i) => i.name.includes(text.value)));
onMounted(() => { shown.value = true; });
</script><template><header><a href="/">Harbour</a><nav><a v-for="m in menu" :key="m" :href="'/' + m">{{ m }}</a></nav></header><main><h1>Ferries</h1><p v-if="shown">{{ seen.length }} today</p><p v-else>…</p><Form /><ul><Row v-for="i in seen" :key="i.id" :item="i" @pick="text = ''" /></ul></main><footer>Made up</footer></template>`,
      },
    },
  },
  {
    name: 'svelte',
    packages: ['svelte@5'],
    main: (page) => `import { flushSync, mount as mounted } from 'svelte';
import Page from './${page.replace('.jsx', '.svelte')}';
export const mount = (target) => { mounted(Page, { target }); flushSync(); };`,
    files: {
      small: {
        'page.svelte':
          '<main><h1>Ferries</h1><button onclick={() => {}}>All</button><ul>{#each [1, 2, 3, 4, 5] as n (n)}<li>Ferry {n}</li>{/each}</ul></main>',
      },
      usual: {
        'icon.svelte':
          '<script>let { late } = $props();</script><svg width="12" height="12" viewBox="0 0 12 12"><circle cx="6" cy="6" r="5" fill={late ? \'red\' : \'green\'} /></svg>',
        'row.svelte': `<script>
import { getContext } from 'svelte';
import Icon from './icon.svelte';
let { item, onpick } = $props();
const theme = getContext('theme');
let open = $state(false);
</script><li class={[theme, item.late && 'late']} style:padding="4px"><Icon late={item.late} /><b>{item.name}</b>{#if open}<i>open</i>{/if}<span>Berth {item.berth}</span><button onclick={() => (open = !open)}>More</button><button onclick={() => onpick(item.id)}>Pick</button></li>`,
        'field.svelte':
          '<script>let { label, value = $bindable() } = $props();</script><label>{label}<input bind:value placeholder={label} /></label>',
        'form.svelte': `<script>
import Field from './field.svelte';
let state = $state({ name: '', berth: '', note: '' });
let form = $state();
</script><form bind:this={form} onsubmit={(e) => e.preventDefault()}>{#each Object.keys(state) as k (k)}<Field label={k} bind:value={state[k]} />{/each}<select><option>1</option><option>2</option></select><textarea>Notes</textarea><label><input type="checkbox" /> Late only</label></form>`,
        'page.svelte': `<script>
import { onMount, setContext } from 'svelte';
import Form from './form.svelte';
import Row from './row.svelte';
let items = $state(${ITEMS});
let text = $state('');
let shown = $state(false);
const menu = ${MENU};
setContext('theme', 'night');
const seen = $derived(items.filter((i) => i.name.includes(text)));
onMount(() => { shown = true; });
</script><header><a href="/">Harbour</a><nav>{#each menu as m (m)}<a href={'/' + m}>{m}</a>{/each}</nav></header><main><h1>Ferries</h1>{#if shown}<p>{seen.length} today</p>{:else}<p>…</p>{/if}<Form /><ul>{#each seen as i (i.id)}<Row item={i} onpick={() => (text = '')} />{/each}</ul></main><footer>Made up</footer>`,
      },
    },
  },
];
