import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';

afterAll(removeFolders);

const FILES = {
  'index.html': '<script type="module" src="/main.jsx"></script>',
  'package.json': '{ "dependencies": { "react": "1", "react-router-dom": "1" } }',
  'public/pier.jpg': 'p'.repeat(5000),
  'public/gull.jpg': 'g'.repeat(700),
  'src/buoy.png': 'b'.repeat(900),
  'app.jsx':
    "import { Routes, Route } from 'react-router-dom';\nimport { Page } from './page.jsx';\nexport const App = () => <Routes><Route path=\"/\" element={<Page />} /></Routes>;",
  'main.jsx': "import { App } from './app.jsx';\nrender(<App />);",
};

function read(page: string, more: Record<string, string> = {}) {
  const { snapshot } = readSource(folderOf({ ...FILES, 'page.jsx': page, ...more }));
  const [route] = snapshot.routes;
  return { route, notices: snapshot.notices.filter((n) => n.kind === 'image') };
}

const images = (markup: string, above = '') =>
  read(`${above}\nexport const Page = () => <main>${markup}</main>;`).route.content.map((c) => c.address);

describe('images that a page draws', () => {
  it('are read with size and line, whether they are served or imported', () => {
    const { route, notices } = read(
      'import buoy from \'./src/buoy.png\';\nexport const Page = () => (\n  <main>\n    <img src="/pier.jpg" />\n    <img src={buoy} loading="lazy" />\n    <img src="https://far.example/x.jpg" />\n  </main>\n);',
    );
    expect(route.content).toMatchObject([
      {
        id: 'pier',
        address: '/pier.jpg',
        bytes: 5000,
        place: 'first screen',
        lazy: false,
        evidence: { path: 'page.jsx', line: 4 },
      },
      { id: 'buoy', bytes: 900, place: 'below', lazy: true, foundIn: { module: 'page.jsx' } },
    ]);
    expect(notices).toEqual([
      expect.objectContaining({ path: 'page.jsx', message: expect.stringContaining('far.example') }),
    ]);
  });

  it.each([
    ['<img src="/pier.jpg" />', '', ['/pier.jpg']],
    ['<Picture />', 'const Picture = memo(() => <img src="/pier.jpg" />);', ['/pier.jpg']],
    ['<img src="/pier.jpg" /><img src="/pier.jpg" />', '', ['/pier.jpg']],
    ['{open ? <img src="/pier.jpg" /> : null}', '', []],
    ['{open && <img src="/pier.jpg" />}', '', []],
    ['{[1, 2].map((n) => <img key={n} src="/pier.jpg" />)}', '', []],
    ['<img src={address} />', '', []],
    ['<img src="data:image/gif;base64,AA" />', '', []],
  ])('%s, with %s', (markup, above, expected) => {
    expect(images(markup, above)).toEqual(expected);
  });

  it('belong to the part that draws them, and stay away with what comes later', () => {
    const page =
      "import { lazy, useState } from 'react';\nimport { Ask } from './ask.jsx';\nconst Top = lazy(() => import('./top.jsx'));\nexport const Page = () => { const [open, setOpen] = useState(false); return <main><Top /><button onClick={() => setOpen(true)}>Ask</button>{open ? <Ask /> : null}</main>; };";
    const { route } = read(page, {
      'top.jsx': 'export default () => <img src="/pier.jpg" />;',
      'ask.jsx': 'export const Ask = () => <img src="/gull.jpg" />;',
    });
    expect(route.content.map((c) => c.address)).toEqual(['/pier.jpg']);
    expect(route.parts.map((p) => [p.module, p.needs])).toEqual([
      ['top.jsx', ['pier']],
      ['ask.jsx', []],
    ]);
  });

  it('give way to those that notes name', () => {
    const notes = { routes: { '/': { content: [{ id: 'own', address: '/own.jpg', bytes: 5, foundIn: 'document' }] } } };
    const { route } = read('export const Page = () => <img src="/pier.jpg" />;', {
      'yokeline.app.json': JSON.stringify(notes),
    });
    expect(route.content.map((c) => c.id)).toEqual(['own']);
  });
});
