import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { planned } from '../core/chunks/planned.ts';
import type { Decision } from '../core/plan/types.ts';
import { readSource } from '../reader/read-source.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { sourcePatch } from './patch.ts';

afterAll(removeFolders);

const HTML = '<script type="module" src="/main.tsx"></script>';

/** Patches a small app, applies the patch with git, and gives a file's new text, once its graph is the planned one. */
function patched(files: Record<string, string>, decisions: Decision[], file: string): string {
  const folder = folderOf({ 'index.html': HTML, 'tsconfig.json': '{}', ...files });
  const { snapshot, sources } = readSource(folder);
  const plan = { name: 'Plan', description: '', decisions };
  const { diff, steps } = sourcePatch(snapshot, plan, sources);
  expect(steps.filter((s) => s.state !== 'edited')).toEqual([]);
  execFileSync('git', ['apply', '-'], { cwd: folder, input: diff });
  const again = readSource(folder).snapshot;
  expect(again.failed).toEqual([]);
  const chunks = (of: typeof snapshot, decided: Decision[]) =>
    planned(of, { ...plan, decisions: decided })
      .graph.chunks.map((c) => [...c.modules].map((m) => of.modules[m].path).join(' '))
      .sort();
  expect(chunks(again, [])).toEqual(chunks(snapshot, decisions));
  return fs.readFileSync(path.join(folder, file), 'utf8');
}

/** Why an import of main.tsx can't be changed by itself. */
function reason(files: Record<string, string>, decision: Decision): string {
  const folder = folderOf({ 'index.html': HTML, 'tsconfig.json': '{}', ...files });
  const { snapshot, sources } = readSource(folder);
  const { diff, steps } = sourcePatch(snapshot, { name: 'Plan', description: '', decisions: [decision] }, sources);
  expect(diff).toBe('');
  expect(steps).toMatchObject([{ state: 'by hand' }]);
  return steps[0].what;
}

const detach = (key: string): Decision => ({ kind: 'detach', import: key });
const join = (key: string): Decision => ({ kind: 'join', import: key });
const CHART =
  'export const Chart = () => <b>chart</b>;\nexport default Chart;\nexport const draw = (x: number) => x;\n';

