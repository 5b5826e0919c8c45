import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

const page = (name: string) => `export default function Page() { return <main>${name}</main>; }`;
const BASE = {
  'package.json': '{ "dependencies": { "react": "*", "react-dom": "*", "react-router-dom": "*" } }',
  'index.html': '<div id="root"></div><script type="module" src="/main.jsx"></script>',
  'main.jsx':
    "import { createRoot } from 'react-dom/client';\nimport { App } from './app.jsx';\ncreateRoot(root).render(<App />);",
  ...Object.fromEntries(['home', 'log', 'chart', 'map', 'editor'].map((f) => [`${f}.jsx`, page(f)])),
};
const LATER = (name: string, file: string) => `const ${name} = lazy(() => import('./${file}.jsx'));\n`;
const REACT = "import { lazy, Suspense } from 'react';\nimport { Routes, Route } from 'react-router-dom';\n";
const app = (text: string) => `${REACT}${text}`;
const routes = (...elements: string[]) =>
  `export function App() { return <Routes>${elements
    .map((e, i) => `<Route path="${['/', '/log', '/other'][i]}" element={${e}} />`)
    .join('')}</Routes>; }\n`;

/** Modules of the parts that each route is read to have. */
function partsOf(files: Record<string, string>): Record<string, string[]> {
  const { snapshot } = readSource(folderOf({ ...BASE, ...files }));
  return Object.fromEntries(snapshot.routes.map((r) => [r.pattern, r.parts.map((p) => p.module).sort()]));
}

describe('a file that holds several components', () => {
  it.each<[string, Record<string, string>, Record<string, string[]>]>([
    [
      'draws of a routes file what the component of the route does',
      {
        'app.jsx': app(
          `${LATER('Home', 'home')}${LATER('Chart', 'chart')}${LATER('Map', 'map')}function Waiting({ children }) { return <Suspense>{children}</Suspense>; }
function HomePage() { return <Waiting><Home /></Waiting>; }
const Either = ({ wide }) => <Waiting>{wide ? <Chart /> : <Map />}</Waiting>;
${routes('<HomePage />', '<Either />')}`,
        ),
      },
      { '/': [], '/log': ['chart.jsx', 'map.jsx'] },
    ],
    [
      'is a page itself where its component draws more than one',
      {
        'app.jsx': app(
          `${LATER('Home', 'home')}${LATER('Log', 'log')}${LATER('Chart', 'chart')}
function HomePage() { return <><Chart /><Home /></>; }
${routes('<HomePage />', '<Log />')}`,
        ),
      },
      { '/': ['chart.jsx', 'home.jsx'], '/log': [] },
    ],
    [
      'serves two pages, each with what it draws itself',
      {
        'pages.jsx': `import { lazy } from 'react';\n${LATER('Chart', 'chart')}${LATER('Map', 'map')}export function Home() { return <><h1>Home</h1><Chart /></>; }\nclass Log extends Object { render() { return <Map />; } }\nexport { Log as TheLog };`,
        'app.jsx': app(`import { Home, TheLog } from './pages.jsx';\n${routes('<Home />', '<TheLog />')}`),
      },
      { '/': ['chart.jsx'], '/log': ['map.jsx'] },
    ],
    [
      'gives a kit of which each page draws a piece, passed on by another file',
      {
        'kit.jsx': `import { lazy } from 'react';\n${LATER('Editor', 'editor')}${LATER('Map', 'map')}export const Button = () => <button>ok</button>;\nexport const Note = () => <Editor />;\nfunction Inner() { return <Map />; }\nexport const Card = () => <Inner />;`,
        'index.js': "export * from './kit.jsx';\nexport { Card as Frame } from './kit.jsx';",
        'home.jsx': "import { Button } from './index.js';\nexport default () => <Button />;",
        'log.jsx': "import { Note } from './index.js';\nexport default () => <Note />;",
        'chart.jsx': "import { Frame } from './index.js';\nexport default () => <Frame />;",
        'app.jsx': app(
          `import Home from './home.jsx';\nimport Log from './log.jsx';\nimport Chart from './chart.jsx';\n${routes('<Home />', '<Log />', '<Chart />')}`,
        ),
      },
      { '/': ['kit.jsx'], '/log': ['editor.jsx', 'kit.jsx'], '/other': ['kit.jsx', 'map.jsx'] },
    ],
    [
      'draws what is wrapped, and what is added to a component',
      {
        'kit.jsx': `import { lazy, memo } from 'react';\n${LATER('Editor', 'editor')}${LATER('Map', 'map')}function Field() { return <Editor />; }\nexport function Form({ children }) { return <form>{children}</form>; }\nForm.Field = Field;\nfunction Bare() { return <Map />; }\nexport default memo(Bare);`,
        'home.jsx': "import { Form } from './kit.jsx';\nexport default () => <Form><Form.Field /></Form>;",
        'log.jsx': "import Plan from './kit.jsx';\nexport default () => <Plan />;",
        'app.jsx': app(
          `import Home from './home.jsx';\nimport Log from './log.jsx';\n${routes('<Home />', '<Log />')}`,
        ),
      },
      { '/': ['editor.jsx', 'kit.jsx'], '/log': ['kit.jsx', 'map.jsx'] },
    ],
    [
      'is drawn whole where nobody knows which is meant',
      {
        'kit.jsx': `import { lazy } from 'react';\n${LATER('Editor', 'editor')}export const Note = () => <Editor />;`,
        'home.jsx': "import * as Kit from './kit.jsx';\nexport default () => <Kit.Note />;",
        'app.jsx': app(`import Home from './home.jsx';\n${routes('<Home />')}`),
      },
      { '/': ['editor.jsx', 'kit.jsx'] },
    ],
    [
      'has all of what an app draws around its routes',
      {
        'app.jsx': app(
          `${LATER('Home', 'home')}${LATER('Map', 'map')}function Bar() { return <nav><Map /></nav>; }
function Pages() { return <Routes><Route path="/" element={<Home />} /></Routes>; }
export function App() { return <><Bar /><Pages /></>; }`,
        ),
      },
      { '/': ['map.jsx'] },
    ],
  ])('%s', (_, files, expected) => expect(partsOf(files)).toEqual(expected));

  it('asks for data and images of the components that are drawn', () => {
    const { snapshot } = readSource(
      folderOf({
        ...BASE,
        'public/pier.png': 'x'.repeat(900),
        'public/quay.png': 'x'.repeat(900),
        'pages.jsx':
          "import { useEffect } from 'react';\nfunction useTides() { useEffect(() => { fetch('/api/tides'); }, []); }\nexport function Home() { useTides(); return <img src=\"/pier.png\" />; }\nexport const Log = () => { useEffect(() => { fetch('/api/log'); }, []); return <img src=\"/quay.png\" />; };",
        'app.jsx': app(`import { Home, Log } from './pages.jsx';\n${routes('<Home />', '<Log />')}`),
      }),
    );
    const asked = snapshot.routes.map((r) => [r.data.map((d) => d.address), r.content.map((c) => c.address)]);
    expect(asked).toEqual([
      [['/api/tides'], ['/pier.png']],
      [['/api/log'], ['/quay.png']],
    ]);
  });
});
