import type { Page } from 'playwright-core';
import { InputError } from '../../core/errors.ts';
import type { RawLanding } from '../../core/rehearsals/raw.ts';
import type { RehearsedTask } from '../../core/rehearsals/types.ts';
import type { Conditions } from '../../core/sim/conditions.ts';
import { type Led, OpenBrowser } from '../browser/open-browser.ts';
import { type Doing, doAct, type Undone } from './do-act.ts';
import { Operations } from './operations.ts';
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
  /** What there is to tell of acts. After what wasn’t found, or opened another document, nothing more was done. */
  undone: { act: number; why: Undone | 'opened a document' }[];
}

const MOST_ERRORS = 20;

/**
 * Lands on an address in a browser with a new profile, after so many earlier visits. `acts`: what is done once the page has come
 * to rest, one after the other.
 */
export async function runLanding(
  program: string,
  address: string,
  { device }: Pick<Conditions, 'device'>,
  led: Led,
  earlier: number,
  stopped: () => boolean,
  acts: readonly Doing[] = [],
): Promise<RunLanding> {
  const profile = OpenBrowser.newProfile();
  try {
    for (let n = 0; n < earlier && !stopped(); n++) await visit(program, profile, address, device, led, stopped, []);
    return await visit(program, profile, address, device, led, stopped, acts);
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
  acts: readonly Doing[],
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
    const { raw, undone } = await afterActs(page, acts, rest, stopped);
    const events = await end();
    return {
      raw: operations.named(raw),
      tasks: tasksOf(events, address),
      errors,
      version,
      ...(await browser.slowness()),
      sandboxed,
      quiet: rested,
      undone,
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

/** Does what is to be done, and gives what was kept by then. */
async function afterActs(
  page: Page,
  acts: readonly Doing[],
  rest: () => Promise<unknown>,
  stopped: () => boolean,
): Promise<{ raw: RawLanding; undone: RunLanding['undone'] }> {
  const undone: RunLanding['undone'] = [];
  let raw = await page.evaluate(gather);
  for (const [act, what] of acts.entries()) {
    if (stopped()) break;
    const why = await doAct(page, what, act, rest);
    if (why !== null) undone.push({ act, why });
    if (why === 'not found') break;
    await rest();
    const now = await page.evaluate(gather);
    // Where another document was opened, nothing of this one is left in it.
    if (now.acts.length <= act) {
      undone.push({ act, why: 'opened a document' });
      break;
    }
    raw = now;
  }
  return { raw, undone };
}

/** What the recorder keeps in the page. */
declare const self: { __rehearsed: RawLanding };

/** How far a page is, in the page. */
function progress(): string {
  const { changes, longTasks } = self.__rehearsed;
  return `${changes.length} ${longTasks.length}`;
}
