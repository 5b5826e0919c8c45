import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { built } from '../test-support/built.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { until } from '../test-support/until.ts';

built('cli/main.js');
built('reader/process/reading-process.js');
afterAll(removeFolders);

const HEAVY = Array.from(
  { length: 400 },
  (_, i) => `export const f${i} = (n) => Math.sqrt(n * ${i * 37}) - ${i};`,
).join('\n');
const APP = {
  'package.json': '{ "name": "tide-tables", "dependencies": { "react": "*" } }',
  'index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
  'src/main.jsx': `import { lazy } from 'react';
export const routes = [
  { path: '/', Component: lazy(() => import('./home.jsx')) },
  { path: '/list', Component: lazy(() => import('./list.jsx')) },
];
`,
  'src/home.jsx': 'export default function Home() {\n  return <h1>Tides</h1>;\n}\n',
  'src/list.jsx': 'export default function List() {\n  return <h1>List</h1>;\n}\n',
  'src/heavy.js': HEAVY,
};

/** What `yokeline watch` says, and a way to wait for what it says next. */
function watching(...args: string[]) {
  const child = spawn(process.execPath, ['bin/yokeline.mjs', 'watch', ...args, '--json']);
  const said: { kind: string; [field: string]: unknown }[] = [];
  let rest = '';
  child.stdout.on('data', (piece) => {
    const lines = (rest + piece).split('\n');
    rest = lines.pop()!;
    said.push(...lines.map((l) => JSON.parse(l)));
  });
  const next = async (write: () => void) => {
    const before = said.length;
    write();
    await until(() => said.length > before);
    return said[said.length - 1];
  };
  return { child, said, next };
}

it('yokeline watch follows what an app takes from the workspace around it: packages, loose files, and what configures them', async () => {
  const workspace = folderOf({
    'package.json': '{ "private": true, "workspaces": ["apps/*", "packages/*"] }',
    'packages/kit/package.json': '{ "name": "@tides/kit", "main": "src/index.js" }',
    'packages/kit/src/index.js': "export const tide = () => 'high';\n",
    'packages/kit/src/heavy.js': HEAVY,
    'packages/other/src/index.js': 'export {};\n',
    'libs/moon.js': 'export const moon = 1;\n',
    ...Object.fromEntries(Object.entries(APP).map(([file, text]) => [`apps/web/${file}`, text])),
    'apps/web/src/home.jsx':
      "import { tide } from '../../../packages/kit/src/index.js';\nimport { moon } from '../../../libs/moon.js';\nexport default function Home() {\n  return <h1>{tide()}{moon}</h1>;\n}\n",
  });
  const at = (file: string) => path.join(workspace, file);
  const { child, said, next } = watching(at('apps/web'), '--workspace', workspace);
  expect(await next(() => {})).toMatchObject({ kind: 'following', routes: 2 });
  const kit = at('packages/kit/src/index.js');
  expect(
    await next(() =>
      fs.appendFileSync(kit, "import { f1 } from './heavy.js';\nexport const n = [f1];\nconsole.log(n);\n"),
    ),
  ).toMatchObject({
    kind: 'changed',
    saved: ['../../packages/kit/src/index.js'],
    landings: [
      {
        route: '/',
        brings: expect.arrayContaining([expect.objectContaining({ to: '../../packages/kit/src/heavy.js' })]),
      },
    ],
  });
  expect(await next(() => fs.appendFileSync(at('libs/moon.js'), 'console.log(moon);\n'))).toMatchObject({
    kind: 'changed',
    saved: ['../../libs/moon.js'],
  });
  expect(await next(() => fs.writeFileSync(kit, 'export const tide = ((('))).toMatchObject({
    kind: 'broken',
    at: [{ path: '../../packages/kit/src/index.js' }],
  });
  // What the app takes nothing of is not its own.
  const sofar = said.length;
  fs.appendFileSync(at('packages/other/src/index.js'), 'console.log(1);\n');
  await new Promise((go) => setTimeout(go, 800));
  expect(said.slice(sofar)).toEqual([]);
  const over = new Promise((go) => child.once('exit', go));
  child.kill('SIGINT');
  expect(await over).toBe(0);
});

