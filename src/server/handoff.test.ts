import fs from 'node:fs';
import path from 'node:path';
import type { Decision } from '../core/plan/types.ts';
import { readSource } from '../reader/read-source.ts';
import { openStore, type Store } from '../store/database.ts';
import { buildOf } from '../test-support/build.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { until } from '../test-support/until.ts';
import { startReadingBuild } from './builds.ts';
import { patchFor } from './patches.ts';
import { addProject, importProject, projectFile, projectView } from './projects.ts';
import { type ReadingState, readingState } from './reading-jobs.ts';

process.env.YOKELINE_HOME = process.cwd();

const open: Store[] = [];
afterAll(() => {
  for (const store of open) store.close();
  removeFolders();
});

const FILES = {
  'index.html': '<script type="module" src="/src/main.js"></script>',
  'src/main.js': "export const routes = [{ path: '/', page: () => import('./pages/home.js') }];\n",
  'src/pages/home.js': "import { chart } from '../parts/chart.js';\nexport default async () => chart;\n",
  'src/parts/chart.js': `export const chart = '${'chart '.repeat(300)}';`,
};
const detach: Decision = { kind: 'detach', import: 'src/pages/home.js::../parts/chart.js' };

function project(): { store: Store; id: string; folder: string } {
  const store = openStore(path.join(folderOf({}), 'data.sqlite'), path.resolve('src/store/migrations'));
  open.push(store);
  const folder = folderOf(FILES);
  const { snapshot, texts, sources } = readSource(folder);
  return { store, id: addProject(store, snapshot, [], { texts, sources, folder }), folder };
}

async function ended(state: ReadingState): Promise<ReadingState> {
  await until(() => readingState(state.id).state !== 'reading');
  return readingState(state.id);
}

describe('a patch', () => {
  it('is made from the sources that were kept, unless the folder has changed since', () => {
    const { store, id, folder } = project();
    const input = { name: 'Plan', decisions: [detach] };
    expect(patchFor(store, id, input).files).toEqual([{ path: 'src/pages/home.js', added: 4, removed: 2 }]);
    fs.appendFileSync(path.join(folder, 'src/pages/home.js'), '// changed\n');
    expect(patchFor(store, id, input)).toMatchObject({ diff: '', steps: [{ state: 'refused' }] });
    fs.rmSync(folder, { recursive: true });
    // Without the folder there is nothing to compare with.
    expect(patchFor(store, id, input).steps).toMatchObject([{ state: 'edited' }]);
    expect(() => patchFor(store, 'none', input)).toThrow('No such project');
    expect(() => patchFor(store, id, { name: 'P', decisions: [{ kind: 'burn' }] })).toThrow('decisions[0].kind');
  });
});

describe('a production build', () => {
  it('is laid beside a plan, and nothing of it is kept', async () => {
    const { store, id } = project();
    const edited = folderOf({
      ...FILES,
      'src/pages/home.js': "export default async () => (await import('../parts/chart.js')).chart;\n",
    });
    const built = folderOf(buildOf(readSource(edited)));
    const end = await ended(startReadingBuild(() => store, id, { name: 'Plan', decisions: [detach], folder: built }));
    expect(end).toMatchObject({ state: 'done', projectId: null, problem: null });
    expect(end.build!.reconciled).toMatchObject({ ok: true, decisions: [{ state: 'delivered' }] });
    expect(end.build!.files['src/parts/chart.js']).toMatch(/^assets\/.*\.js$/);
    const wrong = await ended(
      startReadingBuild(() => store, id, { name: 'Plan', decisions: [], folder: folderOf({ 'a.txt': '' }) }),
    );
    expect(wrong.state).toBe('failed');
    expect(() => startReadingBuild(() => store, id, { name: 'Plan', decisions: [], folder: 'here' })).toThrow(
      'Not a whole path',
    );
    expect(() => startReadingBuild(() => store, 'none', { name: 'Plan', decisions: [], folder: built })).toThrow(
      'No such project',
    );
  });
});

describe('a project as a file', () => {
  it('holds all of it, and opens as the same project; its code only where that is asked for', () => {
    const { store, id } = project();
    const twin = importProject(store, 'x.yokeline.json', projectFile(store, id, true));
    expect(JSON.parse(projectFile(store, twin, true))).toEqual(JSON.parse(projectFile(store, id, true)));
    expect(projectView(store, twin)).toMatchObject({ folder: null, plans: [{ name: 'First plan' }] });
    const bare = JSON.parse(projectFile(store, id, false));
    expect([bare.texts, bare.sources]).toEqual([undefined, undefined]);
    const other = importProject(store, 'y.yokeline.json', projectFile(store, id, false));
    expect(patchFor(store, other, { name: 'Plan', decisions: [detach] })).toMatchObject({
      diff: '',
      steps: [{ state: 'by hand' }],
    });
    expect(() => projectFile(store, 'none', true)).toThrow('No such project');
  });
});
