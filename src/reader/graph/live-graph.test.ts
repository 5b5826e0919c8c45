import vm from 'node:vm';
import fc from 'fast-check';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const HTML = { 'index.html': '<script type="module" src="/main.js"></script>', 'package.json': '{ "name": "made" }' };
const pure = (name: string) => ({
  [`node_modules/${name}/package.json`]: `{ "name": "${name}", "version": "1.0.0", "main": "index.js", "sideEffects": false }`,
});

function read(files: Record<string, string>) {
  const { snapshot, texts } = readSource(folderOf({ ...HTML, ...files }));
  const paths = snapshot.modules.map((m) => m.path);
  const links = snapshot.imports.map(
    (i) => `${paths[i.from]} ${i.kind === 'dynamic' ? '~' : ''}${paths[i.to]} ${i.names.join(',')}`,
  );
  return { paths, links, texts, snapshot };
}

describe('what nobody takes', () => {
  it('of a module goes, with what only that needs', () => {
    const { paths, texts } = read({
      'main.js': "import { used } from './kit.js';\nconsole.log(used);",
      'kit.js':
        "import { big } from 'big';\nimport { small } from 'small';\nexport const used = () => small;\nexport const unused = () => big;",
      ...pure('big'),
      'node_modules/big/index.js': "export const big = 'big';",
      ...pure('small'),
      'node_modules/small/index.js': "export const small = 'small', other = 'other';",
    });
    expect(paths).toEqual(['kit.js', 'main.js', 'node_modules/small/index.js']);
    expect(texts['kit.js']).not.toContain('unused');
    expect(texts['node_modules/small/index.js']).not.toContain('other');
  });

  it('takes deferred imports with it', () => {
    const { links } = read({
      'main.js': "import { load } from './loads.js';\nload();",
      'loads.js': "export const load = () => import('./a.js');\nexport const never = () => import('./b.js');",
      'a.js': 'export default 1;',
      'b.js': 'export default 1;',
    });
    expect(links).toEqual(['loads.js ~a.js *', 'main.js loads.js load']);
  });

  it('is still run where it may do something', () => {
    const { paths, links } = read({
      'main.js':
        "import { unused } from './own.js';\nimport { gone } from 'kit';\nimport { a } from './a.js';\nconsole.log(a);",
      'own.js': "console.log('own');\nexport const unused = 1;",
      'a.js': "import { effect } from 'effect';\nexport const a = 1;\nexport const b = effect;",
      ...pure('kit'),
      'node_modules/kit/index.js': "console.log('kit');\nexport const gone = 1;",
      'node_modules/effect/package.json': '{ "name": "effect", "main": "index.js" }',
      'node_modules/effect/index.js': "console.log('effect');\nexport const effect = 1;",
    });
    expect(paths).toEqual(['a.js', 'main.js', 'node_modules/effect/index.js', 'own.js']);
    expect(links).toEqual(['a.js node_modules/effect/index.js ', 'main.js own.js ', 'main.js a.js a']);
  });

  it('counts through modules that pass it on, whatever else these do', () => {
    const { paths, links, texts } = read({
      'main.js': "import { a, d } from './all.js';\nconsole.log(a, d);",
      'all.js':
        "console.log('all');\nexport * from './a.js';\nexport { c as d, e } from './c.js';\nexport * from 'kit';",
      'a.js': "export const a = 'first', b = 'second';",
      'c.js': "export const c = 'third', e = 'fourth';",
      ...pure('kit'),
      'node_modules/kit/index.js': 'export const k = 1;',
    });
    expect(paths).toEqual(['a.js', 'all.js', 'c.js', 'main.js']);
    expect(links).toEqual(['all.js a.js a', 'all.js c.js c', 'main.js all.js a,d']);
    expect(texts['a.js']).not.toContain('second');
    expect(texts['c.js']).not.toContain('fourth');
  });

  it('of an import of all is what no member is taken of', () => {
    const { paths, links } = read({
      'main.js': "import * as kit from 'kit';\nconsole.log(kit.a, kit.b.c);",
      ...pure('kit'),
      'node_modules/kit/index.js': "export * from './a.js';\nexport { b } from './b.js';\nexport { z } from './z.js';",
      'node_modules/kit/a.js': "export const a = 'first', y = 'second';",
      'node_modules/kit/b.js': "export const b = { c: 'third' };",
      'node_modules/kit/z.js': "export const z = 'fourth';",
    });
    expect(paths).toEqual(['main.js', 'node_modules/kit/a.js', 'node_modules/kit/b.js']);
    expect(links).toEqual(['main.js node_modules/kit/a.js a', 'main.js node_modules/kit/b.js b']);
  });

  it('is nothing of what goes on whole, is required, deferred, or belongs to a page or a worker', () => {
    const all = "export const a = 'first', b = 'second';";
    const { texts } = read({
      'main.js':
        "import * as whole from './whole.js';\nconst c = import('./deferred.js');\nnew Worker(new URL('./worker.js', import.meta.url));\nimport { x } from './x.js';\nhand(whole, c, x);",
      'whole.js': all,
      'deferred.js': all,
      'worker.js': all,
      'x.js': "export { x } from 'cjs';",
      'node_modules/cjs/package.json': '{ "name": "cjs", "main": "index.js" }',
      'node_modules/cjs/index.js': "exports.x = require('./needed.js');",
      'node_modules/cjs/needed.js': "exports.y = 'first'; exports.z = 'second';",
    });
    for (const [path, text] of Object.entries(texts))
      if (/whole|deferred|worker|needed/.test(path))
        expect([path, /first/.test(text), /second/.test(text)]).toEqual([path, true, true]);
  });

  it('of a deferred import is what isn’t taken where it is made', () => {
    const { texts } = read({
      'main.js': "button.onclick = async () => { const { a } = await import('./kit.js'); a(); };",
      'kit.js': "export const a = () => 'first';\nexport const b = () => 'second';",
    });
    expect(texts['kit.js']).toContain('first');
    expect(texts['kit.js']).not.toContain('second');
  });
});