describe('components written for React', () => {
  it('become lazy ones inside of a boundary, each with its key', () => {
    const text = patched(
      {
        'main.tsx': `import { useState } from 'react';
import Chart from './chart';

export function Page() {
  const [open] = useState(false);
  return <main>{open ? <Chart kind="line" /> : null}{[1, 2].map((n) => <Chart key={n}>x</Chart>)}</main>;
}
`,
        'chart.tsx': CHART,
      },
      [detach('main.tsx::./chart')],
      'main.tsx',
    );
    expect(text).toBe(`import { useState, lazy, Suspense } from 'react';

const Chart = lazy(() => import('./chart'));

export function Page() {
  const [open] = useState(false);
  return <main>{open ? <Suspense fallback={null}><Chart kind="line" /></Suspense> : null}{[1, 2].map((n) => <Suspense key={n} fallback={null}><Chart key={n}>x</Chart></Suspense>)}</main>;
}
`);
  });

  it('keep their types and their place beside others', () => {
    const text = patched(
      {
        'main.tsx': `import * as React from "react";
import { Chart as Plot, type Kind } from "./chart";
import Late from "./late";

const Other = React.lazy(() => import("./other"));

export const Page = (kind: Kind) => <><Plot /><Other /><Late /></>;
`,
        'chart.tsx': `${CHART}export type Kind = 'line';\n`,
        'late.tsx': 'export default () => <i />;',
        'other.tsx': 'export default () => <i />;',
      },
      [detach('main.tsx::./chart')],
      'main.tsx',
    );
    expect(text).toBe(`import * as React from "react";
import type { Kind } from "./chart";
import Late from "./late";

const Other = React.lazy(() => import("./other"));
const Plot = React.lazy(() => import("./chart").then((m) => ({ default: m.Chart })));

export const Page = (kind: Kind) => <><React.Suspense fallback={null}><Plot /></React.Suspense><Other /><Late /></>;
`);
  });

  it('are passed on as lazy ones, with boundaries where they are drawn', () => {
    const files = {
      'main.tsx': "import { Chart, Icon } from './parts';\nexport const Page = () => <p><Icon /><Chart /></p>;\n",
      'parts.ts': "export { Chart } from './chart';\nexport { Icon } from './icon';\n",
      'chart.tsx': CHART,
      'icon.tsx': 'export const Icon = () => <i />;',
    };
    expect(patched(files, [detach('parts.ts::./chart')], 'parts.ts')).toBe(
      "import { lazy } from 'react';\nexport const Chart = lazy(() => import('./chart').then((m) => ({ default: m.Chart })));\nexport { Icon } from './icon';\n",
    );
    expect(patched(files, [detach('parts.ts::./chart')], 'main.tsx')).toBe(
      "import { Chart, Icon } from './parts';\nimport { Suspense } from 'react';\nexport const Page = () => <p><Icon /><Suspense fallback={null}><Chart /></Suspense></p>;\n",
    );
  });

  it('of the app’s own wrapper are loaded by an async function, and join back', () => {
    const files = {
      'main.tsx': `import { later } from 'mine';
import { Chart } from './chart';

const Other = later(() => import('./other'));

export const Page = () => <><Other /><Chart /></>;
`,
      'chart.tsx': CHART,
      'other.tsx': 'export default () => <i />;',
    };
    const text = patched(files, [detach('main.tsx::./chart')], 'main.tsx');
    expect(text).toBe(`import { later } from 'mine';

const Other = later(() => import('./other'));
const Chart = later(async () => ({ default: (await import('./chart')).Chart }));

export const Page = () => <><Other /><Chart /></>;
`);
    expect(patched({ ...files, 'main.tsx': text }, [join('main.tsx::./chart')], 'main.tsx')).toBe(files['main.tsx']);
  });

  it('of one module are imported by one statement, with the wrapper once', () => {
    const text = patched(
      {
        'main.tsx': `import { Chart, Legend } from './chart';

export const Page = () => <p><Chart /><Legend /><Chart /></p>;
`,
        'chart.tsx': `${CHART}export function Legend() { return <i />; }
`,
      },
      [detach('main.tsx::./chart')],
      'main.tsx',
    );
    expect(text).toBe(`import { lazy, Suspense } from 'react';

const Chart = lazy(() => import('./chart').then((m) => ({ default: m.Chart })));
const Legend = lazy(() => import('./chart').then((m) => ({ default: m.Legend })));

export const Page = () => <p><Suspense fallback={null}><Chart /></Suspense><Suspense fallback={null}><Legend /></Suspense><Suspense fallback={null}><Chart /></Suspense></p>;
`);
  });

  it('stand where the only import stood, after directives and comments', () => {
    const main = (head: string) => `${head}import { Chart } from './chart';\n\nexport const Page = () => <Chart />;\n`;
    const after = (head: string) => `${head}import { lazy, Suspense } from 'react';

const Chart = lazy(() => import('./chart').then((m) => ({ default: m.Chart })));

export const Page = () => <Suspense fallback={null}><Chart /></Suspense>;
`;
    for (const head of ['', "'use client';\n\n", '/** @jsxImportSource react */\n', "'use client';\n"]) {
      const files = { 'main.tsx': main(head), 'chart.tsx': CHART };
      expect(patched(files, [detach('main.tsx::./chart')], 'main.tsx')).toBe(after(head));
    }
  });

  it('that take a type of their own, and what is only written like one, are left to be done by hand', () => {
    const of = (main: string, chart: string) =>
      reason({ 'main.tsx': main, 'chart.tsx': chart }, detach('main.tsx::./chart'));
    const generic = 'export function Pick<T extends string>({ of }: { of: T }) { return <i>{of}</i>; }';
    const drawn = 'import { Pick } from "./chart";\nexport const Page = () => <Pick of="a" />;\n';
    expect(of(drawn, generic)).toContain('takes a type of its own');
    const named = 'import { WORDS } from "./chart";\nexport const Page = () => <i style={{ content: WORDS }} />;\n';
    expect(of(named, "const WORDS = 'a';\nexport { WORDS };")).toContain('uses WORDS at once');
    const given = 'import { Shape } from "./chart";\nexport const Page = () => <i data-of={{ shape: Shape }} />;\n';
    expect(of(given, 'export class Shape {}')).toContain('uses Shape at once');
    expect(of(given, 'export const Shape = made({ of: 1 });')).toContain('uses Shape at once');
  });

  it('join back', () => {
    const text = patched(
      {
        'main.tsx': `import { lazy, useState } from 'react';

const Chart = lazy(() => import('./chart').then((m) => ({ default: m.Chart })));

export const Page = () => <Chart />;
`,
        'chart.tsx': CHART,
      },
      [join('main.tsx::./chart')],
      'main.tsx',
    );
    expect(text).toBe(`import { useState } from 'react';
import { Chart } from './chart';

export const Page = () => <Chart />;
`);
  });
});

