import type { Decision } from '../src/core/plan/types.ts';

/** One way in which code uses what it imports. */
export interface PatchCase {
  name: string;
  files: Record<string, string>;
  /** What is pressed, one after another, by selector; with `hover` or `scroll` before it, only come to. */
  presses: string[];
  /** The module that is deferred. */
  target: string;
  /** After how many presses it is asked for; −1: it never is. */
  needed: number;
  /** What isn't needed yet may be missing until then: it is drawn below the screen. */
  below?: boolean;
  /** Key of the import; that of `app.tsx` for `./heavy` unless said. */
  import?: string;
  /** Decisions beside the deferral. */
  more?: Decision[];
  /** Why it can't be edited. */
  byHand?: RegExp;
}

const REACT = `import { createContext, memo, useContext, useEffect, useMemo, useRef, useState, Component } from 'react';\n`;
const FUNCTION = `export const heavy = (x: number) => x * 3;
export const LIMIT = 7;
export class TooMuch extends Error {}
export default heavy;
`;
const PART = `import { useState } from 'react';
export function Part({ name = 'nobody' }: { name?: string }) {
  const [n, setN] = useState(0);
  return <section>Part of {name} {n}<button id="more" onClick={() => setN(n + 1)}>more</button></section>;
}
export function Other() { return <p>other</p>; }
export default Part;
`;
const app = (lines: string) => `${REACT}${lines}`;

const COMMON = { presses: ['#go'] };

/** A case whose module is one of functions. */
function ofFunction(
  name: string,
  code: string,
  needed: number,
  { files, ...more }: Partial<PatchCase> = {},
): PatchCase {
  return {
    ...COMMON,
    name,
    files: { 'app.tsx': app(code), 'heavy.ts': FUNCTION, ...files },
    target: 'heavy.ts',
    needed,
    ...more,
  };
}

/** A case whose module is one of components. */
function ofPart(name: string, code: string, needed: number, { files, ...more }: Partial<PatchCase> = {}): PatchCase {
  return {
    ...COMMON,
    name,
    files: { 'app.tsx': app(code), 'heavy.tsx': PART, ...files },
    target: 'heavy.tsx',
    needed,
    ...more,
  };
}

const FUNCTIONS: PatchCase[] = [
  ofFunction(
    'a handler that shows an answer',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(heavy(n))}>{n}</button>;
}`,
    1,
    { presses: ['#go', '#go'] },
  ),
  ofFunction(
    'a function that a handler calls',
    `import { heavy } from './heavy';
function twice(x: number) { return heavy(x) * 2; }
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(twice(n))}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'functions that hand on answers',
    `import heavy from './heavy';
const once = (x: number) => heavy(x) + 1;
const twice = (x: number) => once(x) * 2;
export function App() {
  const [n, setN] = useState(1);
  const go = () => { const to = twice(n); setN(to); };
  return <button id="go" onClick={go}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a named handler with blocks',
    `import * as all from './heavy';
export function App() {
  const [n, setN] = useState(1);
  function go() {
    if (n > 100) return;
    try { setN(all.heavy(n)); } catch { setN(0); }
  }
  return <button id="go" onClick={go}>{n}</button>;
}`,
    1,
    { presses: ['#go', '#go', '#go'] },
  ),
  ofFunction(
    'a callback inside of a handler',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState([1, 2]);
  return <button id="go" onClick={() => setN(n.map((x) => heavy(x)))}>{n.join()}</button>;
}`,
    1,
  ),
  ofFunction(
    'a function handed to a callback',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState([1, 2]);
  return <button id="go" onClick={() => setN(n.map(heavy))}>{n.join()}</button>;
}`,
    1,
  ),
  ofFunction(
    'an effect',
    `import { heavy } from './heavy';
