import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { becomes, changed, figure, Served, settles } from './served.ts';

let served: Served;
let folder: string;
let id: string;

beforeAll(async () => {
  folder = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-followed-')), 'ferries');
  fs.cpSync('examples/saltmarsh-ferries', folder, { recursive: true });
  const git = (...args: string[]) =>
    execFileSync('git', ['-c', 'user.name=Tester', '-c', 'user.email=tester@example.com', ...args], { cwd: folder });
  git('init', '-q');
  git('add', '-A', '-f');
  git('commit', '-q', '-m', 'As it was');
  served = await Served.start({ YOKELINE_FOLLOW: 'on' });
  const begun = await fetch(`${served.address}/api/readings`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ folder }),
  });
  const { id: reading } = await begun.json();
  id = await settles(async () => {
    const state = await (await fetch(`${served.address}/api/readings/${reading}`)).json();
    expect(state.state).toBe('done');
    return state.projectId as string;
  });
});
afterAll(async () => {
  await served.stop();
  fs.rmSync(path.dirname(folder), { recursive: true });
});

/** A module that nothing brings yet, heavier than anybody would overlook. */
const HEAVY = Array.from(
  { length: 900 },
  (_, i) => `export const f${i} = (n: number) => Math.sqrt(n * ${i * 37}) - ${i * 7};`,
).join('\n');

const tiles = () => path.join(folder, 'src/home/route-tiles.tsx');
const line = (page: Page) => page.getByRole('region', { name: 'Saved in the folder' });
/** Waits until the line says so; where it never does, what it says is told. */
const says = (page: Page, words: RegExp) =>
  settles(async () => expect(await line(page).textContent({ timeout: 1000 })).toMatch(words));
/** The page hears of what is saved from then on. */
const opened = async (where: string) => {
  const page = await served.newcomer();
  await page.addInitScript(() => localStorage.setItem('yokeline:guide', '{"state":"left","step":0}'));
  const heard = page.waitForResponse((r) => r.url().endsWith('/changes'));
  await page.goto(`${served.address}${where}`);
  await heard;
  await page.locator('[data-ready]').waitFor();
  return page;
};

it('shows what a save did to the landing, keeps choices and undo, and what it knew while a file is broken', async () => {
  const page = await opened(`/p/${id}/split?route=/&plan=baseline`);
  const before = await figure(page, 'start');
  const written = fs.readFileSync(tiles(), 'utf8');
  fs.writeFileSync(path.join(folder, 'src/home/heavy.ts'), HEAVY);
  fs.writeFileSync(
    tiles(),
    `import * as heavy from './heavy';\n${written}\nexport const kept = Object.keys(heavy);\nglobalThis.kept = heavy;\n`,
  );
  const after = await changed(page, 'start', before);
  expect(after).toBeGreaterThan(before);
  await line(page).getByText('src/home/route-tiles.tsx').first().waitFor();
  await says(page, /start \+[\d.]+ kB/);
  await says(page, /route-tiles\.tsx:1 now brings src\/home\/heavy\.ts/);
  // Where the person was is where the person is.
  expect(page.url()).toContain('/split?');
  await line(page).getByRole('button', { name: 'all landings' }).click();
  await page.getByRole('heading', { name: 'What the last save did to each landing' }).waitFor();
  await page.keyboard.press('Escape');

  fs.writeFileSync(tiles(), `${written}\nconst broken = (((\n`);
  await says(page, /route-tiles\.tsx:\d+ can’t be read/);
  expect(await figure(page, 'start')).toBe(after);

  // An import of what isn’t there is told first, whatever is the lighter by it.
  fs.writeFileSync(tiles(), `import { gone } from './gone';\n${written}\nglobalThis.gone = gone;\n`);
  await says(
    page,
    /route-tiles\.tsx saved · src\/home\/route-tiles\.tsx:1 leads nowhere: \.\/gone · .*start −[\d.]+ kB/,
  );
  fs.writeFileSync(tiles(), written);
  await says(page, /route-tiles\.tsx saved · (?!.*leads nowhere)/);
  await becomes(page, 'start', before);
  await line(page).getByLabel('since').selectOption('opened');
  await says(page, /Since this page was opened · (no landing changes|this landing stays)/);
  await page.close();
});

