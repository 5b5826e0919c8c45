import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Browser, chromium, type Page } from 'playwright-core';

/** The real server over a fresh database with the sample, and a real browser. */
export class Served {
  private server: ChildProcess | null = null;

  private constructor(
    readonly address: string,
    private readonly data: string,
    private readonly env: NodeJS.ProcessEnv,
    readonly browser: Browser,
  ) {}

  /** `more`: settings of the server's environment. */
  static async start(port: number, more: Record<string, string> = {}): Promise<Served> {
    const data = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-e2e-'));
    const own = { YOKELINE_DATA: data, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' as const };
    const env = { ...process.env, ...own, ...more };
    execFileSync(process.execPath, ['dist/server/seed.js'], { env });
    const browser = await chromium.launch({
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    });
    const served = new Served(`http://127.0.0.1:${port}`, data, env, browser);
    await served.startServer();
    return served;
  }

  /** Starts the server over the same data. */
  async startServer(): Promise<void> {
    const { port } = new URL(this.address);
    const next = ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', port];
    this.server = spawn(process.execPath, next, { env: this.env, stdio: 'ignore' });
    for (let tries = 0; ; tries++) {
      const up = await fetch(`${this.address}/api/projects`).then(
        (r) => r.ok || r.status === 401,
        () => false,
      );
      if (up) return;
      if (tries > 150) throw new Error('the server did not come up');
      await new Promise((wake) => setTimeout(wake, 200));
    }
  }

  async stopServer(): Promise<void> {
    const { server } = this;
    if (!server) return;
    const ended = new Promise((go) => server.once('exit', go));
    server.kill();
    await ended;
    this.server = null;
  }

  /** A page of somebody who was never here. */
  async newcomer(): Promise<Page> {
    const page = await this.browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.on('pageerror', (error) => {
      throw error;
    });
    return page;
  }

  async page(where: string): Promise<Page> {
    const page = await this.newcomer();
    // Whoever was here before has left the guide.
    await page.addInitScript(() => localStorage.setItem('yokeline:guide', '{"state":"left","step":0}'));
    await page.goto(this.address + where);
    await page.locator('[data-figure="interactive"]').waitFor();
    return page;
  }

  async stop(): Promise<void> {
    await this.browser.close();
    await this.stopServer();
    fs.rmSync(this.data, { recursive: true, force: true });
  }
}

/** A figure of the live strip in ms or in its own unit. */
export async function figure(page: Page, name: string): Promise<number> {
  const said = (await page.locator(`[data-figure="${name}"] dd`).first().textContent()) ?? '';
  const value = Number.parseFloat(said);
  if (said.endsWith(' s')) return value * 1000;
  if (said.endsWith(' MB')) return value * 1_000_000;
  return said.endsWith(' kB') ? value * 1000 : value;
}

/** Waits until the live strip shows something else than before, and gives it. */
export async function changed(page: Page, name: string, before: number): Promise<number> {
  for (let tries = 0; tries < 100; tries++) {
    const now = await figure(page, name);
    if (now !== before) return now;
    await page.waitForTimeout(50);
  }
  throw new Error(`${name} stayed at ${before}`);
}

/** Waits until the live strip shows a value. */
export async function becomes(page: Page, name: string, value: number): Promise<void> {
  let now = Number.NaN;
  for (let tries = 0; tries < 100; tries++) {
    now = await figure(page, name);
    if (now === value) return;
    await page.waitForTimeout(50);
  }
  throw new Error(`${name} is ${now}, not ${value}`);
}
