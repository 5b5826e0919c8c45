import fs from 'node:fs';
import path from 'node:path';
import Database from 'better-sqlite3';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { openStore } from './database.ts';
import { OpenFile } from './open-file.ts';
import { insertPlan } from './plans.ts';
import { insertProject, listProjects } from './projects.ts';
import { copiesBeside, keepAside, putBack, takeCopy } from './rescue.ts';
import { type StoreFault, StoreTrouble } from './trouble.ts';

const migrations = path.resolve('src/store/migrations');

afterAll(removeFolders);

/** A database of a few hundred pages, with nothing left in its log. */
function filled(): string {
  const file = path.join(folderOf({}), 'a.sqlite');
  const store = openStore(file, migrations);
  insertProject(store, {
    id: 'p',
    name: 'P',
    createdAt: '2026-01-01',
    folder: null,
    readAs: 'output',
    givenBase: null,
    workspace: null,
    starts: [],
  });
  for (let i = 0; i < 300; i++)
    insertPlan(store, {
      id: `plan-${i}`,
      projectId: 'p',
      name: `Plan ${i}`,
      description: 'long '.repeat(300),
      decisions: [],
      basedOn: null,
      version: 1,
      changedAt: '2026-01-01',
    });
  store.close();
  return file;
}

function faultOf(work: () => unknown): StoreFault | null {
  try {
    work();
    return null;
  } catch (error) {
    if (error instanceof StoreTrouble) return error.fault;
    throw error;
  }
}

const overwrite = (file: string, at: number, length: number) => {
  const opened = fs.openSync(file, 'r+');
  fs.writeSync(opened, Buffer.alloc(length, 0xa5), 0, length, at);
  fs.closeSync(opened);
};

describe('a database that isn’t as it must be', () => {
  const harms: [string, StoreFault, (file: string) => void][] = [
    ['overwritten in the middle', 'damaged', (file) => overwrite(file, 20 * 4096, 40_000)],
    ['cut in half', 'damaged', (file) => fs.truncateSync(file, Math.floor(fs.statSync(file).size / 2))],
    ['cut within a page', 'damaged', (file) => fs.truncateSync(file, 4096 * 3 + 100)],
    ['emptied', 'damaged', (file) => fs.truncateSync(file, 0)],
    ['cut to its first bytes', 'foreign', (file) => fs.truncateSync(file, 10)],
    ['a text', 'foreign', (file) => fs.writeFileSync(file, 'name;size\n'.repeat(1000))],
    [
      'a database of another program',
      'foreign',
      (file) => {
        fs.rmSync(file);
        const other = new Database(file);
        other.exec('CREATE TABLE addresses (name TEXT)');
        other.close();
      },
    ],
    [
      'marked by another program',
      'foreign',
      (file) => {
        const other = new Database(file);
        other.pragma('application_id = 77');
        other.close();
      },
    ],
    [
      'of a newer version',
      'newer',
      (file) => {
        const other = new Database(file);
        other.pragma('user_version = 900');
        other.close();
      },
    ],
  ];

  it.each(harms)('is refused and left as it is: %s', (_, fault, harm) => {
    const file = filled();
    harm(file);
    const before = fs.readFileSync(file);
    expect(faultOf(() => openStore(file, migrations))).toBe(fault);
    expect(fs.readFileSync(file).equals(before)).toBe(true);
  });

  const changes: [string, StoreFault, (file: string) => void][] = [
    ['deleted', 'gone', (file) => fs.rmSync(file)],
    ['moved away', 'gone', (file) => fs.renameSync(file, `${file}.away`)],
    [
      'replaced',
      'gone',
      (file) => {
        fs.copyFileSync(file, `${file}.other`);
        fs.renameSync(`${file}.other`, file);
      },
    ],
    ['cut', 'damaged', (file) => fs.truncateSync(file, 4096)],
  ];

  it.each(changes)('is noticed before anything more is written: %s', (_, fault, change) => {
    const file = filled();
    const open = new OpenFile(file, migrations);
    expect(listProjects(open.sound())).toHaveLength(1);
    change(file);
    expect(faultOf(() => open.sound())).toBe(fault);
    open.store.close();
  });

  it('is accepted without a mark when an earlier version made it, and is marked', () => {
    const file = filled();
    const raw = new Database(file);
    raw.pragma('application_id = 0');
    raw.close();
    const store = openStore(file, migrations);
    expect(store.pragma('application_id', { simple: true })).toBe(0x594f4b45);
    store.close();
  });
});

describe('what can be done about it', () => {
  it('puts back all that a deleted file held, also what was saved last', () => {
    const file = filled();
    const open = new OpenFile(file, migrations);
    open.store.prepare("UPDATE projects SET name = 'Changed last'").run();
    for (const end of ['', '-wal', '-shm']) fs.rmSync(file + end, { force: true });
    expect(putBack(open.store, file)).toBeNull();
    open.store.close();
    const again = openStore(file, migrations);
    expect(listProjects(again).map((p) => p.name)).toEqual(['Changed last']);
    expect(again.prepare('SELECT count(*) FROM plans').pluck().get()).toBe(300);
    again.close();
  });

  it('keeps every file that it moves aside, under a name of its own', () => {
    const file = filled();
    const content = fs.readFileSync(file);
    const first = keepAside(file)!;
    fs.writeFileSync(file, 'second');
    const second = keepAside(file)!;
    expect(second).not.toBe(first);
    expect(fs.readFileSync(path.join(path.dirname(file), first)).equals(content)).toBe(true);
    expect(fs.readFileSync(path.join(path.dirname(file), second), 'utf8')).toBe('second');
    expect(fs.existsSync(file)).toBe(false);
    expect(keepAside(file)).toBeNull();
  });

  it('names copies newest first, and takes one with the copy kept', () => {
    const file = filled();
    for (const form of [2, 10, 4]) fs.copyFileSync(file, `${file}.form-${form}`);
    fs.writeFileSync(`${file}.form-x`, '');
    expect(copiesBeside(file)).toEqual([10, 4, 2].map((n) => `a.sqlite.form-${n}`));
    overwrite(file, 8192, 50_000);
    expect(takeCopy(file, 'a.sqlite.form-4')).toMatch(/^a\.sqlite\.kept-/);
    const store = openStore(file, migrations);
    expect(listProjects(store)).toHaveLength(1);
    store.close();
    expect(fs.existsSync(`${file}.form-4`)).toBe(true);
  });
});
