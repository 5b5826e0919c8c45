// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const EXPORTED = 'export default function Card() { return <b />; }';

/** What a component `Card` is drawn after on the one route of an app, as addresses; null where it is no part of it. */
function cardAfter(files: Record<string, string>): string[] | null {
  const { snapshot } = readSource(
    folderOf({
      'index.html': '<script type="module" src="/src/main.tsx"></script>',
      'src/main.tsx': "import Page from './page';\nexport const routes = [{ path: '/tides', element: <Page /> }];",
      'src/card.tsx': EXPORTED,
      ...files,
    }),
  );
  const [route] = snapshot.routes;
  const card = route.parts.find((p) => /card|Card/.test(p.module));
  return card ? (card.drawnAfter ?? []).map((id) => route.data.find((d) => d.id === id)!.address) : null;
}

const page = (body: string) => ({
  'src/page.tsx': `import { useEffect, useState, use, useMemo } from 'react';\nimport { useQuery, useSuspenseQuery } from 'asking';\nimport Card from './card';\nimport { useTides, loadTides } from './tides';\nexport default function Page(props) {\n${body}\n}`,
  'src/tides.ts': `import { useQuery } from 'asking';\nexport const loadTides = () => fetch('/api/tides').then((r) => r.json());\nexport function useTides() { return useQuery({ queryKey: ['tides'], queryFn: loadTides }); }`,
});

const STATE = 'const [tides, setTides] = useState(null);';

describe('what a component of a class is drawn after', () => {
  const of = (body: string) =>
    cardAfter({
      ...page(''),
      'src/page.tsx': `import { Component } from 'react';\nimport Card from './card';\nimport { loadTides } from './tides';\nexport default class Page extends Component {\nstate = { tides: [], loading: true };\n${body}\n}`,
    });
  it.each<[name: string, body: string, after: string[]]>([
    [
      'its state, by a method that draws',
      'async componentDidMount() { const tides = await loadTides(); this.setState({ tides, loading: false }); }\nrows() { const { loading } = this.state; if (loading) return <i />; return <Card />; }\nrender() { return <p>{this.rows()}</p>; }',
      ['/api/tides'],
    ],
    [
      'its state, as what a function gives',
      'componentDidMount() { loadTides().then((tides) => this.setState(() => ({ tides, loading: false }))); }\nrender() { return this.state.loading ? <i /> : <Card />; }',
      ['/api/tides'],
    ],
    [
      'nothing',
      'componentDidMount() { loadTides().then((tides) => this.setState({ tides })); }\nrender() { return <Card />; }',
      [],
    ],
  ])('%s', (_, body, after) => {
    expect(of(body)).toEqual(after);
  });
});

