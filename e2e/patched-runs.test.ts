import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../script/browser.mjs';
import { sourcePatch } from '../src/patch/patch.ts';
import { readSource } from '../src/reader/read-source.ts';
import { NativeModules } from './native-modules.ts';
import { PATCH_CASES, type PatchCase } from './patch-cases.ts';

/**
 * Apps run in a browser as they are written and, with an import deferred by the patch, once more: what stands on the page after each press
 * has to be the same, and the deferred module mustn't be asked for before it is needed.
 */
let browser: Browser;
let server: NativeModules;
const folders: string[] = [];

beforeAll(async () => {
  browser = await launchBrowser();
  server = await NativeModules.start();
});

afterAll(async () => {
  await browser.close();
  server.stop();
  for (const folder of folders) fs.rmSync(folder, { recursive: true, force: true });
});

function written(files: Readonly<Record<string, string>>): string {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-patched-'));
  folders.push(folder);
  for (const [name, text] of Object.entries(files)) {
    fs.mkdirSync(path.dirname(path.join(folder, name)), { recursive: true });
    fs.writeFileSync(path.join(folder, name), text);
  }
  return folder;
}

const AROUND = {
  'package.json': '{ "name": "case", "private": true, "dependencies": { "react": "^19.0.0", "react-dom": "^19.0.0" } }',
  'tsconfig.json': '{ "compilerOptions": { "jsx": "react-jsx" } }',
  'index.html':
    '<!doctype html><html><head></head><body><div id="root"></div><script type="module" src="/main.tsx"></script></body></html>',
};
const MAIN = `import { createRoot } from 'react-dom/client';
import { App } from './app';
createRoot(document.getElementById('root')!).render(<App />);
`;

interface Seen {
  /** What stands on the page at the start and after each press. */
  texts: string[];
  /** Whether the module in question was asked for by then. */
  asked: boolean[];
  errors: string[];
}

/** `expected`: what has been seen before, which is waited for: components hold back what follows a placeholder for a while. */
async function seen(folder: string, { presses, target }: PatchCase, expected: readonly string[] = []): Promise<Seen> {
  server.folder = folder;
  const page = await browser.newPage();
  const errors: string[] = [];
  const requests = new Set<string>();
  page.on('pageerror', (e) => errors.push(String(e)));
  page.on('console', (m) => m.type() === 'error' && !/favicon/.test(m.location().url) && errors.push(m.text()));
  const open = new Set<unknown>();
  page.on('request', (r) => {
    requests.add(new URL(r.url()).pathname.slice(1));
    open.add(r);
  });
  page.on('requestfinished', (r) => open.delete(r));
  page.on('requestfailed', (r) => open.delete(r));
  const texts: string[] = [];
  const asked: boolean[] = [];
  const look = async () => {
    for (let quiet = 0; quiet < 4; quiet = open.size === 0 ? quiet + 1 : 0) await page.waitForTimeout(40);
    const text = async () => (await page.locator('#root').textContent())!.replace(/\s+/g, ' ').trim();
    const wanted = expected[texts.length];
    for (let n = 0; wanted !== undefined && n < 25 && (await text()) !== wanted; n++) await page.waitForTimeout(40);
    texts.push(await text());
    asked.push(requests.has(target));
  };
  await page.goto(`${server.origin}/`, { waitUntil: 'load' });
  await look();
  for (const press of presses) {
    const [, how, selector] = /^(?:(hover|scroll) )?(.+)$/.exec(press)!;
    const pressed = page.locator(selector).first();
    // What isn't there fails at once, with what went wrong before.
    if ((await pressed.count()) === 0) errors.push(`${press} isn't on the page`);
    else if (how === 'hover') await pressed.hover();
    else if (how === 'scroll') await pressed.scrollIntoViewIfNeeded();
    else await pressed.click();
    await look();
  }
  await page.close();
  return { texts, asked, errors };
}

describe('a patched app', () => {
  it.each(PATCH_CASES)('$name', async (given) => {
    const folder = written({ ...AROUND, 'main.tsx': MAIN, ...given.files });
    const before = await seen(folder, given);
    expect(before.errors).toEqual([]);
    const { snapshot, sources } = readSource(folder);
    expect(snapshot.failed).toEqual([]);
    const key = given.import ?? 'app.tsx::./heavy';
    const plan = {
      name: 'Plan',
      description: '',
      decisions: [{ kind: 'detach' as const, import: key }, ...(given.more ?? [])],
    };
    const { diff, steps } = sourcePatch(snapshot, plan, sources);
    const byHand = steps.filter((s) => s.state !== 'edited');
    if (given.byHand) {
      expect(byHand.map((s) => s.what).join()).toMatch(given.byHand);
      expect(diff).toBe('');
      return;
    }
    expect(byHand).toEqual([]);
    const copy = written({});
    fs.cpSync(folder, copy, { recursive: true });
    execFileSync('git', ['apply', '-'], { cwd: copy, input: diff });
    if (process.env.SHOW) console.log(diff);
    const after = await seen(copy, given, before.texts);
    expect(after.errors).toEqual([]);
    const from = given.below ? given.needed : 0;
    expect(after.texts.slice(from)).toEqual(before.texts.slice(from));
    expect(before.asked[0]).toBe(true);
    const first = after.asked.indexOf(true);
    expect({ neededAfterPress: first }).toEqual({ neededAfterPress: given.needed });
  });
});
