import vm from 'node:vm';
import fc from 'fast-check';
import { planned } from '../../core/chunks/planned.ts';
import { BASELINE } from '../../core/plan/types.ts';
import type { Import } from '../../core/snapshot/module-types.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import { sketch } from '../../test-support/snapshots.ts';
import { assemble } from './assemble.ts';

/** What a module of a made-up graph takes of another one. */
interface Taking {
  to: number;
  how: 'named' | 'default' | 'namespace' | 'star' | 'pass' | 'pass as' | 'effect' | 'deferred';
  what: number;
}
interface Made {
  takes: Taking[];
  lines: { kind: 'use' | 'call' | 'change' | 'destructure' | 'loop' | 'inner'; pick: number }[];
  waits: boolean;
  form: number;
}

const taking = fc.record({
  to: fc.nat(),
  how: fc.constantFrom<Taking['how']>(
    'named',
    'named',
    'default',
    'namespace',
    'star',
    'pass',
    'pass as',
    'effect',
    'deferred',
  ),
  what: fc.nat(),
});
const made = fc.record({
  takes: fc.array(taking, { maxLength: 5 }),
  lines: fc.array(
    fc.record({
      kind: fc.constantFrom<Made['lines'][number]['kind']>('use', 'call', 'change', 'destructure', 'loop', 'inner'),
      pick: fc.nat(),
    }),
    { maxLength: 6 },
  ),
  waits: fc.boolean(),
  form: fc.nat({ max: 5 }),
});

/** Names that every module exports itself. */
const OWN = ['f', 'c', 'n', 'set', 'K', 'default'] as const;
const nameIn = (k: number, what: number) => {
  const own = OWN[what % OWN.length];
  return own === 'default' ? own : `${own}${k}`;
};

/** The text of a module, and its imports as a reading would tell them. */
function written(modules: readonly Made[], at: number): { text: string; imports: Omit<Import, 'from' | 'ordinal'>[] } {
  const { takes, lines, waits, form } = modules[at];
  const head: string[] = [];
  const used: string[] = [];
  const after: string[] = [];
  const imports: Omit<Import, 'from' | 'ordinal'>[] = [];
  const link = (to: number, names: string[], kind: Import['kind'] = 'static') =>
    imports.push({ to, kind, specifier: `./m${to}.js`, names, line: 1, column: 1, start: 0, end: 0 });
  takes.forEach(({ to, how, what }, n) => {
    const k = to % modules.length;
    const name = nameIn(k, what);
    const from = `"./m${k}.js"`;
    const local = ['v', 'own', 'v_', 'require', 'e'][n];
    if (how === 'named')
      head.push(name === 'default' ? `import ${local} from ${from};` : `import { ${name} as ${local} } from ${from};`);
    if (how === 'default') head.push(`import ${local}, { f${k} as ${local}f } from ${from};`);
    if (how === 'namespace') head.push(`import * as ${local} from ${from};`);
    if (how === 'star') head.push(`export * from ${from};`);
    if (how === 'pass') head.push(`export { ${name} as p${at}_${n} } from ${from};`);
    if (how === 'pass as')
      head.push(
        what % 2
          ? `export * as q${at}_${n} from ${from};`
          : `import { ${name} as ${local} } from ${from};\nexport { ${local} as q${at}_${n} };`,
      );
    if (how === 'effect') head.push(`import ${from};`);
    if (how === 'named' || how === 'default') used.push(local);
    if (how === 'namespace') used.push(`${local}.${name}`);
    if (how === 'deferred')
      after.push(
        `later.push(() => import(${from}).then((m) => log("later", Object.keys(m).join(), show(m.${name}))));`,
      );
    const names =
      how === 'named' || how === 'pass' || (how === 'pass as' && what % 2 === 0)
        ? [name]
        : how === 'default'
          ? ['default', `f${k}`]
          : how === 'effect'
            ? []
            : ['*'];
    link(k, names, how === 'deferred' ? 'dynamic' : 'static');
  });
  const body = [
    `export function f${at}() { return 'f${at}' + (n${at} === undefined ? '' : n${at}); }`,
    `export const c${at} = 'c${at}', d${at} = log('between', ${used.length > 0 ? `show(() => ${used[0]})` : "'none'"});`,
    `let n${at} = (() => { let later${at} = 1; later${at}++; return later${at}; })();`,
    `export let later${at} = 2;\nlater${at} = 3;`,
    `export { n${at}, set${at} };`,
    `function set${at}(v) { n${at} = v; return n${at}; }`,
    `export class K${at} { static s = 'K${at}'; }`,
    [
      `export default function () { return 'd${at}'; }`,
      `export default function own${at}() { return own${at}.name; }`,
      `export default class {}`,
      `export default (() => n${at});`,
      `export default c${at} + n${at};`,
      `const e${at} = { v: 1 };\nexport { e${at} as default };`,
    ][form],
  ];
  lines.forEach(({ kind, pick }, n) => {
    const value = used.length > 0 ? used[pick % used.length] : `c${at}`;
    if (kind === 'use') body.push(`log('m${at}', ${n}, show(() => ${value}));`);
    if (kind === 'call')
      body.push(
        `log('m${at}', ${n}, show(() => ${value} === undefined ? undefined : typeof ${value} === 'function' && !/^class/.test(String(${value})) ? ${value}(${n}) : 0));`,
      );
    if (kind === 'change') body.push(pick % 2 ? `n${at}++;` : `log(n${at} += 2);`);
    if (kind === 'destructure') body.push(pick % 2 ? `[n${at}] = [${n}];` : `({ a: n${at} = 3 } = {});`);
    if (kind === 'loop') body.push(`for (n${at} of [1, 2]) log('loop', show(() => ${value}));`);
    if (kind === 'inner') body.push(`{ const n${at} = 'inner'; let x = n${at}; x += n${at}; log(x); }`);
  });
  if (waits) body.push('await 0;', `log('waited ${at}');`);
  return { text: [...head, ...body, ...after].join('\n'), imports };
}

