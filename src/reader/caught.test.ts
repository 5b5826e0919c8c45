import { folderOf, removeFolders } from '../test-support/folders.ts';
import { readSource } from './read-source.ts';

afterAll(removeFolders);

const GUARD =
  "import { Component } from 'react';\nexport class Guard extends Component { static getDerivedStateFromError() { return {}; } render() { return this.props.children; } }";
const LAZY = "const Map = lazy(() => import('./map.jsx'));";
const APP = (body: string, above = '') =>
  `import { lazy, Suspense } from 'react';\nimport { Routes, Route } from 'react-router-dom';\n${above}\n${LAZY}\n${body}`;
const ROUTED = (inner: string) => `export const App = () => ${inner};`;
const ROUTES = '<Routes><Route path="/map" element={<Map />} /></Routes>';

/** Whether the failure of the deferred map is caught in an app with these files. */
function isCaught(files: Record<string, string>): boolean {
  const { snapshot } = readSource(
    folderOf({
      'index.html': '<script type="module" src="/main.jsx"></script>',
      'package.json': '{ "dependencies": { "react": "1", "react-router-dom": "1" } }',
      'main.jsx': "import { App } from './app.jsx';\nrender(<App />);",
      'map.jsx': 'export default function Map() { return <p>map</p>; }',
      'guard.jsx': GUARD,
      ...files,
    }),
  );
  return snapshot.imports.find((i) => snapshot.modules[i.to].path === 'map.jsx')?.caught ?? false;
}

const guarded = "import { Guard } from './guard.jsx';";

describe('a deferred import whose failure somebody is told of', () => {
  it.each([
    ['nobody catches it', { 'app.jsx': APP(ROUTED(ROUTES)) }, false],
    ['a component around the routes', { 'app.jsx': APP(ROUTED(`<Guard>${ROUTES}</Guard>`), guarded) }, true],
    ['a component around it alone', { 'app.jsx': APP(ROUTED('<div><Guard><Map /></Guard></div>'), guarded) }, true],
    ['one that stands elsewhere', { 'app.jsx': APP(ROUTED('<div><Map /><Guard /></div>'), guarded) }, false],
    [
      'the component of a package',
      {
        'app.jsx': APP(
          ROUTED(`<ErrorBoundary>${ROUTES}</ErrorBoundary>`),
          "import { ErrorBoundary } from 'react-error-boundary';",
        ),
      },
      true,
    ],
    [
      'what a route shows in its place',
      { 'app.jsx': APP(ROUTED('<Routes><Route path="/map" errorElement={<p />} element={<Map />} /></Routes>')) },
      true,
    ],
    ['catch', { 'app.jsx': "export const App = () => <b onClick={() => import('./map.jsx').catch(tell)} />;" }, true],
    [
      'then with a second function',
      { 'app.jsx': "export const App = () => <b onClick={() => import('./map.jsx').then(show, tell)} />;" },
      true,
    ],
    [
      'then alone',
      { 'app.jsx': "export const App = () => <b onClick={() => import('./map.jsx').then(show)} />;" },
      false,
    ],
    [
      'try around it',
      {
        'app.jsx':
          "export const App = () => <b onClick={async () => { try { show(await import('./map.jsx')); } catch { tell(); } }} />;",
      },
      true,
    ],
    [
      'try that doesn’t wait for it',
      {
        'app.jsx':
          "export const App = () => <b onClick={() => { try { show(import('./map.jsx')); } catch { tell(); } }} />;",
      },
      false,
    ],
  ])('%s', (_, files, expected) => {
    expect(isCaught(files)).toBe(expected);
  });
});