describe('modules that import one another at random', () => {
  const line = fc.record({
    kind: fc.constantFrom('function', 'const', 'effect', 'default', 'use', 'inner'),
    pick: fc.nat(),
  });
  const module = fc.record({
    lines: fc.array(line, { maxLength: 6 }),
    imports: fc.array(
      fc.record({
        to: fc.nat(),
        kind: fc.constantFrom('named', 'namespace', 'default', 'star', 'pass', 'effect'),
        pick: fc.nat(),
      }),
      { maxLength: 4 },
    ),
  });

  it('do the same without what is left out', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(module, { minLength: 2, maxLength: 7 }), async (modules) => {
        const files = Object.fromEntries(modules.map((m, i) => [`m${i}.js`, textOf(m, i, modules.length)]));
        const main =
          "import * as all from './m0.js';\nimport { f0, c0 } from './m0.js';\nlog.push(typeof f0, c0, f0());";
        const sources = { ...files, 'main.js': main.replace("import * as all from './m0.js';\n", '') };
        const { texts, snapshot } = readSource(folderOf({ ...HTML, ...sources }));
        const kept = Object.fromEntries(snapshot.modules.map((m) => [m.path, texts[m.path]]));
        expect(await ran(kept)).toEqual(await ran(sources));
      }),
      { numRuns: 150 },
    );
  });

  /** A module that exports at least a function and a value, and does what its lines say. */
  function textOf(
    {
      lines,
      imports,
    }: { lines: { kind: string; pick: number }[]; imports: { to: number; kind: string; pick: number }[] },
    at: number,
    count: number,
  ): string {
    const used: string[] = [];
    const head: string[] = [];
    const body = [`export function f${at}() { return 'f${at}'; }`, `export const c${at} = 'c${at}';`];
    imports.forEach(({ to, kind, pick }, n) => {
      // Only later ones, so that every value is there when it is used.
      const k = at + 1 + (to % Math.max(1, count - at - 1));
      if (k >= count) return;
      const from = `'./m${k}.js'`;
      const name = pick % 2 === 0 ? `f${k}` : `c${k}`;
      if (kind === 'named') head.push(`import { ${name} as i${n} } from ${from};`);
      else if (kind === 'namespace') head.push(`import * as i${n} from ${from};`);
      else if (kind === 'default') head.push(`import i${n} from ${from};`);
      else if (kind === 'star') head.push(`export * from ${from};`);
      else if (kind === 'pass') head.push(`export { ${name} as p${n} } from ${from};`);
      else head.push(`import ${from};`);
      if (kind === 'named' || kind === 'default') used.push(`i${n}`);
      if (kind === 'namespace') used.push(pick % 3 === 0 ? `Object.keys(i${n}).length > 0` : `i${n}.${name}`);
    });
    body.push('const d = {};', 'export default d;');
    lines.forEach(({ kind, pick }, n) => {
      const value = used.length > 0 ? used[pick % used.length] : `'v${n}'`;
      if (kind === 'function') body.push(`export function g${n}() { return ${value}; }`);
      else if (kind === 'const') body.push(`export const k${n} = [${value}];`);
      else if (kind === 'effect') body.push(`log.push('m${at} ${n}', typeof (${value}));`);
      else if (kind === 'use') body.push(`log.push(f${at}());`);
      else if (kind === 'inner') body.push(`const h${n} = () => ${value};\nif (${pick % 2}) log.push(typeof h${n}());`);
    });
    return [...head, ...body].join('\n');
  }

  /** What an app logs by being run. */
  async function ran(files: Record<string, string>): Promise<unknown[]> {
    const log: unknown[] = [];
    const context = vm.createContext({ log });
    const made = new Map<string, vm.SourceTextModule>();
    const at = (path: string) => {
      const known = made.get(path) ?? new vm.SourceTextModule(files[path], { context, identifier: path });
      made.set(path, known);
      return known;
    };
    const main = at('main.js');
    await main.link((specifier) => at(specifier.slice(2)));
    await main.evaluate();
    return log;
  }
});

