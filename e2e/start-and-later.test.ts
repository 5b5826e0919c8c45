import type { Page } from 'playwright-core';
import { becomes, changed, figure, Served, settles } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

const opened = async (query = 'route=/timetable&plan=baseline') => {
  const page = await served.page(`/p/saltmarsh/split?${query}`);
  await page.getByRole('tab', { name: 'Start and later' }).click();
  await block(page, 'mapkeel').waitFor();
  return page;
};
const block = (page: Page, name: string) =>
  page.getByRole('button', { name: new RegExp(`, package @saltmarsh/${name},`) });
const details = (page: Page) => page.getByRole('complementary', { name: 'Details' });
const band = async (page: Page, name: string) => (await block(page, name).getAttribute('data-at')) ?? '';

describe('start and later', () => {
  it('shows a block leave the start before it is decided, with the strip, and takes it back', async () => {
    const page = await opened();
    const before = await figure(page, 'interactive');
    expect(await band(page, 'paperkit')).toBe('start');
    // It is hovered over once it has come to rest.
    await block(page, 'paperkit').hover();
    const wide = (await block(page, 'paperkit').boundingBox())!;
    await block(page, 'paperkit').click();
    expect(await changed(page, 'interactive', before)).toBeLessThan(before);
    await settles(async () => expect(await band(page, 'paperkit')).not.toBe('start'));
    await settles(async () => expect((await block(page, 'paperkit').boundingBox())!.y).toBeGreaterThan(wide.y + 100));
    await settles(async () => expect((await block(page, 'paperkit').boundingBox())!.width).toBeCloseTo(wide.width, 0));
    await details(page).getByText('leaves the start').waitFor();
    await page.getByText('Baseline, as built').waitFor();
    await page.keyboard.press('Escape');
    await becomes(page, 'interactive', before);
    await settles(async () => expect(await band(page, 'paperkit')).toBe('start'));

    await block(page, 'paperkit').click();
    await details(page).getByRole('button', { name: 'idle' }).click();
    await page.keyboard.press('d');
    await page.getByText('Plan · 2 decisions').waitFor();
    await changed(page, 'interactive', before);
    await page.keyboard.press('Control+z');
    await becomes(page, 'interactive', before);
    await page.close();
  });

  it('hatches what stays, and says who keeps it', async () => {
    const page = await opened();
    await page.getByRole('button', { name: /^\d+ lighter .*, in the start/ }).click();
    await page.keyboard.press('o');
    await page.getByRole('button', { name: /, folder src\/timetable, in the start/ }).click();
    await page.getByRole('button', { name: /^departure-board .*, module / }).click();
    await details(page).getByText('needed by it, but stays').waitFor();
    await details(page)
      .getByText(/kept by /)
      .first()
      .waitFor();
    await settles(async () =>
      expect(await page.getByRole('button', { name: /kept by .* in the start/ }).count()).toBeGreaterThan(0),
    );
    await page.close();
  });

  it('decides what is dragged over the line, in both directions', async () => {
    const page = await opened('route=/timetable');
    const later = page.locator('[data-zone="later"]');
    await block(page, 'tidewright').dragTo(later, { targetPosition: { x: 600, y: 200 } });
    await page.getByText('First plan · 1 decision').waitFor();
    await settles(async () => expect(await band(page, 'tidewright')).not.toBe('start'));
    await block(page, 'tidewright').dragTo(block(page, 'mapkeel'));
    await settles(async () => expect(await band(page, 'tidewright')).toBe('start'));
    for (let undone = 0; undone < 2; undone++) await page.keyboard.press('Control+z');
    await page.getByText('First plan · 0 decisions').waitFor();
    await page.close();
  });

  it('is walked with arrows and takes packages apart', async () => {
    const page = await opened();
    await block(page, 'mapkeel').focus();
    await page.keyboard.press('ArrowRight');
    expect(await page.evaluate(() => document.activeElement?.textContent)).toMatch(/^paperkit/);
    await page.keyboard.press('ArrowDown');
    await settles(async () =>
      expect(await page.evaluate(() => document.activeElement?.getAttribute('data-at'))).not.toBe('start'),
    );
    await block(page, 'mapkeel').click();
    await page.keyboard.press('o');
    await page.getByText('opened', { exact: true }).waitFor();
    await page
      .getByRole('button', { name: /, module .*, in the start/ })
      .first()
      .waitFor();
    await page.getByRole('button', { name: / close$/ }).click();
    await block(page, 'mapkeel').waitFor();
    await page.close();
  });
});

describe('where things stand', () => {
  const line = (page: Page) => page.getByRole('region', { name: 'Where things stand' });

  it('says it in a sentence, with the best change to be tried and applied from any station', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable&plan=baseline');
    const before = await figure(page, 'interactive');
    await line(page)
      .getByText(`is interactive after ${(before / 1000).toFixed(2)} s`)
      .waitFor();
    await line(page).getByText('The best change saves').waitFor();
    await line(page).getByRole('button', { name: 'Preview' }).click();
    const tried = await changed(page, 'interactive', before);
    expect(tried).toBeLessThan(before);
    await line(page).getByRole('button', { name: /best$/ }).click();
    expect(await page.getByRole('dialog').getByRole('listitem').count()).toBe(3);
    await page.keyboard.press('Escape');
    await line(page).getByRole('button', { name: 'Apply' }).click();
    await page.getByText(/^Plan( \d)? · \d/).waitFor();
    await becomes(page, 'interactive', tried);
    await line(page)
      .getByText(/sooner than the baseline/)
      .waitFor();
    await page.close();
  });

  it('can be put away, which the browser keeps, and isn’t where advice is', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await line(page).getByRole('button', { name: 'Hide where things stand' }).click();
    await page.reload();
    await page.getByRole('button', { name: 'Show where things stand' }).click();
    await line(page).waitFor();
    await page.keyboard.press('6');
    await page.getByRole('tab', { name: 'Findings' }).waitFor();
    expect(await line(page).count()).toBe(0);
    await page.close();
  });

  it('is reached by addresses from before the station was called Advice', async () => {
    const page = await served.page('/p/saltmarsh/hints?route=/timetable');
    await page.getByRole('tab', { name: 'Findings' }).waitFor();
    expect(new URL(page.url()).pathname).toBe('/p/saltmarsh/advice');
    expect(new URL(page.url()).searchParams.get('route')).toBe('/timetable');
    await page.close();
  });
});