const LOG = `
  const logged = [], later = [];
  const show = (of) => { let v; try { v = typeof of === 'function' && !of.prototype && of.name === '' ? of() : of; } catch { return 'none'; } return v === undefined ? 'none' : typeof v === 'function' ? 'function ' + v.name : typeof v === 'object' ? JSON.stringify(v) : String(v); };
  const log = (...of) => void logged.push(of.join(' '));
`;

/** Runs a graph as the language does. */
async function natively(texts: readonly string[]): Promise<string[]> {
  const context = vm.createContext({});
  vm.runInContext(`${LOG} Object.assign(globalThis, { logged, later, log, show });`, context);
  const known = new Map<string, vm.SourceTextModule>();
  const at = (specifier: string) => {
    const name = specifier.slice(2);
    const found =
      known.get(name) ??
      new vm.SourceTextModule(texts[Number(/\d+/.exec(name)![0])], {
        context,
        identifier: name,
        importModuleDynamically: (async (s: string) => {
          const module = at(s);
          if (module.status === 'unlinked') await module.link(at);
          await module.evaluate();
          return module;
        }) as never,
      });
    known.set(name, found);
    return found;
  };
  const main = at('./m0.js');
  await main.link(at);
  await main.evaluate();
  return finished(context);
}

async function finished(context: vm.Context): Promise<string[]> {
  for (let task = context.later.shift(); task; task = context.later.shift()) await task();
  return context.logged;
}

/** Runs the same graph cut into files, which come in an order of their own. */
async function assembled(snapshot: Snapshot, texts: Record<string, string>, seed: number): Promise<string[]> {
  const { graph } = planned(snapshot, BASELINE);
  const { files, told } = assemble(snapshot, graph, texts, (c) => `/f${c}.js`);
  expect(told).toEqual([]);
  const context = vm.createContext({ performance, URL });
  vm.runInContext(`${LOG} Object.assign(globalThis, { logged, later, log, show, self: globalThis });`, context);
  const run = (address: string) => vm.runInContext(files.find((f) => f.address === address)!.text, context);
  const [entry] = graph.roots;
  const order = entry.group.map((c) => `/f${c}.js`);
  if (seed % 2) order.reverse();
  order.forEach(run);
  context.__parts.fetch = async (address: string) => {
    for (let i = seed % 3; i > 0; i--) await null;
    run(address);
  };
  // The end of what waits at its top level.
  for (let i = 0; i < 60; i++) await null;
  return finished(context);
}

function graphOf(modules: readonly Made[]): { snapshot: Snapshot; texts: string[] } {
  const all = modules.map((_, i) => written(modules, i));
  const base = sketch(Object.fromEntries(modules.map((_, i) => [`m${i}.js`, {}])), {
    entries: [{ realm: 'site', modules: ['m0.js'] }],
  } as never);
  const imports = all.flatMap(({ imports: own }, from) => own.map((i, ordinal) => ({ ...i, from, ordinal })));
  return {
    snapshot: {
      ...base,
      imports,
      entries: [{ realm: 'site', kind: 'document', document: 'index.html', modules: ['m0.js'] }],
    },
    texts: all.map((a) => a.text),
  };
}

describe('files that are assembled of any graph', () => {
  it('do what the modules do by themselves, in whatever order they come', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(made, { minLength: 1, maxLength: 7 }), fc.nat(), async (any, seed) => {
        // How two that wait are interleaved depends on single turns of the queue of tasks.
        const first = any.findIndex((m) => m.waits);
        const modules = any.map((m, i) => ({ ...m, waits: i === first && seed % 4 === 0 }));
        const { snapshot, texts } = graphOf(modules);
        const byPath = Object.fromEntries(texts.map((t, i) => [`m${i}.js`, t]));
        expect(await assembled(snapshot, byPath, seed)).toEqual(await natively(texts));
      }),
      { numRuns: 2000 },
    );
  }, 120_000);
});
