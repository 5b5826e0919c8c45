import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const PLAIN = { 'index.html': '<script type="module" src="/main.jsx"></script>' };

/** How soon imports of `./a` are used, in an app whose entry is the code: per importing module. */
function uses(files: Record<string, string>): Record<string, string> {
  const { snapshot } = readSource(
    folderOf({ ...PLAIN, 'a.js': 'export default function a() { return 1; }\nexport const b = () => 2;', ...files }),
  );
  const found: Record<string, string> = {};
  for (const { from, to, onActs, onEffects, kind } of snapshot.imports)
    if (snapshot.modules[to].path === 'a.js' && kind === 'static')
      found[snapshot.modules[from].path] = onActs ? 'act' : onEffects ? 'effect' : 'now';
  return found;
}

const main = (code: string) =>
  uses({ 'main.jsx': `import a, { b } from './a.js';\n${code}\nexport const keep = 1;` })['main.jsx'];

describe('how soon a module uses an import', () => {
  it.each([
    ['render(() => <button onClick={() => a()} />);', 'act'],
    ['render(() => <Picker onPick={async (p) => { await a(p); b(); }} />);', 'act'],
    ['function X() { const save = () => a(1); return <button onClick={save} />; } render(<X />);', 'act'],
    ['function X() { function save() { b(); } return <form onSubmit={save} onReset={save} />; } render(<X />);', 'act'],
    ["const bind = (to) => to.addEventListener('click', () => b()); bind(document.body);", 'act'],
    ['const X = () => <button onClick={a} />; render(<X />);', 'act'],
    [
      'function text(r) { return a(r); } const save = (r) => text(r); render(() => <b onClick={() => save(1)} />);',
      'act',
    ],
    [
      'const X = () => { const save = useCallback(() => a(), []); return <b onClick={save} />; }; render(<X />);',
      'act',
    ],
    [
      'class X extends Component { save = () => a(); render() { return <b onClick={this.save} />; } } render(<X />);',
      'act',
    ],
    [
      'class X extends Component { save() { a(); } render() { return <b onClick={() => this.save()} />; } } render(<X />);',
      'act',
    ],
    ['const X = () => { useEffect(() => { a(); }, []); return <p onClick={() => b()} />; }; render(<X />);', 'effect'],
    ['class X extends Component { componentDidMount() { a(); } render() { return <p />; } } render(<X />);', 'effect'],
    ['const X = () => <img onLoad={() => a()} />; render(<X />);', 'effect'],
    ['const X = () => <p>{a()}</p>; render(<X />);', 'now'],
    ['const X = () => { useLayoutEffect(() => { a(); }); return <p />; }; render(<X />);', 'now'],
    ['const X = () => <button onClick={() => a()}>{b}</button>; render(<X />);', 'now'],
    ['function X() { const save = () => a(1); save(); return <button onClick={save} />; } render(<X />);', 'now'],
    ['function X() { const save = () => a(1); return <Other save={save} />; } render(<X />);', 'now'],
    [
      'class X extends Component { save() { a(); } render() { this.save(); return <b onClick={this.save} />; } } render(<X />);',
      'now',
    ],
    ['class X { save() { a(); } bind(to) { to.addEventListener("click", () => this.save()); } } export { X };', 'now'],
    [
      'class X extends Component { render() { return <b onClick={() => this.render()}>{a()}</b>; } } render(<X />);',
      'now',
    ],
    ['const X = () => <button onClick={() => 1} title={b} />; render(<X />);', 'now'],
    ['const save = () => 1; { const save = () => a(); } const X = () => <b onClick={save} />; render(<X />);', 'now'],
    ['const text = useMemo(() => a(), []); render(() => <b onClick={() => b()}>{text}</b>);', 'now'],
    ['function twice(n) { return n > 0 ? twice(n - 1) : a(); } render(() => <b onClick={() => twice(2)} />);', 'act'],
    ['const held = { save() { a(); } }; render(() => <b onClick={() => held.save()} />);', 'now'],
    ['function save() { a(); } export default save; render(() => <b onClick={() => save()} />);', 'now'],
  ])('%s: %s', (code, expected) => {
    expect(main(code)).toBe(expected);
  });

  const draws = (used: string, from = './lib.js') => `import { save } from '${from}';\nrender(() => <b ${used} />);`;
  const lib =
    "import a from './a.js';\nconst text = () => a();\nexport function save() { return text(); }\nexport const other = () => a();";
  it.each([
    ['called by a handler of another module', draws('onClick={() => save()}'), {}, 'act'],
    ['called while another module draws', draws('title={save()}'), {}, 'now'],
    [
      'through a module that passes names on',
      draws('onClick={save}', './all.js'),
      { 'all.js': "export * from './lib.js';" },
      'act',
    ],
    [
      'through two names',
      draws('onClick={save}', './all.js'),
      { 'all.js': "import { save as kept } from './lib.js'; export { kept as save };" },
      'act',
    ],
    [
      'of which all names are taken',
      "import * as lib from './lib.js';\nrender(() => <b onClick={() => lib.save()} />);",
      {},
      'act',
    ],
    ['that is handed on as a whole', "import * as lib from './lib.js';\nregister(lib);", {}, 'now'],
    [
      'that a route file passes on to its framework',
      "import('./page.js');\nimport { save } from './lib.js';\nrender(() => <b onClick={save} />);",
      { 'page.js': "export { save } from './lib.js';" },
      'now',
    ],
    ['that is deferred', "import('./lib.js').then((m) => m.save());", {}, 'now'],
    [
      'that two use, one of them at once',
      `${draws('onClick={save}')}\nimport './two.js';`,
      { 'two.js': "import { save } from './lib.js';\nsave();" },
      'now',
    ],
    [
      'that two use, both on acts',
      `${draws('onClick={save}')}\nimport './two.js';`,
      { 'two.js': "import { other } from './lib.js';\naddEventListener('x', other);" },
      'act',
    ],
  ])('in a function of a module %s', (_, code, files, expected) => {
    expect(uses({ 'main.jsx': code, 'lib.js': lib, ...files })['lib.js']).toBe(expected);
  });

  it('tells links apart that one import has, where a barrel of no effects is passed by', () => {
    const files = {
      'main.jsx': "import { a, day } from 'kit';\nrender(() => <b onClick={() => a()}>{day()}</b>);",
      'node_modules/kit/package.json': '{ "name": "kit", "main": "index.js", "sideEffects": false }',
      'node_modules/kit/index.js': "export { default as a } from './a.js';\nexport { day } from './day.js';",
      'node_modules/kit/a.js': 'export default () => 1;',
      'node_modules/kit/day.js': 'export const day = () => 2;',
    };
    const { snapshot } = readSource(folderOf({ ...PLAIN, ...files }));
    const told = snapshot.imports.map((i) => [snapshot.modules[i.to].path, i.onActs ?? false]);
    expect(told).toContainEqual(['node_modules/kit/a.js', true]);
    expect(told).toContainEqual(['node_modules/kit/day.js', false]);
  });

  it.each([
    ['is used on acts', 'onClick={() => a()}', 'act'],
    ['is used once drawn', 'ref={() => useEffect(() => { a(); })}', 'effect'],
    ['is needed at once', 'title={a()}', 'sync'],
  ])('says of a module that passes on what %s', (_, used, expected) => {
    const files = {
      'main.jsx': `import { a, small } from './kit.js';\nrender(() => <b ${used}>{small}</b>);`,
      'kit.js': "export * from './a.js';\nexport { small } from './small.js';\nregister('kit');",
      'a.js': 'export function a() { return 1; }',
      'small.js': 'export const small = 1;',
    };
    const { snapshot } = readSource(folderOf({ ...PLAIN, ...files }));
    const link = (to: string) => {
      const { onActs, onEffects, sync } = snapshot.imports.find((i) => snapshot.modules[i.to].path === to)!;
      return onActs ? 'act' : onEffects ? 'effect' : sync ? 'sync' : 'now';
    };
    expect([link('a.js'), link('small.js')]).toEqual([expected, 'sync']);
  });

  /** What of `./a` can't be deferred: the reason and its line, or null. */
  const needed = (code: string) => {
    const files = {
      ...PLAIN,
      'a.jsx': 'export default function a() {}\nexport class B {}\nexport const c = 1;\nexport const D = () => <i />;',
    };
    const { snapshot } = readSource(
      folderOf({ ...files, 'main.jsx': `import a, { B, c, D } from './a.jsx';\n${code}` }),
    );
    const found = snapshot.imports.find((i) => snapshot.modules[i.to].path === 'a.jsx')?.sync;
    return found ? `${found.reason} (${found.line})` : null;
  };
  const DRAWS = 'its answer is used at once, by code that can’t wait (2)';
  it.each([
    ['a constant', 'function X() { return <p>{c}</p>; }', DRAWS],
    ['a function', 'function X() { return <p>{a()}</p>; }', DRAWS],
    ['a hook', 'function X() { const [one] = a(); return <p>{one}</p>; }', DRAWS],
    ['a default of a parameter', 'function X({ size = c }) { return <p>{size}</p>; }', DRAWS],
    ['a class that is thrown', 'function X({ bad }) { if (bad) throw new B(); return <p />; }', DRAWS],
    ['a class that is compared', 'function X({ bad }) { return bad instanceof B ? <p /> : null; }', DRAWS],
    ['a context', 'function X() { return <a.Provider value={1}><p /></a.Provider>; }', DRAWS],
    ['a base class', 'class X extends B { render() { return <p />; } }', 'a class extends it (2)'],
    ['a static field', 'class X { static size = c; }', 'it is read while the module starts (2)'],
    ['a function called at once', 'const X = a();', 'it is called while the module starts (2)'],
    ['a function in one called at once', '(() => { a(); })(); function X() {}', DRAWS],
    ['a callback called at once', '[1].map((n) => a(n)); function X() {}', DRAWS],
    ['a local function called at start', 'const twice = () => a(); twice(); function X() {}', DRAWS],
    [
      'an answer looked up in a table',
      'const T = { one: a }; function X({ answer }) { return T[answer.kind](); }',
      DRAWS,
    ],
    ['a component', 'function X() { return <B />; }', null],
    ['a component that is chosen', 'function X({ of }) { const V = of ? D : "p"; return <V />; }', null],
    ['a component that is handed on', 'const X = memo(D);', null],
    ['a class that is handed on', 'function X() { return show(B); }', DRAWS],
    ['a component in a table', "const T = [{ path: '/', component: B }]; function X() { return T; }", null],
    ['a function that waits', 'async function X() { return (await a()).b; }', null],
    ['a handler', 'function X() { return <p onClick={() => a()} />; }', null],
    ['a timer', 'function X() { setTimeout(() => a(), 10); return <p />; }', null],
  ])('knows that %s is needed at once, or isn’t', (_, code, expected) => {
    expect(needed(`${code} export { X };`)).toBe(expected);
  });
});
