import { seeded } from '../core/sim/random.ts';

/** Code that compresses like code: words by chance, of about so many bytes. */
function body(next: () => number, bytes: number): string {
  const words = ['tide', 'berth', 'wind', 'rope', 'gate', 'lamp', 'crane', 'chart', 'quay', 'buoy', 'hull', 'mast'];
  const lines: string[] = [];
  for (let size = 0; size < bytes; ) {
    const word = () => words[Math.floor(next() * words.length)];
    const line = `  table.push(["${word()}-${Math.floor(next() * 1e6).toString(36)}", "${word()}", ${Math.floor(next() * 9999)}]);`;
    lines.push(line);
    size += line.length;
  }
  return `const table: [string, string, number][] = [];\nexport function fill() {\n${lines.join('\n')}\n  return table;\n}\n`;
}

/**
 * Files of a made-up React app with mistakes by chance: pages that draw components statically, dialogs behind buttons,
 * heavy code in the start, pages that were forgotten, a frame that draws something with the code of one page. The same
 * for the same seed.
 */
export function reactApp(seed: number): Record<string, string> {
  const next = seeded(seed);
  const files: Record<string, string> = {
    'package.json': JSON.stringify({ name: `app-${seed}`, dependencies: { react: '19.0.0' } }),
    'index.html':
      '<!doctype html><html><body><div id="app"></div><script type="module" src="/src/main.tsx"></script></body></html>',
    'src/main.tsx': "import { routes } from './routes';\nimport { start } from './start';\nstart(routes);\n",
    'src/start.ts': 'export function start(routes: unknown) {\n  document.title = String(routes);\n}\n',
    'node_modules/react/package.json': JSON.stringify({ name: 'react', version: '19.0.0', main: 'index.js' }),
    'node_modules/react/jsx-runtime.js': 'exports.jsx = exports.jsxs = (type, props) => ({ type, props });\n',
    'node_modules/react/index.js':
      'exports.lazy = (load) => load;\nexports.Suspense = (props) => props.children;\nexports.useState = (value) => [value, () => {}];\n',
  };
  const imports: string[] = ["import { Frame } from './frame';"];
  const entries: string[] = [];
  const count = 2 + Math.floor(next() * 3);
  const component = (path: string, name: string, bytes: number, more = '') => {
    const base = path.replace(/^.*\//, '');
    files[`src/${path}-data.ts`] = body(next, bytes);
    files[`src/${path}.tsx`] =
      `import { fill } from './${base}-data';\n${more}export function ${name}() {\n  return <section>{fill().length}</section>;\n}\n`;
  };
  files['src/frame.tsx'] = [
    "import { Suspense } from 'react';",
    "import { Banner } from './banner';",
    "import { Finder } from './finder';",
    'export function Frame(props: { children: unknown }) {',
    '  return <div><Banner /><Suspense fallback={null}><Finder /></Suspense>{props.children}</div>;',
    '}',
    '',
  ].join('\n');
  files['src/finder.tsx'] =
    `import { fill } from './pages/panel-${count - 1}-0-data';\nexport function Finder() {\n  return <nav>{fill().length}</nav>;\n}\n`;
  component('banner', 'Banner', 2000 + next() * 20_000);
  for (let r = 0; r < count; r++) {
    const names: string[] = [];
    const lines: string[] = [];
    const drawn: string[] = [];
    const parts = 1 + Math.floor(next() * 3);
    for (let p = 0; p < parts; p++) {
      const name = `Panel${r}${p}`;
      const last = r === count - 1 && p === 0;
      component(`pages/panel-${r}-${p}`, name, (last ? 50_000 : 1000) + next() * 60_000);
      names.push(name);
      if (next() < 0.3 && !last)
        lines.push(`const ${name} = lazy(async () => ({ default: (await import('./panel-${r}-${p}')).${name} }));`);
      else lines.unshift(`import { ${name} } from './panel-${r}-${p}';`);
      drawn.push(`<Suspense fallback={null}><${name} /></Suspense>`);
    }
    const dialog = `Dialog${r}`;
    component(`pages/dialog-${r}`, dialog, 4000 + next() * 90_000);
    files[`src/pages/page-${r}.tsx`] = [
      "import { lazy, Suspense, useState } from 'react';",
      ...lines.filter((l) => l.startsWith('import')),
      `import { ${dialog} } from './dialog-${r}';`,
      ...lines.filter((l) => !l.startsWith('import')),
      `export function Page${r}() {`,
      '  const [open, setOpen] = useState(false);',
      '  return (',
      '    <main>',
      ...drawn.map((d) => `      ${d}`),
      '      <button onClick={() => setOpen(true)}>Open it</button>',
      `      {open && <Suspense fallback={null}><${dialog} /></Suspense>}`,
      '    </main>',
      '  );',
      '}',
      '',
    ].join('\n');
    const deferred = r > 0 && (r === count - 1 || next() < 0.6);
    if (!deferred) imports.push(`import { Page${r} } from './pages/page-${r}';`);
    const page = deferred ? `() => import('./pages/page-${r}')` : `Page${r}`;
    entries.push(`    { path: '${r === 0 ? '' : `p${r}`}', page: ${page} },`);
  }
  files['src/routes.tsx'] =
    `${imports.join('\n')}\nexport const routes = [{ path: '/', layout: Frame, children: [\n${entries.join('\n')}\n] }];\n`;
  return files;
}
