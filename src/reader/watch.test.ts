import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';
import { watchWith } from './watch.ts';

afterAll(() => {
  watchWith({ begun: () => {}, skip: new Map() });
  removeFolders();
});

it('every step that goes through all files says how far it is, so that nobody takes it for stuck', () => {
  const count = 1200;
  const modules = Array.from({ length: count }, (_, i): [string, string] => [
    `src/m${i}.js`,
    `export const m${i} = (n) => n * ${i};\nconsole.log('module ${i}');`,
  ]);
  const folder = folderOf({
    'index.html': '<link rel="stylesheet" href="/a.css"><script type="module" src="/main.js"></script>',
    'a.css': '.never { color: red }',
    'main.js': modules.map(([file]) => `import './${file}';`).join('\n'),
    ...Object.fromEntries(modules),
  });
  const said: string[] = [];
  watchWith({ begun: (what) => void said.push(what), skip: new Map() });
  expect(readSource(folder).snapshot.modules).toHaveLength(count + 2);
  for (const step of [
    'weighing files beside one another',
    'weighing files far from one another',
    'what modules draw',
    'what scripts mention',
  ])
    expect(said).toEqual(expect.arrayContaining([step, `${step}: 500 done`, `${step}: 1000 done`]));
});
