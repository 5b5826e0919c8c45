import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const MAIN = "document.getElementById('root').append('here');";
const PAGE = '<html><head><title>Tides</title></head><body><div id="root"></div></body></html>';

function entryOf(files: Record<string, string>, starts?: string[]) {
  const { snapshot } = readSource(folderOf(files), { starts });
  return { ...snapshot, entry: snapshot.entries[0], unread: snapshot.unresolved };
}

describe('the document of an entry module that no document names', () => {
  it.each([
    ['public/index.html', ['public/index.html', 'public/frame.html']],
    ['index.html', ['index.html']],
    ['src/index.html', ['src/index.html']],
    ['public/index.html', ['public/index.html', 'src/index.html']],
  ])('is the one into which a build writes it: %s', (document, files) => {
    const { entry, routes } = entryOf({ 'src/index.js': MAIN, ...Object.fromEntries(files.map((f) => [f, PAGE])) });
    expect(entry).toMatchObject({ document, modules: ['src/index.js'], realm: 'site' });
    expect(routes.map((r) => r.pattern)).toEqual(['/']);
  });

  it('brings its sheets, scripts and links with it, wherever the build puts the app', () => {
    const head =
      '<link rel="stylesheet" href="%PUBLIC_URL%/base.css"><link rel="preload" as="image" href="%PUBLIC_URL%/bay.png"><script src="<%= BASE_URL %>settings.js"></script>';
    const { entry, links, scripts, unread } = entryOf({
      'src/index.js': MAIN,
      'public/index.html': PAGE.replace('</head>', `${head}</head>`),
      'public/base.css': 'p { color: teal }',
      'public/settings.js': 'window.settings = {}',
      'public/bay.png': 'png',
    });
    expect(entry).toMatchObject({ document: 'public/index.html', modules: expect.arrayContaining(['src/index.js']) });
    expect(links).toMatchObject([{ address: '/bay.png', bytes: expect.any(Number) }]);
    expect(scripts).toMatchObject([{ address: '/settings.js', bytes: expect.any(Number) }]);
    expect(unread).toEqual([]);
  });

  it('is the same where a person names the module', () => {
    expect(entryOf({ 'lib/start.js': MAIN, 'public/index.html': PAGE }, ['lib/start.js']).entry).toMatchObject({
      document: 'public/index.html',
      modules: ['lib/start.js'],
    });
  });

  it('is none that runs the module by a tag of its own as a classic script', () => {
    const classic = PAGE.replace('</body>', '<script src="/index.js"></script></body>');
    expect(entryOf({ 'index.js': MAIN, 'index.html': classic }).entry).toMatchObject({ document: null });
  });

  it('is none where documents have module scripts, whatever else lies beside them', () => {
    const whole = PAGE.replace('</body>', '<script type="module" src="/src/app.js"></script></body>');
    const { snapshot } = readSource(
      folderOf({ 'src/index.js': MAIN, 'src/app.js': MAIN, 'index.html': whole, 'public/index.html': PAGE }),
    );
    expect(snapshot.entries.map((e) => [e.document, e.modules])).toEqual([['index.html', ['src/app.js']]]);
  });
});
