import fs from 'node:fs';
import path from 'node:path';
import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { textIfThere } from '../folder-files.ts';
import { compileSheet, type SheetFiles } from './compile-sheet.ts';

afterAll(removeFolders);

/** What a sheet of a folder comes down to; packages are found below `node_modules`. */
function compiled(name: string, files: Record<string, string>) {
  const root = fs.realpathSync(folderOf(files));
  const there: SheetFiles = {
    read: (file) => textIfThere(root, file),
    resolve: (_, specifier) => {
      const file = path.join(root, 'node_modules', specifier);
      return fs.existsSync(file) ? file : null;
    },
  };
  const result = compileSheet(path.extname(name).slice(1), files[name], path.join(root, name), there);
  return 'css' in result ? result.css.replace(/\s+/g, '') : result.error;
}

describe('sheets in other languages', () => {
  it.each([
    ['what is nested', 'a.scss', { 'a.scss': '$c: red; .a { b { color: $c } }' }, '.ab{color:red;}'],
    ['by indentation', 'a.sass', { 'a.sass': '.a\n  color: red' }, '.a{color:red;}'],
    [
      'with a part beside it',
      'a.scss',
      { 'a.scss': "@use 'b'; .a { color: b.$c }", '_b.scss': '$c: red' },
      '.a{color:red;}',
    ],
    [
      'with the index of a folder',
      'a.scss',
      { 'a.scss': "@use 'b' as *; .a { color: $c }", 'b/_index.scss': '$c: red' },
      '.a{color:red;}',
    ],
    [
      'with a part of a package',
      'a.scss',
      {
        'a.scss': "@use '@reeds/kit/look/ink'; .a { color: ink.$c }",
        'node_modules/@reeds/kit/package.json': '{}',
        'node_modules/@reeds/kit/look/_ink.scss': '$c: red',
      },
      '.a{color:red;}',
    ],
    [
      'in the other language',
      'a.less',
      { 'a.less': "@import 'b'; .a { b { color: @c } }", 'b.less': '@c: red;' },
      '.ab{color:red;}',
    ],
    ['plain', 'a.css', { 'a.css': '.a { color: red }' }, '.a{color:red}'],
  ])('%s', (_, name, files, css) => expect(compiled(name, files as Record<string, string>)).toBe(css));

  it.each([
    ['a part that isn’t there', 'a.scss', "@use 'nowhere';", 1, 'not compiled'],
    ['a mistake, with its line', 'a.scss', '.a {\n  color: ;\n}', 2, 'not compiled'],
    ['a mistake in the other language', 'a.less', '.a { color: @nowhere }', 1, 'not compiled'],
    ['a part that lies outside', 'a.scss', "@use '../../../../etc/passwd';", 1, 'not compiled'],
    ['a file that isn’t there', 'a.less', "@import 'nowhere';", 1, 'not compiled'],
    ['a language that nobody knows', 'a.styl', 'a\n  b c', 1, 'styl aren’t compiled'],
  ])('tells %s', (_, name, text, line, words) => {
    expect(compiled(name, { [name]: text })).toMatchObject({ line, message: expect.stringContaining(words) });
  });

  it('runs nothing of the app', () => {
    const plugin = { 'a.less': '@plugin "run"; .a { color: red }', 'run.js': 'globalThis.ran = true' };
    expect(compiled('a.less', plugin)).toMatchObject({ message: expect.stringContaining('not compiled') });
    const script = { 'a.less': '.a { width: `globalThis.ran = true` }' };
    expect(compiled('a.less', script)).toMatchObject({ message: expect.stringContaining('not compiled') });
    expect((globalThis as { ran?: boolean }).ran).toBeUndefined();
  });
});