describe('a package that gathers others', () => {
  it.each([
    ['export * as', "export * as Dial from './dial.js';\nexport * as Gauge from './gauge.js';"],
    [
      'import * as, export',
      "import * as Dial from './dial.js';\nimport * as Gauge from './gauge.js';\nexport { Dial, Gauge };",
    ],
    [
      'import * as, export under another name',
      "import * as D from './dial.js';\nimport * as G from './gauge.js';\nexport { D as Dial, G as Gauge };",
    ],
    [
      'import, export',
      "import { Dial } from './dial.js';\nimport { Gauge } from './gauge.js';\nexport { Dial, Gauge };",
    ],
  ])('brings who takes one of them that one alone (%s)', (_, index) => {
    const { links } = read({
      'main.js': "import { Dial } from 'kit';\nconsole.log(Dial);\nimport('./later.js');",
      'later.js': "import { Gauge } from 'kit';\nconsole.log(Gauge);",
      ...pure('kit'),
      'node_modules/kit/index.js': index,
      'node_modules/kit/dial.js': "export const Dial = 'dial';",
      'node_modules/kit/gauge.js': "export const Gauge = 'gauge';",
    });
    const ends = links.map((l) => l.split(' ').slice(0, 2).join(' '));
    expect(ends).toContain('main.js node_modules/kit/dial.js');
    expect(ends).toContain('later.js node_modules/kit/gauge.js');
    expect(ends.filter((l) => l.includes('kit/index.js'))).toEqual([]);
  });
});
