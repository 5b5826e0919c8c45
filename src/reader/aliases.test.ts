import { folderOf, removeFolders } from '../test-support/folders.ts';
import { configuredAliases } from './aliases.ts';

afterAll(removeFolders);

const aliasesOf = (files: Record<string, string>) => Object.fromEntries(configuredAliases(folderOf(files)));

describe('aliases of configuration files', () => {
  it.each([
    [
      'an object of paths',
      "export default { resolve: { alias: { '@': path.resolve(__dirname, './src') } } }",
      { '@': 'src' },
    ],
    [
      'a package that is required on the way',
      "module.exports = { alias: { '@': require('path').resolve(__dirname, 'src') } }",
      { '@': 'src' },
    ],
    [
      'addresses',
      "export default { resolve: { alias: { reeds: fileURLToPath(new URL('./lib/reeds', import.meta.url)) } } }",
      { reeds: 'lib/reeds' },
    ],
    [
      'a list',
      "module.exports = { alias: [{ find: '@kit', replacement: path.join(root, 'kit', 'src') }] }",
      { '@kit': 'kit/src' },
    ],
    [
      'a plain text that is a path',
      "export default { alias: { '~': './app', 'reed/*': './reeds/*' } }",
      { '~': 'app', reed: 'reeds' },
    ],
    ['another package', "export default { alias: { react: 'preact/compat' } }", {}],
    ['what is computed', 'export default { alias: { a: somewhere() } }', {}],
    ['what leads out', "export default { alias: { a: path.resolve(__dirname, '../other') } }", {}],
    ['a file that can’t be parsed', "export default { alias: { a: './b'", {}],
  ])('%s', (_, text, expected) => {
    expect(aliasesOf({ 'build.config.js': text })).toEqual(expected);
  });

  it('paths of a TypeScript configuration with comments, which come second', () => {
    const tsconfig =
      '{ // notes\n "compilerOptions": { "baseUrl": "./", "paths": { "@/*": ["src/*"], "kit": ["kit/index.ts"], }, } }';
    expect(
      aliasesOf({ 'tsconfig.json': tsconfig, 'a.config.ts': "export default { alias: { '@': './app' } }" }),
    ).toEqual({
      '@': 'app',
      kit: 'kit/index.ts',
    });
  });
});
