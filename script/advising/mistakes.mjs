import { bulk, oneOf } from './code.mjs';

/** Heavy packages that apps are given, each used by one mistake. */
const HEAVY = [
  'sheet-writer',
  'word-finder',
  'curve-drawer',
  'map-tiles',
  'text-marker',
  'code-colours',
  'sound-box',
  'page-printer',
];
let next = 0;
const heavyPackage = (app, names) => {
  const name = `${HEAVY[next % HEAVY.length]}${next++}`;
  app.package(name, '1.0.0', 45_000 + app.random() * 120_000, names);
  return name;
};
const part = (app, file, component, bytes, { imports = [], hooks = [], markup = '<p>there</p>', before = [] } = {}) => {
  const own = `make${component}`;
  app.files.set(
    file,
    `import { lazy, Suspense, useEffect, useState } from 'react';\n${imports.join('\n')}\n${before.join('\n')}\n${bulk(app.random, bytes, own)}\nexport function ${component}() {\n${hooks.join('\n')}\n  return <div title={${own}([]).length}>${markup}</div>;\n}\n`,
  );
};
const lazily = (component, file) =>
  `const ${component} = lazy(() => import('${file}').then((m) => ({ default: m.${component} })));`;
const guarded = (element) => `<Guard><Suspense fallback={<p>Loading</p>}>${element}</Suspense></Guard>`;
const IN_START = ['only on acts', 'part in the start', 'route leak', 'kept by sharing'];