export function App() {
  const [on, setOn] = useState(false);
  const [n, setN] = useState(1);
  useEffect(() => { if (on) setN(heavy(2)); }, [on]);
  return <button id="go" onClick={() => setOn(true)}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'an effect with something to clean up',
    `import { heavy } from './heavy';
export function App() {
  const [on, setOn] = useState(false);
  const [n, setN] = useState(1);
  useEffect(() => {
    if (!on) return;
    setN(heavy(2));
    const timer = setInterval(() => {}, 1000);
    return () => clearInterval(timer);
  }, [on]);
  return <button id="go" onClick={() => setOn(true)}>{n}</button>;
}`,
    1,
    { byHand: /clean|at once/ },
  ),
  ofFunction(
    'an effect with a branch for each of two modules',
    `import { heavy } from './heavy';
import { light } from './light';
export function App() {
  const [on, setOn] = useState(0);
  const [n, setN] = useState(1);
  useEffect(() => { if (on === 1) setN(heavy(2)); else if (on === 2) setN(light(9)); }, [on]);
  return <button id="go" onClick={() => setOn(on + 1)}>{n}</button>;
}`,
    0,
    {
      files: { 'light.ts': 'export const light = (x: number) => x + 1;\n' },
      presses: ['#go', '#go'],
      more: [{ kind: 'detach', import: 'app.tsx::./light' }],
    },
  ),
  ofFunction(
    'two modules in one branch of a handler',
    `import { heavy } from './heavy';
import { light } from './light';
export function App() {
  const [n, setN] = useState(1);
  const go = () => { if (n < 100) setN(light(heavy(n))); };
  return <button id="go" onClick={go}>{n}</button>;
}`,
    1,
    {
      files: { 'light.ts': 'export const light = (x: number) => x + 1;\n' },
      presses: ['#go', '#go'],
      more: [{ kind: 'detach', import: 'app.tsx::./light' }],
    },
  ),
  ofFunction(
    'a function handed to a component that calls it in an effect',
    `import { heavy } from './heavy';
import { Shown } from './shown';
export function App() { return <Shown grow={heavy} />; }`,
    0,
    {
      files: {
        'shown.tsx': `import { useEffect, useState } from 'react';
export function Shown({ grow }: { grow: (x: number) => number }) {
  const [n, setN] = useState(1);
  useEffect(() => { setN(grow(2)); }, []);
  return <button id="go">{n}</button>;
}
`,
      },
      byHand: /uses its answer at once/,
    },
  ),
  ofFunction(
    'a barrel that passes everything on, but for a name of its own',
    `import { heavy, small } from './kit';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(heavy(n) + small)}>{n}</button>;
}`,
    0,
    {
      files: {
        'kit.ts': `export * from './heavy';\nexport { own as heavy, small } from './small';\n`,
        'small.ts': `export const small = 1;\nexport const own = (x: number) => x + 40;\n`,
      },
      import: 'kit.ts::./heavy',
      byHand: /nothing that was read imports/,
    },
  ),
  ofFunction(
    'a barrel that passes all on in one name',
    `import { all } from './kit';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(all.heavy(n))}>{n}</button>;
}`,
    0,
    {
      files: { 'kit.ts': `export * as all from './heavy';\n` },
      import: 'kit.ts::./heavy',
      byHand: /in one name/,
    },
  ),
  ofFunction(
    'what is used while drawing',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(n + 1)}>{heavy(n)}</button>;
}`,
    0,
    { byHand: /at once/ },
  ),
  ofFunction(
    'what a memo needs',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  const three = useMemo(() => heavy(n), [n]);
  return <button id="go" onClick={() => setN(n + 1)}>{three}</button>;
}`,
    0,
    { byHand: /at once/ },
  ),
  ofFunction(
    'a constant that is drawn',
    `import { LIMIT } from './heavy';
export function App() { return <button id="go">{LIMIT}</button>; }`,
    0,
    { byHand: /at once/ },
  ),
  ofFunction(
    'a default of a parameter',
    `import { LIMIT } from './heavy';
const grow = (x: number, by = LIMIT) => x + by;
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(grow(n))}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a static field',
    `import { LIMIT } from './heavy';
class Tank { static most = LIMIT; }
export function App() { return <button id="go">{Tank.most}</button>; }`,
    0,
    { byHand: /starts/ },
  ),
  ofFunction(
    'a field of a class',
    `import { heavy } from './heavy';
class Tank { full = heavy(2); }
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(new Tank().full)}>{n}</button>;
}`,
    0,
    { byHand: /starts|at once/ },
  ),
  ofFunction(
    'a function called at once',
    `import { LIMIT } from './heavy';
const most = (() => LIMIT * 2)();
export function App() { return <button id="go">{most}</button>; }`,
    0,
    { byHand: /starts|at once/ },
  ),
  ofFunction(
    'a local function called at the start',
    `import { heavy } from './heavy';