it('yokeline watch tells what each save did to which landing, keeps what it knew while a file is broken, and follows on', async () => {
  const folder = folderOf(APP);
  const project = path.join(folderOf({}), 'tides.yokeline.json');
  const limit = { route: '/', measure: 'start bytes', most: 3000, link: 'clear-cell', device: 'laptop' };
  execFileSync(process.execPath, ['bin/yokeline.mjs', 'read', folder, '--out', project], { stdio: 'ignore' });
  const read = JSON.parse(fs.readFileSync(project, 'utf8'));
  fs.writeFileSync(project, JSON.stringify({ ...read, amendments: { ...read.amendments, limits: [limit] } }));
  const { child, said, next } = watching(folder, '--project', project);
  const home = path.join(folder, 'src/home.jsx');
  const first = await next(() => {});
  expect(first).toMatchObject({ kind: 'following', name: 'tide-tables', routes: 2 });
  const heavy = `import { f1 } from './heavy.js';\nimport * as all from './heavy.js';\n${APP['src/home.jsx']}export const n = [f1, all];\n`;
  expect(await next(() => fs.writeFileSync(home, heavy))).toMatchObject({
    kind: 'changed',
    saved: ['src/home.jsx'],
    landings: [
      {
        route: '/',
        state: 'changed',
        brings: [{ from: 'src/home.jsx', line: expect.any(Number), to: 'src/heavy.js', isNew: true }],
      },
    ],
    limits: [{ state: 'broken', limit: { route: '/' } }],
  });
  expect(await next(() => fs.writeFileSync(home, 'export default ((('))).toMatchObject({
    kind: 'broken',
    at: [{ path: 'src/home.jsx', line: 1 }],
  });
  expect(await next(() => fs.writeFileSync(home, APP['src/home.jsx']))).toMatchObject({
    kind: 'changed',
    landings: [{ route: '/', brought: [{ to: 'src/heavy.js' }] }],
    limits: [{ state: 'kept' }],
  });
  expect(await next(() => fs.writeFileSync(path.join(folder, 'package.json'), '{ broken'))).toMatchObject({
    kind: 'refused',
    error: { at: expect.stringContaining('package.json') },
  });
  fs.writeFileSync(path.join(folder, 'package.json'), APP['package.json']);
  // A page that is gone isn’t a gain.
  expect(await next(() => fs.rmSync(home))).toMatchObject({
    kind: 'changed',
    lost: [{ from: 'src/main.jsx', line: 3, specifier: './home.jsx' }],
    landings: [{ route: '/', state: 'gone' }],
  });
  expect(await next(() => fs.writeFileSync(home, APP['src/home.jsx']))).toMatchObject({ lost: [] });
  // What isn't of the app isn't told; what is of it and changes nothing that ships is.
  fs.writeFileSync(path.join(folder, 'README.md'), 'Tides.');
  const list = path.join(folder, 'src/list.jsx');
  const told = said.length;
  const last = await next(() => fs.writeFileSync(list, `// Of today.\n${APP['src/list.jsx']}`));
  expect(last).toMatchObject({ kind: 'changed', landings: [] });
  expect(said.slice(told).flatMap((s) => s.saved)).toContain('src/list.jsx');
  // While git writes the folder nothing is told; then all of it at once.
  const lock = path.join(folder, '.git/index.lock');
  fs.mkdirSync(path.dirname(lock));
  fs.writeFileSync(lock, '');
  fs.writeFileSync(home, 'export default (((');
  const sofar = said.length;
  await new Promise((go) => setTimeout(go, 1500));
  expect(said.slice(sofar)).toEqual([]);
  const checkedOut = await next(() => {
    fs.writeFileSync(home, `${APP['src/home.jsx']}export const n = 1;\n`);
    fs.rmSync(lock);
  });
  expect(checkedOut).toMatchObject({ kind: 'changed', saved: ['src/home.jsx'] });
  const over = new Promise((go) => child.once('exit', go));
  child.kill('SIGINT');
  expect(await over).toBe(0);
});
