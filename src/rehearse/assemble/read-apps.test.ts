import vm from 'node:vm';
import { planned } from '../../core/chunks/planned.ts';
import { BASELINE } from '../../core/plan/types.ts';
import { readSource } from '../../reader/read-source.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { assemble } from './assemble.ts';

afterAll(removeFolders);

const HTML = { 'index.html': '<script type="module" src="/main.js"></script>', 'package.json': '{ "name": "made" }' };
const packaged = (name: string, more: string, files: Record<string, string>) => ({
  [`node_modules/${name}/package.json`]: `{ "name": "${name}", "version": "1.0.0", "main": "index.js"${more} }`,
  ...Object.fromEntries(Object.entries(files).map(([file, text]) => [`node_modules/${name}/${file}`, text])),
});

/** What an app hands to `tell` when it is read, assembled and run; deferred files come a little later. */
async function told(files: Record<string, string>): Promise<unknown[]> {
  const { snapshot, texts } = readSource(folderOf({ ...HTML, ...files }));
  const { graph } = planned(snapshot, BASELINE);
  const made = assemble(snapshot, graph, texts, (c) => `/f${c}.${graph.chunks[c].kind === 'style' ? 'css' : 'js'}`);
  expect(made.told).toEqual([]);
  const heard: unknown[] = [];
  const textAt = (address: string) => made.files.find((f) => f.address === address)!.text;
  const page = realm(textAt, heard, 'https://x.example/a');
  for (const c of graph.roots.find((r) => r.realm === 'site')!.group) page(made.files[c].address);
  await new Promise((done) => setTimeout(done, 30));
  return heard;
}

/** A page or a worker of its own: gives what runs a file in it. */
function realm(textAt: (address: string) => string, heard: unknown[], href: string): (address: string) => void {
  const importModuleDynamically = async (address: string) => {
    run(address);
    const nothing = new vm.SyntheticModule([], () => {}, { context });
    await nothing.link(() => Promise.reject());
    await nothing.evaluate();
    return nothing;
  };
  const run = (address: string) => {
    if (!address.endsWith('.js')) return;
    vm.runInContext(textAt(address), context, { importModuleDynamically });
  };
  const append = async (element: { onload?: () => void }) => {
    await null;
    element.onload?.();
  };
  const document = { head: { append }, createElement: () => ({}) };
  class Worker {
    constructor(address: string | URL) {
      const at = new URL(address, href);
      realm(textAt, heard, at.href)(at.pathname);
    }
  }
  const context = vm.createContext({ performance, URL, heard, document, Worker, location: { href } });
  const tell = 'globalThis.tell = (...of) => void heard.push(...JSON.parse(JSON.stringify(of)));';
  vm.runInContext(`globalThis.self = globalThis; ${tell}`, context);
  return run;
}

describe('workers', () => {
  it.each([
    ['by its address', "new Worker(new URL('./beside.js', import.meta.url), { type: 'module' });"],
    ['by an address without a dot', "new Worker(new URL('beside.js', import.meta.url));"],
    ['by an address that is kept', "const at = new URL('./beside.js', import.meta.url); new Worker(at);"],
    ['by what an import makes of it', "import Beside from './beside.js?worker'; new Beside({ name: 'b' });"],
    ['in a function', "function start() { new Worker(new URL('./beside.js', import.meta.url)); } start();"],
  ])('run with modules of their own, started %s', async (_, start) => {
    const files = {
      'main.js': `import { count } from './kit.js';\n${start}\ntell('page', count());`,
      'beside.js':
        "import { count } from './kit.js'; tell('beside', count()); import('./late.js').then((m) => tell(m.late));",
      'kit.js': 'let n = 6; export const count = () => ++n;',
      'late.js': "export const late = 'late';",
    };
    const all = await told(files);
    expect(all).toHaveLength(5);
    expect([...all].sort()).toEqual([7, 7, 'beside', 'late', 'page']);
  });
});

