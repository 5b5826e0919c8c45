import { parseScript } from '../parse-script.ts';

/** When a component `A` is drawn by the body of a function. */
function drawn(body: string, head = ''): unknown {
  const text = `import { A } from './a';\nimport { B, Wrap, useThing } from './b';\n${head}\nexport function X() { ${body} }`;
  const { uses, error } = parseScript('x.jsx', text, { jsxImportSource: 'react' });
  expect(error).toBeNull();
  const when = uses.find((u) => u.specifier === './a')?.when as unknown as Record<string, unknown>;
  return when.action ?? when.condition ?? when.specifier ?? when.kind;
}

const STATE = 'const [open, toggle] = useState(false);';
const narrow = { kind: 'media', maxWidth: 600 };

describe('when a component is drawn', () => {
  it.each([
    ['plainly', 'return <A />;', 'drawn'],
    ['on a click', `${STATE} return <><b onClick={() => toggle(!open)}>Open it</b>{open && <A />}</>;`, 'Open it'],
    ['in the other branch', `${STATE} return <><b onClick={toggle}>Go</b>{open ? <B /> : <A />}</>;`, 'drawn'],
    ['unless closed', `${STATE} return <><b onClick={toggle}>Go</b>{!open || <A />}</>;`, 'Go'],
    [
      'by a handler’s name',
      `${STATE} const go = () => { toggle(true); }; return <><b onClick={go}>Go</b>{open ? <A /> : null}</>;`,
      'Go',
    ],
    [
      'by a remembered handler',
      `${STATE} const go = useCallback(() => toggle(true)); return <><b onClick={go}>Go</b>{open ? <A /> : null}</>;`,
      'Go',
    ],
    [
      'after an early return',
      `${STATE} if (!open) return <b onClick={() => toggle(true)}>Write</b>; return <A />;`,
      'Write',
    ],
    ['before a later one', `${STATE} if (open) return <B />; return <><A /><b onClick={toggle}>Go</b></>;`, 'drawn'],
    [
      'by a reducer',
      `const [s, send] = useReducer(r, { sheet: null }); return <><b onClick={() => send('map')}>Map</b><b onClick={() => send('a')}>See A</b>{s.sheet === 'a' && <A />}</>;`,
      'See A',
    ],
    [
      'by a case',
      `const [step, go] = useState(1); switch (step) { case 1: return <b onClick={() => go(2)}>Next</b>; case 2: return <A />; }`,
      'Next',
    ],
    [
      'by the first case',
      `const [step, go] = useState(1); switch (step) { case 1: return <A onNext={() => go(2)} />; case 2: return <B />; }`,
      'drawn',
    ],
    [
      'by an object’s function',
      'const sheet = useThing(); return <><b onClick={sheet.show}>Show</b>{sheet.on && <A />}</>;',
      'Show',
    ],
    ['on narrow screens', "return matchMedia('(max-width: 600px)').matches ? <A /> : <B />;", narrow],
    [
      'on other screens',
      "const slim = matchMedia('(max-width: 600px)').matches; return slim ? <B /> : <A />;",
      { kind: 'media', minWidth: 601 },
    ],
    ['as another module says', 'const slim = useThing(); return slim && <A />;', './b'],
    ['for readers', 'return user ? <A /> : <B />;', { kind: 'segment', segment: 'signed in' }],
    ['for strangers', 'return user ? <B /> : <A />;', { kind: 'segment', segment: 'not signed in' }],
    [
      'as an answer says',
      'const book = loadBook(); return book.spoken ? <A /> : null;',
      { kind: 'answer', of: 'book' },
    ],
    ['once there is an answer', 'const { rows } = useQuery(); return rows ? <A /> : null;', 'drawn'],
    ['while there are rows', 'const { rows } = useQuery(); return rows.length > 0 ? <A /> : null;', 'drawn'],
    ['without a button that is known', `${STATE} return open && <A />;`, 'drawn'],
    ['with a label for words', `${STATE} return <><b aria-label="Open" onClick={toggle} />{open && <A />}</>;`, 'Open'],
  ])('%s', (_, body, when) => {
    expect(drawn(body)).toEqual(when);
  });

  it('from a table, by what is looked up', () => {
    const head = 'const VIEWS = { one: B, two: A };';
    const view = (first: string) =>
      `const [at, go] = useState('${first}'); const View = VIEWS[at]; return <><b onClick={() => go('two')}>Second</b><View /></>;`;
    expect(drawn(view('one'), head)).toBe('Second');
    expect(drawn(view('two'), head)).toBe('drawn');
  });

  it('tells which components of other modules stand around it', () => {
    const { uses } = parseScript(
      'x.jsx',
      "import { A } from './a';\nimport { Wrap } from './b';\nexport const X = () => <Wrap><p><A /></p></Wrap>;",
      { jsxImportSource: 'react' },
    );
    expect(uses.map((u) => [u.specifier, u.inside])).toEqual([
      ['./b', []],
      ['./a', ['./b']],
    ]);
  });
});
