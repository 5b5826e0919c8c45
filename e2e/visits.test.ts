import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { Served, settles } from './served.ts';

let served: Served;
let folder: string;

beforeAll(async () => {
  served = await Served.start();
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-visits-'));
});
afterAll(async () => {
  await served.stop();
  fs.rmSync(folder, { recursive: true });
});

const moment = (page: Page, name: RegExp) => page.getByRole('button', { name });
const details = (page: Page) => page.getByRole('complementary', { name: 'Details' });

/** Waits until a text that is read off the page fits. */
function until(read: () => Promise<string>, fits: (text: string) => boolean): Promise<string> {
  return settles(async () => {
    const text = await read();
    if (!fits(text)) throw new Error(`still “${text}”`);
    return text;
  });
}

describe('one visit', () => {
  it('shows the price of a split, and what an approach and a lead are worth', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable&device=laptop');
    await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
    await page.getByRole('button', { name: /^Detach it/ }).click();
    await page.getByRole('button', { name: /^Join it/ }).waitFor();
    await page.keyboard.press('5');
    // The typical visit opens the dialog elsewhere as well: what was there before is free, so begin with the dialog.
    await moment(page, /opens fare calculator/).click();
    for (let left = await page.locator('button[data-moment]').count(); left > 1; ) {
      await page.locator('button[data-moment]').nth(1).click();
      await details(page)
        .getByRole('button', { name: /^(Leave it out|End it before)$/ })
        .click();
      left = Number(
        await until(
          async () => String(await page.locator('button[data-moment]').count()),
          (n) => Number(n) < left,
        ),
      );
    }
    await page.getByRole('button', { name: 'and then …' }).click();
    await page.getByRole('menuitem', { name: 'opens ticket dialog' }).click();
    const panel = details(page);
    await panel.getByRole('heading', { name: 'opens ticket dialog' }).waitFor();
    const wait = () =>
      panel
        .getByText('until it shows')
        .locator('xpath=following-sibling::dd[1]')
        .textContent()
        .then((t) => t ?? '');
    const whole = await until(wait, (t) => Number.parseFloat(t) > 300 || t.endsWith(' s'));
    await panel.getByRole('button', { name: 'on hover or focus' }).click();
    await panel.getByText(/^At once .* with lead enough/).waitFor();
    await until(wait, (t) => t !== whole);
    // The handle in the row does the same as the slider: dragged to the act, it leaves no lead.
    const handle = page.locator('circle.cursor-ew-resize').first();
    const box = (await handle.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 60, box.y + 5, { steps: 4 });
    await page.mouse.move(box.x + 600, box.y + 5, { steps: 4 });
    await page.mouse.up();
    await until(wait, (t) => t === whole);
    // Home: no hesitation at all, so that the approach gives nothing.
    await panel.getByRole('slider').press('Home');
    await until(wait, (t) => t === whole);
    await panel.getByRole('slider').press('End');
    await until(wait, (t) => /^\d\d? ms$/.test(t));
    await page.getByLabel('nobody hesitates').check();
    await until(wait, (t) => t === whole);
    await page.close();
  });

  it('can be kept, undone, and sent on as an address', async () => {
    const page = await served.page('/p/saltmarsh/visits?route=/book');
    await moment(page, /opens payment/).click();
    await details(page).getByLabel('After the moment before').fill('2500');
    await details(page).getByLabel('After the moment before').press('Enter');
    await page.getByLabel('Keep it as').fill('Books a cabin');
    await page.getByLabel('Keep it as').press('Enter');
    await page.getByLabel('Visit', { exact: true }).getByText('Books a cabin').waitFor({ state: 'attached' });
    const address = page.url();
    expect(decodeURIComponent(address.replaceAll('+', ' '))).toContain('act payment @2500');
    const other = await served.page(address.slice(address.indexOf('/p/')));
    await moment(other, /opens payment/).waitFor();
    await other.getByText('2.50 s later').waitFor();
    await settles(async () =>
      expect(await details(other).getByRole('heading', { name: 'opens payment' }).count()).toBe(1),
    );
    await other.close();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByLabel('Visit', { exact: true }).getByText('Books a cabin').waitFor({ state: 'detached' });
    await page.close();
  });

  it('fails where a deploy took the files away, and says what the person sees', async () => {
    const visit = encodeURIComponent('/timetable > deploy @1000 > scroll tide @500');
    const page = await served.page(`/p/saltmarsh/visits?route=/timetable&visit=${visit}&moment=2&plan=baseline`);
    await page.getByText('fails', { exact: true }).waitFor();
    await details(page)
      .getByText(/could not be loaded, and nobody says so/)
      .waitFor();
    await page.close();
  });

  it('says what is wrong with an address, or with a step that can’t be taken, and goes on', async () => {
    const page = await served.page('/p/saltmarsh/visits?route=/&visit=nonsense+%3E+jump');
    // However long the page takes to draw: such a notice stays until it is closed.
    const notice = page.getByText(/The visit in the address can’t be read/);
    await notice.waitFor();
    await moment(page, /goes to \/timetable/).waitFor();
    await page.getByRole('button', { name: 'Close the notice' }).click();
    await notice.waitFor({ state: 'detached' });
    await page.close();
    const lost = await served.page(`/p/saltmarsh/visits?route=/&visit=${encodeURIComponent('/ > act deck @9')}`);
    await lost.getByText(/has no part deck at that moment/).waitFor();
    await lost.getByRole('button', { name: 'Back to the typical visit' }).click();
    await moment(lost, /goes to \/timetable/).waitFor();
    await lost.close();
  });
});

