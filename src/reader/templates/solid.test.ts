import { jest } from '@jest/globals';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const SOLID = {
  'node_modules/solid-js/package.json': JSON.stringify({
    ...{ name: 'solid-js', version: '1.9.0', sideEffects: false, type: 'module' },
    exports: { '.': './solid.js', './web': './web.js', './jsx-runtime': './solid.js' },
  }),
  'node_modules/solid-js/solid.js': 'export const createSignal = (v) => [() => v, (n) => { v = n; }];',
  'node_modules/solid-js/web.js':
    'export const template = (t) => t; export const insert = (a, b) => [a, b]; export const createComponent = (c, p) => c(p); export const delegateEvents = (e) => e; export const render = (f) => f(); export const memo = (f) => f;',
  'node_modules/waves/package.json': JSON.stringify({
    ...{ name: 'waves', version: '1.0.0', type: 'module' },
    exports: { '.': { solid: './wave.jsx', default: './wave.js' } },
  }),
  'node_modules/waves/wave.jsx': 'export const Wave = (props) => <i>{props.height}</i>;',
  'node_modules/waves/wave.js': 'export const Wave = () => document.createElement("i");',
};

const app = (files: Record<string, string>) =>
  readSource(
    folderOf({
      'package.json': '{ "name": "tides", "dependencies": { "solid-js": "1", "waves": "1" } }',
      'index.html': '<div id="app"></div><script type="module" src="/main.tsx"></script>',
      ...SOLID,
      ...files,
    }),
  );

describe('markup of Solid', () => {
  const { snapshot, texts } = app({
    'main.tsx':
      'import { render } from "solid-js/web";\nimport { createSignal } from "solid-js";\nimport { Wave } from "waves";\nfunction App(props: { name: string }) { const [n, setN] = createSignal<number>(0); return <main><h1 onClick={() => setN(1)}>{n()}</h1><Wave height={n()} /></main>; }\nrender(() => <App name="a" />, document.getElementById("app")!);',
  });

  it('ships as its compiler leaves it: templates, and what fills them', () => {
    expect(texts['main.tsx']).toContain('<main><h1>');
    expect(texts['main.tsx']).toMatch(/template/);
    expect(snapshot.unresolved).toEqual([]);
    expect(snapshot.failed).toEqual([]);
  });

  it('takes components of packages as they are written', () => {
    const { modules } = snapshot;
    expect(modules.map((m) => m.path)).toContain('node_modules/waves/wave.jsx');
    expect(texts['node_modules/waves/wave.jsx']).toMatch(/template/);
  });

  it('imports what the compiled code takes', () => {
    const { modules, imports } = snapshot;
    const at = (path: string) => modules.findIndex((m) => m.path === path);
    const [main, web] = [at('main.tsx'), at('node_modules/solid-js/web.js')];
    const names = imports.filter((i) => i.from === main && i.to === web).flatMap((i) => i.names);
    expect(names).toEqual(expect.arrayContaining(['render', 'template', 'insert', 'createComponent']));
    expect(names).not.toContain('jsx');
  });
});

it('a comment of a file says whose markup it is', () => {
  const { texts } = app({
    'main.tsx': 'import "./other"; export const here = <p>here</p>;',
    'other.tsx': '/** @jsxImportSource react */\nexport const there = <p>there</p>;',
    'node_modules/react/package.json': '{ "name": "react", "version": "19.0.0" }',
    'node_modules/react/jsx-runtime.js': 'exports.jsx = (t, p) => [t, p];',
  });
  expect(texts['main.tsx']).toContain('<p>here');
  expect(texts['other.tsx']).not.toContain('<p>there');
});

describe('odd scripts of Solid', () => {
  const main = (text: string) => app({ 'main.tsx': text });

  it('with markup that browsers put right are compiled, and nothing is printed of it', () => {
    const printed = jest.spyOn(console, 'warn').mockImplementation(() => {});
    const { snapshot } = main('export const a = <p><div>here</div></p>;\nglobalThis.a = a;');
    expect(snapshot.failed).toEqual([]);
    expect(printed).not.toHaveBeenCalled();
    printed.mockRestore();
  });

  it.each(['', '{ "compilerOptions": { "experimentalDecorators": true } }'])(
    'may have decorators too: %s',
    (config) => {
      const text =
        'const noted = (...a: any[]): any => a;\nclass Tide { @noted rise() { return <p>here</p>; } }\nglobalThis.t = Tide;';
      const { texts, snapshot } = app({ 'main.tsx': text, ...(config === '' ? {} : { 'tsconfig.json': config }) });
      expect(snapshot.failed).toEqual([]);
      expect(snapshot.unresolved).toEqual([]);
      expect(texts['main.tsx']).not.toContain('@noted');
      expect(texts['main.tsx']).toMatch(/template/);
    },
  );

  it('that the compiler refuses are told, and the rest is read', () => {
    const { snapshot } = main('import { render } from "solid-js/web";\nrender(() => <p prop:tide />);');
    expect(snapshot.modules.map((m) => m.path)).toContain('node_modules/solid-js/web.js');
    expect(snapshot.failed).toMatchObject([
      { path: 'main.tsx', message: expect.stringMatching(/compiler refuses it/) },
    ]);
  });
});
