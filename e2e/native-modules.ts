import fs from 'node:fs';
import http from 'node:http';
import { createRequire } from 'node:module';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { transformSync } from 'oxc-transform';

const require = createRequire(import.meta.url);
/** Modules of React itself, by the names that apps import them by, with the files that hold them. */
const REACT = ['react', 'react/jsx-runtime', 'react-dom', 'react-dom/client', 'scheduler'] as const;

/** Serves folders as modules that a browser runs by itself: each file alone, with types and markup compiled, nothing bundled. */
export class NativeModules {
  private readonly server: http.Server;
  private readonly registry = reactRegistry();

  private constructor(private readonly standIns: Readonly<Record<string, string>>) {
    this.server = http.createServer((request, response) => this.answer(request, response));
  }

  /** `standIns`: text of modules by the name that they are imported by, for packages that a test brings itself. */
  static async start(standIns: Readonly<Record<string, string>> = {}): Promise<NativeModules> {
    const made = new NativeModules(standIns);
    await new Promise<void>((done) => made.server.listen(0, '127.0.0.1', done));
    return made;
  }

  /** What is served at the moment. */
  folder = '';
  /** Names of packages in the folder that lead to files of it. */
  aliases: Readonly<Record<string, string>> = {};
  /** Where markup's runtime is imported from. */
  markup = 'react';

  get origin(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  stop(): void {
    this.server.close();
    this.server.closeAllConnections();
  }

  private answer(request: http.IncomingMessage, response: http.ServerResponse): void {
    const asked = decodeURI(new URL(request.url ?? '/', 'http://x').pathname);
    const send = (type: string, text: string) => response.writeHead(200, { 'content-type': type }).end(text);
    if (asked.startsWith('/@named/')) {
      send('text/javascript', this.named(asked.slice('/@named/'.length).replace(/\.js$/, '')));
      return;
    }
    const file = path.join(this.folder, asked);
    const isFile = asked !== '/' && fs.existsSync(file) && fs.statSync(file).isFile();
    if (!isFile && path.extname(asked) !== '') {
      response.writeHead(404).end();
      return;
    }
    if (!isFile || asked.endsWith('.html')) {
      send('text/html', this.page());
      return;
    }
    const text = fs.readFileSync(file, 'utf8');
    if (asked.endsWith('.css') && request.headers['sec-fetch-dest'] !== 'style')
      send(
        'text/javascript',
        `document.head.append(Object.assign(document.createElement('style'), { textContent: ${JSON.stringify(text)} }));`,
      );
    else if (asked.endsWith('.css')) send('text/css', text);
    else if (asked.endsWith('.json')) send('text/javascript', `export default ${text};`);
    else {
      const { code, errors } = transformSync(asked, text, {
        jsx: { runtime: 'automatic', importSource: this.markup },
        sourceType: 'module',
      });
      if (errors.length > 0) response.writeHead(500).end(errors.map((e) => e.message).join('\n'));
      else send('text/javascript', code);
    }
  }

  private named(name: string): string {
    if (Object.hasOwn(this.standIns, name))
      return transformSync('stand-in.jsx', this.standIns[name], { sourceType: 'module' }).code;
    if (name === 'registry') return this.registry;
    const names = Object.keys(require(name)).filter((n) => /^[A-Za-z_]\w*$/.test(n) && n !== 'default');
    return [
      `import { get } from '/@named/registry.js';`,
      `const all = get('${name}');`,
      'export default all;',
      ...names.map((n) => `export const ${n} = all.${n};`),
    ].join('\n');
  }

  /** The folder's page with a map from names without endings, and from those of packages, to files. */
  private page(): string {
    const files = fs.readdirSync(this.folder, { recursive: true, encoding: 'utf8' }).filter((f) => /\.\w+$/.test(f));
    const whole = files.map((f) => [`/${f.replace(/\.\w+$/, '')}`, `/${f}`]);
    const folders = files.filter((f) => /\/index\.[jt]sx?$/.test(f)).map((f) => [`/${path.dirname(f)}`, `/${f}`]);
    const names = [...REACT, ...Object.keys(this.standIns)].map((n) => [n, `/@named/${n}.js`]);
    const imports = Object.fromEntries([...whole, ...folders, ...names, ...Object.entries(this.aliases)]);
    const html = fs.readFileSync(path.join(this.folder, 'index.html'), 'utf8');
    const map = `<script type="importmap">${JSON.stringify({ imports })}</script>`;
    return /<head>/.test(html) ? html.replace('<head>', `<head>${map}`) : `${map}${html}`;
  }
}

/** React's modules as they come, which aren't modules of the language, in one that is. */
function reactRegistry(): string {
  const bodies = new Map<string, { text: string; folder: string }>();
  const add = (file: string) => {
    if (bodies.has(file)) return;
    const text = fs.readFileSync(file, 'utf8');
    bodies.set(file, { text, folder: path.dirname(file) });
    for (const [, asked] of text.matchAll(/\brequire\(["']([^"']+)["']\)/g))
      if (!/\.production\.js$/.test(asked)) add(createRequire(file).resolve(asked));
  };
  const roots = REACT.map((name) => [name, require.resolve(name)] as const);
  for (const [, file] of roots) add(file);
  const defined = [...bodies].map(([file, { text, folder }]) => {
    const asked = [...text.matchAll(/\brequire\(["']([^"']+)["']\)/g)]
      .map(([, name]) => name)
      .filter((name) => !/\.production\.js$/.test(name));
    const to = Object.fromEntries(asked.map((name) => [name, createRequire(path.join(folder, 'x.js')).resolve(name)]));
    return `${JSON.stringify(file)}: [${JSON.stringify(to)}, function (module, exports, require) {\n${text}\n}]`;
  });
  return `const process = { env: { NODE_ENV: 'development' } };
const files = {${defined.join(',\n')}};
const roots = ${JSON.stringify(Object.fromEntries(roots))};
const made = {};
function run(file) {
  if (made[file]) return made[file].exports;
  const module = (made[file] = { exports: {} });
  const [to, body] = files[file];
  body.call(module.exports, module, module.exports, (name) => run(to[name]));
  return module.exports;
}
export const get = (name) => run(roots[name]);
`;
}