describe('functions', () => {
  const tools = {
    'tools.ts': 'export const a = () => 1;\nexport const b = () => 2;\nexport default a;\nexport type T = number;\n',
  };

  it.each<[string, string, string]>([
    [
      'are waited for in the innermost block that needs them',
      "import { a, b as c } from './tools';\nexport async function go(x: boolean) {\n  if (x) {\n    console.log(1);\n    return a() + c();\n  }\n}\n",
      "export async function go(x: boolean) {\n  if (x) {\n    console.log(1);\n    const { a, b: c } = await import('./tools');\n    return a() + c();\n  }\n}\n",
    ],
    [
      'are waited for in each function of its own, by their namespace too',
      "import * as all from './tools';\nexport const go = async () => all.a();\nexport const on = <button onClick={() => console.log(all.b())} />;\n",
      "export const go = async () => {\n  const all = await import('./tools');\n  return all.a();\n};\nexport const on = <button onClick={async () => {\n  const all = await import('./tools');\n  return console.log(all.b());\n}} />;\n",
    ],
    [
      'come before a callback that needs them',
      'import first, { b } from "./tools";\n\nexport async function go(list: number[]) {\n  const n = list.length;\n  return list.map((x) => x + b() + first() + n);\n}\n',
      'export async function go(list: number[]) {\n  const n = list.length;\n  const { default: first, b } = await import("./tools");\n  return list.map((x) => x + b() + first() + n);\n}\n',
    ],
    [
      'leave the import of their types',
      "import { type T, a } from './tools';\r\nexport const go = async (x: T) => {\r\n  return x + a();\r\n};\r\n",
      "import type { T } from './tools';\r\nexport const go = async (x: T) => {\r\n  const { a } = await import('./tools');\r\n  return x + a();\r\n};\r\n",
    ],
  ])('%s', (_, before, after) => {
    expect(patched({ 'main.tsx': before, ...tools }, [detach('main.tsx::./tools')], 'main.tsx')).toBe(after);
  });

  it.each<[string, RegExp]>([
    ["import { a } from './tools';\nexport const x = a();", /while the module starts/],
    ["import { a } from './tools';\nexport function go() { return a() }", /go gives its answer to callers/],
    [
      "import { a } from './tools';\nexport async function go() { a(); { const a = 2; return a } }",
      /means something else/,
    ],
    ["import './tools';", /for what it does by itself/],
    ["export * from './tools';", /nothing that was read imports/],
    ["export { a } from './tools';", /nothing that was read imports/],
    ["const t = require('./tools');\nexport const x = t;", /by a call/],
    [
      "import { a } from './tools';\nexport const on = <form onSubmit={(e) => { e.preventDefault(); a() }} onReset={(e) => { a(); e.preventDefault() }} />;",
      /needs preventDefault at once/,
    ],
    [
      "import { a } from './tools';\nimport { Box } from './box';\nexport const x = () => <Box render={a} />;",
      /hands it on in line 1/,
    ],
    ["import { a } from './tools';\nonMount(() => { a(); return () => {}; });", /uses a at once/],
    ["import { a } from './tools';\nonMount(() => a());", /uses a at once/],
  ])('say why they can’t: %s', (main, expected) => {
    const box = 'export const Box = ({ render }: { render: () => number }) => <b title={String(render)} />;';
    expect(reason({ 'main.tsx': main, 'box.tsx': box, ...tools }, detach('main.tsx::./tools'))).toMatch(expected);
  });

  it('wait once something is drawn, where nothing is given back to clean up', () => {
    const text = patched(
      { 'main.tsx': "import { a } from './tools';\n\nonMount(() => { a(); });\n", ...tools },
      [detach('main.tsx::./tools')],
      'main.tsx',
    );
    expect(text).toBe("onMount(async () => { const { a } = await import('./tools');\na(); });\n");
  });

  it('of several modules wait in one block, where a handler is one expression', () => {
    const text = patched(
      {
        'main.tsx': `import { save } from './save';
import { draw } from './chart';

export const Page = () => <button onClick={() => save(draw(1))}>save</button>;
`,
        'save.ts': 'export const save = (n: number) => n;\n',
        'chart.tsx': CHART,
      },
      [detach('main.tsx::./save'), detach('main.tsx::./chart')],
      'main.tsx',
    );
    expect(text).toBe(`export const Page = () => <button onClick={async () => {
  const { save } = await import('./save');
  const { draw } = await import('./chart');
  return save(draw(1));
}}>save</button>;
`);
  });

  it('join back, wherever the promise of their module stands', () => {
    const text = patched(
      {
        'main.tsx':
          "export async function go() {\n  const { a } = await import('./big tools');\n  return [a, import('./other')];\n}\n",
        'big tools.ts': tools['tools.ts'],
        'other.ts': 'export default 1;',
      },
      [join('main.tsx::./big tools'), join('main.tsx::./other')],
      'main.tsx',
    );
    expect(text).toBe(
      "import * as bigTools from './big tools';\nimport * as other from './other';\nexport async function go() {\n  const { a } = bigTools;\n  return [a, Promise.resolve(other)];\n}\n",
    );
    expect(
      reason(
        { 'main.tsx': ['export const go = (n: string) => import(`./parts/$', '{n}.ts`);'].join(''), 'parts/a.ts': '' },
        join('main.tsx::./parts/a.ts'),
      ),
    ).toMatch(/computed/);
  });
});

