import fs from 'node:fs';
import { openStore } from '../store/database.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { closeStore, databaseFile, migrations, store } from './context.ts';
import { handle } from './handle.ts';
import { createPlan } from './plans.ts';
import { addProject, allProjects, projectView } from './projects.ts';
import { type Rescue, rescue } from './store-trouble.ts';

const snapshot = sketch({ main: { imports: ['a'] }, a: {} }, { name: 'tiny-app', routes: [route('/', 'a')] });

beforeEach(() => {
  closeStore();
  process.env.YOKELINE_DATA = folderOf({});
});
afterAll(() => {
  closeStore();
  delete process.env.YOKELINE_DATA;
  removeFolders();
});

const asked = () =>
  new Request('http://localhost/api/x', { method: 'POST', headers: { host: 'localhost', origin: 'http://localhost' } });

/** What a caller is told who writes a plan. */
async function written(id: string, name: string): Promise<{ type?: string; detail?: string; rescues?: Rescue[] }> {
  const answer = await handle(asked(), () => Response.json(createPlan(store(), id, { name })));
  return answer.json();
}

describe('a database that went away under a running server', () => {
  it('lets nothing be confirmed and lost, and can be put back with all that was confirmed', async () => {
    const id = addProject(store(), snapshot, []);
    await written(id, 'Before');
    fs.rmSync(databaseFile());
    const told = await written(id, 'Meanwhile');
    expect(told.type).toBe('urn:yokeline:problem:database-gone');
    expect(told.rescues).toEqual([{ do: 'put back' }, { do: 'fresh' }]);
    expect(rescue({ do: 'put back' })).toEqual({ kept: null });
    await written(id, 'After');
    closeStore();
    expect(
      projectView(store(), id)
        .plans.map((p) => p.name)
        .sort(),
    ).toEqual(['After', 'Before', 'First plan']);
  });

  it('lets go of nothing that only the server holds, whatever is chosen', () => {
    const id = addProject(store(), snapshot, []);
    fs.rmSync(databaseFile());
    expect(() => rescue({ do: 'open' })).toThrow('There is no file');
    fs.writeFileSync(databaseFile(), 'no database '.repeat(1000));
    expect(() => rescue({ do: 'open' })).toThrow('is no database');
    rescue({ do: 'fresh' });
    expect(allProjects(store())).toEqual([]);
    const kept = fs
      .readdirSync(process.env.YOKELINE_DATA!)
      .filter((n) => /kept-[^.]*$/.test(n) && !/-(wal|shm)$/.test(n));
    expect(kept).toHaveLength(2);
    const projects = kept.flatMap((name) => {
      try {
        const open = openStore(`${process.env.YOKELINE_DATA}/${name}`, migrations());
        const ids = allProjects(open).map((p) => p.id);
        open.close();
        return ids;
      } catch {
        return [];
      }
    });
    expect(projects).toEqual([id]);
  });

  it('keeps the file that took its place', () => {
    const id = addProject(store(), snapshot, []);
    fs.copyFileSync(databaseFile(), `${databaseFile()}.other`);
    fs.renameSync(`${databaseFile()}.other`, databaseFile());
    expect(rescue({ do: 'put back' }).kept).toMatch(/kept-/);
    expect(allProjects(store()).map((p) => p.id)).toEqual([id]);
  });
});

describe('a database that is damaged', () => {
  const damage = () => {
    closeStore();
    fs.writeFileSync(databaseFile(), 'no database at all '.repeat(1000));
  };

  it('is told on every call, with a copy beside it among what can be done', async () => {
    const id = addProject(store(), snapshot, []);
    closeStore();
    fs.copyFileSync(databaseFile(), `${databaseFile()}.form-5`);
    damage();
    for (let i = 0; i < 2; i++) {
      const told = await written(id, 'x');
      expect(told.type).toBe('urn:yokeline:problem:database-foreign');
      expect(told.detail).not.toContain(databaseFile());
      expect(told.rescues).toContainEqual({ do: 'copy', copy: 'yokeline.sqlite.form-5' });
    }
    expect(rescue({ do: 'copy', copy: 'yokeline.sqlite.form-5' }).kept).toMatch(/kept-/);
    expect(allProjects(store()).map((p) => p.id)).toEqual([id]);
  });

  it('is kept when one begins afresh', () => {
    addProject(store(), snapshot, []);
    damage();
    const { kept } = rescue({ do: 'fresh' });
    expect(fs.readdirSync(process.env.YOKELINE_DATA!)).toContain(kept);
    expect(allProjects(store())).toEqual([]);
  });

  it('found while it is used is checked whole on the next call', async () => {
    const id = addProject(store(), snapshot, []);
    const broken = Object.assign(new Error('database disk image is malformed'), { code: 'SQLITE_CORRUPT' });
    const answer = await handle(asked(), () => {
      throw broken;
    });
    expect(((await answer.json()) as { type: string }).type).toBe('urn:yokeline:problem:database-damaged');
    // It was a false alarm: the file opens again.
    expect(await written(id, 'Fine')).toMatchObject({ name: 'Fine' });
  });

  it('can’t be put away while it is sound, nor replaced by any file', () => {
    addProject(store(), snapshot, []);
    expect(() => rescue({ do: 'fresh' })).toThrow('sound');
    damage();
    expect(() => rescue({ do: 'copy', copy: '../../other' })).toThrow('No such copy');
  });
});