function first() { return heavy(4); }
const FIRST = first();
export function App() { return <button id="go">{FIRST}</button>; }`,
    0,
    { byHand: /starts|at once/ },
  ),
  ofFunction(
    'a callback called at once',
    `import { heavy } from './heavy';
const ALL = [1, 2].map((x) => heavy(x));
export function App() { return <button id="go">{ALL.join()}</button>; }`,
    0,
    { byHand: /starts|at once/ },
  ),
  ofFunction(
    'a class that is inherited from',
    `import { TooMuch } from './heavy';
class FarTooMuch extends TooMuch {}
export function App() { return <button id="go">{new FarTooMuch('x').message}</button>; }`,
    0,
    { byHand: /starts/ },
  ),
  ofFunction(
    'an error that is thrown and caught in a handler',
    `import { TooMuch, heavy } from './heavy';
export function App() {
  const [n, setN] = useState('1');
  const go = () => {
    try { if (heavy(2) > 5) throw new TooMuch('too much'); }
    catch (e) { setN(e instanceof TooMuch ? e.message : 'else'); }
  };
  return <button id="go" onClick={go}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'an error that others catch',
    `import { TooMuch } from './heavy';
function check(x: number) { if (x > 0) throw new TooMuch('too much'); return x; }
export function App() {
  const [n, setN] = useState('1');
  const go = () => { try { check(2); } catch (e) { setN(String((e as Error).message)); } };
  return <button id="go" onClick={go}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'an event that is stopped first',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <form onSubmit={(e) => { e.preventDefault(); setN(heavy(n)); }}><button id="go">{n}</button></form>;
}`,
    1,
  ),
  ofFunction(
    'an event that is stopped afterwards',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <form onSubmit={(e) => { const to = heavy(n); e.preventDefault(); setN(to); }}><button id="go">{n}</button></form>;
}`,
    1,
    { byHand: /preventDefault/ },
  ),
  ofFunction(
    'an event that a called function stops',
    `import { heavy } from './heavy';
function stop(e: { preventDefault(): void }) { e.preventDefault(); }
export function App() {
  const [n, setN] = useState(1);
  return <form onSubmit={(e) => { const to = heavy(n); stop(e); setN(to); }}><button id="go">{n}</button></form>;
}`,
    1,
    { byHand: /event|at once/ },
  ),
  ofFunction(
    'an answer that decides whether an event is stopped',
    `import { heavy } from './heavy';
const isFull = (x: number) => heavy(x) > 2;
export function App() {
  const [n, setN] = useState(1);
  return <form onSubmit={(e) => { if (isFull(n)) e.preventDefault(); setN(n + 1); }}><button id="go">{n}</button></form>;
}`,
    1,
    { byHand: /preventDefault|at once/ },
  ),
  ofFunction(
    'a table of functions',
    `import { heavy } from './heavy';
const ACTIONS = { triple: heavy, same: (x: number) => x };
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(ACTIONS.triple(n))}>{n}</button>;
}`,
    1,
    { byHand: /starts/ },
  ),
  ofFunction(
    'a promise’s answer',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => Promise.resolve(n).then((x) => setN(heavy(x)))}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a promise’s answer that is handed on',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => Promise.resolve(n).then((x) => heavy(x)).then(setN)}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a function handed to a promise',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => Promise.resolve(n).then(heavy).then(setN)}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a method of a class that draws',
    `import { heavy } from './heavy';
export class App extends Component<object, { n: number }> {
  state = { n: 1 };
  go = () => { this.setState({ n: heavy(this.state.n) }); };
  render() { return <button id="go" onClick={this.go}>{this.state.n}</button>; }
}`,
    1,
  ),
  ofFunction(
    'a method that runs once drawn',
    `import { heavy } from './heavy';
export class App extends Component<object, { n: number }> {
  state = { n: 1 };
  componentDidMount() { this.setState({ n: heavy(2) }); }
  render() { return <button id="go" onClick={() => this.setState({ n: 0 })}>{this.state.n}</button>; }
}`,
    0,
  ),
  ofFunction(
    'a handler of an element outside of the tree',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  useEffect(() => {
    const go = () => setN((was) => was + heavy(was));
    document.addEventListener('click', go);
    return () => document.removeEventListener('click', go);
  }, []);
  return <button id="go">{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'an updater that needs it at once',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN((was) => heavy(was))}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a function handed to a component that calls it when pressed',
    `import { heavy } from './heavy';
