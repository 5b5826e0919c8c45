import fs from 'node:fs';
import path from 'node:path';
import { zipSync } from 'fflate';
import { openStore, type Store } from '../store/database.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { until } from '../test-support/until.ts';
import { changePlan } from './plans.ts';
import { addProject, allProjects, changeAmendments, projectView, snapshotBody } from './projects.ts';
import { howToRead } from './reading.ts';
import { type ReadingState, readingState, startReading, startReadingAgain, stopReading } from './reading-jobs.ts';
import { searchTexts } from './search.ts';

process.env.YOKELINE_DATA = path.join(folderOf({}), 'data');
const { store: served } = await import('./context.ts');
const archives = await import('../app/api/readings/archive/route.ts');

const migrations = path.resolve('src/store/migrations');
const snapshot = sketch({ main: { imports: ['a'] }, a: {} }, { name: 'tiny-app', routes: [route('/', 'a')] });
const HOW = howToRead({});

function fresh(): { store: Store; id: string } {
  const store = openStore(path.join(folderOf({}), 'data.sqlite'), migrations);
  return { store, id: addProject(store, snapshot, []) };
}

/** Follows a reading on its real thread to the end. */
async function ended(state: ReadingState): Promise<ReadingState> {
  await until(() => readingState(state.id).state !== 'reading');
  return readingState(state.id);
}

afterAll(() => {
  served().close();
  removeFolders();
});

describe('folders', () => {
  const html = '<script type="module" src="/main.js"></script>';
  const files = {
    'index.html': html,
    'main.js': "import './a.js';\nimport './b.js';",
    'a.js': "console.log('Twenty minutes before');",
    'b.js': '',
  };

  async function read(store: Store, folder: string): Promise<string> {
    const end = await ended(startReading(() => store, folder, HOW));
    expect(end.problem).toBeNull();
    return end.projectId!;
  }

  it('are read into projects, whose shipped text can be searched', async () => {
    const { store } = fresh();
    const id = await read(store, folderOf(files));
    expect(projectView(store, id)).toMatchObject({ folder: expect.stringContaining('yokeline-') });
    expect(searchTexts(store, id, 'twenty MINUTES')).toEqual([
      { path: 'a.js', around: expect.stringContaining('Twenty minutes') },
    ]);
    expect(searchTexts(store, id, 'not there at all')).toEqual([]);
    expect(() => searchTexts(store, id, 'ab')).toThrow('three characters');
    expect(() => searchTexts(store, 'none', 'abc')).toThrow('No such project');
  });

  it('are read again into a new snapshot, which tells what changed and what no longer applies', async () => {
    const { store } = fresh();
    const folder = folderOf(files);
    const id = await read(store, folder);
    const [plan] = projectView(store, id).plans;
    changePlan(store, plan.id, { version: 1, decisions: [{ kind: 'detach', import: 'main.js::./b.js' }] });
    fs.writeFileSync(path.join(folder, 'main.js'), "import './a.js';\nimport './c.js';");
    fs.writeFileSync(path.join(folder, 'a.js'), "console.log('Twenty minutes before, or forty with a car');");
    fs.writeFileSync(path.join(folder, 'c.js'), '');
    const lost = { realm: 'site', pattern: '/lost', kind: 'changed', change: {} };
    changeAmendments(store, id, { version: 1, amendments: { routes: [lost] } });
    const { snapshotId } = projectView(store, id);
    const end = await ended(startReadingAgain(() => store, id, null));
    expect(end.changes).toEqual({
      added: ['c.js'],
      removed: ['b.js'],
      grown: [{ path: 'a.js', by: 21 }],
      stale: [
        { plan: 'First plan', reasons: ['no import main.js::./b.js in this snapshot'] },
        { plan: 'routes and parts', reasons: ['site /lost there is no such route any more'] },
      ],
    });
    expect(projectView(store, id).snapshotId).not.toBe(snapshotId);
  });

  it('are read with the workspace around them once that is allowed, and from then on', async () => {
    const { store } = fresh();
    const workspace = folderOf({
      'apps/a/index.html': html,
      'apps/a/main.js': "import '../../kit/near.js';",
      'kit/near.js': "import './far.js';",
      'kit/far.js': '',
    });
    const id = await read(store, path.join(workspace, 'apps/a'));
    const refused = await ended(startReadingAgain(() => store, id, '../../kit'));
    expect(refused.problem?.title).toBe('Not the workspace of this app');
    expect((await ended(startReadingAgain(() => store, id, null))).changes?.added).toEqual([]);
    const allowed = await ended(startReadingAgain(() => store, id, '../..'));
    expect(allowed.changes?.added).toEqual(['../../kit/far.js', '../../kit/near.js']);
    expect((await ended(startReadingAgain(() => store, id, null))).changes?.removed).toEqual([]);
  });

  it('that can’t be read leave everything as it was', async () => {
    const { store, id } = fresh();
    expect(() => startReading(() => store, 'relative/path', HOW)).toThrow('Not a whole path');
    expect(() => startReadingAgain(() => store, id, null)).toThrow('Nothing to read again');
    expect(() => startReadingAgain(() => store, 'none', null)).toThrow('No such project');
    const refused = await ended(startReading(() => store, folderOf({ 'a.txt': '' }), HOW));
    expect(refused).toMatchObject({ state: 'failed', projectId: null, problem: { title: 'No sources' } });
    expect(allProjects(store)).toHaveLength(1);
    const folder = folderOf(files);
    const project = await read(store, folder);
    const { snapshotId } = projectView(store, project);
    fs.rmSync(path.join(folder, 'index.html'));
    fs.rmSync(path.join(folder, 'main.js'));
    expect((await ended(startReadingAgain(() => store, project, null))).problem?.title).toBe('No entry');
    expect(projectView(store, project).snapshotId).toBe(snapshotId);
  });

  it('tell how far they are, and can be stopped with nothing kept', async () => {
    const { store } = fresh();
    const { id } = startReading(() => store, SAMPLE, HOW);
    await until(() => readingState(id).read > 0);
    expect(readingState(id)).toMatchObject({ state: 'reading' });
    expect(readingState(id).known).toBeGreaterThan(0);
    expect((await stopReading(id)).state).toBe('stopped');
    expect(allProjects(store)).toHaveLength(1);
    expect(() => readingState('none')).toThrow('No such reading');
  });
});

