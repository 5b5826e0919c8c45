import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser, BrowserContext, BrowserContextOptions, Page } from 'playwright-core';
import { launchBrowser } from '../script/browser.mjs';
import { freePort } from '../script/free-port.mjs';

/** So long anything may take before a test gives up, in ms: the tests are about what happens, not about how fast the machine is. */
export const PATIENCE_MS = 180_000;

const SCREEN = { viewport: { width: 1280, height: 800 } };

/** The real server over a fresh database with the sample, and a real browser. */
export class Served {
  private server: ChildProcess | null = null;

  private constructor(
    readonly address: string,
    readonly data: string,
    private readonly env: NodeJS.ProcessEnv,
    readonly browser: Browser,
  ) {}

  /** `more`: settings of the server's environment. */
  static async start(more: Record<string, string> = {}): Promise<Served> {
    const data = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-e2e-'));
    const own = {
      ...{ YOKELINE_DATA: data, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' as const },
      // Tests that are about it say so; the others shouldn’t be kept busy by it.
      YOKELINE_FOLLOW: 'off',
    };
    const env = { ...process.env, ...own, ...more };
    execFileSync(process.execPath, ['dist/server/seed.js'], { env });
    const browser = await launchBrowser(PATIENCE_MS);
    const served = new Served(`http://127.0.0.1:${await freePort()}`, data, env, browser);
    try {
      await served.startServer();
    } catch (error) {
      // Nothing may be left running: the tests would never end.
      await served.stop();
      throw error;
    }
    return served;
  }

  /** Starts the server over the same data. */
  async startServer(): Promise<void> {
    const { port } = new URL(this.address);
    const next = ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', port];
    const server = spawn(process.execPath, next, { env: this.env, stdio: ['ignore', 'ignore', 'pipe'] });
    this.server = server;
    let said = '';
    server.stderr.on('data', (text) => {
      said += text;
    });
    await settles(async () => {
      // Nobody waits for a server that has given up: most often nothing was built.
      if (server.exitCode !== null) return;
      const { status } = await fetch(`${this.address}/api/projects`, { signal: AbortSignal.timeout(PATIENCE_MS) });
      if (![200, 401, 503].includes(status)) throw new Error(`the server answers ${status}`);
    });
    if (server.exitCode !== null) throw new Error(`the server ended with ${server.exitCode}: ${said.trim()}`);
  }

  async stopServer(): Promise<void> {
    const { server } = this;
    this.server = null;
    if (!server || server.exitCode !== null || server.signalCode !== null) return;
    let patience: NodeJS.Timeout | undefined;
    const ended = new Promise<boolean>((go) => {
      server.once('exit', () => go(true));
      patience = setTimeout(() => go(false), PATIENCE_MS);
    });
    server.kill();
    if (await ended) return clearTimeout(patience);
    server.kill('SIGKILL');
    throw new Error('the server didn’t end when it was told to');
  }

  /** A page of somebody who was never here, in a browser of its own. */
  async newcomer(): Promise<Page> {
    const page = await this.browser.newPage(SCREEN);
    page.setDefaultTimeout(PATIENCE_MS);
    page.on('pageerror', (error) => {
      throw error;
    });
    return page;
  }

  /** A browser of its own for several pages. */
  async context(screen: BrowserContextOptions = SCREEN): Promise<BrowserContext> {
    const context = await this.browser.newContext(screen);
    context.setDefaultTimeout(PATIENCE_MS);
    return context;
  }

  async page(where: string): Promise<Page> {
    const page = await this.newcomer();
    // Whoever was here before has left the guide.
    await page.addInitScript(() => localStorage.setItem('yokeline:guide', '{"state":"left","step":0}'));
    await page.goto(this.address + where);
    await page.locator('[data-ready]').waitFor();
    return page;
  }

  async stop(): Promise<void> {
    await this.browser.close();
    await this.stopServer();
    fs.rmSync(this.data, { recursive: true, force: true });
  }
}

/** Waits until the live strip is about what is chosen, and fully drawn. */
export async function atRest(page: Page): Promise<void> {
  await page.locator('section[aria-label="Live strip"][aria-busy="false"]').waitFor();
}

/** A figure of the live strip in ms or in its own unit, once the strip shows what is chosen. */
export async function figure(page: Page, name: string): Promise<number> {
  await atRest(page);
  const said = (await page.locator(`[data-figure="${name}"] dd`).first().textContent()) ?? '';
  const value = Number.parseFloat(said);
  if (said.endsWith(' s')) return value * 1000;
  if (said.endsWith(' MB')) return value * 1_000_000;
  return said.endsWith(' kB') ? value * 1000 : value;
}

/** Waits until what is said holds: it is asked again until it no longer throws, and gives what it gives. */
export async function settles<T>(said: () => Promise<T>): Promise<T> {
  const until = Date.now() + PATIENCE_MS;
  for (;;) {
    try {
      return await said();
    } catch (error) {
      if (Date.now() > until) throw error;
    }
    await new Promise((wake) => setTimeout(wake, 50));
  }
}

/** Waits until the live strip shows something else than before, and gives it. */
export function changed(page: Page, name: string, before: number): Promise<number> {
  return settles(async () => {
    const now = await figure(page, name);
    if (now === before) throw new Error(`${name} stays at ${before}`);
    return now;
  });
}

/** Waits until the live strip shows a value, or one that is so near to it. */
export function becomes(page: Page, name: string, value: number, within = 0): Promise<void> {
  return settles(async () => {
    const now = await figure(page, name);
    if (!(Math.abs(now - value) <= within)) throw new Error(`${name} is ${now}, not ${value}`);
  });
}

/** Waits until the server has confirmed all that was changed. */
export function allSaved(page: Page): Promise<void> {
  return page.getByRole('img', { name: 'Everything is saved' }).waitFor();
}