import { Press } from './press';
export function App() { return <Press grow={heavy} />; }`,
    1,
    {
      files: {
        'press.tsx': `import { useState } from 'react';
export function Press({ grow }: { grow: (x: number) => number }) {
  const [n, setN] = useState(1);
  return <button id="go" onClick={() => setN(grow(n))}>{n}</button>;
}
`,
      },
    },
  ),
  ofFunction(
    'a handler that the element is given itself',
    `import { heavy } from './heavy';
const grow = () => { document.title = String(heavy(3)); };
export function App() {
  const [n, setN] = useState('');
  return <div onClick={() => setTimeout(() => setN(document.title), 100)}><button id="go" onClick={grow}>{n}</button></div>;
}`,
    1,
  ),
  ofFunction(
    'states that are set before and after',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  const [busy, setBusy] = useState(false);
  return <button id="go" onClick={() => { setBusy(true); setN(heavy(n)); setBusy(false); }}>{n} {busy ? 'busy' : 'idle'}</button>;
}`,
    1,
  ),
  ofFunction(
    'a generator',
    `import { heavy } from './heavy';
function* grown() { yield heavy(1); yield heavy(2); }
export function App() {
  const [n, setN] = useState('');
  return <button id="go" onClick={() => setN([...grown()].join())}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'a getter',
    `import { heavy } from './heavy';
const tank = { get full() { return heavy(2); } };
export function App() {
  const [n, setN] = useState(0);
  return <button id="go" onClick={() => setN(tank.full)}>{n}</button>;
}`,
    1,
  ),
  ofFunction(
    'an order of sorting',
    `import { heavy } from './heavy';
const byWeight = (a: number, b: number) => heavy(a) - heavy(b);
export function App() {
  const [n, setN] = useState([3, 1, 2]);
  return <button id="go" onClick={() => setN([...n].sort(byWeight))}>{n.join()}</button>;
}`,
    1,
  ),
  ofFunction(
    'two handlers, one of which waits already',
    `import { heavy, LIMIT } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  return <><button id="go" onClick={async () => { await null; setN(heavy(n)); }}>{n}</button>
    <button id="limit" onClick={() => setN(LIMIT)}>limit</button></>;
}`,
    1,
    { presses: ['#go', '#limit', '#go'] },
  ),
];

const PARTS: PatchCase[] = [
  ofPart(
    'a part behind a press',
    `import { Part } from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(!open)}>go</button>{open && <Part name="Ann" />}</main>;
}`,
    1,
    { presses: ['#go', '#more', '#more', '#go', '#go'] },
  ),
  ofPart(
    'a part that is chosen by a condition',
    `import Part from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(!open)}>go</button>{open ? <Part /> : <p>closed</p>}</main>;
}`,
    1,
    { presses: ['#go', '#more', '#go'] },
  ),
  ofPart(
    'a part instead of all else',
    `import { Part } from './heavy';
