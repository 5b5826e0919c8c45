import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { built } from '../test-support/built.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { sketch } from '../test-support/snapshots.ts';
import { openStore } from './database.ts';
import { findPlan, insertPlan } from './plans.ts';
import { insertProject } from './projects.ts';
import { insertSnapshot, packSnapshot } from './snapshots.ts';

const migrations = path.resolve('src/store/migrations');
afterAll(removeFolders);

/** A database with one plan. */
function withPlan(file: string): void {
  const store = openStore(file, migrations);
  insertProject(store, {
    id: 'p',
    name: 'P',
    createdAt: '2026-01-01',
    folder: null,
    readAs: 'sources',
    givenBase: null,
    workspace: null,
    starts: [],
  });
  insertSnapshot(store, {
    id: 's',
    projectId: 'p',
    readAt: '2026-01-01',
    packed: packSnapshot(sketch({ main: {} }), undefined, undefined),
  });
  const plan = { id: 'plan', projectId: 'p', name: 'Plan', description: '', decisions: [], basedOn: null, version: 1 };
  insertPlan(store, { ...plan, changedAt: '2026-01-01' });
  store.close();
}

describe('a server that is killed while it writes', () => {
  it('has lost nothing that it confirmed, and starts again, many times', async () => {
    const file = path.join(folderOf({}), 'data.sqlite');
    withPlan(file);
    let written = 0;
    for (let round = 0; round < 12; round++) {
      const writer = spawn(process.execPath, ['src/test-support/plan-writer.mjs', file, migrations, 'plan']);
      let confirmed = '';
      writer.stdout.on('data', (piece: Buffer) => {
        confirmed += piece.toString();
      });
      const ended = new Promise((go) => writer.on('close', go));
      // Killed at another moment each time, once something was confirmed.
      while (confirmed === '') await new Promise((go) => setTimeout(go, 5));
      await new Promise((go) => setTimeout(go, 7 * round + 3));
      writer.kill('SIGKILL');
      await ended;
      const last = Number(
        confirmed
          .trimEnd()
          .split('\n')
          .filter((l) => /^\d+$/.test(l))
          .at(-1),
      );
      const store = openStore(file, migrations);
      expect(store.pragma('integrity_check', { simple: true })).toBe('ok');
      const plan = findPlan(store, 'plan')!;
      expect(plan.version).toBeGreaterThanOrEqual(last);
      expect(plan.version).toBeLessThanOrEqual(last + 1);
      expect(plan.description).toHaveLength((plan.version - 1) % 5000);
      written = plan.version;
      store.close();
    }
    expect(written).toBeGreaterThan(24);
  });
});

describe('a database of an older form', () => {
  it('is copied before it is brought to the newest, which goes whole or not at all', () => {
    const folder = folderOf({});
    const file = path.join(folder, 'data.sqlite');
    const older = path.join(folder, 'older');
    fs.mkdirSync(older);
    const names = fs.readdirSync(migrations).sort();
    for (const name of names.slice(0, -1)) fs.copyFileSync(path.join(migrations, name), path.join(older, name));
    const old = openStore(file, older);
    // As a program of that time wrote it: the present one knows columns that aren't there yet.
    old.prepare("INSERT INTO projects (id, name, created_at) VALUES ('p', 'P', '2026-01-01')").run();
    old.close();
    openStore(file, migrations).close();
    const copy = openStore(`${file}.form-${names.length - 1}`, older);
    expect(copy.prepare('SELECT name FROM projects').all()).toEqual([{ name: 'P' }]);
    copy.close();

    const broken = path.join(folder, 'broken');
    fs.cpSync(migrations, broken, { recursive: true });
    fs.writeFileSync(path.join(broken, '9998-fine.sql'), 'CREATE TABLE extra (id TEXT);');
    fs.writeFileSync(path.join(broken, '9999-broken.sql'), 'CREATE TABLE wrong (;');
    expect(() => openStore(file, broken)).toThrow(/syntax/);
    const after = openStore(file, migrations);
    expect(after.prepare("SELECT count(*) AS n FROM sqlite_master WHERE name = 'extra'").get()).toEqual({ n: 0 });
    after.close();
  });

  it('that nobody may write says so', () => {
    const file = path.join(folderOf({}), 'data.sqlite');
    withPlan(file);
    // Root may write anything, so the database itself is told to refuse.
    const store = openStore(file, migrations);
    store.pragma('query_only = ON');
    expect(() => store.prepare('DELETE FROM plans').run()).toThrow(
      expect.objectContaining({ code: expect.stringMatching(/^SQLITE_READONLY/) }),
    );
    store.close();
  });
});

beforeAll(() => {
  built('store/database.js');
});
