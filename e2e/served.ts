import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Browser, chromium, type Page } from 'playwright-core';

/** The real server over a fresh database with the sample, and a real browser. */
export class Served {
  private constructor(
    readonly address: string,
    private readonly data: string,
    private readonly server: ChildProcess,
    readonly browser: Browser,
  ) {}

  static async start(port: number): Promise<Served> {
    const data = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-e2e-'));
    const env = { ...process.env, YOKELINE_DATA: data, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' as const };
    execFileSync(process.execPath, ['dist/server/seed.js'], { env });
    const server = spawn(
      process.execPath,
      ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', String(port)],
      { env, stdio: 'ignore' },
    );
    const address = `http://127.0.0.1:${port}`;
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
    for (let tries = 0; ; tries++) {
      const up = await fetch(`${address}/api/projects`).then(
        (r) => r.ok,
        () => false,
      );
      if (up) return new Served(address, data, server, browser);
      if (tries > 150) throw new Error('the server did not come up');
      await new Promise((wake) => setTimeout(wake, 200));
    }
  }

  async page(where: string): Promise<Page> {
    const page = await this.browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.on('pageerror', (error) => {
      throw error;
    });
    await page.goto(this.address + where);
    await page.locator('[data-figure="interactive"]').waitFor();
    return page;
  }

  async stop(): Promise<void> {
    await this.browser.close();
    this.server.kill();
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
