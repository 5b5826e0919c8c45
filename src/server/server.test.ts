import fs from 'node:fs';
import path from 'node:path';
import { openStore, type Store } from '../store/database.ts';
import { folderOf, removeFolders, SAMPLE } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { guard } from './guard.ts';
import { handle } from './handle.ts';
import { NewPlanInput, PlanChangeInput, readInput } from './inputs.ts';
import { changePlan, createPlan, planOf, removePlan } from './plans.ts';
import { Problem } from './problems.ts';
import { addProject, allProjects, importProject, projectView, searchTexts, snapshotBody } from './projects.ts';
import { type ReadingState, readingState, startReading, startReadingAgain, stopReading } from './reading-jobs.ts';

const migrations = path.resolve('src/store/migrations');
const snapshot = sketch({ main: { imports: ['a'] }, a: {} }, { name: 'tiny-app', routes: [route('/', 'a')] });

function fresh(): { store: Store; file: string; id: string; planId: string } {
  const file = path.join(folderOf({}), 'deep', 'data.sqlite');
  const store = openStore(file, migrations);
  const id = addProject(store, snapshot, []);
  return { store, file, id, planId: projectView(store, id).plans[0].id };
}

afterAll(removeFolders);

describe('projects', () => {
  it('are kept over a restart, with snapshot and plans', () => {
    const { store, file, id, planId } = fresh();
    changePlan(store, planId, { version: 1, decisions: [{ kind: 'detach', import: 'main::a' }] });
    store.close();
    const again = openStore(file, migrations);
    expect(allProjects(again).map((p) => p.name)).toEqual(['Tiny App']);
    expect(projectView(again, id).plans).toMatchObject([
      { name: 'First plan', version: 2, decisions: [{ kind: 'detach', import: 'main::a' }] },
    ]);
    expect(JSON.parse(snapshotBody(again, id).toString())).toEqual(snapshot);
    again.close();
  });

  it('are imported whole or not at all', () => {
    const { store } = fresh();
    const good = { format: 'yokeline-project', version: 1, snapshot, plans: [{ name: 'Mine', decisions: [] }] };
    const id = importProject(store, 'a.json', JSON.stringify(good));
    expect(projectView(store, id).plans.map((p) => p.name)).toEqual(['Mine']);
    const count = allProjects(store).length;
    const twins = { ...good, plans: [...good.plans, ...good.plans] };
    expect(() => importProject(store, 'a.json', JSON.stringify(twins))).toThrow('Two plans');
    expect(() => importProject(store, 'a.json', '{')).toThrow('a.json:1:2');
    expect(() =>
      addProject(
        store,
        snapshot,
        [good.plans[0], good.plans[0]].map((p) => ({ ...p, description: '' })),
      ),
    ).toThrow();
    expect(allProjects(store)).toHaveLength(count);
  });

  it('that are not there are said to be missing', () => {
    const { store } = fresh();
    expect(() => projectView(store, 'none')).toThrow('No such project');
    expect(() => snapshotBody(store, 'none')).toThrow('No such project');
    expect(() => createPlan(store, 'none', { name: 'x' })).toThrow('No such project');
    expect(() => planOf(store, 'none')).toThrow('No such plan');
  });

  it('refuse a database of a newer form', () => {
    const { store, file } = fresh();
    store.pragma('user_version = 99');
    store.close();
    expect(() => openStore(file, migrations)).toThrow('update the program');
  });
});

describe('folders', () => {
  const html = '<script type="module" src="/main.js"></script>';
  const files = {
    'index.html': html,
    'main.js': "import './a.js';\nimport './b.js';",
    'a.js': "console.log('Twenty minutes before');",
    'b.js': '',
  };

  /** Follows a reading on its real thread to the end. */
  async function ended(state: ReadingState): Promise<ReadingState> {
    for (let i = 0; i < 400 && readingState(state.id).state === 'reading'; i++)
      await new Promise((wake) => setTimeout(wake, 25));
    return readingState(state.id);
  }

  async function read(store: Store, folder: string): Promise<string> {
    const end = await ended(startReading(store, folder));
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
    const { snapshotId } = projectView(store, id);
    const end = await ended(startReadingAgain(store, id));
    expect(end.changes).toEqual({
      added: ['c.js'],
      removed: ['b.js'],
      grown: [{ path: 'a.js', by: 21 }],
      stale: [{ plan: 'First plan', reasons: ['no import main.js::./b.js in this snapshot'] }],
    });
    expect(projectView(store, id).snapshotId).not.toBe(snapshotId);
  });

  it('that can’t be read leave everything as it was', async () => {
    const { store, id } = fresh();
    expect(() => startReading(store, 'relative/path')).toThrow('Not a whole path');
    expect(() => startReadingAgain(store, id)).toThrow('Nothing to read again');
    expect(() => startReadingAgain(store, 'none')).toThrow('No such project');
    const refused = await ended(startReading(store, folderOf({ 'a.txt': '' })));
    expect(refused).toMatchObject({ state: 'failed', projectId: null, problem: { title: 'No sources' } });
    expect(allProjects(store)).toHaveLength(1);
    const folder = folderOf(files);
    const project = await read(store, folder);
    const { snapshotId } = projectView(store, project);
    fs.rmSync(path.join(folder, 'index.html'));
    fs.rmSync(path.join(folder, 'main.js'));
    expect((await ended(startReadingAgain(store, project))).problem?.title).toBe('No entry');
    expect(projectView(store, project).snapshotId).toBe(snapshotId);
  });

  it('tell how far they are, and can be stopped with nothing kept', async () => {
    const { store } = fresh();
    const { id } = startReading(store, SAMPLE);
    for (let i = 0; i < 400 && readingState(id).read === 0; i++) await new Promise((wake) => setTimeout(wake, 10));
    expect(readingState(id)).toMatchObject({ state: 'reading' });
    expect(readingState(id).known).toBeGreaterThan(0);
    expect((await stopReading(id)).state).toBe('stopped');
    expect(allProjects(store)).toHaveLength(1);
    expect(() => readingState('none')).toThrow('No such reading');
  });
});

