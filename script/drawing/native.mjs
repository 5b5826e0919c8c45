// Serves an app's folder as modules that a browser runs by itself, each file alone and nothing bundled, with its packages as they are in
// production: so what a component costs is measured as it is, whatever a build makes of its files.
import fs from 'node:fs';
import http from 'node:http';
import { createRequire } from 'node:module';
import path from 'node:path';
import { parseSync } from 'oxc-parser';
import { ResolverFactory } from 'oxc-resolver';
import { transformSync } from 'oxc-transform';

const EXTENSIONS = ['.mjs', '.js', '.jsx', '.ts', '.tsx', '.json'];
const resolvers = Object.fromEntries(
  ['import', 'require'].map((way) => [
    way,
    new ResolverFactory({
      conditionNames: ['browser', way, 'module', 'production', 'default'],
      extensions: EXTENSIONS,
      mainFields: way === 'import' ? ['module', 'browser', 'main'] : ['browser', 'main'],
      aliasFields: [['browser']],
    }),
  ]),
);
const RESERVED = new Set(['default', 'delete', 'in', 'function', 'class', 'new', 'return', 'enum', 'static']);

/** The address of what a file imports; of nothing where it isn't installed. */
function addressOf(file, specifier, way) {
  const { path: found } = resolvers[way].sync(path.dirname(file), specifier);
  return found === undefined ? '/nothing' : `/file${found}`;
}

/** A module of the language with its imports as addresses. */
function withAddresses(file, text, { staticImports, staticExports, dynamicImports }) {
  const requests = [
    ...staticImports.map((i) => i.moduleRequest),
    ...staticExports.flatMap((e) => e.entries.flatMap((entry) => entry.moduleRequest ?? [])),
    ...dynamicImports.map((i) => i.moduleRequest),
  ];
  const places = new Map(requests.map(({ start, end }) => [start, end]));
  let made = text;
  for (const [start, end] of [...places].sort((a, b) => b[0] - a[0])) {
    const specifier = /^["'](.*)["']$/.exec(text.slice(start, end))?.[1];
    if (specifier !== undefined)
      made = made.slice(0, start) + JSON.stringify(addressOf(file, specifier, 'import')) + made.slice(end);
  }
  return made;
}

/** A CommonJS module as one of the language; its names are those that it has in Node. */
function wrapped(file, text) {
  const asked = [...new Set([...text.matchAll(/\brequire\(\s*["']([^"']+)["']\s*\)/g)].map((m) => m[1]))].filter(
    (name) => !/development/.test(name),
  );
  let names = [];
  try {
    names = Object.keys(createRequire(file)(file)).filter((n) => /^[A-Za-z_$][\w$]*$/.test(n) && !RESERVED.has(n));
  } catch {
    // What only runs in a browser has its default alone.
  }
  return [
    ...asked.map((name, i) => `import * as from${i} from ${JSON.stringify(addressOf(file, name, 'require'))};`),
    `const found = { ${asked.map((name, i) => `${JSON.stringify(name)}: from${i}`).join(', ')} };`,
    "const require = (name) => ('module.exports' in found[name] ? found[name]['module.exports'] : found[name]);",
    'const module = { exports: {} };',
    `(function (exports, require, module, global) {${text}\n})(module.exports, require, module, globalThis);`,
    'const made = module.exports;',
    "export default made && made.__esModule && 'default' in made ? made.default : made;",
    "export { made as 'module.exports' };",
    ...names.map((name, i) => `const name${i} = made?.[${JSON.stringify(name)}];\nexport { name${i} as ${name} };`),
  ].join('\n');
}

function textOf(file, compiled) {
  if (compiled !== undefined)
    return withAddresses(file, compiled, parseSync(`${file}.js`, compiled, { sourceType: 'module' }).module);
  if (file.endsWith('.json')) return `export default ${fs.readFileSync(file, 'utf8')};`;
  if (file.endsWith('.css')) return '';
  const written = fs
    .readFileSync(file, 'utf8')
    .replace(/\bprocess\.env\.NODE_ENV\b/g, '"production"')
    .replace(/\btypeof process\b/g, '"undefined"');
  const text =
    /\.[jt]sx?$/.test(file) && !file.includes('node_modules')
      ? transformSync(file, written, { jsx: { runtime: 'automatic' } }).code
      : written;
  const { module } = parseSync(file, text, { sourceType: 'module' });
  return module.hasModuleSyntax ? withAddresses(file, text, module) : wrapped(file, text);
}

/** Serves one app at a time; `entry`: its first module, `compiled`: texts of its own that are compiled already, by whole paths. */
export function serveNatively() {
  process.env.NODE_ENV = 'production';
  const known = new Map();
  const served = { entry: '', compiled: new Map() };
  const server = http.createServer((request, response) => {
    const asked = decodeURIComponent(new URL(request.url, 'http://x').pathname);
    if (asked === '/') {
      response.setHeader('content-type', 'text/html');
      const page = '<!doctype html><meta charset="utf-8"><div id="root"></div>';
      response.end(`${page}<script type="module" src="/file${served.entry}"></script>`);
      return;
    }
    response.setHeader('content-type', 'text/javascript');
    if (!asked.startsWith('/file/')) {
      response.end('');
      return;
    }
    const file = asked.slice('/file'.length);
    if (!known.has(file)) known.set(file, textOf(file, served.compiled.get(file)));
    response.end(known.get(file));
  });
  return new Promise((done) => {
    server.listen(0, '127.0.0.1', () =>
      done({
        served,
        address: `http://127.0.0.1:${server.address().port}/`,
        stop: () => {
          server.close();
          server.closeAllConnections();
        },
      }),
    );
  });
}
