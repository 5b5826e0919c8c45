// biome-ignore-all lint/suspicious/noTemplateCurlyInString: the code that is read holds them.
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';
import { answersInFolder } from './app-types.ts';
import type { Shape } from './shape.ts';

afterAll(removeFolders);

/** What a shape is, in short: `{ id: number, lines: [text] }`. */
function short(shape: Shape): string {
  switch (shape.is) {
    case 'one of':
      return shape.values.map((v) => JSON.stringify(v)).join('|');
    case 'any of':
      return shape.shapes.map(short).join(' or ');
    case 'list':
      return `[${short(shape.of)}]`;
    case 'record':
      return `{*: ${short(shape.of)}}`;
    case 'object':
      return `{${shape.fields.map((f) => `${f.name}: ${short(f.of)}`).join(', ')}}`;
    default:
      return shape.is;
  }
}

const read = (files: Record<string, string>) => {
  const folder = folderOf({
    'package.json': '{ "dependencies": { "react": "*", "vue": "*", "svelte": "*" } }',
    'index.html': '<div id="root"></div><script type="module" src="/src/main.tsx"></script>',
    'src/main.tsx': "import Page from './page';\nexport const routes = [{ path: '/tides', element: <Page /> }];",
    ...files,
  });
  const found = answersInFolder(folder, readSource(folder).snapshot, '/tides');
  return Object.fromEntries([...found].map(([address, { shape }]) => [address, short(shape)]));
};
const TYPES = 'export interface Tide { id: number; at: string }';
const page = (body: string, head = '', files: Record<string, string> = {}) =>
  read({
    'src/types.ts': TYPES,
    'src/page.tsx': `import type { Tide } from './types';\n${head}\nexport default function Page() {\n${body}\nreturn <p />; }`,
    ...files,
  });
const ALL = '[{id: number, at: text}]';

describe('types that code states of answers', () => {
  it.each([
    ['an argument of the call', "useEffect(() => { http.get<Tide[]>('/tides'); }, []);"],
    [
      'one of what takes the function that asks',
      "useQuery<Tide[]>({ queryFn: () => fetch('/tides').then((r) => r.json()) });",
    ],
    [
      'a type in brackets behind it',
      "const load = async () => { const all = (await (await fetch('/tides')).json()) as Tide[]; }; load();",
    ],
    [
      'that of the variable',
      "const load = async () => { const r = await fetch('/tides'); const all: Tide[] = await r.json(); }; load();",
    ],
    [
      'that of the function',
      "const load = async (): Promise<Tide[]> => { const r = await fetch('/tides'); return r.json(); }; load();",
    ],
    [
      'that of a function that is handed on',
      "useQuery({ queryFn: async (): Promise<Tide[]> => (await fetch('/tides')).json() });",
    ],
    [
      'that of a state',
      "const [all, setAll] = useState<Tide[]>([]); useEffect(() => { fetch('/tides').then((r) => r.json()).then(setAll); }, []);",
    ],
    [
      'the same, handed on by a function',
      "const [all, setAll] = useState<Tide[]>([]); useEffect(() => { fetch('/tides').then((r) => r.json()).then((found) => { setAll(found); }); }, []);",
    ],
    [
      'the same, awaited',
      "const [all, setAll] = useState<Tide[]>([]); const load = async () => { setAll(await (await fetch('/tides')).json()); }; load();",
    ],
    ['what a callback takes', "fetch('/tides').then((r) => r.json()).then((all: Tide[]) => show(all));"],
    ['what a callback gives', "fetch('/tides').then((r) => r.json() as Promise<Tide[]>).then(show);"],
    ['an argument of what unpacks it', "ky.get('/tides').json<Tide[]>();"],
    [
      'a signal that is set',
      "const all = signal<Tide[]>([]); const load = async () => { all.set(await (await fetch('/tides')).json()); }; load();",
    ],
    [
      'a variable that is set later',
      "let all: Tide[] = []; const load = async () => { all = await (await fetch('/tides')).json(); }; load();",
    ],
    [
      'a member of what came',
      "const load = async () => { const r = await axios.get('/tides'); const all: Tide[] = r.data; }; load();",
    ],
  ])('%s', (_, body) => {
    expect(page(body, "import axios from 'axios'; import ky from 'ky'; import http from 'axios';")).toEqual({
      '/tides': ALL,
    });
  });

  it.each([
    ['nothing', "fetch('/tides').then((r) => r.json()).then(show);"],
    [
      'that it can be anything',
      "const load = async () => { const all = (await (await fetch('/tides')).json()) as any; }; load();",
    ],
    ['what no file declares', "http.get<Gone>('/tides');"],
    ['what something else is', "const n: number = 1; fetch('/tides'); const all: Tide[] = [];"],
  ])('are none where it states %s', (_, body) => {
    expect(page(body, "import http from 'axios';")).toEqual({});
  });

  const CLIENT = {
    'src/client.ts':
      'export async function getJson<T>(path: string): Promise<T> { const r = await fetch(`/api${path}`); return (await r.json()) as T; }',
    'src/tides.ts':
      "import { getJson } from './client';\nimport type { Tide } from './types';\nexport const tidesOf = () => getJson<Tide[]>('/tides');\nexport const tideOf = (id: string): Promise<Tide> => getJson(`/tides/${id}`);",
  };

  it('are those nearest to the server that say something, through modules', () => {
    const found = page(
      'useQuery({ queryFn: tidesOf }); const one: string = useQuery({ queryFn: () => tideOf(props.id) });',
      "import { tideOf, tidesOf } from './tides';",
      CLIENT,
    );
    expect(found).toEqual({ '/api/tides': ALL, '/api/tides/:id': '{id: number, at: text}' });
  });

  it('are found through what passes names on, declarations and aliases of folders', () => {
    const found = page('useQuery({ queryFn: tidesOf });', "import { tidesOf } from './all';", {
      ...CLIENT,
      'src/all.ts': "export * from './tides';\nexport { getJson } from './client';",
      'src/tides.ts':
        "import { getJson } from '@/all';\nimport type { Tide } from '@/told';\nexport const tidesOf = () => getJson<Tide[]>('/tides');",
      'src/told.d.ts': "export type { Low as Tide } from './low';",
      'src/low.ts': 'export type Low = { low: boolean };',
    });
    expect(found).toEqual({ '/api/tides': '[{low: flag}]' });
  });

  it('are found in components of one file', () => {
    const vue =
      "<script setup lang=\"ts\">\nimport { ref } from 'vue';\nimport type { Tide } from './types';\nconst all = ref<Tide[]>([]);\nfetch('/tides').then(async (r) => { all.value = await r.json(); });\n</script>\n<template><p>{{ all.length }}</p></template>";
    const svelte =
      "<script lang=\"ts\">\nimport type { Tide } from './types';\nlet all = $state<Tide[]>([]);\nconst load = async () => { all = await (await fetch('/tides')).json(); };\nload();\n</script>\n<p>{all.length}</p>";
    for (const [file, text] of Object.entries({ 'src/page.vue': vue, 'src/page.svelte': svelte })) {
      const main = `import Page from './${file.slice(4)}';\nexport const routes = [{ path: '/tides', component: Page }];`;
      expect(read({ 'src/types.ts': TYPES, 'src/main.tsx': main, [file]: text })).toEqual({ '/tides': ALL });
    }
  });
});

