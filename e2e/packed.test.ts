import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { launchBrowser } from '../script/browser.mjs';
import { freePort } from '../script/free-port.mjs';
import { PATIENCE_MS } from './served.ts';

const place = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-packed-'));
const modules = path.join(place, 'node_modules');
const app = path.join(place, 'ferries');
const bin = path.join(modules, 'yokeline/bin/yokeline.mjs');
const env = { ...process.env, XDG_DATA_HOME: path.join(place, 'data'), XDG_CACHE_HOME: path.join(place, 'cache') };

beforeAll(() => {
  // As somebody gets it: packed, and put into another folder beside its packages.
  execFileSync('npm', ['pack', '--ignore-scripts', '--pack-destination', place], { stdio: 'ignore' });
  fs.mkdirSync(modules);
  const [tarball] = fs.readdirSync(place).filter((f) => f.endsWith('.tgz'));
  execFileSync('tar', ['-xzf', path.join(place, tarball), '-C', modules]);
  fs.renameSync(path.join(modules, 'package'), path.join(modules, 'yokeline'));
  const { dependencies } = JSON.parse(fs.readFileSync(path.join(modules, 'yokeline/package.json'), 'utf8'));
  for (const name of Object.keys(dependencies)) {
    const link = path.join(modules, name);
    fs.mkdirSync(path.dirname(link), { recursive: true });
    fs.symlinkSync(path.resolve('node_modules', name), link);
  }
  fs.cpSync('examples/saltmarsh-ferries', app, { recursive: true });
});
afterAll(() => fs.rmSync(place, { recursive: true, force: true }));

const yokeline = (...args: string[]) =>
  JSON.parse(execFileSync(process.execPath, [bin, ...args, '--json'], { cwd: place, env, encoding: 'utf8' }));

/** The first line that a process prints. */
function firstLine(child: ChildProcess): Promise<string> {
  return new Promise((done, fail) => {
    let said = '';
    child.stdout!.on('data', (piece) => {
      said += piece;
      if (said.includes('\n')) done(said.split('\n')[0]);
    });
    child.once('exit', (code) => fail(new Error(`it ended with ${code}: ${said}`)));
  });
}

it('reads an app where it was installed from its package, without the rest of the repository', () => {
  const { modules: read } = yokeline('read', app, '--out', path.join(place, 'ferries.yokeline.json'));
  expect(read).toBeGreaterThan(100);
});

it('opens an app in the workbench: with a server of its own, or with the one that runs', async () => {
  const port = String(await freePort());
  const open = ['open', app, '--no-browser', '--port', port];
  const server = spawn(process.execPath, [bin, ...open, '--json'], {
    cwd: place,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const { address, started } = JSON.parse(await firstLine(server));
  expect(started).toBe(true);
  const browser = await launchBrowser(PATIENCE_MS);
  const page = await browser.newPage();
  page.setDefaultTimeout(PATIENCE_MS);
  await page.goto(address);
  await page.locator('[data-ready]').waitFor();
  await browser.close();
  expect(yokeline(...open)).toEqual({ address, started: false });
  const over = new Promise((go) => server.once('exit', go));
  server.kill('SIGINT');
  expect(await over).toBe(0);
  await expect(fetch(`http://127.0.0.1:${port}/`)).rejects.toThrow();
});
