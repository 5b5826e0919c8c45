import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type BrowserContext, type CDPSession, chromium, type Page } from 'playwright-core';
import { InputError } from '../../core/errors.ts';
import type { Device } from '../../core/sim/conditions.ts';
import { machineAfter, type Slowed, slowDown } from './slow-down.ts';

/** Nothing is asked for that pages don’t ask for, and nothing is put off because no window is looked at. */
const ARGS = [
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-component-update',
  '--disable-sync',
  '--disable-renderer-backgrounding',
  '--disable-background-timer-throttling',
  '--disable-features=Translate,OptimizationHints,MediaRouter',
  /*
   * Browsers work out where in the text code stands only once that is asked for, by going through it again. While somebody drives the browser, every error that code makes asks
   * for it, be it thrown or not; in a visitor’s browser none does (docs/REHEARSAL.md). So it is worked out as code is compiled.
   */
  '--js-flags=--no-enable-lazy-source-positions',
];

/** Where a browser is led. */
export interface Led {
  /** Hosts of the rehearsal, and the port of this machine at which each is. No other name leads anywhere. */
  hosts: ReadonlyMap<string, number>;
  /** The key that it accepts; null without TLS. */
  fingerprint: string | null;
  /** Told once a new browser is about to go there, which has looked no name up yet. */
  starts: () => void;
  /** A page that it shows first, so that what it only does once isn’t measured. */
  first: string;
}

type Options = NonNullable<Parameters<typeof chromium.launchPersistentContext>[1]>;

/**
 * Starts the browser with its sandbox, since code of others runs in it; without where the system has none for it (as root, in some
 * containers). Refuses, with what the browser said, where it doesn’t start.
 */
async function launched(profile: string, options: Options): Promise<{ context: BrowserContext; sandboxed: boolean }> {
  const start = (chromiumSandbox: boolean) =>
    chromium.launchPersistentContext(profile, { ...options, chromiumSandbox });
  try {
    if (process.getuid?.() !== 0) return { context: await start(true), sandboxed: true };
  } catch (error) {
    if (!/sandbox/i.test(String(error))) throw notStarted(error, options.executablePath);
  }
  try {
    return { context: await start(false), sandboxed: false };
  } catch (error) {
    throw notStarted(error, options.executablePath);
  }
}

function notStarted(error: unknown, program: string | undefined): InputError {
  const [said] = String(error instanceof Error ? error.message : error).split('\n');
  return new InputError('The browser doesn’t start', `${said} Name another one in the variable CHROMIUM.`, program);
}

const START_MS = 60_000;
const SETTLE_MS = 300;

/** A browser that knows of nothing but a rehearsal. */
export class OpenBrowser {
  private constructor(
    private readonly context: BrowserContext,
    readonly page: Page,
    readonly tools: CDPSession,
    readonly version: string,
    private readonly slowed: Slowed,
    /** Whether its pages are kept in the browser’s own sandbox. */
    readonly sandboxed: boolean,
  ) {}

  /** A new profile, as a folder; it holds what visits leave. */
  static newProfile(): string {
    return fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-profile-'));
  }

  static removeProfile(profile: string): void {
    fs.rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
  }

  /** Starts a program of a browser with a profile, slowed as a device says. */
  static async start(
    program: string,
    profile: string,
    device: Device,
    { hosts, fingerprint, first, starts }: Led,
  ): Promise<OpenBrowser> {
    const rules = [...[...hosts].map(([host, port]) => `MAP ${host} 127.0.0.1:${port}`), 'MAP * ~NOTFOUND'];
    const { context, sandboxed } = await launched(profile, {
      ...{ executablePath: program, timeout: START_MS, viewport: device.viewport, hasTouch: device.touch },
      // Browsers of people connect ahead of what they navigate to.
      ignoreDefaultArgs: ['--disable-background-networking'],
      args: [
        ...ARGS,
        `--host-resolver-rules=${rules.join(', ')}`,
        ...(fingerprint ? [`--ignore-certificate-errors-spki-list=${fingerprint}`] : []),
      ],
    });
    const page = context.pages()[0] ?? (await context.newPage());
    const tools = await context.newCDPSession(page);
    await page.goto(first);
    await page.waitForTimeout(SETTLE_MS);
    const slowed = await slowDown(page, tools, device.cpuFactor);
    const version = context.browser()?.version() ?? '';
    starts();
    return new OpenBrowser(context, page, tools, version, slowed, sandboxed);
  }

  /**
   * How many times slower its pages were than on the reference machine since it was started, and how many times slower this machine became meanwhile.
   * Asked once, at the end: its pages aren't held back any more after it.
   */
  async slowness(): Promise<{ slowed: number; drift: number }> {
    const { machine, held } = this.slowed;
    const after = await machineAfter(this.page, this.tools);
    return { slowed: Math.sqrt(machine * after) * held, drift: after / machine };
  }

  async close(): Promise<void> {
    await this.context.close();
  }
}
