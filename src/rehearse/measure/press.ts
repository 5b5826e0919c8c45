import type { Locator, Page } from 'playwright-core';

/** So long it is waited for what is pressed, in ms. */
const PATIENCE_MS = 3000;

/** Presses the first thing on a page with these words: a button or link, else whatever says them. Gives whether there was one. */
export async function press(page: Page, words: string): Promise<boolean> {
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
