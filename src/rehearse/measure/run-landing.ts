import { InputError } from '../../core/errors.ts';
import type { RawLanding } from '../../core/rehearsals/raw.ts';
import type { RehearsedTask } from '../../core/rehearsals/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { type Led, OpenBrowser } from '../browser/open-browser.ts';
import { Operations } from './operations.ts';
import { type Pressed, press } from './press.ts';
import { Quiet } from './quiet.ts';
import { gather, record } from './recorder.ts';
import { tasksOf, traced } from './trace.ts';

/** A landing as it was run once. */
export interface RunLanding {
  raw: RawLanding;
  tasks: RehearsedTask[];
  errors: string[];
  version: string;
  /** How many times slower the page’s thread really was than the reference machine’s. */
  slowed: number;
  /** How many times slower this machine became between before and after. */
  drift: number;
  /** Whether its code was kept in the browser’s own sandbox. */
  sandboxed: boolean;
  /** Whether the page came to rest. */
  quiet: boolean;
  /** Whether what is acted on was found; null where nothing was to be done. */
  pressed: boolean | null;
}

const MOST_ERRORS = 20;

/**
 * Lands on an address in a browser with a new profile, after so many earlier visits. `act`: what is pressed once the page has come
 * to rest.
 */
export async function runLanding(
  program: string,
  address: string,
  { device }: Pick<Conditions, 'device'>,
  led: Led,
  earlier: number,
  stopped: () => boolean,
  act: Pressed | null = null,
): Promise<RunLanding> {
  const profile = OpenBrowser.newProfile();
  try {
    for (let n = 0; n < earlier && !stopped(); n++) await visit(program, profile, address, device, led, stopped, null);
    return await visit(program, profile, address, device, led, stopped, act);
  } finally {
    OpenBrowser.removeProfile(profile);
  }
}

async function visit(
  program: string,
  profile: string,
  address: string,
  device: Conditions['device'],
  led: Led,
  stopped: () => boolean,
  act: Pressed | null,
): Promise<RunLanding> {
  const browser = await OpenBrowser.start(program, profile, device, led);
  const { page, tools, version, sandboxed } = browser;
  try {
    const errors: string[] = [];
    page.on('pageerror', (error) => {
      if (errors.length < MOST_ERRORS) errors.push(String(error));
    });
    const operations = new Operations(page);
    await page.addInitScript(record);
    const quiet = new Quiet(page);
    const end = await traced(tools);
    await page.goto(address, { waitUntil: 'load', timeout: 90_000 });
    const rest = () => quiet.come(() => page.evaluate(progress), device.cpuFactor, stopped);
    const rested = await rest();
    const landed = act === null ? null : await page.evaluate(gather);
    const found = act === null || stopped() ? null : await press(page, act);
    if (found) await rest();
    const events = await end();
    const last = await page.evaluate(gather);
    // Where another document was opened, nothing of this one is left in it.
    const raw = found && landed && last.clicks.length === 0 ? landed : last;
    return {
      raw: operations.named(raw),
      tasks: tasksOf(events, address),
      errors,
      version,
      ...(await browser.slowness()),
      sandboxed,
      quiet: rested,
      pressed: found,
    };
  } catch (error) {
    if (error instanceof InputError) throw error;
    const [said] = String(error instanceof Error ? error.message : error).split('\n');
    throw new InputError(
      'The landing broke off',
      `${said} Try again; if it stays so, look at the page in a browser.`,
      address,
    );
  } finally {
    await browser.close();
  }
}

/** What the recorder keeps in the page. */
declare const self: { __rehearsed: RawLanding };

/** How far a page is, in the page. */
function progress(): string {
  const { changes, longTasks } = self.__rehearsed;
  return `${changes.length} ${longTasks.length}`;
}
