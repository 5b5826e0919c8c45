import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { built } from '../test-support/built.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';

built('cli/main.js');
built('reader/process/reading-process.js');
afterAll(removeFolders);

const HEAVY = Array.from(
  { length: 300 },
  (_, i) => `export const f${i} = (n) => Math.sqrt(n * ${i * 37}) - ${i};`,
).join('\n');
const MAIN = `import { lazy } from 'react';
export const routes = [
  { path: '/', Component: lazy(() => import('./home.jsx')) },
  { path: '/list', Component: lazy(() => import('./list.jsx')) },
];
`;
const HOME = 'export default function Home() {\n  return <h1>Tides</h1>;\n}\n';
const USES = `import * as all from '@tides/reckon';\n${HOME}globalThis.all = all;\n`;

/** A repository with an app in a folder of it; packages are installed, one of them as a link to where it really lies. */
function repository(): { top: string; app: string; git: (...args: string[]) => string } {
  const top = folderOf({
    '.gitignore': 'node_modules\n',
    'apps/tides/package.json': '{ "name": "tide-tables", "dependencies": { "react": "*", "@tides/reckon": "*" } }',
    'apps/tides/index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
    'apps/tides/src/main.jsx': MAIN,
    'apps/tides/src/home.jsx': HOME,
    'apps/tides/src/list.jsx': HOME.replace('Home', 'List'),
    'apps/tides/node_modules/react/package.json': '{ "name": "react", "version": "18.0.0", "main": "index.js" }',
    'apps/tides/node_modules/react/index.js': 'exports.lazy = (f) => f; exports.createElement = () => null;',
    'apps/tides/node_modules/react/jsx-runtime.js': 'exports.jsx = () => null;',
    'apps/tides/node_modules/.store/reckon@1/node_modules/@tides/reckon/package.json':
      '{ "name": "@tides/reckon", "version": "1.0.0", "main": "index.js", "sideEffects": false }',
    'apps/tides/node_modules/.store/reckon@1/node_modules/@tides/reckon/index.js': HEAVY,
  });
  const app = path.join(top, 'apps/tides');
  fs.mkdirSync(path.join(app, 'node_modules/@tides'));
  fs.symlinkSync('../.store/reckon@1/node_modules/@tides/reckon', path.join(app, 'node_modules/@tides/reckon'));
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Tester', '-c', 'user.email=tester@example.com', ...args], {
      cwd: top,
      encoding: 'utf8',
    }).trim();
  git('init', '-q', '-b', 'main');
  git('add', '-A');
  git('commit', '-q', '-m', 'As it was');
  return { top, app, git };
}

function check(app: string, ...args: string[]) {
  return spawnSync(process.execPath, ['bin/yokeline.mjs', 'check', app, ...args], { encoding: 'utf8' });
}

describe('yokeline check --against', () => {
  const { app, top, git } = repository();

  it('tells nothing where nothing changed, packages that are installed among it', () => {
    const { status, stdout } = check(app, '--against', 'HEAD', '--json');
    expect([status, JSON.parse(stdout).against.landings]).toEqual([0, []]);
  });

  it('tells what this branch does to each landing, and touches nothing of the work tree', () => {
    fs.writeFileSync(path.join(app, 'src/home.jsx'), USES);
    const before = git('status', '--porcelain');
    const { against } = JSON.parse(check(app, '--against', 'main', '--json').stdout);
    expect(against).toMatchObject({
      ref: 'main',
      commit: git('rev-parse', 'HEAD'),
      landings: [{ route: '/', brings: [{ from: 'src/home.jsx', line: 1, isNew: true }] }],
    });
    const text = check(app, '--against', 'main', '--markdown').stdout;
    expect(text).toMatch(/^Against `main`:\n\n- `\/`: start \+[\d.]+ kB.*\n {2}- `src\/home.jsx:1` now brings /);
    expect(git('status', '--porcelain')).toBe(before);
    expect(git('worktree', 'list').split('\n')).toHaveLength(1);
    // The other way round: what a commit brought that isn’t there any more.
    git('commit', '-q', '-am', 'Reckon at home');
    fs.writeFileSync(path.join(app, 'src/home.jsx'), HOME);
    const back = JSON.parse(check(app, '--against', 'HEAD', '--json').stdout).against.landings;
    expect(back).toMatchObject([{ route: '/', brings: [], brought: [{ from: 'src/home.jsx', isNew: true }] }]);
    // A page that is gone is no gain.
    fs.renameSync(path.join(app, 'src/list.jsx'), path.join(app, 'src/lists.jsx'));
    const { stdout } = check(app, '--against', 'HEAD', '--json');
    expect(JSON.parse(stdout).against.lost).toMatchObject([{ from: 'src/main.jsx', line: 4, specifier: './list.jsx' }]);
    fs.renameSync(path.join(app, 'src/lists.jsx'), path.join(app, 'src/list.jsx'));
    fs.writeFileSync(path.join(app, 'src/home.jsx'), USES);
  });

  it('checks by what is kept beside the code, and writes SARIF with paths from the top of the repository', () => {
    const limits = [
      { route: '/', measure: 'start bytes', most: 400, link: 'clear-cell', device: 'laptop', cache: 'empty' },
    ];
    const kept = { format: 'yokeline-plans', version: 1, plans: [], limits, corrections: {} };
    fs.writeFileSync(path.join(app, 'yokeline.plan.json'), JSON.stringify(kept));
    const { status, stdout } = check(app, '--against', 'HEAD~1', '--sarif');
    expect(status).toBe(1);
    const { version, runs } = JSON.parse(stdout);
    const [{ tool, results }] = runs;
    expect(version).toBe('2.1.0');
    const rules = tool.driver.rules.map((r: { id: string }) => r.id);
    for (const { ruleId, message } of results) {
      expect(rules).toContain(ruleId);
      expect(message.text).not.toBe('');
    }
    expect(results.map((r: { ruleId: string; level: string }) => [r.ruleId, r.level])).toEqual([
      ['limit-broken', 'error'],
      ['landing-heavier', 'warning'],
    ]);
    for (const { locations } of results)
      expect(locations[0].physicalLocation).toEqual({
        artifactLocation: { uri: 'apps/tides/src/home.jsx', uriBaseId: '%SRCROOT%' },
        region: { startLine: 1 },
      });
    expect(path.relative(top, app)).toBe('apps/tides');
  });

  it('says by the name what isn’t there', () => {
    const error = (...args: string[]) =>
      JSON.parse(
        check(app, ...args, '--json')
          .stderr.split('\n')
          .at(-2)!,
      ).error;
    expect(error('--against', 'no-such')).toMatchObject({ title: 'No such commit', at: 'no-such' });
    const alone = folderOf({ 'index.html': '<script type="module" src="/a.js"></script>', 'a.js': '1;' });
    expect(error('--against', '--output=x')).toMatchObject({ title: 'No such commit' });
    const { stderr } = check(alone, '--against', 'HEAD', '--json');
    expect(JSON.parse(stderr.split('\n').at(-2)!).error.title).toBe('Not in a repository');
  });
});