describe('CommonJS beside modules', () => {
  const cjs = packaged('old', '', {
    'index.js': "exports.one = 1; exports.more = require('./more'); exports.here = __dir; var __dir = typeof module;",
    'more.js': 'module.exports = function more() { return "more"; };',
  });

  it.each([
    ['names and default', "import old, { one } from 'old'; tell(one, old.one, old.more());", [1, 1, 'more']],
    [
      'all of it',
      "import * as old from 'old'; tell(old.one, Object.keys(old).includes('more'), old.default.one);",
      [1, true, 1],
    ],
    ['passed on', "import { one as first } from './pass.js'; tell(first);", [1]],
    ['passed on whole', "import { one as first } from './whole.js'; tell(first);", [1]],
    ['deferred', "import('old').then((m) => tell(m.one, m.default.one));", [1, 1]],
    ['names of a deferred one', "const { one } = await import('old'); tell(one);", [1]],
  ])('%s', async (_, main, all) => {
    const files = { 'pass.js': "export { one } from 'old';", 'whole.js': "export * from 'old';" };
    expect(await told({ ...cjs, ...files, 'main.js': main })).toEqual(all);
  });

  it('gives the marked default to who doesn’t follow Node’s rules, all to who does', async () => {
    const marked = packaged('marked', '', {
      'index.js': 'exports.__esModule = true; exports.default = "own"; exports.a = 1;',
    });
    expect(await told({ ...marked, 'main.js': "import m, { a } from 'marked'; tell(m, a);" })).toEqual(['own', 1]);
    expect(
      await told({
        ...marked,
        'main.js': "import './by-node.mjs';",
        'by-node.mjs': "import m from 'marked'; tell(m.default);",
      }),
    ).toEqual(['own']);
  });

  it('may require modules, sheets of data, what is missing, and what browsers don’t have', async () => {
    const kit = packaged('kit', ', "browser": { "fs": false }', {
      'index.js':
        "const esm = require('./esm.mjs'); const data = require('./data.json'); const fs = require('fs'); let lost; try { lost = require('lost'); } catch { lost = 'none'; } module.exports = [esm.a, esm.default, data.n, typeof fs, lost];",
      'esm.mjs': 'export const a = "a"; export default "d";',
      'data.json': '{ "n": 7 }',
    });
    expect(await told({ ...kit, 'main.js': "import all from 'kit'; tell(...all);" })).toEqual([
      'a',
      'd',
      7,
      'object',
      'none',
    ]);
  });

  it('runs circles, and each module once', async () => {
    const round = packaged('round', '', {
      'index.js':
        "exports.first = 1; const b = require('./b'); exports.second = b.seen; exports.again = require('./b') === b;",
      'b.js': "exports.seen = Object.keys(require('./index'));",
    });
    expect(await told({ ...round, 'main.js': "import { second, again } from 'round'; tell(second, again);" })).toEqual([
      ['first'],
      true,
    ]);
  });
});

describe('modules of other kinds', () => {
  it('are data, addresses, and sheets with names of their own', async () => {
    const heard = await told({
      'main.js':
        "import data, { list } from './data.json'; import boat from './boat.png'; import styles from './box.module.css'; import './plain.css'; tell(data.n, list, boat, Object.keys(styles), styles.box !== 'box', new URL('./boat.png', import.meta.url).pathname);",
      'data.json': '{ "n": 1, "list": [2] }',
      'boat.png': 'not really',
      'box.module.css': '.box { color: red } .tall { height: 2em }',
      'plain.css': 'p { color: red }',
    });
    const [n, list, boat, names, isOwn, address] = heard;
    expect([n, list, names, isOwn]).toEqual([1, [2], ['box', 'tall'], true]);
    expect(boat).toMatch(/boat.*\.png$/);
    expect(address).toBe(boat);
  });

  it('are found past modules that only pass them on, under the names that code writes', async () => {
    const kit = packaged('kit', ', "sideEffects": false', {
      'index.js':
        "export { default as Chart, other as Renamed } from './chart.js'; export * as tools from './tools.js'; export * from './more.js';",
      'chart.js': 'export default "chart"; export const other = "other";',
      'tools.js': 'export const saw = "saw"; export const file = "file";',
      'more.js': 'export let count = 0; export const add = () => ++count;',
    });
    const main = `import { Chart, Renamed, tools, count, add } from 'kit';
      import * as kit from 'kit';
      add();
      tell(Chart, Renamed, tools.saw, count, kit.Chart, kit.tools.file);
      import('kit').then((m) => tell(Object.keys(m)));
      const { Renamed: late } = await import('kit');
      tell(late);`;
    const heard = await told({ ...kit, 'main.js': main });
    expect(heard.slice(0, 6)).toEqual(['chart', 'other', 'saw', 1, 'chart', 'file']);
    const [names, late] = heard.slice(6).sort((a) => (Array.isArray(a) ? -1 : 1));
    expect(names).toEqual(expect.arrayContaining(['Chart', 'Renamed', 'add', 'count', 'tools']));
    expect(late).toBe('other');
  });

  it('tells of a text that can’t be run, and goes on', () => {
    const { snapshot, texts } = readSource(
      folderOf({ ...HTML, 'main.js': "import './broken.js'; tell(1);", 'broken.js': 'const = 1' }),
    );
    const { graph } = planned(snapshot, BASELINE);
    const { told: words } = assemble(snapshot, graph, texts, (c) => `/f${c}.js`);
    expect(words).toEqual([{ path: 'broken.js', message: expect.stringContaining('isn’t run') }]);
  });
});

describe('what a deferred import gives', () => {
  it('says of itself that it is a module, to who asks, as builds have it', async () => {
    const heard = await told({
      'main.js':
        "import('./page.js').then((m) => tell(m.__esModule ? m.default : 'whole', Object.keys(m), JSON.stringify(m)));",
      'page.js': "export default 'page'; export const title = 'Tides';",
    });
    expect(heard).toEqual(['page', ['default', 'title'], '{"default":"page","title":"Tides"}']);
  });
});