describe('triggers', () => {
  const files = {
    'main.tsx': "export const open = () => import('./far away');\n",
    'far away.ts': 'export const a = 1;',
  };
  const fetchAt = (fetch: Extract<Decision, { kind: 'trigger' }>['fetch']): Decision => ({
    kind: 'trigger',
    splitPoint: 'far away.ts',
    fetch,
  });

  it.each<[Decision, string]>([
    [fetchAt({ on: 'after', ms: 1500 }), '  setTimeout(begin, 1500);'],
    [fetchAt({ on: 'after first paint' }), '  requestAnimationFrame(() => setTimeout(begin));'],
    [fetchAt({ on: 'media', maxWidth: 640 }), "  if (matchMedia('(max-width: 640px)').matches) begin();"],
    [fetchAt({ on: 'at once' }), '  begin();'],
  ])('of time and screen are written: %j', (decision, line) => {
    const text = patched(files, [decision], 'main.tsx');
    expect(text).toContain(line);
    expect(text).toContain(files['main.tsx']);
  });

  it.each<[Decision, RegExp]>([
    [fetchAt({ on: 'visible' }), /IntersectionObserver/],
    [fetchAt({ on: 'approach' }), /'pointerover', 'focusin'/],
    [fetchAt({ on: 'event', name: 'cart' }), /addEventListener\("cart", load/],
  ])('of elements and events are told as code to write: %j', (decision, code) => {
    const folder = folderOf({ 'index.html': HTML, ...files });
    const { snapshot, sources } = readSource(folder);
    const { steps } = sourcePatch(snapshot, { name: 'P', description: '', decisions: [decision] }, sources);
    expect(steps).toMatchObject([{ state: 'by hand', recipe: expect.stringMatching(code) }]);
  });
});

it('edits nothing in a template, a package, or where one line leads to several modules', () => {
  const folder = folderOf({
    'index.html': HTML,
    'package.json': '{"name":"app"}',
    'main.tsx':
      "import { a, b } from 'kit';\nimport View from './view.vue';\nexport const go = async () => [a, b, View];\n",
    'view.vue':
      '<template><p>x</p></template>\n<script>\nimport { c } from "./c";\nexport default { go: async () => c };\n</script>\n',
    'c.ts': 'export const c = 1;',
    'node_modules/kit/package.json': '{"name":"kit","sideEffects":false,"module":"index.js","main":"index.js"}',
    'node_modules/kit/index.js': "export { a } from './a.js';\nexport { b } from './b.js';\n",
    'node_modules/kit/a.js': "import { b } from './b.js';\nexport const a = async () => b;",
    'node_modules/kit/b.js': 'export const b = 2;',
  });
  const { snapshot, sources } = readSource(folder);
  const what = (decision: Decision) =>
    sourcePatch(snapshot, { name: 'P', description: '', decisions: [decision] }, sources).steps.map((s) => s.what);
  expect(what(detach('view.vue::./c'))).toEqual([expect.stringContaining('inside of a template')]);
  expect(what(detach('node_modules/kit/a.js::./b.js'))).toEqual([expect.stringContaining('stands in a package')]);
  expect(what({ kind: 'detach', import: 'main.tsx::kit' })).toEqual([
    expect.stringContaining('leads to several modules'),
  ]);
});