describe('all visitors', () => {
  const board = async (page: Page) => {
    await page.getByText(/visits played, the same/).waitFor();
    return page.getByRole('table').first();
  };

  it('lists the dearest waits first, plays one, and follows what is said of visitors', async () => {
    const page = await served.page('/p/saltmarsh/visits?page=all&plan=baseline');
    const table = await board(page);
    await settles(async () => expect((await table.locator('tbody th').allInnerTexts())[0]).toContain('payment'));
    const panel = page.getByRole('complementary', { name: 'Visitors' });
    await panel.getByLabel('Habits on').selectOption('/book');
    await panel.getByLabel('opens payment').fill('1');
    await panel.getByLabel('opens payment').press('Enter');
    await until(
      async () => (await table.locator('tbody th').allInnerTexts())[0],
      (t) => !t.includes('payment'),
    );
    await panel.getByLabel('goes to /trips').fill('90');
    await panel.getByLabel('goes to /trips').press('Enter');
    await panel.getByLabel('Another move').selectOption('/help');
    await panel.getByLabel('goes to /help').fill('60');
    await panel.getByLabel('goes to /help').press('Enter');
    await panel
      .getByRole('alert')
      .getByText(/add up to 150 %/)
      .waitFor();
    await panel.getByRole('button', { name: 'Scale to 100 %' }).click();
    await panel.getByRole('alert').waitFor({ state: 'detached' });
    await settles(async () => expect(await panel.getByLabel('goes to /trips').inputValue()).toBe('60'));
    await board(page);
    await table.getByRole('button', { name: /opens deck plan/ }).click();
    await details(page).getByRole('heading', { name: 'opens deck plan' }).waitFor();
    await page.close();
  });

  it('learns from a log once the person agrees, and refuses what is none', async () => {
    const page = await served.page('/p/saltmarsh/visits?page=all&plan=baseline');
    const panel = page.getByRole('complementary', { name: 'Visitors' });
    await panel.getByRole('button', { name: 'Read a log …' }).waitFor();
    const file = path.join(folder, 'own.csv');
    fs.writeFileSync(file, 'visit,time,route\na,1,/help\na,900,/nowhere\na,800,/\nb,5,/help\n');
    await panel.getByLabel('Navigation log').setInputFiles(file);
    await page.getByText('2 visits in 4 lines.').waitFor();
    await page.getByText(/\/nowhere is no route of this app/).waitFor();
    await page.getByRole('button', { name: 'Use these visitors' }).click();
    const landings = page.getByRole('listitem').filter({ hasText: '/help' });
    await until(
      async () => (await landings.allInnerTexts()).join(' '),
      (t) => t.includes('100 %'),
    );
    await page.getByRole('button', { name: /^Undo/ }).click();
    await until(
      async () => (await landings.allInnerTexts()).join(' '),
      (t) => t.includes('2 %'),
    );
    fs.writeFileSync(file, 'what,is,this\n1,2,3\n');
    await panel.getByLabel('Navigation log').setInputFiles(file);
    await page.getByText(/must name the columns visit, time, route/).waitFor();
    await page.close();
  });
});
