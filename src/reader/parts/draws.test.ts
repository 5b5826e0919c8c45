import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

/** How often the page of an app draws its row, by the page's markup, as its module says. */
function drawn(file: string, page: string): { times: number; rows?: number; filled?: number } | undefined {
  const { snapshot } = readSource(
    folderOf({
      'package.json': '{ "dependencies": { "react": "*", "vue": "*", "svelte": "*" } }',
      'index.html': '<div id="root"></div><script type="module" src="/main.js"></script>',
      'main.js': `import Page from './${file}';\nglobalThis.page = Page;`,
      [file]: page,
      'row.jsx': 'export default function Row() { return <li>row</li>; }',
      'row.vue': '<template><li>row</li></template>',
      'row.svelte': '<li>row</li>',
    }),
  );
  const at = (path: string) => snapshot.modules.findIndex((m) => m.path === path);
  const draws = snapshot.modules[at(file)].draws?.find((d) => /^row\./.test(snapshot.modules[d.module].path));
  if (!draws) return undefined;
  const { module, ...times } = draws;
  return times;
}

describe('what a module draws', () => {
  const inReact = (markup: string) =>
    drawn('page.jsx', `import Row from './row.jsx';\nexport default function Page(p) { return <ul>${markup}</ul>; }`);

  it('counts each place, as often as the lists around are long', () => {
    expect(inReact('<Row /><Row />')).toEqual({ times: 2 });
    expect(inReact('{[1, 2, 3].map((n) => <Row key={n} />)}<Row />')).toEqual({ times: 4 });
  });

  it('counts rows of lists of unknown length apart, those of one within another three times', () => {
    expect(inReact('{p.all.map((n) => <Row key={n} />)}')).toEqual({ times: 0, rows: 1 });
    expect(inReact('<Row />{p.all.map((n) => <b key={n}><Row /><Row /></b>)}')).toEqual({ times: 1, rows: 2 });
    expect(inReact('{p.all.map((r) => <b key={r}>{r.map((c) => <Row key={c} />)}</b>)}')).toEqual({
      times: 0,
      rows: 3,
    });
  });

  it('counts apart what comes once an answer is there that it asks for itself', () => {
    const page = (markup: string) =>
      drawn(
        'page.jsx',
        `import Row from './row.jsx';\nimport { useEffect, useState } from 'react';\nexport default function Page() {\nconst [tide, setTide] = useState(null);\nuseEffect(() => { fetch('/api/tide').then(setTide); }, []);\nreturn <p>${markup}</p>; }`,
      );
    expect(page('{tide ? <><Row /><Row /></> : <i />}')).toEqual({ times: 0, filled: 2 });
    expect(page('<Row />{tide && <Row />}')).toEqual({ times: 1, filled: 1 });
    expect(page('{tide ? <i /> : <Row />}')).toEqual({ times: 1 });
  });

  it('does so in templates as well', () => {
    const vue = "<script setup>\nimport Row from './row.vue';\nconst p = defineProps(['all']);\n</script>\n";
    expect(drawn('page.vue', `${vue}<template><ul><Row v-for="n in all" :key="n" /><Row /></ul></template>`)).toEqual({
      times: 1,
      rows: 1,
    });
    const svelte = "<script>\nimport Row from './row.svelte';\nlet { all } = $props();\n</script>\n";
    expect(drawn('page.svelte', `${svelte}<ul>{#each all as n}<Row />{/each}</ul>`)).toEqual({ times: 0, rows: 1 });
  });
});
