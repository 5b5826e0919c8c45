import { parseScript } from '../script/parse-script.ts';

/** How often a component `A` is drawn by the body of a function; `head` stands at the top level of the module. */
function drawn(body: string, head = ''): { times: number; inLists: number } {
  const text = `import { A } from './a';\nimport { B } from './b';\n${head}\nexport function X(p) { return ${body}; }`;
  const { uses, error } = parseScript('x.tsx', text, { jsxImportSource: 'react' });
  expect(error).toBeNull();
  const use = uses.find((u) => u.specifier === './a');
  expect(use?.when.kind).toBe('drawn');
  const { times = 1, inLists = 0 } = use!;
  return { times, inLists };
}

const TABS = 'const TABS = ["a", "b", "c"];';

describe('how often a list draws what stands in it', () => {
  it.each<[string, string, number, string?]>([
    ['a list that is written there', '<>{[1, 2].map((x) => <A key={x} />)}</>', 2],
    ['a constant of the module', '<ul>{TABS.map((t) => <li key={t}><A /></li>)}</ul>', 3, TABS],
    ['an exported one', '<>{TABS.map((t) => <A key={t} />)}</>', 3, `export ${TABS}`],
    ['one with its type', '<>{L.map((t) => <A key={t} />)}</>', 2, 'const L = [1, 2] as const;'],
    ['a list of a length', '<>{Array.from({ length: 8 }, (_, i) => <A key={i} />)}</>', 8],
    [
      'one whose length is named',
      '<>{Array.from({ length: ROWS }, (_, i) => <A key={i} />)}</>',
      300,
      'const ROWS = 300;',
    ],
    ['one that is spread', '<>{[...Array(5)].map((_, i) => <A key={i} />)}</>', 5],
    ['one that is filled', '<>{new Array(4).fill(0).map((_, i) => <A key={i} />)}</>', 4],
    [
      'a made list',
      '<>{ROWS.map((r) => <A key={r} />)}</>',
      40,
      'const ROWS = Array.from({ length: 40 }, (_, i) => i);',
    ],
    ['lists put together', '<>{[...TABS, "d"].map((t) => <A key={t} />)}</>', 4, TABS],
    ['another order of it', '<>{TABS.toSorted().map((t) => <A key={t} />)}</>', 3, TABS],
    ['a piece of it', '<>{TABS.slice(0, 2).map((t) => <A key={t} />)}</>', 2, TABS],
    ['a piece that is longer than it', '<>{TABS.slice(1, 9).map((t) => <A key={t} />)}</>', 2, TABS],
    ['the first of any list', '<>{p.all.slice(0, 6).map((t) => <A key={t} />)}</>', 6],
    ['an object’s fields', '<>{Object.entries(BY).map(([k]) => <A key={k} />)}</>', 2, 'const BY = { a: 1, b: 2 };'],
    ['a list in a list', '<>{TABS.map((t) => <p key={t}>{[1, 2].map((n) => <A key={n} />)}</p>)}</>', 6, TABS],
    ['an element for each of a list', '<For each={TABS}>{(t) => <A t={t} />}</For>', 3, TABS],
    ['more than anybody draws', '<>{Array.from({ length: 90000 }, (_, i) => <A key={i} />)}</>', 1000],
  ])('%s', (_, body, expected, head = '') => {
    expect(drawn(body, head)).toEqual({ times: expected, inLists: 0 });
  });

  it.each<[string, string, string?]>([
    ['a list that is only searched', '<>{TABS.find((t) => t) ? <A /> : <A />}</>', TABS],
    ['what stands beside it', '<>{TABS.map((t) => <b key={t} />)}<A /></>', TABS],
  ])('but not %s', (_, body, head = '') => {
    expect(drawn(body, head)).toEqual({ times: 1, inLists: 0 });
  });

  it.each<[string, string, string?]>([
    ['an element for each of what is given', '<Index each={p.items}>{(x) => <A x={x()} />}</Index>'],
    ['what is given', '<>{p.items.map((x) => <A key={x} />)}</>'],
    ['what is left of a list', '<>{TABS.filter((t) => t).map((t) => <A key={t} />)}</>', TABS],
    ['what begins empty', '<>{L.map((x) => <A key={x} />)}</>', 'const L = [];'],
    ['what changes', '<>{L.map((x) => <A key={x} />)}</>', 'let L = [1, 2, 3];'],
    [
      'a name that means something else elsewhere',
      '<>{TABS.map((t) => <A key={t} />)}</>',
      `${TABS} function f(TABS) {}`,
    ],
    [
      'one that is taken out of something elsewhere',
      '<>{TABS.map((t) => <A key={t} />)}</>',
      `${TABS} const g = ({ TABS }) => 1;`,
    ],
    ['what comes from elsewhere', '<>{B.map((t) => <A key={t} />)}</>'],
    ['a list with an unknown piece', '<>{[...p.more, 1, 2].map((t) => <A key={t} />)}</>'],
  ])('is open of %s', (_, body, head = '') => {
    expect(drawn(body, head)).toEqual({ times: 1, inLists: 1 });
  });

  it('counts lists of both kinds around one another', () => {
    const cells = '{[1, 2].map((n) => <A key={n} />)}';
    expect(drawn(`<>{p.rows.map((r) => <p key={r}>${cells}</p>)}</>`)).toEqual({ times: 2, inLists: 1 });
    expect(drawn('<>{p.rows.map((r) => <p key={r}>{r.cells.map((c) => <A key={c} />)}</p>)}</>')).toEqual({
      times: 1,
      inLists: 2,
    });
  });
});
