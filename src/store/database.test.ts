import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { FORMER_MEASURES } from '../core/vocabulary/measures.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { sketch } from '../test-support/snapshots.ts';
import { openStore } from './database.ts';
import { deletePlan, findPlan, insertPlan, listPlans, updatePlan } from './plans.ts';
import { amendmentsOf, findProject, insertProject, listProjects, updateAmendments } from './projects.ts';
import { insertSnapshot, newestSnapshot, packSnapshot, sourcesOf, textsOf } from './snapshots.ts';

const FROM_CONTENT = { readAs: 'tell by content', givenBase: null, workspace: null, starts: [], follows: true };
const migrations = path.resolve('src/store/migrations');
const steps = fs.readdirSync(migrations).sort();

afterAll(removeFolders);

const fresh = () => openStore(path.join(folderOf({}), 'a.sqlite'), migrations);
const project = (id: string, createdAt = '2026-01-01') => ({
  id,
  name: `Project ${id}`,
  createdAt,
  folder: null,
  ...FROM_CONTENT,
});
const plan = (id: string, name: string) => ({
  id,
  projectId: 'p',
  name,
  description: '',
  decisions: [],
  basedOn: null,
  version: 1,
  changedAt: '2026-01-01',
});

describe('the database', () => {
  it('is brought from any earlier form to the newest, with everything in it kept', () => {
    const folder = folderOf({});
    const old = path.join(folder, 'old');
    fs.mkdirSync(old);
    fs.copyFileSync(path.join(migrations, steps[0]), path.join(old, steps[0]));
    const file = path.join(folder, 'a.sqlite');
    const before = openStore(file, old);
    before.prepare("INSERT INTO projects (id, name, created_at) VALUES ('p', 'Old', '2025')").run();
    before.close();
    const after = openStore(file, migrations);
    expect(findProject(after, 'p')).toEqual({ id: 'p', name: 'Old', createdAt: '2025', folder: null, ...FROM_CONTENT });
    expect(after.pragma('user_version', { simple: true })).toBe(steps.length);
    after.close();
  });

  it('keeps limits under the present name of what they measure, and names that people gave as they are', () => {
    const folder = folderOf({});
    const old = path.join(folder, 'old');
    fs.mkdirSync(old);
    for (const step of steps.slice(0, 5)) fs.copyFileSync(path.join(migrations, step), path.join(old, step));
    const file = path.join(folder, 'a.sqlite');
    const before = openStore(file, old);
    before.prepare("INSERT INTO projects (id, name, created_at) VALUES ('p', 'P', '2026-01-01')").run();
    const given = '"measure":"quiet"';
    const limit = { route: '/', most: 3000, link: given, device: 'mid phone', cache: 'empty' };
    const former = Object.keys(FORMER_MEASURES);
    const limits = former.map((measure) => ({ ...limit, measure }));
    before.prepare('UPDATE projects SET amendments = ?').run(JSON.stringify({ ...NO_AMENDMENTS, limits }));
    before.close();
    const after = openStore(file, migrations);
    const present = former.map((measure) => ({ ...limit, measure: FORMER_MEASURES[measure] }));
    expect(amendmentsOf(after, 'p')!.amendments.limits).toEqual(present);
    after.close();
  });

  it('stays as it was when a step to a newer form breaks off', () => {
    const folder = folderOf({});
    const file = path.join(folder, 'a.sqlite');
    openStore(file, migrations).close();
    const broken = path.join(folder, 'broken');
    fs.cpSync(migrations, broken, { recursive: true });
    fs.writeFileSync(path.join(broken, '9999-broken.sql'), 'CREATE TABLE half (a TEXT); SELECT nonsense FROM nowhere;');
    expect(() => openStore(file, broken)).toThrow('nowhere');
    const raw = new Database(file);
    expect(raw.prepare("SELECT count(*) AS n FROM sqlite_master WHERE name = 'half'").get()).toEqual({ n: 0 });
    expect(raw.pragma('user_version', { simple: true })).toBe(steps.length);
    raw.close();
  });

  it('keeps what is confirmed in a file that is safe to read meanwhile, and refuses loose ends', () => {
    const store = fresh();
    expect(store.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(() => insertPlan(store, plan('x', 'Without a project'))).toThrow('FOREIGN KEY');
    store.close();
  });
});

describe('queries', () => {
  it('list projects newest first', () => {
    const store = fresh();
    insertProject(store, project('a', '2026-01-01'));
    insertProject(store, { ...project('b', '2026-02-01'), folder: '/apps/b' });
    expect(listProjects(store).map((p) => [p.id, p.folder])).toEqual([
      ['b', '/apps/b'],
      ['a', null],
    ]);
    expect(findProject(store, 'none')).toBeUndefined();
    store.close();
  });

  it('give the newest snapshot of a project, and the texts of each', () => {
    const store = fresh();
    insertProject(store, project('p'));
    const snapshot = sketch({ main: {} });
    const add = (id: string, readAt: string, texts?: Record<string, string>, sources?: Record<string, string>) =>
      insertSnapshot(store, {
        id,
        projectId: 'p',
        readAt,
        packed: packSnapshot({ ...snapshot, name: id }, texts, sources),
      });
    add('first', '2026-01-01', { main: 'one' }, { main: 'export {};' });
    add('second', '2026-01-02');
    expect(newestSnapshot(store, 'p')?.id).toBe('second');
    expect(textsOf(store, 'first')).toEqual({ main: 'one' });
    expect(textsOf(store, 'second')).toEqual({});
    expect(sourcesOf(store, 'first')).toEqual({ main: 'export {};' });
    expect(sourcesOf(store, 'second')).toEqual({});
    expect(newestSnapshot(store, 'none')).toBeUndefined();
    store.close();
  });

  it('keep corrections beside a project, and write them only over the version that was seen', () => {
    const store = fresh();
    insertProject(store, { ...project('p'), readAs: 'output', givenBase: '/app/', workspace: '../..', starts: [] });
    expect(findProject(store, 'p')).toMatchObject({
      readAs: 'output',
      givenBase: '/app/',
      workspace: '../..',
      starts: [],
    });
    expect(amendmentsOf(store, 'p')).toEqual({ version: 1, amendments: NO_AMENDMENTS });
    const next = { ...NO_AMENDMENTS, keep: ['x-*'] };
    expect(updateAmendments(store, 'p', 1, next)).toBe(true);
    expect(updateAmendments(store, 'p', 1, NO_AMENDMENTS)).toBe(false);
    expect(amendmentsOf(store, 'p')).toEqual({ version: 2, amendments: next });
    expect(amendmentsOf(store, 'none')).toBeUndefined();
    store.close();
  });

  it('write a plan only over the version that was seen, and no two of one name', () => {
    const store = fresh();
    insertProject(store, project('p'));
    insertPlan(store, plan('1', 'B'));
    insertPlan(store, plan('2', 'A'));
    expect(listPlans(store, 'p').map((p) => p.name)).toEqual(['A', 'B']);
    expect(() => insertPlan(store, plan('3', 'A'))).toThrow('UNIQUE');
    const next = { ...plan('1', 'B'), version: 2, decisions: [{ kind: 'loader' as const, loader: 'listed' as const }] };
    expect(updatePlan(store, next, 1)).toBe(true);
    expect(updatePlan(store, next, 1)).toBe(false);
    expect(findPlan(store, '1')).toMatchObject({ version: 2, decisions: next.decisions });
    expect(deletePlan(store, '1')).toBe(true);
    expect(deletePlan(store, '1')).toBe(false);
    store.prepare("DELETE FROM projects WHERE id = 'p'").run();
    expect(listPlans(store, 'p')).toEqual([]);
    store.close();
  });
});
