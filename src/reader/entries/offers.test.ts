import type { InputError } from '../../core/errors.ts';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

function refusalOf(files: Record<string, string>): InputError {
  try {
    readSource(folderOf(files));
  } catch (error) {
    return error as InputError;
  }
  throw new Error('it was read');
}

const ODD = {
  'package.json': '{ "name": "harbour" }',
  'code/boot.ts': "import { draw } from './draw';\ndraw(() => import('./pages/TidePage'));",
  'code/draw.ts': "export * from './inner/index.js';",
  'code/inner/index.ts': 'export const draw = (f: () => unknown) => f();',
  'code/pages/TidePage.vue': "<script setup>import '../mark'</script><template><p /></template>",
  'code/mark.ts': 'export const mark = 1;',
  'code/draw.test.ts': "import './draw'; import './boot';",
  'code/alone.ts': 'export const alone = 1;',
};

describe('a folder in which nothing is found that starts an app', () => {
  it('offers the files that nothing imports and that lead to most', () => {
    const { title, detail, offers } = refusalOf(ODD);
    expect(title).toBe('No entry');
    expect(offers).toEqual({ apps: [], starts: ['code/boot.ts'] });
    expect(detail).toContain('Nothing imports code/boot.ts');
    expect(detail).toContain('1 file looks like a page, such as code/pages/TidePage.vue');
  });

  it('is read from the files that a person names, documents among them', () => {
    const folder = folderOf({
      ...ODD,
      'deep/er/page.html': '<script type="module" src="../../code/draw.ts"></script>',
    });
    const { snapshot } = readSource(folder, { starts: ['./code/boot.ts'] });
    expect(snapshot.entries).toEqual([{ realm: 'site', kind: 'document', document: null, modules: ['code/boot.ts'] }]);
    expect(snapshot.modules.map((m) => m.path)).toContain('code/pages/TidePage.vue');
    const both = readSource(folder, { starts: ['deep/er/page.html', 'code/boot.ts'] }).snapshot;
    expect(both.entries.map((e) => [e.document, e.modules])).toEqual([
      ['deep/er/page.html', ['code/draw.ts']],
      [null, ['code/boot.ts']],
    ]);
  });

  it.each([
    ['code/none.ts', 'isn’t in the folder'],
    ['../outside.ts', 'isn’t in the folder'],
    ['code', 'isn’t in the folder'],
    ['package.json', 'Name scripts, styles, components or HTML files'],
  ])('refuses what can’t start it: %s', (file, message) => {
    expect(() => readSource(folderOf(ODD), { starts: [file] })).toThrow(message);
  });
});

describe('a workspace', () => {
  const app = {
    'package.json': '{ "name": "a" }',
    'index.html': '<script type="module" src="/src/a.ts"></script>',
    'src/a.ts': 'a()',
  };
  const below = (folder: string, files: Record<string, string>) =>
    Object.fromEntries(Object.entries(files).map(([name, text]) => [`${folder}/${name}`, text]));
  const files = {
    ...below('apps/tide', app),
    ...below('apps/group/map', app),
    ...below('apps/pages', {
      'package.json': '{ "dependencies": { "next": "16" } }',
      'app/page.tsx': 'export default () => null;',
    }),
    ...below('packages/kit', { 'package.json': '{ "main": "src/index.ts" }', 'src/index.ts': 'export const kit = 1;' }),
    'node_modules/kit/package.json': '{}',
  };

  it('offers the apps that it holds, not its packages, in place of reading its own entry', () => {
    const top = { 'package.json': '{ "workspaces": ["apps/*"] }', 'src/index.ts': 'export {};' };
    const { title, detail, offers } = refusalOf({ ...files, ...top });
    expect(title).toBe('A workspace of apps');
    expect(offers).toEqual({ apps: ['apps/group/map', 'apps/pages', 'apps/tide'], starts: [] });
    expect(detail).toContain('3 apps: apps/group/map, apps/pages, apps/tide.');
  });

  it('offers them where nothing says that it is one', () => {
    expect(refusalOf({ ...files, 'package.json': '{}' }).offers?.apps).toHaveLength(3);
  });

  it('is an app itself where its own documents start one', () => {
    const { snapshot } = readSource(folderOf({ ...files, ...app, 'pnpm-workspace.yaml': 'packages: ["apps/*"]' }));
    expect(snapshot.entries.map((e) => e.document)).toEqual(['index.html']);
  });
});