describe('what a component is drawn after', () => {
  it.each<[name: string, body: string, after: string[]]>([
    ['nothing', 'useTides(); return <Card />;', []],
    ['data that a hook gives', 'const { data } = useTides(); return data ? <Card /> : null;', ['/api/tides']],
    ['data by another name', 'const { data: all } = useTides(); return all && <Card />;', ['/api/tides']],
    ['a field of what a hook gives', 'const tides = useTides(); return tides.data && <Card />;', ['/api/tides']],
    [
      'until nothing is loading',
      'const { isLoading } = useTides(); return isLoading ? <i /> : <Card />;',
      ['/api/tides'],
    ],
    ['an early return', 'const q = useTides(); if (q.isPending) return <i />; return <Card />;', ['/api/tides']],
    ['a status', "const { status } = useTides(); return status === 'success' ? <Card /> : <i />;", ['/api/tides']],
    [
      'another status',
      "const { status } = useTides(); return status === 'pending' ? <i /> : <Card />;",
      ['/api/tides'],
    ],
    ['what is shown while it loads', 'const { isLoading } = useTides(); return isLoading ? <Card /> : <i />;', []],
    ['what is shown without data', 'const { data } = useTides(); return data ? <i /> : <Card />;', []],
    ['unless it failed', 'const { error } = useTides(); if (error) return <i />; return <Card />;', []],
    ['a list', 'const { data = [] } = useTides(); return <p>{data.map((t) => <Card t={t} />)}</p>;', ['/api/tides']],
    ['a list that is there', 'useTides(); return <p>{[1, 2].map((t) => <Card t={t} />)}</p>;', []],
    [
      'what follows from a list',
      'const { data = [] } = useTides(); const high = useMemo(() => data.filter((t) => t.high), [data]); return high.map(() => <Card />);',
      ['/api/tides'],
    ],
    [
      'what a reducer is told',
      "const [{ rows, loading }, dispatch] = useReducer(reduce, { rows: [], loading: true }); useEffect(() => { loadTides().then((rows) => dispatch({ type: 'LOADED', rows })); }, []); return loading ? <i /> : <Card rows={rows} />;",
      ['/api/tides'],
    ],
    [
      'a state that is set',
      `${STATE} useEffect(() => { loadTides().then(setTides); }, []); return tides && <Card />;`,
      ['/api/tides'],
    ],
    [
      'a state that is set in a function',
      `${STATE} useEffect(() => { (async () => { const r = await fetch('/api/tides'); setTides(await r.json()); })(); }, []); return tides && <Card />;`,
      ['/api/tides'],
    ],
    [
      'a state that is set in a function with a name',
      `${STATE} async function load() { const r = await fetch('/api/tides'); setTides(await r.json()); } useEffect(() => { load(); }, []); return tides ? <Card /> : null;`,
      ['/api/tides'],
    ],
    [
      'a state that says that it is done',
      "const [busy, setBusy] = useState(true); useEffect(() => { fetch('/api/tides').finally(() => setBusy(false)); }, []); if (busy) return <i />; return <Card />;",
      ['/api/tides'],
    ],
    [
      'what holds up the component',
      "const { data } = useSuspenseQuery({ queryFn: () => fetch('/api/tides') }); return <Card n={data} />;",
      ['/api/tides'],
    ],
    ['what a promise gives', 'const tides = use(loadTides()); return <Card n={tides.length} />;', ['/api/tides']],
    [
      'one of two',
      "const a = useQuery({ queryFn: () => fetch('/api/a') });\nconst b = useQuery({ queryFn: () => fetch('/api/b') }); return <>{a.data && <i />}{b.data && <Card />}</>;",
      ['/api/b'],
    ],
    [
      'an element that decides',
      "const q = createQuery(() => ({ queryFn: () => fetch('/api/tides') })); return <Switch><Match when={q.isPending}><i /></Match><Match when={q.data}>{(d) => <Card n={d()} />}</Match></Switch>;",
      ['/api/tides'],
    ],
    [
      'an element for each of a list',
      "const [tides] = createResource(() => fetch('/api/tides')); return <Show when={!tides.loading}><For each={tides()}>{(t) => <Card t={t} />}</For></Show>;",
      ['/api/tides'],
    ],
    [
      'both of two',
      "const { data: a } = useQuery({ queryFn: () => fetch('/api/a') }); const { data: b } = useQuery({ queryFn: () => fetch('/api/b') }); return a && b ? <Card /> : null;",
      ['/api/a', '/api/b'],
    ],
    [
      'a part of the page',
      'const { data } = useTides(); const row = () => <Card />; return data ? row() : null;',
      ['/api/tides'],
    ],
    ['one of two places', 'const { data } = useTides(); return <><Card />{data && <Card />}</>;', []],
  ])('%s', (_, body, after) => {
    expect(cardAfter(page(body))?.sort()).toEqual(after);
  });

  it('goes through what components are given, and on to what they draw', () => {
    const found = cardAfter({
      'src/page.tsx': `import { useQuery } from 'asking';\nimport { List } from './list';\nexport default function Page() { const { data } = useQuery({ queryFn: () => fetch('/api/tides') }); return <List rows={data ?? []} title="x" />; }`,
      'src/list.tsx': `import { Row } from './row';\nexport function List({ rows, title }) { return <ul title={title}>{rows.map((r) => <Row key={r.id} of={r} />)}</ul>; }`,
      'src/row.tsx': `import { lazy } from 'react';\nconst Card = lazy(() => import('./card'));\nexport const Row = ({ of }) => <li><Card at={of} /></li>;`,
    });
    expect(found).toEqual(['/api/tides']);
  });

  it.each([
    [
      'a signal',
      "export const rows = signal(null);\nexport async function load() { const r = await fetch('/api/tides'); rows.value = await r.json(); }",
      'rows.value && <Card />',
    ],
    [
      'a signal that is asked by calling it',
      "export const [rows, setRows] = createSignal([]);\nexport const load = () => fetch('/api/tides').then((r) => r.json()).then(setRows);",
      'rows().map(() => <Card />)',
    ],
    [
      'something else of the same module',
      "export const rows = signal(null);\nexport const size = signal(3);\nexport async function load() { const r = await fetch('/api/tides'); size.value = (await r.json()).length; }",
      'rows.value && <Card />',
    ],
  ])('what another module keeps: %s', (name, kept, shown) => {
    const found = cardAfter({
      'src/kept.ts': `import { signal, createSignal } from 'signals';\n${kept}`,
      'src/page.tsx': `import { useEffect } from 'react';\nimport Card from './card';\nimport { rows, load } from './kept';\nexport default function Page() { useEffect(() => { load(); }, []); return <p>{${shown}}</p>; }`,
    });
    expect(found).toEqual(name.startsWith('something') ? [] : ['/api/tides']);
  });

  it('is nothing where a component is given something else', () => {
    const found = cardAfter({
      'src/page.tsx': `import { useQuery } from 'asking';\nimport { List } from './list';\nexport default function Page() { const { data } = useQuery({ queryFn: () => fetch('/api/tides') }); return <List rows={[1]} other={data} />; }`,
      'src/list.tsx': `import Card from './card';\nexport function List({ rows }) { return rows.map((r) => <Card key={r} />); }`,
    });
    // Its direct parts are the page's; what these draw at once belongs to them.
    expect(found ?? []).toEqual([]);
  });

  it('isn’t what another component of the file waits for under the same name', () => {
    const found = cardAfter({
      'src/page.tsx': `import { useQuery } from 'asking';\nimport Card from './card';\nfunction Other() { const { data } = useQuery({ queryFn: () => fetch('/api/other') }); return data; }\nexport default function Page() { const { data } = useQuery({ queryFn: () => fetch('/api/tides') }); return <>{data && <Card />}<Other /></>; }`,
    });
    expect(found).toEqual(['/api/tides']);
  });

  it.each<[style: string, files: Record<string, string>]>([
    [
      'vue',
      {
        'src/page.vue': `<script setup>\nimport { ref, onMounted } from 'vue';\nimport Card from './Card.vue';\nconst rows = ref([]);\nonMounted(async () => { rows.value = await (await fetch('/api/tides')).json(); });\n</script>\n<template><p><Card v-for="(row, i) in rows" :key="i" :row="row" /></p></template>`,
      },
    ],
    [
      'vue, awaited',
      {
        'src/page.vue': `<script setup>\nimport Card from './Card.vue';\nconst rows = await fetch('/api/tides').then((r) => r.json());\n</script>\n<template><Card :rows="rows" /></template>`,
      },
    ],
    [
      'vue, by options',
      {
        'src/page.vue': `<script>\nimport Card from './Card.vue';\nexport default { components: { Card }, data() { return { rows: null }; }, async mounted() { this.rows = await (await fetch('/api/tides')).json(); } };\n</script>\n<template><Card v-if="rows" /></template>`,
      },
    ],
  ])('%s', (_, files) => {
    const found = cardAfter({
      'src/main.tsx': "import Page from './page.vue';\nexport const routes = [{ path: '/tides', component: Page }];",
      'src/Card.vue': '<template><b>card</b></template>',
      ...files,
    });
    expect(found).toEqual(['/api/tides']);
  });

  it.each([
    [
      'each',
      `{#each rows as row}<Card {row} />{/each}`,
      `let rows = $state([]);\nonMount(async () => { rows = await (await fetch('/api/tides')).json(); });`,
    ],
    [
      'if',
      `{#if rows}<Card />{/if}`,
      `let rows = null;\nonMount(() => { fetch('/api/tides').then((r) => r.json()).then((r) => { rows = r; }); });`,
    ],
    [
      'await',
      `{#await tides}<i />{:then rows}<Card {rows} />{/await}`,
      `const tides = fetch('/api/tides').then((r) => r.json());`,
    ],
    ['a store', '{#each $rows as row}<Card {row} />{/each}', "import { rows, load } from './kept';\nonMount(load);"],
  ])('svelte, %s', (_, markup, script) => {
    const found = cardAfter({
      'src/main.tsx': "import Page from './page.svelte';\nexport const routes = [{ path: '/tides', component: Page }];",
      'src/Card.svelte': '<b>card</b>',
      'src/kept.js':
        "import { writable } from 'svelte/store';\nexport const rows = writable([]);\nexport async function load() { const r = await fetch('/api/tides'); rows.set(await r.json()); }",
      'src/page.svelte': `<script>\nimport { onMount } from 'svelte';\nimport Card from './Card.svelte';\n${script}\n</script>\n${markup}`,
    });
    expect(found).toEqual(['/api/tides']);
  });
});

