import fs from 'node:fs';
import path from 'node:path';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { UnseenChanges } from './unseen-changes.ts';

afterAll(removeFolders);

/** Until files that are written now have a later time than those before. */
const later = () => new Promise((go) => setTimeout(go, 30));

it('finds what was written since a reading began, each time once, whatever way it was written', async () => {
  const folder = folderOf({ 'src/a.ts': '1', 'b.ts': '1', 'c.ts': '1', 'node_modules/kit/index.js': '1' });
  const unseen = new UnseenChanges(folder);
  const files = new Set(['src/a.ts', 'b.ts', 'c.ts?style', 'gone.ts', 'node_modules/kit/index.js']);
  await later();
  const began = Date.now();
  expect(await unseen.since(began, files)).toEqual([]);
  fs.writeFileSync(path.join(folder, 'src/a.ts'), '2');
  // Another file is put in its place, with an older time of its content.
  fs.writeFileSync(path.join(folder, 'new'), '2');
  fs.utimesSync(path.join(folder, 'new'), 1, 1);
  fs.renameSync(path.join(folder, 'new'), path.join(folder, 'b.ts'));
  fs.writeFileSync(path.join(folder, 'node_modules/kit/index.js'), '2');
  expect(await unseen.since(began, files)).toEqual(['b.ts', 'src/a.ts']);
  expect(await unseen.since(began, files)).toEqual([]);
  await later();
  fs.writeFileSync(path.join(folder, 'src/a.ts'), '3');
  expect(await unseen.since(began, files)).toEqual(['src/a.ts']);
});
