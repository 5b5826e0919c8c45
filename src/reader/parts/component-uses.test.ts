import { parseScript } from '../script/parse-script.ts';

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
      'for strangers, who come first',
      'if (!user) return <A />; return <B />;',
      { kind: 'segment', segment: 'not signed in' },
    ],
    ['for readers, after them', 'if (!user) return <B />; return <A />;', { kind: 'segment', segment: 'signed in' }],
    [
      'for strangers by another name',
      'const guest = !user; if (guest) return <A />; return <B />;',
      { kind: 'segment', segment: 'not signed in' },
    ],
    [
      'for readers after those of another name',
      'const guest = user === null; if (guest) return <B />; return <A />;',
      { kind: 'segment', segment: 'signed in' },
    ],
    [
      'for strangers once all is ready',
      'const ready = useThing(); if (!user && ready.now) return <A />; return <B />;',
      { kind: 'segment', segment: 'not signed in' },
    ],
    ['unless there is nobody', 'return user !== undefined && <A />;', { kind: 'segment', segment: 'signed in' }],
    [
      'unless the screen is narrow',
      "if (!matchMedia('(max-width: 600px)').matches) return <A />; return <B />;",
      { kind: 'media', minWidth: 601 },
    ],
    [
      'as an answer says',
      'const book = loadBook(); return book.spoken ? <A /> : null;',
      { kind: 'answer', of: 'book' },
    ],
    ['once there is an answer', 'const { rows } = useQuery(); return rows ? <A /> : null;', 'drawn'],
    ['while there are rows', 'const { rows } = useQuery(); return rows.length > 0 ? <A /> : null;', 'drawn'],
    ['without a button that is known', `${STATE} return open && <A />;`, 'drawn'],
    ['in a dialog that opens', `${STATE} return <><b onClick={toggle}>Go</b><Wrap open={open}><A /></Wrap></>;`, 'Go'],
    [
      'beside what opens a dialog',
      `${STATE} return <Wrap open={open}><WrapTrigger><A /></WrapTrigger></Wrap>;`,
      'drawn',
    ],
    ['as a dialog itself', `${STATE} return <><b onClick={toggle}>Go</b><A open={open} /></>;`, 'Go'],
    [
      'in a content with its trigger',
      'return <Wrap><WrapTrigger>Go</WrapTrigger><WrapContent><A /></WrapContent></Wrap>;',
      'Go',
    ],
    [
      'in a content of an object',
      'return <Wrap.Root><Wrap.Trigger>Go</Wrap.Trigger><Wrap.Content><A /></Wrap.Content></Wrap.Root>;',
      'Go',
    ],
    [
      'in a content that begins open',
      'return <Wrap defaultOpen><WrapTrigger>Go</WrapTrigger><WrapContent><A /></WrapContent></Wrap>;',
      'drawn',
    ],
    [
      'on a tab',
      'return <Tabs defaultValue="b"><TabsTrigger value="b">B</TabsTrigger><TabsTrigger value="a">See A</TabsTrigger><TabsContent value="a"><A /></TabsContent></Tabs>;',
      'See A',
    ],
    [
      'on the first tab',
      'return <Tabs defaultValue="a"><TabsTrigger value="a">A</TabsTrigger><TabsContent value="a"><A /></TabsContent></Tabs>;',
      'drawn',
    ],
    ['in a content without a trigger', 'return <WrapContent><A /></WrapContent>;', 'drawn'],
    [
      'by what follows from a state',
      `${STATE} const shut = !open; return <><b onClick={toggle}>Go</b>{!shut && <A />}</>;`,
      'Go',
    ],
    [
      'by a function that is called',
      `${STATE} const a = () => <A />; return <><b onClick={toggle}>Go</b>{open && a()}</>;`,
      'Go',
    ],
    [
      'by a component of its own',
      `${STATE} const Own = () => <A />; return <><b onClick={toggle}>Go</b>{open && <Own />}</>;`,
      'Go',
    ],
    [
      'by its own component, plainly too',
      `${STATE} const Own = () => <A />; return <><b onClick={toggle}>Go</b>{open && <Own />}<Own /></>;`,
      'drawn',
    ],
    [
      'by what a store keeps',
      'const { sheet, openSheet } = useThing(); return <><b onClick={openSheet}>Go</b>{sheet && <A />}</>;',
      'Go',
    ],
    [
      'by what is dispatched',
      'const sheet = useThing((s) => s.sheet); const dispatch = useThing(); return <><b onClick={() => dispatch(openSheet())}>Go</b>{sheet && <A />}</>;',
      'Go',
    ],
    [
      'by a listener',
      `${STATE} node.addEventListener('keydown', () => toggle(true)); return open && <A />;`,
      'keydown in node',
    ],
    ['in sight, by a hook', 'const [ref, inView] = useInView(); return <p ref={ref}>{inView && <A />}</p>;', 'seen'],
    [
      'in sight, by an observer',
      `${STATE} new IntersectionObserver(() => toggle(true)); return open && <A />;`,
      'seen',
    ],
    [
      'by opening, not by closing',
      `${STATE} return <><b onClick={() => toggle(false)}>Close</b><b onClick={() => toggle(true)}>Open</b>{open && <A />}</>;`,
      'Open',
    ],
    [
      'where an element decides',
      `${STATE} return <><b onClick={toggle}>Go</b><Show when={open}><A /></Show></>;`,
      'Go',
    ],
    [
      'by a signal',
      'const [open, toggle] = createSignal(false); return <><b onClick={() => toggle(true)}>Go</b>{open() && <A />}</>;',
      'Go',
    ],
    ['unless a module says otherwise', 'const wide = useThing(); return !wide && <A />;', './b'],
    [
      'on narrow screens, in other units',
      "return matchMedia('(max-width: 40em)').matches && <A />;",
      { kind: 'media', maxWidth: 640 },
    ],
    ['handed to a call', 'return <b onClick={() => dialog.open(A, { wide: true })}>Go</b>;', 'Go'],
    ['handed to a call, by a function', 'const go = () => dialog.open(A); return <b onClick={go}>Go</b>;', 'Go'],
    ['drawn into a call', 'return <b onClick={() => dialog.show(<A />)}>Go</b>;', 'Go'],
    [
      'with the words of the label around',
      `${STATE} return <><label><input onChange={toggle} /> Wide</label>{open && <A />}</>;`,
      'Wide',
    ],
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

  it('from a list, by what tells its items apart, with the words on their buttons', () => {
    const head =
      "const VIEWS = [{ key: 'one', label: 'First', View: B }, { key: 'two', label: 'Second', View: A }] as const;";
    const text = `import { A } from './a';\nimport { B } from './b';\n${head}\nexport function X() { const [at, go] = useState('one'); const View = VIEWS.find((v) => v.key === at)!.View; return <>{VIEWS.map((v) => <b onClick={() => go(v.key)}>{v.label}</b>)}<View /></>; }`;
    const { uses } = parseScript('x.tsx', text, { jsxImportSource: 'react' });
    expect(uses.map((u) => [u.specifier, u.when.kind === 'action' ? u.when.action : u.when.kind])).toEqual([
      ['./b', 'drawn'],
      ['./a', 'Second'],
    ]);
  });

  it('by a name that gets it later', () => {
    const text =
      "export function X() { const [Map, setMap] = useState(null); const open = () => import('./map').then((m) => setMap(() => m.Map)); return <><b onClick={open}>Map</b>{Map && <Map />}</>; }";
    const { uses } = parseScript('x.jsx', text, { jsxImportSource: 'react' });
    expect(uses.map((u) => [u.specifier, u.when])).toEqual([['./map', { kind: 'action', action: 'Map' }]]);
  });

  it.each([
    [
      'a class',
      "import { A } from './a';\nclass X extends Component { state = { open: false, other: false }; render() { return <><b onClick={() => this.setState({ other: true })}>No</b><b onClick={() => this.setState({ open: true })}>Go</b>{this.state.open && <A />}</>; } }",
    ],
    [
      'an object that another module keeps',
      "import { A } from './a';\nimport { ui } from './ui';\nexport const X = () => <><b onClick={() => { ui.open = true; }}>Go</b>{ui.open && <A />}</>;",
    ],
  ])('as %s says', (_, text) => {
    const { uses } = parseScript('x.jsx', text, { jsxImportSource: 'react' });
    expect(uses.map((u) => u.when)).toEqual([{ kind: 'action', action: 'Go' }]);
  });

  it('is none where only a route names it', () => {
    const text =
      "import { A } from './a';\nexport const routes = [{ path: '/', element: <A /> }];\nexport const more = <Route path=\"/a\" element={<A />} />;";
    expect(parseScript('x.jsx', text, { jsxImportSource: 'react' }).uses).toEqual([]);
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
