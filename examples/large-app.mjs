// Makes the snapshot of a generated app of any size, for benchmarks: folders of modules that mostly import their
// neighbours, some shared packages, routes and split points spread over it. Seeded: the same every time.

import fs from 'node:fs';
import path from 'node:path';

/** Writes the sources of such an app into a folder: TypeScript modules, styles, package descriptions, a route table. */
export function writeLargeApp(folder, count, deferred = DEFERRED) {
  const { modules, imports, routes } = largeApp(count, 1, deferred);
  const save = (name, text) => {
    const file = path.join(folder, name);
    fs.mkdirSync(path.dirname(file), { recursive: true });
    fs.writeFileSync(file, text);
  };
  const wanted = modules.map(() => []);
  // Nobody takes an export of such a module: it does what it does by being run.
  const kept = '(globalThis.kept ??= [])';
  for (const i of imports) wanted[i.from].push(i);
  modules.forEach((m, at) => {
    if (m.kind === 'style') {
      save(
        m.path.replace(/\.ts$/, '.css'),
        `.m${at} { color: #${(at % 4096).toString(16).padStart(3, '0')}; }\n`.repeat(1 + (m.bytes.minified >> 6)),
      );
      return;
    }
    const lines = [];
    for (const i of wanted[at]) {
      const to = modules[i.to];
      const way = path.posix.relative(path.posix.dirname(m.path), to.path);
      const name = (way.startsWith('.') ? way : `./${way}`).replace(/\.ts$/, to.kind === 'style' ? '.css' : '');
      lines.push(i.kind === 'dynamic' ? `${kept}.push(() => import('${name}'));` : `import '${name}';`);
    }
    if (at === 0) {
      const table = routes.map((r, n) => `  { path: '${r.pattern}', page: () => import('./r${n}/page') },`);
      lines.push("import { Frame } from './frame';", 'export const routes = [', ...table, '];', 'console.log(Frame);');
    }
    if (m.path === 'src/frame.ts') lines.push('export const Frame = () => 1;');
    for (let size = 0, n = 0; size < m.bytes.minified; n++) {
      const line = `${kept}.push((from: number, to: number): number => Math.sqrt(from * ${(at * 31 + n * 17) % 997}) - to / ${n + 2} + ${(at ^ n) % 89});`;
      lines.push(line);
      size += line.length * 0.72;
    }
    save(m.path, `${lines.join('\n')}\n`);
  });
  for (let p = 0; p < 40; p++) save(`packages/p${p}/package.json`, `{ "name": "@made/p${p}", "version": "1.0.${p}" }`);
  save('index.html', '<!doctype html><script type="module" src="/src/main.ts"></script>');
  save('package.json', `{ "name": "generated-${count}" }`);
}

/** Of a route's own modules so many are deferred by the one that imports them first. */
const DEFERRED = 0.004;

/** A snapshot with so many modules; about four imports per module, one route per 200 modules (at least four, at most 60). */
export function largeApp(count, seed = 1, deferred = DEFERRED) {
  let s = seed >>> 0;
  const next = () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = Math.imul(s ^ (s >>> 15), s | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const routeCount = Math.max(4, Math.min(60, Math.round(count / 200)));
  const shared = Math.round(count * 0.25);
  const modules = [];
  const imports = [];
  const add = (path, of) => {
    const minified = Math.round(400 + next() ** 3 * 12_000);
    const gzip = Math.round(minified * 0.36) + 20;
    modules.push({
      path,
      kind: next() < 0.04 && modules.length > 2 ? 'style' : 'script',
      package: of,
      bytes: {
        source: minified * 2,
        minified,
        gzip,
        brotli: Math.round(gzip * 0.92),
        marginal: Math.round(gzip * 0.8),
      },
      sideEffects: true,
    });
    return modules.length - 1;
  };
  const link = (from, to, kind) => {
    if (from === to) return;
    const at = imports.length;
    imports.push({
      from,
      to,
      kind,
      specifier: `./m${to}-${at}`,
      ordinal: 0,
      line: 1 + (at % 40),
      column: 1,
      start: at,
      end: at + 20,
      names: ['*'],
      ...(kind === 'dynamic' ? { context: 'wrapper' } : {}),
    });
  };

  const main = add('src/main.ts', null);
  const frame = add('src/frame.ts', null);
  link(main, frame, 'static');
  const pages = Array.from({ length: routeCount }, (_, r) => add(`src/r${r}/page.ts`, null));
  for (const page of pages) link(main, page, 'dynamic');
  const firstShared = modules.length;
  for (let i = 0; i < shared; i++) {
    const at = add(`packages/p${i % 40}/m${i}.ts`, `@made/p${i % 40}`);
    for (let n = 0; n < 3 && i > 0; n++) {
      const near = i % 40 === 0 ? Math.floor(next() * i) : Math.max(0, i - 40 * (1 + Math.floor(next() * 3)));
      link(firstShared + near, at, 'static');
    }
  }
  for (let i = 0; i < 12; i++) link(frame, firstShared + i, 'static');
  const perRoute = pages.map(() => []);
  while (modules.length < count) {
    const r = Math.floor(next() * routeCount);
    const own = perRoute[r];
    const at = add(`src/r${r}/m${own.length}.ts`, null);
    const parent = own.length === 0 ? pages[r] : own[Math.floor(next() * own.length)];
    link(parent, at, own.length > 4 && next() < deferred ? 'dynamic' : 'static');
    for (let n = 0; n < 2 && own.length > 2; n++) link(own[Math.floor(next() * own.length)], at, 'static');
    if (next() < 0.5) link(at, firstShared + Math.floor(next() * shared), 'static');
    own.push(at);
  }
  const route = (pattern, page) => ({
    pattern,
    realm: 'site',
    layouts: ['src/frame.ts'],
    page: modules[page].path,
    evidence: null,
    rendering: 'client',
    document: { bytes: 4000, serverMs: 60 },
    content: [],
    data: [],
    parts: [],
    links: [],
  });
  return {
    name: `generated-${count}`,
    origin: 'source',
    modules,
    imports,
    packages: [],
    entries: [{ realm: 'site', kind: 'document', document: 'index.html', modules: ['src/main.ts'] }],
    routes: pages.map((p, r) => route(`/r${r}`, p)),
    scripts: [],
    unresolved: [],
    failed: [],
    links: [],
    base: '/',
    notices: [],
    unusedRules: [],
    output: null,
  };
}
