import path from 'node:path';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';

afterAll(removeFolders);

const WORKSPACE = {
  'package.json': '{ "name": "mill", "private": true }',
  'node_modules/gears/package.json': '{ "name": "gears", "version": "1.0.0", "main": "index.js" }',
  'node_modules/gears/index.js': 'export const spin = () => 1;',
  'packages/wheels/package.json': '{ "name": "@mill/wheels", "main": "index.js" }',
  'packages/wheels/index.js': "export { Wheel } from './wheel.jsx';",
  'packages/wheels/wheel.jsx': 'export function Wheel() { return <i>wheel</i>; }',
  'apps/web/package.json': '{ "name": "web" }',
  'apps/web/index.html': '<script type="module" src="/main.jsx"></script>',
  'apps/web/main.jsx':
    "import { spin } from 'gears';\nimport { Wheel } from '../../packages/wheels/index.js';\nimport 'nowhere';\nexport const App = () => <b onClick={spin}><Wheel /></b>;",
};

describe('an app in a folder of a workspace', () => {
  const folder = folderOf(WORKSPACE);
  const app = path.join(folder, 'apps/web');

  it('is read alone unless a person says otherwise, and tells what lies around it', () => {
    const { snapshot } = readSource(app);
    expect(snapshot.modules.map((m) => m.path)).toEqual(['main.jsx']);
    const outside = snapshot.notices.find((n) => n.kind === 'outside')!;
    expect(outside.path).toBe('../..');
    expect(outside.message).toMatch(/^2 imports lead out of the folder/);
  });

  it.each([['whole'], ['as the way from the app']])('is read with it, named %s', (how) => {
    const { snapshot } = readSource(app, { workspace: how === 'whole' ? folder : '../..' });
    expect(snapshot.modules.map((m) => [m.path, m.package])).toEqual([
      ['../../node_modules/gears/index.js', 'gears'],
      ['../../packages/wheels/index.js', '@mill/wheels'],
      ['../../packages/wheels/wheel.jsx', '@mill/wheels'],
      ['main.jsx', null],
    ]);
    // Packages of the same workspace are the app's own code, whose components are parts.
    expect(snapshot.routes[0].parts.map((p) => p.module)).toEqual(['../../packages/wheels/wheel.jsx']);
    expect(snapshot.notices.map((n) => [n.kind, n.path])).toEqual([
      ['missing package', 'react'],
      ['missing package', 'nowhere'],
    ]);
  });

  it('is read with no folder that isn’t around it', () => {
    expect(() => readSource(app, { workspace: path.join(folder, 'packages') })).toThrow(
      'Not the workspace of this app',
    );
  });
});
