import { folderOf, removeFolders } from '../test-support/folders.ts';
import { keptPlaceholders } from './placeholders.ts';
import { readSource } from './read-source.ts';

afterAll(removeFolders);

const packages = (version: string | null, name = 'react-dom') => [{ name, version, folder: `node_modules/${name}` }];

describe('placeholders that a component system keeps', () => {
  it.each([
    ['19.3.1', { holdMs: 300, source: 'react-dom 19.3.1' }],
    ['20.0.0-rc.1', { holdMs: 300, source: 'react-dom 20.0.0-rc.1' }],
    ['18.3.1', { holdMs: 500, nested: true, source: 'react-dom 18.3.1' }],
    ['17.0.2', null],
    [null, null],
  ])('are known by the installed version: %s', (version, rule) => {
    expect(keptPlaceholders(packages(version))).toEqual(rule);
    expect(keptPlaceholders(packages(version, 'another'))).toBeNull();
  });

  it('are those of the React that a framework brings, where it does, whatever is installed beside', () => {
    const brought = (version: string) =>
      keptPlaceholders([...packages(version, 'next'), ...packages('18.3.1')], 'next');
    expect(brought('15.1.0')).toEqual({ holdMs: 300, source: 'next 15.1.0' });
    expect(brought('14.2.3')).toEqual({ holdMs: 500, nested: true, source: 'next 14.2.3' });
    expect(brought('12.0.0')).toBeNull();
    // A folder of pages is drawn by what is installed.
    expect(keptPlaceholders([...packages('16.0.0', 'next'), ...packages('18.3.1')])?.source).toBe('react-dom 18.3.1');
    expect(keptPlaceholders(packages('18.3.1'), 'next')?.source).toBe('react-dom 18.3.1');
  });

  it('are told apart by the folder that routes are in', () => {
    const installed = (name: string, version: string, file: string) => ({
      [`node_modules/${name}/package.json`]: JSON.stringify({ name, version, main: 'index.js' }),
      [`node_modules/${name}/${file}`]: "import 'react-dom';",
    });
    const app = (runtime: string, page: string) =>
      readSource(
        folderOf({
          'package.json': '{ "dependencies": { "next": "15.0.0" } }',
          ...installed('next', '15.0.0', runtime),
          ...installed('react-dom', '18.3.1', 'index.js'),
          [page]: 'export default () => null;',
        }),
      ).snapshot.placeholders?.source;
    expect(app('dist/client/app-next.js', 'app/page.tsx')).toBe('next 15.0.0');
    expect(app('dist/client/next.js', 'pages/index.tsx')).toBe('react-dom 18.3.1');
  });

  it('are read with an app, and told otherwise by its notes', () => {
    const app = {
      'index.html': '<script type="module" src="/main.js"></script>',
      'main.js': "import { createRoot } from 'react-dom';\ncreateRoot();",
      'node_modules/react-dom/package.json': '{ "name": "react-dom", "version": "19.0.0", "main": "index.js" }',
      'node_modules/react-dom/index.js': 'exports.createRoot = () => {};',
    };
    const read = (notes: string) => readSource(folderOf({ ...app, 'yokeline.app.json': notes })).snapshot.placeholders;
    expect(read('{}')).toEqual({ holdMs: 300, source: 'react-dom 19.0.0' });
    expect(read('{ "placeholders": { "holdMs": 0 } }')).toEqual({ holdMs: 0 });
    expect(() => read('{ "placeholders": { "holdMs": "long" } }')).toThrow(
      expect.objectContaining({ at: 'yokeline.app.json: placeholders.holdMs' }),
    );
  });
});