describe('archives', () => {
  const bytes = (text: string) => new TextEncoder().encode(text);
  const send = (query: string, body: Uint8Array | null) =>
    archives.POST(
      new Request(`http://127.0.0.1:4780/api/readings/archive?${query}`, {
        method: 'POST',
        headers: { host: '127.0.0.1:4780' },
        body: body as BodyInit,
      }),
    );
  const uploads = () => {
    const folder = path.join(process.env.YOKELINE_DATA!, 'uploads');
    return fs.existsSync(folder) ? fs.readdirSync(folder) : [];
  };
  const app = zipSync({
    'index.html': bytes('<script type="module" src="/main.js"></script>'),
    'main.js': bytes("import './a.js';"),
    'a.js': bytes('a();'),
  });

  it('become projects called after them, and leave nothing behind', async () => {
    const answer = await send('name=little shop.zip', app);
    expect(answer.status).toBe(202);
    const end = await ended((await answer.json()) as ReadingState);
    expect(end.problem).toBeNull();
    expect(projectView(served(), end.projectId!)).toMatchObject({ name: 'Little Shop', folder: null });
    const read = JSON.parse(snapshotBody(served(), end.projectId!).toString());
    expect(read.modules.map((m: { path: string }) => m.path)).toEqual(['a.js', 'main.js']);
    expect(uploads()).toEqual([]);
  });

  it('that hold nothing good are refused with the entry, and leave nothing behind', async () => {
    const evil = zipSync({ '../../index.html': bytes('x') });
    const answer = await send('name=evil.zip', evil);
    const end = await ended((await answer.json()) as ReadingState);
    expect(end).toMatchObject({ state: 'failed', projectId: null });
    expect(end.problem?.detail).toMatch(/lead/);
    expect(uploads()).toEqual([]);
  });

  it('need a name, a known kind and a base address that can be one', async () => {
    const refused = async (query: string, body: Uint8Array | null) => {
      const answer = await send(query, body);
      return [answer.status, ((await answer.json()) as { at?: string }).at];
    };
    expect(await refused('as=output', app)).toEqual([422, 'name']);
    expect(await refused('name=a.zip&as=magic', app)).toEqual([422, 'as']);
    expect(await refused('name=a.zip&base=app', app)).toEqual([422, 'base']);
    expect(await refused('name=a.zip', null)).toEqual([400, undefined]);
    expect(uploads()).toEqual([]);
  });
});
