import type { Locator, Page } from 'playwright-core';
import type { RawLanding } from '../../core/rehearsals/raw.ts';
import { addressMatches } from '../stage/addresses.ts';
import type { AwaitedAct } from './recorder.ts';

declare const location: { origin: string };
/** What the recorder, and the assembled files, keep in the page. */
declare const self: {
  __rehearsed: Pick<RawLanding, 'acts'> & { awaited: AwaitedAct | null };
  __parts?: Pick<RawLanding, 'calls'>;
};

/** So long it is waited for what is pressed, in ms. */
const PATIENCE_MS = 3000;
/** So many buttons without words are tried at most, each with so much patience, in ms. */
const MOST_TRIED = 8;
const TRIED_MS = 1000;
/** Of a screen, so much is scrolled at once; so often at most. */
const SCROLLED = 0.75;
const MOST_SCREENS = 30;

/**
 * What is done on a page: what says some words is pressed, or, where nothing does, buttons without any, one after the other, until a module draws; a link to an address of a route is followed, by its pattern (`others`: patterns of other
 * routes, whose own addresses aren’t meant); or it is scrolled until a module draws.
 */
export type Doing =
  | { does: 'press'; words: string; module: number }
  | { does: 'move'; linkTo: string; others: readonly string[] }
  | { does: 'scroll'; module: number };

/** Why an act wasn't done, that it brought nothing new, or that it was found only by trying what has no words. */
export type Undone = 'not found' | 'nothing new' | 'tried';

/** Does it, as act number `act`; gives what there is to tell of it; null where all is well. `rest`: comes once the page is at rest. */
export async function doAct(
  page: Page,
  what: Doing,
  act: number,
  rest: () => Promise<unknown>,
): Promise<Undone | null> {
  await page.evaluate<void, AwaitedAct>(awaitAct, { act, by: what.does === 'scroll' ? 'scroll' : 'click' });
  switch (what.does) {
    case 'press':
      if (await pressWords(page, what.words)) return null;
      return (await tryWordless(page, what.module, act, rest)) ? 'tried' : 'not found';
    case 'move':
      return (await follow(page, what.linkTo, what.others)) ? null : 'not found';
    case 'scroll':
      return (await scrollTo(page, what.module, act, rest)) ? null : 'nothing new';
  }
}

/** The next such event begins an act. Runs in the page. */
function awaitAct(awaited: AwaitedAct): void {
  const kept = self.__rehearsed;
  kept.acts[awaited.act] = null;
  kept.awaited = awaited;
}

/** How often a module’s exports were called. Runs in the page. */
function callsOf(module: number): number {
  return self.__parts?.calls[module]?.length ?? 0;
}

/** Whether what was awaited for an act has come. Runs in the page. */
function hasBegun(act: number): boolean {
  return self.__rehearsed.acts[act] !== null;
}

/** Scrolls on, screen by screen and each time until the page is at rest, until a module draws; not past the page’s end. */
async function scrollTo(page: Page, module: number, act: number, rest: () => Promise<unknown>): Promise<boolean> {
  const { width, height } = page.viewportSize() ?? { width: 0, height: 0 };
  await page.mouse.move(width / 2, height / 2);
  const before = await page.evaluate(callsOf, module);
  for (let n = 0; n < MOST_SCREENS; n++) {
    if (n > 0) await page.evaluate<void, AwaitedAct>(awaitAct, { act, by: 'scroll' });
    await page.mouse.wheel(0, height * SCROLLED);
    await rest();
    if ((await page.evaluate(callsOf, module)) > before) return true;
    if (!(await page.evaluate(hasBegun, act))) return false;
  }
  return false;
}

/** Follows the first link to an address that a pattern means. */
async function follow(page: Page, pattern: string, others: readonly string[]): Promise<boolean> {
  const links = page.locator('a[href]').filter({ visible: true });
  for (const link of await links.all()) {
    const address = await link.evaluate(ownAddress);
    if (address === null || !addressMatches(pattern, address) || others.includes(address)) continue;
    try {
      await link.click({ timeout: PATIENCE_MS });
      return true;
    } catch {
      // It is covered, or doesn't stay: another one is tried.
    }
  }
  return false;
}

/** Where a link of the page's own origin leads; null of others. Runs in the page. */
function ownAddress(link: object): string | null {
  const { origin, pathname } = link as { origin?: string; pathname?: string };
  return origin === location.origin ? (pathname ?? null) : null;
}

/** Presses the first thing with these words: a button or link, else whatever says them. */
async function pressWords(page: Page, words: string): Promise<boolean> {
  const said = new RegExp(words.trim().split(/\s+/).map(wordPattern).join('\\s+'), 'i');
  const places: Locator[] = [
    page.getByRole('button', { name: said }),
    page.getByRole('link', { name: said }),
    page.getByText(said),
  ];
  for (const place of places) {
    const first = place.filter({ visible: true }).first();
    if ((await first.count()) === 0) continue;
    try {
      await first.click({ timeout: PATIENCE_MS });
      return true;
    } catch {
      // It is covered, or doesn't stay: what else says the words is tried.
    }
  }
  return false;
}

/** Presses buttons that show no words, one after the other, until a module draws; closes again what else they open. */
async function tryWordless(page: Page, module: number, act: number, rest: () => Promise<unknown>): Promise<boolean> {
  const before = await page.evaluate(callsOf, module);
  const address = page.url();
  const buttons = await page.getByRole('button').filter({ visible: true, hasNotText: /\p{L}/u }).all();
  for (const button of buttons.slice(0, MOST_TRIED)) {
    await page.evaluate<void, AwaitedAct>(awaitAct, { act, by: 'click' });
    try {
      await button.click({ timeout: TRIED_MS });
    } catch {
      continue;
    }
    await rest();
    if ((await page.evaluate(callsOf, module)) > before) return true;
    if (page.url() !== address) return false;
    await page.keyboard.press('Escape');
  }
  return false;
}

/** A word as it is; what no code tells may be anything. */
function wordPattern(word: string): string {
  return word.split('…').map(escaped).join('.*?');
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