it('takes what was saved while nobody looked, and nothing once it is told not to', async () => {
  const first = await opened(`/p/${id}/split?route=/&plan=baseline`);
  const before = await figure(first, 'start');
  await first.getByRole('combobox', { name: /^project/ }).click();
  await first.getByRole('option', { name: 'Stop following this folder' }).click();
  const written = fs.readFileSync(tiles(), 'utf8');
  fs.writeFileSync(tiles(), `import * as heavy from './heavy';\n${written}\nglobalThis.more = heavy;\n`);
  await first.waitForTimeout(2500);
  expect(await figure(first, 'start')).toBe(before);
  await first.getByRole('combobox', { name: /^project/ }).click();
  await first.getByRole('option', { name: 'Follow this folder' }).click();
  await says(first, /The folder had changed/);
  await settles(async () => expect(await figure(first, 'start')).toBeGreaterThan(before));
  await first.close();
});

it('compares with the last commit, whose work tree it leaves alone', async () => {
  const page = await opened(`/p/${id}/split?route=/&plan=baseline`);
  await page.getByRole('combobox', { name: /^project/ }).click();
  const written = fs.readFileSync(tiles(), 'utf8');
  fs.writeFileSync(path.join(folder, 'src/home/weight.ts'), HEAVY);
  fs.writeFileSync(tiles(), `import * as weight from './weight';\n${written}\nglobalThis.weight = weight;\n`);
  await page.getByRole('option', { name: 'Compare with the last commit' }).click();
  await says(page, /Since the last commit · .*start \+[\d.]+ kB/);
  execFileSync('git', ['checkout', '-q', 'src'], { cwd: folder });
  await says(page, /Since the last commit · (no landing changes|this landing stays)/);
  // From there to the other choices, and back.
  await line(page).getByLabel('since').selectOption('last save');
  // A file that is checked out can be seen half written; then the rest of it is the last save.
  await says(page, /saved · .*start [−+][\d.]+ (kB|bytes)/);
  await line(page).getByLabel('since').selectOption('last commit');
  await says(page, /Since the last commit/);
  await page.close();
});

it('keeps plans in a file beside the code, both ways', async () => {
  const page = await opened(`/p/${id}/split?route=/timetable`);
  await page.getByRole('combobox', { name: /^project/ }).click();
  await page.getByRole('option', { name: 'Keep plans beside the code' }).click();
  const file = path.join(folder, 'yokeline.plan.json');
  await settles(async () => expect(fs.existsSync(file)).toBe(true));
  const before = await figure(page, 'start');
  const kept = JSON.parse(fs.readFileSync(file, 'utf8'));
  // Somebody decides in an editor, or a branch is checked out.
  kept.plans[0].decisions = [{ kind: 'detach', import: 'src/timetable/departure-board.tsx::../tickets/ticket-dialog' }];
  fs.writeFileSync(file, JSON.stringify(kept));
  expect(await changed(page, 'start', before)).toBeLessThan(before);
  await page.getByText(/was changed in the file beside the code/).waitFor();
  // What is decided here is in the file at once.
  await page.evaluate(async (project) => {
    const { plans } = await (await fetch(`/api/projects/${project}`)).json();
    const [{ id: plan, version }] = plans;
    const headers = { 'content-type': 'application/json' };
    await fetch(`/api/plans/${plan}`, { method: 'PUT', headers, body: JSON.stringify({ version, decisions: [] }) });
  }, id);
  await settles(async () => expect(JSON.parse(fs.readFileSync(file, 'utf8')).plans[0].decisions).toEqual([]));
  await page.close();
});

it('compares though nothing was saved, and says so where there is nothing to tell', async () => {
  const page = await opened(`/p/${id}/split?route=/timetable&plan=baseline`);
  await page.getByRole('combobox', { name: /^project/ }).click();
  await page.getByRole('option', { name: 'Compare with the last commit' }).click();
  await says(page, /Since the last commit/);
  await line(page).getByLabel('since').selectOption('last save');
  await says(page, /Since the last save · (no landing changes|this landing stays)/);
  await line(page).getByLabel('since').selectOption('opened');
  await says(page, /Since this page was opened · (no landing changes|this landing stays)/);
  await page.close();
});

it('ends with the server, whoever listens, and whoever holds a connection for later', async () => {
  const page = await opened(`/p/${id}/split?route=/timetable`);
  // As browsers do to be quick: a connection over which nothing was asked.
  const spare = net.connect(Number(new URL(served.address).port), '127.0.0.1');
  await once(spare, 'connect');
  const ended = once(spare, 'close');
  await served.stopServer();
  await ended;
  await served.startServer();
  await page.close();
});
