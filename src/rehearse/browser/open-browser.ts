import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type BrowserContext, type CDPSession, chromium, type Page } from 'playwright-core';
import type { Device } from '../../core/sim/conditions.ts';

/** Nothing is asked for that pages don’t ask for, and nothing is put off because no window is looked at. */
const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-renderer-backgrounding',
  '--disable-background-timer-throttling',
  '--disable-features=Translate,OptimizationHints,MediaRouter',
];

/** Where a browser is led. */
export interface Led {
  /** Hosts of the rehearsal, and the port of this machine at which each is. No other name leads anywhere. */
  hosts: ReadonlyMap<string, number>;
  /** The key that it accepts; null without TLS. */
  fingerprint: string | null;
}

const START_MS = 60_000;

/** A browser with a profile of its own, which is gone when it is closed. */
export class OpenBrowser {
  private constructor(
    private readonly profile: string,
    private readonly context: BrowserContext,
    readonly page: Page,
    readonly tools: CDPSession,
    readonly version: string,
  ) {}

  static async start(program: string, device: Device, { hosts, fingerprint }: Led): Promise<OpenBrowser> {
    const profile = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-profile-'));
    const rules = [...[...hosts].map(([host, port]) => `MAP ${host} 127.0.0.1:${port}`), 'MAP * ~NOTFOUND'];
    const context = await chromium.launchPersistentContext(profile, {
      ...{ executablePath: program, timeout: START_MS, viewport: device.viewport, hasTouch: device.touch },
      args: [
        ...ARGS,
        `--host-resolver-rules=${rules.join(', ')}`,
        ...(fingerprint ? [`--ignore-certificate-errors-spki-list=${fingerprint}`] : []),
      ],
    });
    const page = context.pages()[0] ?? (await context.newPage());
    const tools = await context.newCDPSession(page);
    if (device.cpuFactor !== 1) await tools.send('Emulation.setCPUThrottlingRate', { rate: device.cpuFactor });
    const version = context.browser()?.version() ?? '';
    return new OpenBrowser(profile, context, page, tools, version);
  }

  async close(): Promise<void> {
    await this.context.close();
    fs.rmSync(this.profile, { recursive: true, force: true, maxRetries: 5 });
  }
}
