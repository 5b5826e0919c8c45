import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { BASELINE } from '../src/core/plan/types.ts';
import { predict } from '../src/core/predict/predict.ts';
import { DEFAULT_CONDITIONS } from '../src/core/sim/conditions.ts';
import { importKey } from '../src/core/snapshot/graph-index.ts';
import type { Snapshot } from '../src/core/snapshot/types.ts';
import { readApp } from '../src/reader/read-app.ts';

/** A small app, built for production with source maps by the same command that builds this program's interface. */
const FOLDER = path.resolve('.built-in-test');

const FILES: Record<string, string> = {
  'package.json': '{ "name": "little-lanterns", "private": true }',
  'next.config.mjs': `import path from 'node:path';
export default { productionBrowserSourceMaps: true, turbopack: { root: path.resolve('..') }, outputFileTracingRoot: path.resolve('..') };`,
  'app/layout.jsx': `import './base.css';
import { Bar } from '../lib/bar.jsx';
export default function Layout({ children }) { return <html lang="en"><body><Bar />{children}</body></html>; }`,
  'app/base.css': '.lantern { color: red }',
  'app/page.jsx': `import { Opener } from '../lib/opener.jsx';
export default function Home() { return <main><h1>Home</h1><Opener /></main>; }`,
  'app/about/page.jsx': 'export default function About() { return <main><h1>About</h1></main>; }',
  'lib/words.js': "export const words = ['lantern festival', 'harbour quay', 'meadow'];",
  'lib/bar.jsx': `'use client';
import { useState } from 'react';
import { words } from './words.js';
export function Bar() { const [n, setN] = useState(0); return <button onClick={() => setN(n + 1)}>{words[n % words.length]}</button>; }`,
  'lib/later.jsx': `import { words } from './words.js';
export default function Later() { return <p>{words.join('-')} and the part that is loaded on demand</p>; }`,
  'lib/opener.jsx': `'use client';
import { lazy, Suspense, useState } from 'react';
const Later = lazy(() => import('./later.jsx'));
export function Opener() {
  const [open, setOpen] = useState(false);
  return <><button onClick={() => setOpen(true)}>open</button>{open ? <Suspense><Later /></Suspense> : null}</>;
}`,
};

let snapshot: Snapshot;
let texts: Record<string, string>;

beforeAll(() => {
  fs.rmSync(FOLDER, { recursive: true, force: true });
  for (const [name, text] of Object.entries(FILES)) {
    fs.mkdirSync(path.dirname(path.join(FOLDER, name)), { recursive: true });
    fs.writeFileSync(path.join(FOLDER, name), text);
  }
  const command = path.resolve('node_modules/next/dist/bin/next');
  const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' as const };
  execFileSync(process.execPath, [command, 'build'], { cwd: FOLDER, env, stdio: 'pipe' });
  ({ snapshot, texts } = readApp(path.join(FOLDER, '.next')));
});

afterAll(() => fs.rmSync(FOLDER, { recursive: true, force: true }));

const own = (name: string) => snapshot.modules.findIndex((m) => m.path.endsWith(`lib/${name}`));

describe('what the build command made of a small app', () => {
  it('is read as an output of two pages under the base address of the framework', () => {
    expect([snapshot.origin, snapshot.base]).toEqual(['output', '/_next/']);
    expect(snapshot.routes.map((r) => [r.pattern, r.rendering])).toEqual([
      ['/', 'server'],
      ['/about', 'server'],
    ]);
    expect(snapshot.failed).toEqual([]);
    expect(snapshot.notices.filter((n) => n.kind === 'development' || n.kind === 'unminified')).toEqual([]);
  });

  it('has every byte of every mapped file with a module, or with none', () => {
    for (const file of snapshot.output!.files) {
      const mapped = file.modules.reduce((sum, m) => sum + m.bytes, 0);
      expect(mapped).toBeGreaterThan(0);
      expect(mapped).toBeLessThanOrEqual(file.bytes.minified);
      expect(fs.statSync(path.join(FOLDER, '.next', file.path)).size).toBe(file.bytes.minified);
    }
  });

  it('knows the modules as written and what they import', () => {
    expect(texts[snapshot.modules[own('later.jsx')].path]).toContain('loaded on demand');
    const links = snapshot.imports
      .filter((i) => [own('bar.jsx'), own('opener.jsx'), own('later.jsx')].includes(i.from))
      .map((i) => [path.basename(snapshot.modules[i.from].path), i.kind, path.basename(snapshot.modules[i.to].path)]);
    expect(links).toEqual([
      ['bar.jsx', 'static', 'words.js'],
      ['later.jsx', 'static', 'words.js'],
      ['opener.jsx', 'dynamic', 'later.jsx'],
    ]);
  });

  it('asks at start for the very files that the documents name, and for the deferred one only behind the action', () => {
    const home = snapshot.routes.find((r) => r.pattern === '/')!;
    expect(home.parts).toMatchObject([{ name: 'later', place: 'action', action: 'open' }]);
    const asked = (route: string) => {
      const { timeline } = predict(snapshot, BASELINE, route, DEFAULT_CONDITIONS);
      return timeline.requests.slice(1).map((r) => r.address);
    };
    const named = (file: string) => {
      const html = fs.readFileSync(path.join(FOLDER, '.next/server/app', file), 'utf8');
      const tags = [...html.matchAll(/<(script|link)\b[^>]*?(?:src|href)="(\/_next\/[^"]+)"[^>]*>/g)];
      return new Set(tags.filter((t) => !/nomodule/i.test(t[0])).map((t) => t[2]));
    };
    expect(new Set(asked('/'))).toEqual(named('index.html'));
    expect(new Set(asked('/about'))).toEqual(named('about.html'));
  });

  it('can be planned: a detached module leaves its real file', () => {
    const item = snapshot.imports.find((i) => i.from === own('bar.jsx') && i.to === own('words.js'))!;
    const decision = { kind: 'detach' as const, import: importKey(snapshot, item) };
    const { graph } = predict(snapshot, { ...BASELINE, decisions: [decision] }, '/', DEFAULT_CONDITIONS);
    const holding = graph.chunks.filter((c) => c.realm === 'site' && c.modules.includes(own('words.js')));
    expect(holding.map((c) => c.file)).toEqual([undefined]);
  });
});
