import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser } from 'playwright-core';
import { launchBrowser } from '../script/browser.mjs';
import { advise } from '../src/core/advise/advise.ts';
import { planWith } from '../src/core/plan/decisions.ts';
import { BASELINE, type Plan } from '../src/core/plan/types.ts';
import { DEFAULT_CONDITIONS } from '../src/core/sim/conditions.ts';
import { finish } from '../src/core/steps.ts';
import { modelOf } from '../src/core/visitors/model.ts';
import { sourcePatch } from '../src/patch/patch.ts';
import { readSource } from '../src/reader/read-source.ts';
import { NativeModules } from './native-modules.ts';

/**
 * The sample as it is and with every finding that the patch can edit in, taken together, runs in a browser module by module: what stands on its
 * pages, and after each button, is the same.
 */
const SAMPLE = path.resolve('examples/saltmarsh-ferries');

const SAILINGS = [1, 2].map((n) => ({
  ...{ id: `s${n}`, from: 'Pier', to: n === 1 ? 'Reed Island' : 'Far Quay', leaves: 1_800_000_000_000 + n * 3_600_000 },
  ...{ late: n === 1 ? 0 : 12, berth: n, line: `L${n}`, ship: 'wren', stops: [], price: 12 },
}));

const TRIPS = SAILINGS.map((sailing, n) => ({ id: `t${n}`, sailing, passengers: ['Ann', 'Bo'], paid: n === 0 }));

let browser: Browser;
let server: NativeModules;
const folders: string[] = [];

beforeAll(async () => {
  browser = await launchBrowser();
  server = await NativeModules.start();
  server.markup = '@saltmarsh/view';
  const packages = ['datelog', 'formrig', 'mapkeel', 'paperkit', 'tidewright', 'tokens', 'view', 'wayfinder'];
  server.aliases = {
    ...Object.fromEntries(packages.map((p) => [`@saltmarsh/${p}`, `/packages/${p}/src/index.ts`])),
    '@saltmarsh/tokens/base.css': '/packages/tokens/src/base.css',
    '@saltmarsh/view/jsx-runtime': '/packages/view/src/jsx-runtime.ts',
    '~/': '/src/',
  };
});

afterAll(async () => {
  await browser.close();
  server.stop();
  for (const folder of folders) fs.rmSync(folder, { recursive: true, force: true });
});

function copied(from: string): string {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-sample-'));
  folders.push(folder);
  fs.cpSync(from, folder, { recursive: true });
  return folder;
}

const ADDRESSES = ['/', '/timetable', '/sailings/s1', '/book', '/trips', '/harbour', '/help'];
const MOST_BUTTONS = 12;

/** What stands on each page at first and after pressing each of its buttons in turn, and what went wrong. */
async function seen(folder: string): Promise<{ texts: Record<string, string[]>; errors: string[] }> {
  server.folder = folder;
  const texts: Record<string, string[]> = {};
  const errors: string[] = [];
  for (const address of ADDRESSES) {
    const page = await browser.newPage();
    page.on('dialog', (d) => void d.accept());
    page.on('pageerror', (e) => errors.push(`${address}: ${e}`));
    await page.route('**/api/**', (route) => {
      const url = route.request().url();
      if (/sailings\/s/.test(url)) return route.fulfill({ json: SAILINGS[0] });
      return route.fulfill({ json: /trips/.test(url) ? TRIPS : SAILINGS });
    });
    const text = async () => ((await page.locator('#pier').textContent()) ?? '').replace(/\s+/g, ' ').trim();
    const settled = async () => {
      // Placeholders are held for a while before what follows them shows.
      let last = await text();
      for (let same = 0; same < 10; ) {
        await page.waitForTimeout(50);
        const now = await text();
        same = now === last ? same + 1 : 0;
        last = now;
      }
      return last;
    };
    await page.goto(`${server.origin}${address}`);
    const found = [await settled()];
    const buttons = Math.min(MOST_BUTTONS, await page.locator('#pier button').count());
    for (let at = 0; at < buttons; at++) {
      const button = page.locator('#pier button').nth(at);
      if ((await button.count()) === 0) continue;
      await button.dispatchEvent('click');
      found.push(await settled());
    }
    texts[address] = found;
    await page.close();
  }
  return { texts, errors };
}

it('shows the same with all findings taken that the patch can edit in', async () => {
  const { snapshot, sources } = readSource(SAMPLE);
  const { findings } = finish(advise(snapshot, BASELINE, modelOf(snapshot).model, DEFAULT_CONDITIONS));
  const edited = (plan: Plan) => sourcePatch(snapshot, plan, sources).steps.every((s) => s.state !== 'by hand');
  let plan: Plan = BASELINE;
  let taken = 0;
  for (const { remedy } of findings) {
    const next = planWith(plan, remedy);
    if (remedy.decisions.some((d) => d.kind === 'detach' || d.kind === 'join') && edited(next)) {
      plan = next;
      taken++;
    }
  }
  expect(taken).toBeGreaterThan(2);
  const before = await seen(copied(SAMPLE));
  expect(before.errors).toEqual([]);
  // Every page shows something, and most have buttons.
  expect(Object.values(before.texts).filter(([first, ...rest]) => first.length > 20 && rest.length > 1)).toHaveLength(
    ADDRESSES.length,
  );
  const patched = copied(SAMPLE);
  const { diff, files } = sourcePatch(snapshot, plan, sources);
  expect(files.length).toBeGreaterThan(3);
  execFileSync('git', ['apply', '-'], { cwd: patched, input: diff });
  const after = await seen(patched);
  expect(after.errors).toEqual([]);
  expect(after.texts).toEqual(before.texts);
});