it('keeps what a project decided beside the code, and takes it back', () => {
  const { app } = repository();
  const file = path.join(folderOf({}), 'tides.yokeline.json');
  const run = (...args: string[]) =>
    JSON.parse(execFileSync(process.execPath, ['bin/yokeline.mjs', ...args, '--json'], { encoding: 'utf8' }));
  run('read', app, '--out', file);
  run('plan', file, '--name', 'Lean', '--detach', 'src/main.jsx::react');
  run('limits', file, '--set-from', 'Baseline');
  expect(run('keep', file, '--in', app)).toMatchObject({ plans: 1 });
  expect(check(app, '--json').status).toBe(0);
  const other = path.join(folderOf({}), 'other.yokeline.json');
  run('read', app, '--out', other);
  expect(run('keep', other, '--in', app, '--take')).toMatchObject({ plans: 1, conflicts: [] });
  const [mine, theirs] = [file, other].map((f) => JSON.parse(fs.readFileSync(f, 'utf8')));
  expect([theirs.plans, theirs.amendments]).toEqual([mine.plans, mine.amendments]);
  // Written again it is the same; something else isn't written over unasked.
  run('keep', file, '--in', app);
  run('plan', file, '--name', 'Other', '--detach', 'src/main.jsx::react');
  const again = ['bin/yokeline.mjs', 'keep', file, '--in', app, '--json'];
  const { status, stderr } = spawnSync(process.execPath, again, { encoding: 'utf8' });
  expect([status, JSON.parse(stderr).error.title]).toEqual([2, 'The folder keeps something else']);
  expect(run('keep', file, '--in', app, '--over')).toMatchObject({ plans: 2 });
});

it('says what lies around an app, and puts what it takes of that at its place in the repository', () => {
  const top = folderOf({
    'packages/kit/package.json': '{ "name": "@tides/kit", "main": "index.js" }',
    'packages/kit/index.js': 'export const tide = 1;\n',
    'packages/kit/heavy.js': HEAVY,
    'apps/web/package.json': '{ "name": "web" }',
    'apps/web/index.html': '<script type="module" src="/main.js"></script>',
    'apps/web/main.js': "import { tide } from '../../packages/kit/index.js';\ndocument.title = tide;\n",
  });
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Tester', '-c', 'user.email=tester@example.com', ...args], { cwd: top });
  git('init', '-q', '-b', 'main');
  git('add', '-A');
  git('commit', '-q', '-m', 'As it was');
  fs.writeFileSync(
    path.join(top, 'packages/kit/index.js'),
    "import * as all from './heavy.js';\nexport const tide = all;\n",
  );
  const app = path.join(top, 'apps/web');
  const alone = check(app, '--against', 'HEAD', '--json');
  expect(JSON.parse(alone.stdout).against.landings).toEqual([]);
  expect(alone.stderr.split(`--workspace ${top}\n`)).toHaveLength(2);
  const whole = check(app, '--against', 'HEAD', '--workspace', top, '--sarif');
  expect(whole.stderr).not.toContain('--workspace');
  const [{ ruleId, locations }] = JSON.parse(whole.stdout).runs[0].results;
  expect(ruleId).toBe('landing-heavier');
  expect(locations[0].physicalLocation.artifactLocation.uri).toBe('packages/kit/index.js');
});
