import fs from 'node:fs';
import path from 'node:path';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { route, sketch } from '../test-support/snapshots.ts';
import { closeStore, databaseFile, store } from './context.ts';
import { importBody } from './imports.ts';
import type { Problem } from './problem.ts';
import { allProjects, projectView } from './projects.ts';

const snapshot = sketch({ main: { imports: ['a'] }, a: {} }, { name: 'tiny-app', routes: [route('/', 'a')] });
const good = { format: 'yokeline-project', version: 1, snapshot, plans: [{ name: 'Mine', decisions: [] }] };

beforeAll(() => {
  process.env.YOKELINE_DATA = folderOf({});
});
afterAll(() => {
  closeStore();
  delete process.env.YOKELINE_DATA;
  removeFolders();
});

const ask = (body: string | ReadableStream) =>
  new Request('http://localhost/api/projects', { method: 'POST', body, duplex: 'half' } as RequestInit);
const file = (text: string) => JSON.stringify({ fileName: 'a.json', text });
const left = () => fs.readdirSync(path.join(process.env.YOKELINE_DATA!, 'uploads'));

describe('a project file that is brought', () => {
  it('is opened by a process of its own into the open database', async () => {
    const id = await importBody(ask(file(JSON.stringify(good))));
    expect(projectView(store(), id).plans.map((p) => p.name)).toEqual(['Mine']);
    expect(left()).toEqual([]);
  });

  it.each([
    ['{', 'broken-json', ''],
    ['[]', 'unexpected-content', ''],
    [JSON.stringify({ fileName: 'a.json' }), 'unexpected-content', 'text'],
    [file('{'), 'unreadable-input', 'a.json:1:2'],
    [file(JSON.stringify({ ...good, version: 99 })), 'unreadable-input', 'version'],
  ])('is refused with what is wrong, and nothing of it stays: %s', async (body, code, named) => {
    const before = allProjects(store()).length;
    const problem: Problem = await importBody(ask(body)).then(
      () => fail('it was taken'),
      (error) => error,
    );
    expect(problem).toMatchObject({ code });
    expect(`${problem.detail} ${problem.more.at}`).toContain(named);
    expect(allProjects(store())).toHaveLength(before);
    expect(left()).toEqual([]);
  });

  it('waits outside when too many are on their way', async () => {
    const ends: (() => void)[] = [];
    const slow = () =>
      new ReadableStream({
        start: (to) => {
          ends.push(() => {
            to.enqueue(new TextEncoder().encode('{'));
            to.close();
          });
        },
      });
    const going = Array.from({ length: 8 }, () => importBody(ask(slow())).catch((error: Problem) => error.code));
    await expect(importBody(ask(file('{}')))).rejects.toMatchObject({ code: 'too-many-bodies' });
    for (const end of ends) end();
    expect(new Set(await Promise.all(going))).toEqual(new Set(['broken-json']));
    await expect(importBody(ask(file(JSON.stringify(good))))).resolves.toBeTruthy();
  });

  it('isn’t taken in while the database is gone', async () => {
    fs.rmSync(databaseFile());
    await expect(importBody(ask(file(JSON.stringify(good))))).rejects.toThrow('deleted');
  });
});

function fail(words: string): never {
  throw new Error(words);
}