describe('what a component of a decorated class is drawn after', () => {
  it.each([
    ['a block for each', '@for (row of rows; track row.id) { <tide-card [row]="row" /> }'],
    ['an attribute for each', '<tide-card *ngFor="let row of rows" [row]="row" />'],
    ['a block', '@if (rows) { <tide-card /> } @else { <i></i> }'],
  ])('%s', (_, template) => {
    const found = cardAfter({
      'src/main.tsx': "import { Page } from './page';\nexport const routes = [{ path: 'tides', component: Page }];",
      'src/tide-card.ts':
        "import { Component } from '@angular/core';\n@Component({ selector: 'tide-card', template: '<b>card</b>' })\nexport class Card {}",
      'src/page.ts': `import { Component, inject } from '@angular/core';\nimport { HttpClient } from '@angular/common/http';\nimport { Card } from './tide-card';\n@Component({ selector: 'tide-page', imports: [Card], template: \`${template}\` })\nexport class Page {\n  http = inject(HttpClient);\n  rows = null;\n  ngOnInit() {\n    this.http.get('/api/tides').subscribe((rows) => { this.rows = rows; });\n  }\n}`,
    });
    expect(found).toEqual(['/api/tides']);
  });
});

describe('when a call for data is made', () => {
  const begins = (files: Record<string, string>) => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': '<script type="module" src="/src/main.tsx"></script>',
        'src/main.tsx':
          "import Page, { loader } from './page';\nexport const routes = [{ path: '/tides', element: <Page />, loader }];",
        ...files,
      }),
    );
    const [{ data, pageAfter }] = snapshot.routes;
    return [data.map((d) => d.begins ?? 'drawn'), pageAfter ?? []];
  };

  it.each([
    [
      'as a component is drawn',
      "export default function Page() { useEffect(() => { fetch('/api/tides'); }); return <p />; }",
      'drawn',
      [],
    ],
    [
      'as a component is drawn, which a resource holds up',
      "export default function Page() { const [tides] = createResource(() => fetch('/api/tides')); return <p>{tides()}</p>; }",
      'drawn',
      ['tides'],
    ],
    [
      'as a component is drawn, which asks first whether a resource is there',
      "export default function Page() { const [tides] = createResource(() => fetch('/api/tides')); return <p>{tides.loading ? '' : tides()}</p>; }",
      'drawn',
      [],
    ],
    ['as its module runs', "fetch('/api/tides');\nexport default function Page() { return <p />; }", 'evaluated', []],
    [
      'by the router, which waits for it',
      "export async function loader() { return fetch('/api/tides'); }\nexport default function Page() { return <p />; }",
      'evaluated',
      ['tides'],
    ],
  ])('%s', (_, text, when, pageAfter) => {
    expect(begins({ 'src/page.tsx': text })).toEqual([[when], pageAfter]);
  });

  it.each([
    ['once it shows, in an effect', "useEffect(() => { fetch('/api/tides'); }); return <p />;", 'shown', []],
    [
      'while it is drawn, by what holds it up',
      "useSuspenseQuery(() => fetch('/api/tides')); return <p />;",
      'drawn',
      ['tides'],
    ],
    [
      'while what has a placeholder of its own is drawn',
      "return <Suspense><Rows /></Suspense>; }\nfunction Rows() { use(fetch('/api/tides')); return <p />;",
      'drawn',
      [],
    ],
  ])('%s, where effects run after painting', (_, body, when, pageAfter) => {
    const react = { name: 'react', version: '19.0.0', main: 'index.js' };
    const found = begins({
      'node_modules/react/package.json': JSON.stringify(react),
      'node_modules/react/index.js': 'exports.useEffect = (f) => f();',
      'node_modules/react/jsx-runtime.js': 'exports.jsx = () => {};',
      'src/page.tsx': `import { useEffect } from 'react';\nexport default function Page() { ${body} }`,
    });
    expect(found).toEqual([[when], pageAfter]);
  });
});
