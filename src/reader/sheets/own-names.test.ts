import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const read = (files: Record<string, string>) =>
  readSource(
    folderOf({
      'index.html': '<script type="module" src="/main.js"></script>',
      'main.js': "import names from './card.module.css';\nnames.card;",
      ...files,
    }),
  );

describe('a sheet with class names of its own', () => {
  const { snapshot, texts } = read({
    'card.module.css':
      '.card {\n  composes: frame from "./base/frame.module.css";\n  composes: plain;\n  color: teal;\n}\n.plain { margin: 0 }',
    'base/frame.module.css': ".frame { margin: 0; composes: deep from './deep.module.css' }",
    'base/deep.module.css': '.deep { padding: 0 }\n.never { color: red }',
  });

  it('brings the sheets of which its names are composed, at their lines', () => {
    const links = snapshot.imports.map(
      (i) => `${snapshot.modules[i.from].path}:${i.line} ${snapshot.modules[i.to].path}`,
    );
    expect(links).toEqual([
      'base/frame.module.css:1 base/deep.module.css',
      'card.module.css:2 base/frame.module.css',
      'main.js:1 card.module.css',
    ]);
    expect(snapshot.unresolved).toEqual([]);
  });

  it('ships names that no other sheet has, and nothing of how they are composed', () => {
    const text = texts['card.module.css'];
    expect(text).toMatch(/^\.card_[\w-]+\{color:teal;?\}\.plain_[\w-]+\{margin:0\}$/);
  });

  it('ships the same wherever the app lies', () => {
    const [here, there] = [0, 1].map(() => read({ 'card.module.css': '.card { color: teal }' }).texts);
    expect(here['card.module.css']).toMatch(/^\.card_[\w-]{6}\{color:teal;?\}$/);
    expect(there).toEqual(here);
  });

  it('tells of a sheet that isn’t there', () => {
    const { unresolved } = read({ 'card.module.css': '.a { composes: b from "./none.module.css" }' }).snapshot;
    expect(unresolved).toMatchObject([{ from: 'card.module.css', specifier: './none.module.css', line: 1 }]);
  });
});
