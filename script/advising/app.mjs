import { bulk, oneOf } from './code.mjs';

const PLACES = ['orders', 'stock', 'crew', 'fleet', 'prices', 'quays', 'routes', 'weather', 'ledger', 'notices'];
const capital = (name) => name[0].toUpperCase() + name.slice(1);

/**
 * An app in the making: files by path, and what of its pages is written when all is known. Well made as long as nothing
 * is planted: pages are deferred, what stands behind acts as well, failures are caught, nothing is heavy.
 */
export class AppInTheMaking {
  files = new Map();
  /** Imports, markup and code that mistakes add to modules: by path, in order. */
  pages = [];
  planted = [];
  head = [];

  constructor(random) {
    this.random = random;
    const names = [...PLACES].sort(() => random() - 0.5).slice(0, 4 + Math.floor(random() * 3));
    this.pages = names.map((name, at) => ({
      name,
      component: `${capital(name)}Page`,
      path: at === 0 ? '/' : `/${name}`,
      file: `src/pages/${name}-page.jsx`,
      lazy: true,
      imports: [],
      before: [],
      hooks: [],
      markup: [],
    }));
    this.main = { imports: [], before: [] };
    this.shell = { imports: [], before: [], hooks: [], markup: [], routes: [] };
    this.styles = [
      'body { margin: 0; font-family: sans-serif; }',
      '.page { padding: 8px; }',
      '.shell { display: grid; }',
    ];
    this.free = [...this.pages];
    this.package('react', '18.0.0', 7_000, [
      ...[
        'useState',
        'useEffect',
        'useMemo',
        'useRef',
        'lazy',
        'Suspense',
        'Component',
        'createElement',
        'useCallback',
      ],
    ]);
    this.package('react-dom', '18.0.0', 120_000, ['createRoot'], 'client');
    this.package('react-router-dom', '6.0.0', 25_000, ['BrowserRouter', 'Routes', 'Route', 'Link', 'useNavigate']);
  }

  /** A page that no mistake was planted in yet. */
  page() {
    return this.free.splice(Math.floor(this.random() * this.free.length), 1)[0] ?? oneOf(this.random, this.pages);
  }

  /** A package of about so many bytes, with the names that it exports; all of them need all of it. */
  package(name, version, bytes, names, file = 'index', folder = `node_modules/${name}`) {
    const own = `all${name.replace(/\W/g, '')}`;
    this.files.set(
      `${folder}/package.json`,
      JSON.stringify({ name, version, type: 'module', main: `./${file}.js`, sideEffects: false }),
    );
    const exported = names.map((n) => `export function ${n}(...given) {\n  return ${own}(given);\n}`).join('\n');
    this.files.set(`${folder}/${file}.js`, `${bulk(this.random, bytes, own)}${exported}\n`);
    if (name === 'react')
      this.files.set(`${folder}/jsx-runtime.js`, 'export { createElement as jsx } from "./index.js";\n');
  }

  /** Notes a mistake: where it is (the text of a line), what it brings, and which findings mean it. */
  plant(kind, { at, target, kinds }) {
    this.planted.push({ kind, at, target, kinds });
  }

  write() {
    const { pages, shell } = this;
    this.files.set(
      'package.json',
      JSON.stringify({
        name: 'made-up',
        private: true,
        dependencies: { react: '*', 'react-dom': '*', 'react-router-dom': '*' },
      }),
    );
    this.files.set(
      'index.html',
      `<!doctype html>\n<html>\n<head>\n<title>Harbour</title>\n${this.head.join('\n')}\n</head>\n<body>\n<div id="root"></div>\n<script type="module" src="/src/main.jsx"></script>\n</body>\n</html>\n`,
    );
    this.files.set('src/app.css', `${this.styles.join('\n')}\n`);
    this.files.set(
      'src/main.jsx',
      `import { createRoot } from 'react-dom';\nimport './app.css';\n${this.main.imports.join('\n')}\nimport { App } from './app.jsx';\n\n${this.main.before.join('\n')}\ncreateRoot(document.getElementById('root')).render(<App />);\n`,
    );
    this.files.set(
      'src/parts/guard.jsx',
      `import { Component } from 'react';\n\nexport class Guard extends Component {\n  state = { failed: false };\n  static getDerivedStateFromError() {\n    return { failed: true };\n  }\n  render() {\n    return this.state.failed ? <button onClick={() => this.setState({ failed: false })}>Try again</button> : this.props.children;\n  }\n}\n`,
    );
    const eager = pages
      .filter((p) => !p.lazy)
      .map((p) => `import { ${p.component} } from './pages/${p.name}-page.jsx';`);
    const lazy = pages
      .filter((p) => p.lazy)
      .map(
        (p) =>
          `const ${p.component} = lazy(() => import('./pages/${p.name}-page.jsx').then((m) => ({ default: m.${p.component} })));`,
      );
    this.files.set(
      'src/app.jsx',
      `import { lazy, Suspense, useState, useEffect } from 'react';
import { BrowserRouter, Link, Route, Routes } from 'react-router-dom';
import { Guard } from './parts/guard.jsx';
${[...shell.imports, ...eager].join('\n')}

${lazy.join('\n')}
${shell.before.join('\n')}

export function App() {
${shell.hooks.join('\n')}
  return (
    <BrowserRouter>
      <nav className="shell">
${pages.map((p) => `        <Link to="${p.path}">${p.name}</Link>`).join('\n')}
${shell.markup.join('\n')}
      </nav>
      <Guard>
        <Suspense fallback={<p>Loading</p>}>
          <Routes>
${pages.map((p) => `            <Route path="${p.path}" element={${p.element ?? `<${p.component} />`}} />`).join('\n')}
          </Routes>
        </Suspense>
      </Guard>
    </BrowserRouter>
  );
}
`,
    );
    for (const p of pages)
      this.files.set(
        p.file,
        `import { lazy, Suspense, useEffect, useState } from 'react';
import { Guard } from '../parts/guard.jsx';
${p.imports.join('\n')}

${p.before.join('\n')}
${bulk(this.random, 2500, `rows${capital(p.name)}`).replace('export function', 'function')}
export function ${p.component}() {
  const [open, setOpen] = useState(false);
${p.hooks.join('\n')}
  return (
    <section className="page">
      <h1>${p.name}</h1>
      <p>{rows${capital(p.name)}([]).length}</p>
${p.markup.join('\n')}
    </section>
  );
}
`,
      );
    return this.files;
  }
}