/** Kinds of mistakes, each planted into an app in one of several forms. */
export const MISTAKES = {
  'package in a handler'(app) {
    const page = app.page();
    const name = heavyPackage(app, ['writeSheet']);
    const line = `import { writeSheet } from '${name}';`;
    page.imports.push(line);
    page.markup.push(
      oneOf(app.random, [
        `      <button onClick={() => writeSheet(['row'])}>Export</button>`,
        `      <button onClick={async () => { const made = writeSheet(['row']); await navigator.clipboard.writeText(String(made)); }}>Copy</button>`,
      ]),
    );
    app.plant('package in a handler', { at: [[page.file, line]], target: name, kinds: IN_START });
  },

  'package in a function that a handler calls'(app) {
    const page = app.page();
    const name = heavyPackage(app, ['writeSheet']);
    const line = `import { writeSheet } from '${name}';`;
    page.imports.push(line);
    page.before.push(
      oneOf(app.random, [
        `function asText(rows) {\n  return String(writeSheet(rows));\n}\nfunction save(rows) {\n  localStorage.setItem('rows', asText(rows));\n}`,
        `const asText = (rows) => String(writeSheet(rows));\nconst save = (rows) => localStorage.setItem('rows', asText(rows));`,
      ]),
    );
    page.markup.push(`      <button onClick={() => save(['a'])}>Save</button>`);
    app.plant('package in a function that a handler calls', { at: [[page.file, line]], target: name, kinds: IN_START });
  },

  'package behind a module that a handler calls'(app) {
    const page = app.page();
    const name = heavyPackage(app, ['printPages']);
    const file = `src/lib/${page.name}-report.js`;
    const inner = `import { printPages } from '${name}';`;
    const outer = `import { saveReport } from '../lib/${page.name}-report.js';`;
    app.files.set(file, `${inner}\n\nexport function saveReport(rows) {\n  return printPages(rows).length;\n}\n`);
    page.imports.push(outer);
    const [hook, handler] = oneOf(app.random, [
      ['', `() => saveReport(['x'])`],
      [`  const onSave = () => {\n    if (!open) saveReport(['x']);\n  };`, 'onSave'],
      [`  function keep() {\n    setOpen(true);\n    saveReport(['x']);\n  }`, '() => keep()'],
    ]);
    page.hooks.push(hook);
    page.markup.push(`      <button onClick={${handler}}>Report</button>`);
    app.plant('package behind a module that a handler calls', {
      at: [
        [page.file, outer],
        [file, inner],
      ],
      target: name,
      kinds: IN_START,
    });
  },

  'package behind a barrel'(app) {
    const page = app.page();
    const name = heavyPackage(app, ['packRows']);
    const file = 'src/shared/rows-export.js';
    const inner = `import { packRows } from '${name}';`;
    const passed = `export { exportRows } from './rows-export.js';`;
    app.files.set(file, `${inner}\n\nexport function exportRows(rows) {\n  return packRows(rows).join();\n}\n`);
    app.files.set('src/shared/dates.js', `export function day(of) {\n  return new Date(of).toDateString();\n}\n`);
    app.files.set('src/shared/names.js', `export const full = (person) => person.first + ' ' + person.last;\n`);
    const everything = oneOf(app.random, [passed, `export * from './rows-export.js';`]);
    app.files.set(
      'src/shared/index.js',
      `export { day } from './dates.js';\n${everything}\nexport * from './names.js';\n`,
    );
    app.shell.imports.push(`import { day } from './shared/index.js';`);
    app.shell.markup.push(`        <small>{day(0)}</small>`);
    page.imports.push(`import { exportRows } from '../shared/index.js';`);
    page.markup.push(`      <button onClick={() => exportRows(['x'])}>Export rows</button>`);
    app.plant('package behind a barrel', {
      at: [
        ['src/shared/index.js', everything],
        [file, inner],
      ],
      target: name,
      kinds: IN_START,
    });
  },

  'package in an effect'(app) {
    const page = app.page();
    const name = heavyPackage(app, ['startSound']);
    const line = `import { startSound } from '${name}';`;
    page.imports.push(line);
    page.hooks.push(`  useEffect(() => {\n    if (open) startSound('wave');\n  }, [open]);`);
    page.markup.push(`      <button onClick={() => setOpen(true)}>Sound</button>`);
    app.plant('package in an effect', { at: [[page.file, line]], target: name, kinds: IN_START });
  },

  'dialog in the start'(app) {
    const page = app.page();
    const name = heavyPackage(app, ['mark']);
    const component = `${page.component.replace('Page', '')}Dialog`;
    const file = `src/parts/${page.name}-dialog.jsx`;
    const line = `import { ${component} } from '../parts/${page.name}-dialog.jsx';`;
    part(app, file, component, 6000, {
      imports: [`import { mark } from '${name}';`],
      hooks: ['  const words = mark([]);'],
      markup: '<p>{words}</p>',
    });
    page.imports.push(line);
    page.hooks.push(`  const [asked, setAsked] = useState(false);`);
    page.markup.push(
      `      <button onClick={() => setAsked(true)}>Details</button>`,
      `      {asked ? <${component} /> : null}`,
    );
    app.plant('dialog in the start', { at: [[page.file, line]], target: file, kinds: IN_START });
  },

  'forgotten sibling'(app) {
    const page = app.pages.find((p) => p.path !== '/' && app.free.includes(p)) ?? app.pages[1];
    app.free = app.free.filter((p) => p !== page);
    page.lazy = false;
    const name = heavyPackage(app, ['draw']);
    page.imports.push(`import { draw } from '${name}';`);
    page.hooks.push('  const drawn = draw([]);');
    page.markup.push('      <p>{drawn}</p>');
    app.plant('forgotten sibling', {
      at: [['src/app.jsx', `import { ${page.component} } from './pages/${page.name}-page.jsx';`]],
      target: page.file,
      kinds: ['route leak'],
    });
  },

  'constant from another page'(app) {
    const page = app.page();
    const other = app.page();
    if (page === other) return false;
    const name = heavyPackage(app, ['draw']);
    page.imports.push(`import { draw } from '${name}';`);
    page.hooks.push('  const drawn = draw([]);');
    page.markup.push('      <p>{drawn}</p>');
    page.before.push(`export const ${page.name}Title = 'All ${page.name}';`);
    const line = `import { ${page.name}Title } from './${page.name}-page.jsx';`;
    other.imports.push(line);
    other.markup.push(`      <h2>{${page.name}Title}</h2>`);
    app.plant('constant from another page', { at: [[other.file, line]], target: page.file, kinds: ['route leak'] });
  },

  'shell imports what one page needs'(app) {
    // Of the page that all can go to next it would only be fetched ahead.
    const page = app.page();
    if (page.path === '/') return false;
    const name = heavyPackage(app, ['tiles', 'legend']);
    const file = `src/parts/${page.name}-map.jsx`;
    const component = `${page.component.replace('Page', '')}Map`;
    part(app, file, component, 4000, {
      imports: [`import { tiles } from '${name}';`],
      hooks: ['  const own = tiles([]);'],
      markup: '<p>{own}</p>',
    });
    const line = `import { ${component} } from './parts/${page.name}-map.jsx';`;
    app.shell.imports.push(line);
    page.element = `<><${page.component} /><${component} /></>`;
    page.imports.push(`import { ${component} } from '../parts/${page.name}-map.jsx';`);
    page.markup.push(`      <${component} />`);
    app.plant('shell imports what one page needs', {
      at: [['src/app.jsx', line]],
      target: file,
      kinds: ['route leak'],
    });
  },

  staircase(app) {
    const page = app.page();
    const [one, two] = [`src/parts/${page.name}-list.jsx`, `src/parts/${page.name}-row.jsx`];
    const [List, Row] = [`${page.component}List`, `${page.component}Row`];
    const outer = lazily(List, `../parts/${page.name}-list.jsx`);
    const inner = lazily(Row, `./${page.name}-row.jsx`);
    part(app, two, Row, 9000);
    part(app, one, List, 9000, { before: [inner], markup: `<Suspense fallback={null}><${Row} /></Suspense>` });
    page.before.push(outer);
    page.markup.push(`      ${guarded(`<${List} />`)}`);
    app.plant('staircase', {
      at: [
        [page.file, outer],
        [one, inner],
      ],
      target: one,
      kinds: ['staircase', 'deferred first screen', 'nested splits'],
    });
  },

  'deferred first screen'(app) {
    const page = app.page();
    const file = `src/parts/${page.name}-head.jsx`;
    const Head = `${page.component}Head`;
    const line = lazily(Head, `../parts/${page.name}-head.jsx`);
    part(app, file, Head, 12_000);
    page.before.push(line);
    page.markup.unshift(`      ${guarded(`<${Head} />`)}`);
    app.plant('deferred first screen', {
      at: [[page.file, line]],
      target: file,
      kinds: ['deferred first screen', 'staircase'],
    });
  },

  'script in the head'(app) {
    const line = '<script src="/vendor/count.js"></script>';
    app.files.set('public/vendor/count.js', bulk(app.random, 30_000, 'count').replace('export ', ''));
    app.head.push(line);
    app.plant('script in the head', {
      at: [['index.html', line]],
      target: '/vendor/count.js',
      kinds: ['script in the way'],
    });
  },

  'two versions'(app) {
    const page = app.page();
    app.package('day-words', '2.0.0', 40_000, ['say']);
    app.package('day-words', '1.4.0', 40_000, ['say'], 'index', 'node_modules/day-picker/node_modules/day-words');
    app.package('day-picker', '1.0.0', 5_000, ['pick']);
    app.files.set(
      'node_modules/day-picker/index.js',
      `import { say } from 'day-words';\n${app.files.get('node_modules/day-picker/index.js')}\nexport const picked = (d) => say(d) + pick(d);\n`,
    );
    page.imports.push(`import { say } from 'day-words';`, `import { picked } from 'day-picker';`);
    page.markup.push('      <p>{say(0)} {picked(1)}</p>');
    app.plant('two versions', {
      at: [
        ['node_modules/day-picker/index.js', `import { say } from 'day-words';`],
        [page.file, `import { say } from 'day-words';`],
      ],
      target: 'day-words',
      kinds: ['two versions'],
    });
  },

  'unused styles'(app) {
    const rules = Array.from(
      { length: 400 },
      (_, n) =>
        `.old-${n} { margin: ${n}px; padding: ${(n * 7) % 31}px; color: #${(n * 7919).toString(16).slice(0, 3).padStart(3, '0')}; }`,
    );
    app.styles.push(...rules);
    app.plant('unused styles', { at: [['src/app.css', rules[0]]], target: 'src/app.css', kinds: ['unused styles'] });
  },

  'styles of another'(app) {
    const page = app.page();
    const classes = Array.from({ length: 300 }, (_, n) => `${page.name}-cell-${n}`);
    app.files.set(
      `src/${page.name}.css`,
      classes
        .map(
          (c, n) =>
            `.${c} { left: ${n * 3}px; width: ${(n * 11) % 97}%; background: #${((n * 104729) % 4096).toString(16).padStart(3, '0')}; }`,
        )
        .join('\n'),
    );
    const line = `import './${page.name}.css';`;
    app.main.imports.push(line);
    page.before.push(`const CELLS = [${classes.map((c) => `'${c}'`).join(', ')}];`);
    page.markup.push('      {CELLS.map((c) => <i className={c} key={c} />)}');
    app.plant('styles of another', {
      at: [['src/main.jsx', line]],
      target: `src/${page.name}.css`,
      kinds: ['styles of others'],
    });
  },

  'late font'(app) {
    app.files.set('public/fonts/harbour.woff2', 'x'.repeat(28_000));
    const line = `@font-face { font-family: Harbour; src: url('/fonts/harbour.woff2') format('woff2'); }`;
    app.styles.unshift(line, 'body { font-family: Harbour, sans-serif; }');
    app.plant('late font', { at: [['src/app.css', line]], target: 'harbour.woff2', kinds: ['found late'] });
  },

  'late picture'(app) {
    const page = app.page();
    app.files.set(`public/${page.name}.jpg`, 'j'.repeat(60_000));
    const line = `      <img src="/${page.name}.jpg" alt="" width="600" height="300" />`;
    page.markup.unshift(line);
    app.plant('late picture', { at: [[page.file, line.trim()]], target: `/${page.name}.jpg`, kinds: ['found late'] });
  },

  'three deep'(app) {
    const page = app.page();
    const names = ['sheet', 'tab', 'field'].map((n) => `${page.name}-${n}`);
    const components = ['Sheet', 'Tab', 'Field'].map((n) => `${page.component}${n}`);
    const lines = names.map((n, at) => lazily(components[at], at === 0 ? `../parts/${n}.jsx` : `./${n}.jsx`));
    names.forEach((n, at) => {
      const inner = components[at + 1];
      part(
        app,
        `src/parts/${n}.jsx`,
        components[at],
        9000,
        inner ? { before: [lines[at + 1]], markup: `<Suspense fallback={null}><${inner} /></Suspense>` } : {},
      );
    });
    page.before.push(lines[0]);
    page.hooks.push('  const [deep, setDeep] = useState(false);');
    page.markup.push(
      '      <button onClick={() => setDeep(true)}>More</button>',
      `      {deep ? ${guarded(`<${components[0]} />`)} : null}`,
    );
    app.plant('three deep', {
      at: [
        [page.file, lines[0]],
        [`src/parts/${names[0]}.jsx`, lines[1]],
        [`src/parts/${names[1]}.jsx`, lines[2]],
      ],
      target: `src/parts/${names[1]}.jsx`,
      kinds: ['nested splits'],
    });
  },

  'data after code'(app) {
    const page = app.page();
    const file = `src/parts/${page.name}-log.jsx`;
    const Log = `${page.component}Log`;
    const call = `    fetch('/api/${page.name}/log').then((r) => r.json()).then(setRows);`;
    part(app, file, Log, 14_000, {
      hooks: ['  const [rows, setRows] = useState(null);', `  useEffect(() => {\n${call}\n  }, []);`],
      markup: '<p>{rows ? rows.length : 0}</p>',
    });
    page.before.push(lazily(Log, `../parts/${page.name}-log.jsx`));
    page.hooks.push('  const [log, setLog] = useState(false);');
    page.markup.push(
      '      <button onClick={() => setLog(true)}>Log</button>',
      `      {log ? ${guarded(`<${Log} />`)} : null}`,
    );
    app.plant('data after code', { at: [[file, call.trim()]], target: file, kinds: ['data after code'] });
  },
};
