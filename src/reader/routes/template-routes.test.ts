import { folderOf, removeFolders } from '../../test-support/folders.ts';
import { readSource } from '../read-source.ts';

afterAll(removeFolders);

/** An app of Svelte components with a router whose package ships its components as they are written. */
const APP = {
  'package.json': '{ "dependencies": { "svelte": "*", "a-router": "*" } }',
  'index.html': '<div id="app"></div><script type="module" src="/main.js"></script>',
  'main.js':
    "import { mount } from 'svelte';\nimport App from './App.svelte';\nmount(App, { target: document.getElementById('app') });",
  'App.svelte': `<script>
  import { Router, Route, Link } from 'a-router';
  import Walks from './Walks.svelte';
  import About from './About.svelte';
  const later = () => import('./Log.svelte');
</script>
<Router>
  <nav><Link to="/">Walks</Link></nav>
  <Route path="/"><Walks /></Route>
  <Route path="/about" component={About} />
</Router>
<button onclick={later}>Log</button>`,
  'Walks.svelte': '<p>walks</p>',
  'About.svelte': '<p>about</p>',
  'Log.svelte': '<p>log</p>',
  'node_modules/a-router/package.json':
    '{ "name": "a-router", "version": "1.0.0", "type": "module", "exports": { ".": { "svelte": "./src/index.js" } } }',
  'node_modules/a-router/src/index.js':
    "export { default as Router } from './Router.svelte';\nexport { default as Route } from './Route.svelte';\nexport { default as Link } from './Link.svelte';",
  'node_modules/a-router/src/Router.svelte': '<slot />',
  'node_modules/a-router/src/Route.svelte':
    '<script>export let path; export let component = null;</script>\n<p>{path}</p><slot />',
  'node_modules/a-router/src/Link.svelte': '<script>export let to;</script>\n<a href={to}><slot /></a>',
};

describe('routes that stand in a template', () => {
  const { snapshot } = readSource(folderOf(APP));

  it('are read as those in a script are, and draw nothing on other pages', () => {
    expect(snapshot.routes.map(({ pattern, page, parts }) => [pattern, page, parts.length])).toEqual([
      ['/', 'Walks.svelte', 0],
      ['/about', 'About.svelte', 0],
    ]);
    expect(snapshot.entries[0].frame).toBe('App.svelte');
  });

  it('come from packages that have their components as written', () => {
    expect(snapshot.unresolved.map((u) => u.specifier).filter((s) => s.includes('router'))).toEqual([]);
    expect(snapshot.modules.filter((m) => m.package === 'a-router').map((m) => m.path)).toEqual(
      expect.arrayContaining(['node_modules/a-router/src/Route.svelte']),
    );
  });
});
