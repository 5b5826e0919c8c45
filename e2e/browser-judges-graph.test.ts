import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { transformSync } from 'oxc-transform';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../script/browser.mjs';
import type { Snapshot } from '../src/core/snapshot/types.ts';
import { readSource } from '../src/reader/read-source.ts';
import { generatedApp } from './generated-app.ts';

/**
 * A browser runs generated apps as they are written, module by module, with nothing but the types taken out; what it asks for at the start and at
 * each press of a button has to be what the reading says.
 */
let browser: Browser;
let server: http.Server;
let folder: string;

beforeAll(async () => {
  browser = await launchBrowser();
  server = http.createServer((request, response) => answer(decodeURI(request.url ?? '/'), response));
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
});

afterAll(async () => {
  await browser.close();
  server.close();
});

/** Serves a file with its types taken out. The page is given a map from names without endings, which builds find by themselves, to whole ones. */
function answer(url: string, response: http.ServerResponse): void {
  const asked = url === '/' ? '/index.html' : url;
  const file = path.join(folder, asked);
  if (!fs.existsSync(file)) {
    response.writeHead(404).end();
    return;
  }
  const text = fs.readFileSync(file, 'utf8');
  const isPage = asked.endsWith('.html');
  response.writeHead(200, { 'content-type': isPage ? 'text/html' : 'text/javascript' });
  const typescript = { onlyRemoveTypeImports: true };
  response.end(
    isPage ? text.replace('<body>', `${importMap()}<body>`) : transformSync(asked, text, { typescript }).code,
  );
}

function importMap(): string {
  const files = fs.readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((f) => /\.\w+$/.test(f));
  const imports = Object.fromEntries(files.map((f) => [`/${f.replace(/\.\w+$/, '')}`, `/${f}`]));
  return `<script type="importmap">${JSON.stringify({ imports })}</script>`;
}

/** Modules that come with some: all that they import at once, and what these import. */
function withImports(snapshot: Snapshot, from: readonly number[]): Set<number> {
  const all = new Set(from);
  for (const m of all) for (const i of snapshot.imports) if (i.from === m && i.kind === 'static') all.add(i.to);
  return all;
}

describe('what a browser asks for of a generated app', () => {
  const seeds = Array.from({ length: 40 }, (_, i) => i + 1);

  it.each(seeds)('is what is read of it (seed %i)', async (seed) => {
    folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-generated-'));
    const { files, buttons } = generatedApp(seed);
    for (const [name, text] of Object.entries(files)) {
      fs.mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
      fs.writeFileSync(path.join(folder, name), text);
    }
    const { snapshot } = readSource(folder);
    expect(snapshot.failed).toEqual([]);
    expect(snapshot.unresolved).toEqual([]);
    const page = await browser.newPage();
    const asked = new Set<string>();
    page.on('response', (r) => {
      if (r.status() === 200) asked.add(new URL(r.url()).pathname.slice(1));
    });
    const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    await page.goto(`${origin}/`, { waitUntil: 'networkidle' });
    const at = new Map(snapshot.modules.map((m, i) => [m.path, i]));
    const loaded = withImports(
      snapshot,
      snapshot.entries.flatMap((e) => e.modules).map((m) => at.get(m)!),
    );
    const names = (modules: Iterable<number>) => [...modules].map((m) => snapshot.modules[m].path).sort();
    asked.delete('');
    expect([...asked].sort()).toEqual(names(loaded));
    for (const id of buttons) {
      const button = page.locator(`#${id}`);
      // A module that nothing loads so far has no button yet.
      if ((await button.count()) === 0) continue;
      asked.clear();
      await button.click();
      await page.waitForLoadState('networkidle');
      const by = snapshot.imports.filter(
        (i) => i.kind === 'dynamic' && new RegExp(`/m${id.slice(1)}\\.`).test(snapshot.modules[i.from].path),
      );
      const more = withImports(
        snapshot,
        by.map((i) => i.to),
      );
      await expectEventually(() => [...asked].sort(), names([...more].filter((m) => !loaded.has(m))));
      for (const m of more) loaded.add(m);
    }
    await page.close();
    fs.rmSync(folder, { recursive: true, force: true });
  });
});

/** Looks again until what is seen is what is expected; a slow machine only takes longer. */
async function expectEventually(see: () => string[], expected: string[]): Promise<void> {
  for (let i = 0; i < 100 && see().join() !== expected.join(); i++) await new Promise((done) => setTimeout(done, 50));
  expect(see()).toEqual(expected);
}