export function App() {
  const [user, setUser] = useState('');
  if (user) return <Part name={user} />;
  return <button id="go" onClick={() => setUser('Bo')}>sign in</button>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part unless',
    `import { Part } from './heavy';
export function App() {
  const [user, setUser] = useState('');
  if (!user) return <button id="go" onClick={() => setUser('Bo')}>sign in</button>;
  return <Part name={user} />;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part from a table',
    `import { Part, Other } from './heavy';
const VIEWS = { none: () => <p>none</p>, part: Part, other: Other };
export function App() {
  const [kind, setKind] = useState<keyof typeof VIEWS>('none');
  const View = VIEWS[kind];
  return <main><button id="go" onClick={() => setKind('part')}>part</button><button id="other" onClick={() => setKind('other')}>other</button><View /></main>;
}`,
    1,
    { presses: ['#go', '#more', '#other'] },
  ),
  ofPart(
    'a part from a list of tables',
    `import { Part } from './heavy';
const TABS = [{ title: 'one', body: () => <p>first</p> }, { title: 'two', body: Part }];
export function App() {
  const [at, setAt] = useState(0);
  const { body: Body, title } = TABS[at];
  return <main><h1>{title}</h1><button id="go" onClick={() => setAt(1)}>two</button><Body /></main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part chosen into a name',
    `import { Part } from './heavy';
const Plain = () => <p>plain</p>;
export function App() {
  const [rich, setRich] = useState(false);
  const View = rich ? Part : Plain;
  return <main><button id="go" onClick={() => setRich(true)}>rich</button><View /></main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part handed to a component as what it draws',
    `import { Part } from './heavy';
function Frame({ body: Body, open }: { body: () => React.ReactNode; open: boolean }) { return open ? <Body /> : <p>closed</p>; }
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(true)}>go</button><Frame body={Part} open={open} /></main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part with children and key',
    `import { Box } from './heavy';
export function App() {
  const [all, setAll] = useState<string[]>([]);
  return <main><button id="go" onClick={() => setAll([...all, 'x' + all.length])}>go</button>{all.map((x) => <Box key={x}>{x}<b>!</b></Box>)}</main>;
}`,
    1,
    {
      files: {
        'heavy.tsx': `export const Box = ({ children }: { children: React.ReactNode }) => <div>[{children}]</div>;\n`,
      },
      presses: ['#go', '#go'],
    },
  ),
  ofPart(
    'a part that is drawn and named',
    `import { Part } from './heavy';
const VIEWS: Record<string, React.ComponentType> = { part: Part };
export function App() {
  const [kind, setKind] = useState('');
  const View = VIEWS[kind];
  return <main><button id="go" onClick={() => setKind('part')}>go</button>{View ? <View /> : kind === 'own' ? <Part /> : null}</main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part that is made by a call',
    `import { createElement } from 'react';
import { Part } from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(true)}>go</button>{open && createElement(Part, { name: 'Cy' })}</main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part that is remembered',
    `import { Part } from './heavy';
const Kept = memo(Part);
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(true)}>go</button>{open && <Kept />}</main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofPart(
    'a part that comes into view',
    `import { Part } from './heavy';
export function App() {
  return <main><div style={{ height: 3000 }}>far</div><p id="end">end</p><Part /></main>;
}`,
    1,
    {
      presses: ['scroll #end', '#more'],
      below: true,
      more: [{ kind: 'trigger', splitPoint: 'heavy.tsx', fetch: { on: 'visible' } }],
    },
  ),
  ofPart(
    'a part of a table that comes into view',
    `import { Part } from './heavy';
const VIEWS = [{ title: 'far', View: Part }];
export function App() {
  return <main><div style={{ height: 3000 }}>far</div><p id="end">end</p>{VIEWS.map(({ title, View }) => <View key={title} name={title} />)}</main>;
}`,
    1,
    {
      presses: ['scroll #end', '#more'],
      below: true,
      more: [{ kind: 'trigger', splitPoint: 'heavy.tsx', fetch: { on: 'visible' } }],
    },
  ),
  ofPart(
    'a part that is approached',
    `import { Part } from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  const toggle = () => setOpen(!open);
  return <main><button id="go" onClick={toggle}>go</button>{open ? <Part /> : null}</main>;
}`,
    1,
    {
      presses: ['hover #go', '#go', '#more', '#go'],
      more: [{ kind: 'trigger', splitPoint: 'heavy.tsx', fetch: { on: 'approach' } }],
    },
  ),
  ofFunction(
    'a function that is approached',
    `import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  const grow = () => setN(heavy(n));
  return <main><button id="go" onClick={() => grow()}>{n}</button></main>;
}`,
    1,
    {
      presses: ['hover #go', '#go', '#go'],
      more: [{ kind: 'trigger', splitPoint: 'heavy.ts', fetch: { on: 'approach' } }],
    },
  ),
  ofPart(
    'elements in a table at the start of a module',
    `import { Part } from './heavy';
const PAGES = [{ path: 'a', element: <p>first</p> }, { path: 'b', element: <Part name="Di" /> }];
export function App() {
  const [at, setAt] = useState(0);
  return <main><button id="go" onClick={() => setAt(1)}>{PAGES[at].path}</button>{PAGES[at].element}</main>;
}`,
    1,
    { presses: ['#go', '#more'] },
  ),
  ofFunction(
    'a handler that is kept',
    `import { useCallback } from 'react';
