import fs from 'node:fs';
import path from 'node:path';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';

afterAll(removeFolders);

const html = '<script type="module" src="/main.js"></script>';

describe('files that are not what they seem', () => {
  it('a picture named .js is kept with its error, and the rest is read', () => {
    const folder = folderOf({
      'index.html': html,
      'main.js': "import './pic.js';\nimport './good.js';",
      'good.js': '',
    });
    fs.writeFileSync(path.join(folder, 'pic.js'), Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 0xff, 0xfe, 0x80]));
    const { snapshot } = readSource(folder);
    expect(snapshot.failed).toMatchObject([{ path: 'pic.js', line: 1 }]);
    expect(snapshot.modules.map((m) => m.path)).toEqual(['good.js', 'main.js', 'pic.js']);
  });

  it('text in another encoding is read as far as it goes', () => {
    const folder = folderOf({ 'index.html': html });
    const latin = Buffer.concat([Buffer.from("export const name = 'Gr"), Buffer.from([0xfc]), Buffer.from("n';\n")]);
    fs.writeFileSync(path.join(folder, 'main.js'), latin);
    const { snapshot } = readSource(folder);
    expect(snapshot.failed).toEqual([]);
    expect(snapshot.modules[0].bytes.source).toBe(latin.length);
  });

  it('a line of ten megabytes is read', () => {
    const line =
      `export const table=[${Array.from({ length: 1_000_000 }, (_, i) => `${i % 97}.${i % 13}`).join(',')}];`.padEnd(
        10_000_000,
        ' ',
      );
    const { snapshot } = readSource(folderOf({ 'index.html': html, 'main.js': line }));
    expect(snapshot.modules[0].bytes.source).toBeGreaterThanOrEqual(4_000_000);
    expect(snapshot.modules[0].bytes.minified).toBeGreaterThan(1_000_000);
  });

  it('links that go round in circles, or lead out of the folder, are not followed', () => {
    const outside = folderOf({ 'secret.js': 'export const secret = 1;' });
    const folder = folderOf({
      'index.html': html,
      'main.js': "import './loop.js';\nimport './away.js';\nimport './around/main.js';",
    });
    fs.symlinkSync('loop.js', path.join(folder, 'loop.js'));
    fs.symlinkSync(path.join(outside, 'secret.js'), path.join(folder, 'away.js'));
    fs.symlinkSync('.', path.join(folder, 'around'));
    const { snapshot } = readSource(folder);
    expect(snapshot.modules.map((m) => m.path)).toEqual(['main.js']);
    expect(snapshot.unresolved.map((u) => u.line)).toEqual([1, 2]);
    expect(snapshot.unresolved[1].reason).toBe('it lies outside the folder that was read');
  });

  it('broken descriptions of packages and styles are got around', () => {
    const { snapshot } = readSource(
      folderOf({
        'index.html': html,
        'main.js': "import './broken.css';\nimport './data.json';\nimport './fine.js';",
        'broken.css': '} .a { color: red }',
        'data.json': '{ "a": ',
        'fine.js': '',
        'node_modules/odd/package.json': '{ not json',
      }),
    );
    expect(new Set(snapshot.failed.map((f) => f.path))).toEqual(new Set(['data.json', 'broken.css']));
    expect(snapshot.failed).toHaveLength(2);
    expect(snapshot.modules.find((m) => m.path === 'broken.css')?.bytes.source).toBe(19);
  });
});
