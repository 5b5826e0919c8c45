import path from 'node:path';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { foldersAround } from './around-app.ts';

afterAll(removeFolders);

it('names the folders around an app that its files come from: packages whole, of loose files only their own, none twice', () => {
  const workspace = folderOf({
    'package.json': '{}',
    'apps/web/package.json': '{}',
    'packages/ui/package.json': '{}',
    'packages/ui/src/deep/a.ts': '',
    'libs/dates/src/lib/b.ts': '',
    'libs/dates/src/c.ts': '',
    'loose.ts': '',
  });
  const root = path.join(workspace, 'apps/web');
  const around = (...files: string[]) => foldersAround(root, workspace, files).map((f) => path.relative(workspace, f));
  expect(around('src/main.ts', '../../node_modules/kit/index.js')).toEqual([]);
  expect(around('../../packages/ui/src/deep/a.ts', '../../packages/ui/index.ts')).toEqual(['packages/ui']);
  expect(around('../../libs/dates/src/lib/b.ts')).toEqual(['libs/dates/src/lib']);
  expect(around('../../loose.ts', '../../package.json')).toEqual([]);
  expect(around('../../libs/dates/src/lib/b.ts', '../../libs/dates/src/c.ts')).toEqual(['libs/dates/src']);
});