describe('plans', () => {
  it('are not overwritten by a writer who saw an older version', () => {
    const { store, planId } = fresh();
    changePlan(store, planId, { version: 1, decisions: [{ kind: 'detach', import: 'main::a' }] });
    try {
      changePlan(store, planId, { version: 1, decisions: [] });
      throw new Error('not refused');
    } catch (error) {
      expect(error).toBeInstanceOf(Problem);
      expect(error).toMatchObject({ status: 409, more: { current: { version: 2 } } });
    }
    expect(planOf(store, planId).decisions).toHaveLength(1);
  });

  it('are made, renamed and removed; two of one name are refused', () => {
    const { store, id, planId } = fresh();
    const plan = createPlan(store, id, { name: 'Second', decisions: [{ kind: 'loader', loader: 'discovered' }] });
    expect(plan.version).toBe(1);
    expect(() => createPlan(store, id, { name: 'Second' })).toThrow('choose another name');
    expect(() => changePlan(store, planId, { version: 1, name: 'Baseline' })).toThrow('choose another name');
    expect(changePlan(store, planId, { version: 1, name: 'Renamed' }).name).toBe('Renamed');
    removePlan(store, plan.id);
    expect(projectView(store, id).plans.map((p) => p.name)).toEqual(['Renamed']);
  });

  it('take no decisions that they don’t understand', () => {
    const { store, planId } = fresh();
    expect(() => changePlan(store, planId, { version: 1, decisions: [{ kind: 'fly' }] })).toThrow('decisions[0].kind');
    expect(planOf(store, planId).version).toBe(1);
  });
});

describe('requests', () => {
  const ask = (body: unknown, headers: Record<string, string> = {}) =>
    new Request('http://127.0.0.1:4780/api/x', {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { host: '127.0.0.1:4780', ...headers },
    });

  it('are checked field by field', async () => {
    await expect(readInput(ask({ name: 'fine' }), NewPlanInput)).resolves.toMatchObject({ name: 'fine' });
    await expect(readInput(ask({ name: '' }), NewPlanInput)).rejects.toMatchObject({
      status: 422,
      more: { at: 'name' },
    });
    await expect(readInput(ask({ version: 'one' }), PlanChangeInput)).rejects.toMatchObject({
      more: { at: 'version' },
    });
    await expect(readInput(ask({ version: 1, extra: true }), PlanChangeInput)).rejects.toMatchObject({
      more: { at: 'extra' },
    });
    await expect(readInput(ask([]), PlanChangeInput)).rejects.toMatchObject({ status: 422 });
    const noJson = new Request('http://x/', { method: 'POST', body: '{' });
    await expect(readInput(noJson, PlanChangeInput)).rejects.toMatchObject({ status: 400 });
  });

  it('are taken only from this machine and the own page', () => {
    expect(() => guard(ask({}))).not.toThrow();
    expect(() => guard(ask({}, { origin: 'http://127.0.0.1:4780' }))).not.toThrow();
    expect(() => guard(ask({}, { host: 'evil.example' }))).toThrow('Not from here');
    expect(() => guard(ask({}, { origin: 'http://evil.example' }))).toThrow('Not from here');
    expect(() => guard(ask({}, { origin: 'null' }))).toThrow('Not from here');
  });

  it('that fail are answered with problem details and nothing of the inside', async () => {
    const told = await handle(ask({}), () => {
      throw new Problem(409, 'Changed elsewhere', 'Reload.', { current: 1 });
    });
    expect(told.status).toBe(409);
    expect(told.headers.get('content-type')).toBe('application/problem+json');
    expect(await told.json()).toEqual({
      type: 'about:blank',
      status: 409,
      title: 'Changed elsewhere',
      detail: 'Reload.',
      current: 1,
    });
    const inside = await handle(ask({}), () => {
      throw new Error('password is 1234');
    });
    expect(inside.status).toBe(500);
    expect(await inside.text()).not.toContain('1234');
  });
});
