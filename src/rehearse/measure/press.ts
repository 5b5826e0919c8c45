import type { Locator, Page } from 'playwright-core';
import { addressMatches } from '../stage/addresses.ts';

declare const location: { origin: string };

/** So long it is waited for what is pressed, in ms. */
const PATIENCE_MS = 3000;

/** What is pressed on a page: what says some words, or a link to an address of a route, by its pattern. `others`: patterns of other routes, whose own addresses aren’t meant. */
export type Pressed = { words: string } | { linkTo: string; others: readonly string[] };

/** Presses the first of it that can be; gives whether there was one. */
export function press(page: Page, what: Pressed): Promise<boolean> {
  return 'words' in what ? pressWords(page, what.words) : follow(page, what.linkTo, what.others);
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
  const said = new RegExp(words.trim().split(/\s+/).map(escaped).join('\\s+'), 'i');
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

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}