describe('what values of a type look like', () => {
  const shapeOf = (type: string, declared = '') =>
    page("http.get<Written>('/x');", `import http from 'axios';\n${declared}\ntype Written = ${type};`)['/x'];

  it.each<[string, string, string?]>([
    ['{ a: string; b?: number; readonly c: boolean | null; d(): void }', '{a: text, b: number, c: flag}'],
    ["{ a: 'x' | 'y'; b: 1 | null; c: true }", '{a: "x"|"y", b: 1, c: true}'],
    [
      '{ at: Date; all: ReadonlyArray<string>; two: [number, string]; of: readonly number[] }',
      '{at: date, all: [text], two: [number or text], of: [number]}',
    ],
    [
      '{ by: Record<string, number>; of: { [name: string]: Tide } }',
      '{by: {*: number}, of: {*: {id: number, at: text}}}',
    ],
    ["Record<'a' | 'b', number>", '{a: number, b: number}'],
    ["{ [K in 'a' | 'b']: string }", '{a: text, b: text}'],
    ["Pick<Tide, 'id'> & { more: string }", '{id: number, more: text}'],
    ["Omit<Tide, 'id'>", '{at: text}'],
    ['Partial<Tide>[]', ALL],
    ["Tide['at'][]", '[text]'],
    ['Promise<Tide | undefined>', '{id: number, at: text}'],
    ['A', '{id: number, at: text, low: flag}', 'interface A extends Tide { low: boolean }'],
    [
      'Pages<Tide>',
      '{items: [{id: number, at: text}], next: text}',
      'interface Pages<T> { items: T[]; next: string | null }',
    ],
    ['Pages', '{items: [text]}', 'type Pages<T = string> = { items: T[] };'],
    ['State', '"low"|"high"', "const STATES = ['low', 'high'] as const;\ntype State = (typeof STATES)[number];"],
    ['Kind', '"a"|1|7', "enum Kind { A = 'a', B, C = 7 }"],
    ['Kept', '{a: number}', 'class Kept { static all = 1; a: number = 1; b() {} }'],
    ['A | B', '{kind: "a"} or {kind: "b"}', "type A = { kind: 'a' };\ntype B = { kind: 'b' };"],
    ['keyof Tide', '"id"|"at"'],
    ['UseQueryResult<Tide[]>', ALL, "import type { UseQueryResult } from 'queries';"],
    [
      'z.infer<typeof SCHEMA>',
      '{id: number, on: flag, at: date, tags: [text], state: "a"|"b", by: {*: number}, of: {n: number}, or: text or number, more: text}',
      "const N = z.object({ n: z.number().int() });\nconst STATES = ['a', 'b'] as const;\nconst SCHEMA = z.object({ id: z.coerce.number(), on: z.boolean().default(false), at: z.date(), tags: z.array(z.string().min(1)), state: z.enum(STATES), by: z.record(z.string(), z.number()), of: N.optional(), or: z.union([z.string(), z.number()]) }).extend({ more: z.string().nullable() });",
    ],
  ])('%s', (type, expected, declared = '') => {
    expect(shapeOf(type, declared)).toBe(expected);
  });

  it('ends where types hold themselves', () => {
    expect(shapeOf('Tree', 'type Tree = { name: string; below: Tree[] };')).toMatch(
      /^\{name: text, below: \[\{name: text/,
    );
    expect(shapeOf('A', 'type A = B;\ntype B = A;')).toBeUndefined();
  });

  it('is what a schema lets through that checks the answer', () => {
    const found = page(
      "const load = async () => { const all = TIDES.parse(await (await fetch('/tides')).json()); }; load();",
      'const TIDES = z.array(z.object({ id: z.number() }));',
    );
    expect(found).toEqual({ '/tides': '[{id: number}]' });
  });
});
