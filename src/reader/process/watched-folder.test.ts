import fs from 'node:fs';
import path from 'node:path';
import { jest } from '@jest/globals';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { until } from '../../test-support/until.ts';
import { rememberWith } from '../memory/memory.ts';
import { pathFrom } from '../path-from.ts';
import { readSource } from '../read-source.ts';
import { foldersAround } from './around-app.ts';
import { WatchedFolder } from './watched-folder.ts';

afterAll(removeFolders);

const STYLES = path.resolve('examples/styles');

/** An app in a workspace, with files of all kinds that readings take outside of its folder, and hidden ones. */
const WORKSPACE = {
  'package.json': '{ "private": true, "workspaces": ["apps/*", "packages/*"] }',
  'tsconfig.base.json': '{ "compilerOptions": { "jsx": "react-jsx" } }',
  'packages/ui/package.json': '{ "name": "@mill/ui", "main": "src/index.ts" }',
  'packages/ui/src/index.ts': "import './wheel.css';\nexport { Wheel } from './wheel.tsx';",
  'packages/ui/src/wheel.tsx': 'export const Wheel = () => <i className="wheel">wheel</i>;',
  'packages/ui/src/wheel.css': '.wheel { color: red }',
  'packages/config/package.json': '{ "name": "@mill/config" }',
  'packages/config/app.json': '{ "extends": "../../tsconfig.base.json" }',
  'libs/dates/lib/today.ts': 'export const today = () => new Date();',
  'apps/web/package.json': '{ "name": "web", "dependencies": { "react": "*" } }',
  'apps/web/tsconfig.json': '{ "extends": "../../packages/config/app.json" }',
  'apps/web/.env': 'VITE_API=/api\n',
  'apps/web/.babelrc': '{}',
  'apps/web/index.html': '<script type="module" src="/src/main.tsx"></script>',
  'apps/web/src/main.tsx':
    "import { Wheel } from '../../../packages/ui/src/index.ts';\nimport { today } from '../../../libs/dates/lib/today.ts';\nfetch(import.meta.env.VITE_API + today());\nexport const App = () => <Wheel />;",
};

/** The files that a reading opens, by their real paths; installed packages aside. */
function filesOpened(read: () => void): string[] {
  const opened = new Set<string>();
  const open = jest.spyOn(fs, 'openSync');
  const before = rememberWith(null);
  try {
    read();
    for (const [file] of open.mock.calls) opened.add(String(file));
  } finally {
    open.mockRestore();
    rememberWith(before);
  }
  return [...opened].filter((file) => !file.includes('node_modules/')).sort();
}

function copied(style: string): string {
  const folder = path.join(folderOf({}), 'app');
  fs.cpSync(path.join(STYLES, style), folder, { recursive: true });
  return folder;
}

async function watching(folder: string, workspace: string | null, told: Set<string>, troubles: string[] = []) {
  const note = (changed: ReadonlySet<string>) => {
    for (const file of changed) told.add(file);
  };
  const watched = new WatchedFolder(folder, workspace, note, (message) => troubles.push(message));
  await watched.ready;
  return watched;
}

const styles = fs.readdirSync(STYLES).filter((s) => fs.statSync(path.join(STYLES, s)).isDirectory());

it.each([...styles, 'a workspace'])('tells of every file that a reading takes: %s', async (style) => {
  const workspace = fs.realpathSync(style === 'a workspace' ? folderOf(WORKSPACE) : copied(style));
  const folder = style === 'a workspace' ? path.join(workspace, 'apps/web') : workspace;
  const files = filesOpened(() => readSource(folder, { workspace }));
  expect(files.length).toBeGreaterThan(style === 'a workspace' ? 11 : 2);
  const told = new Set<string>();
  const troubles: string[] = [];
  const watched = await watching(folder, workspace, told, troubles);
  const paths = files.map((file) => pathFrom(folder, file));
  watched.alsoIn(foldersAround(folder, workspace, paths));
  const missed = () => paths.filter((p) => !told.has(p));
  // What is added is watched a moment later; who follows an app looks for what was written until then.
  for (let tried = 0; tried < 40 && missed().length > 0; tried++) {
    for (const file of missed()) fs.appendFileSync(path.join(folder, file), '\n');
    await new Promise((go) => setTimeout(go, 250));
  }
  await watched.close();
  expect({ missed: missed(), troubles }).toEqual({ missed: [], troubles: [] });
});

it('tells of a file that another one is put in the place of, and not of that one', async () => {
  const folder = fs.realpathSync(folderOf({ 'src/a.ts': '1', 'src/b.ts': '1' }));
  const told = new Set<string>();
  const watched = await watching(folder, null, told);
  for (let n = 0; n < 3; n++) {
    fs.writeFileSync(path.join(folder, 'src/a.ts.tmp'), `${n}`);
    fs.renameSync(path.join(folder, 'src/a.ts.tmp'), path.join(folder, 'src/a.ts'));
  }
  fs.rmSync(path.join(folder, 'src/b.ts'));
  await until(() => told.has('src/a.ts') && told.has('src/b.ts'));
  await watched.close();
  expect([...told].sort()).toEqual(['src/a.ts', 'src/b.ts']);
});