import { heavy } from './heavy';
export function App() {
  const [n, setN] = useState(1);
  const grow = useCallback(() => setN(heavy(n)), [n]);
  useEffect(() => { document.title = 'kept'; }, [grow]);
  return <button id="go" onClick={grow}>{n}</button>;
}`,
    1,
    {
      presses: ['#go', '#go'],
    },
  ),
  ofPart(
    'a part of a namespace',
    `import * as parts from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(true)}>go</button>{open && <parts.Part />}</main>;
}`,
    1,
    { byHand: /namespace|at once/ },
  ),
  ofPart(
    'what hangs on a part',
    `import { Card } from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  return <main><button id="go" onClick={() => setOpen(true)}>go</button>{open && <Card><Card.Title /></Card>}</main>;
}`,
    1,
    {
      files: {
        'heavy.tsx': `export function Card({ children }: { children: React.ReactNode }) { return <div>{children}</div>; }\nCard.Title = () => <h2>title</h2>;\n`,
      },
      byHand: /Card/,
    },
  ),
  ofPart(
    'a part that is given a reference',
    `import { Field } from './heavy';
export function App() {
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState('');
  const field = useRef<HTMLInputElement>(null);
  return <main><button id="go" onClick={() => setOpen(true)}>go</button>{open && <Field ref={field} />}
    <button id="say" onClick={() => setSaid(field.current?.value ?? 'nothing')}>say</button>{said}</main>;
}`,
    1,
    {
      files: {
        'heavy.tsx': `export const Field = ({ ref }: { ref: React.Ref<HTMLInputElement> }) => <label>field<input ref={ref} defaultValue="hello" /></label>;\n`,
      },
      presses: ['#say', '#go', '#say'],
      needed: 2,
    },
  ),
  ofPart(
    'a provider around all',
    `import { Around, Where } from './heavy';
function Inner() { return <p>{useContext(Where)}</p>; }
export function App() { return <Around><Inner /><button id="go">go</button></Around>; }`,
    0,
    {
      files: {
        'heavy.tsx': `import { createContext } from 'react';
export const Where = createContext('nowhere');
export const Around = ({ children }: { children: React.ReactNode }) => <Where.Provider value="here">{children}</Where.Provider>;
`,
      },
      byHand: /at once/,
    },
  ),
  ofPart(
    'a hook',
    `import { useHeavy } from './heavy';
export function App() { const n = useHeavy(); return <button id="go">{n}</button>; }`,
    0,
    {
      files: {
        'heavy.tsx': `import { useState } from 'react';\nexport const useHeavy = () => useState(4)[0];\n`,
      },
      byHand: /at once/,
    },
  ),
  ofPart(
    'a barrel that passes a part on',
    `import { Part, small } from './kit';
export function App() {
  const [open, setOpen] = useState(false);
  return <main>{small}<button id="go" onClick={() => setOpen(true)}>go</button>{open && <Part />}</main>;
}`,
    1,
    {
      files: {
        'kit.ts': `export { Part } from './heavy';\nexport * from './small';\n`,
        'small.ts': `export const small = 'small';\n`,
        'heavy.tsx': PART,
      },
      import: 'kit.ts::./heavy',
      presses: ['#go', '#more'],
    },
  ),
  ofFunction(
    'a barrel that passes a function on',
    `import { heavy, small } from './kit';
export function App() {
  const [n, setN] = useState(1);
  return <main>{small}<button id="go" onClick={() => setN(heavy(n))}>{n}</button></main>;
}`,
    1,
    {
      files: {
        'kit.ts': `export { heavy } from './heavy';\nexport * from './small';\n`,
        'small.ts': `export const small = 'small';\n`,
      },
      import: 'kit.ts::./heavy',
    },
  ),
  ofFunction(
    'a barrel that passes everything on',
    `import { heavy, small } from './kit';
export function App() {
  const [n, setN] = useState(1);
  return <main>{small}<button id="go" onClick={() => setN(heavy(n))}>{n}</button></main>;
}`,
    1,
    {
      files: {
        'kit.ts': `export * from './heavy';\nexport * from './small';\n`,
        'small.ts': `export const small = 'small';\n`,
      },
      import: 'kit.ts::./heavy',
    },
  ),
  ofFunction(
    'an import for what it does by itself',
    `import './heavy';
export function App() { return <button id="go">{document.title}</button>; }`,
    0,
    {
      files: {
        'heavy.ts': `document.title = 'set';\nexport {};\n`,
      },
      byHand: /by itself/,
    },
  ),
];

/** Every way of using an import that the patch has a rule for. */
export const PATCH_CASES: readonly PatchCase[] = [...FUNCTIONS, ...PARTS];
