import type { Page } from 'playwright-core';
import { allSaved, becomes, changed, figure, Served, settles } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

const TIMETABLE = '/p/saltmarsh/split?route=/timetable';

async function choose(page: Page, name: string): Promise<void> {
  await page.getByRole('option', { name: new RegExp(`^${name} ?,`) }).click();
}

describe('a first improvement on the sample', () => {
  it('opens the sample, detaches an import, preloads a split point, sees interactive earlier, and finds it kept', async () => {
    const page = await served.page('/');
    await expect(page.title()).resolves.toBe('Yokeline');
    await page.goto(served.address + TIMETABLE);
    await page.locator('[data-ready]').waitFor();
    const before = await figure(page, 'interactive');

    await choose(page, 'ticket-dialog');
    await page.getByRole('button', { name: 'Detach it' }).click();
    const detached = await changed(page, 'interactive', before);
    expect(detached).toBeLessThan(before - 300);

    await choose(page, 'weather-strip');
    await page.getByRole('button', { name: 'preload in the markup' }).click();
    await page.getByRole('button', { name: 'preload in the markup', pressed: true }).waitFor();
    await page.getByText('First plan · 2 decisions').waitFor();
    const hinted = await figure(page, 'interactive');
    expect(hinted).toBeLessThan(before);

    await page.getByRole('button', { name: 'Startup' }).click();
    await page.getByRole('option', { name: /^weather-strip .*hinted/ }).waitFor();
    await allSaved(page);
    await page.reload();
    await page.getByText('First plan · 2 decisions').waitFor();
    await settles(async () => expect(await figure(page, 'interactive')).toBe(hinted));
    await page.close();
  });

  it('undoes and redoes by keyboard', async () => {
    const page = await served.page(TIMETABLE);
    const start = await figure(page, 'start');
    await choose(page, 'berth-finder');
    await page.keyboard.press('d');
    await page.getByRole('button', { name: 'on the action', exact: true }).click();
    await page.getByText('First plan · 4 decisions').waitFor();
    await allSaved(page);
    const lean = await figure(page, 'start');
    expect(lean).toBeLessThan(start);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await becomes(page, 'start', start);
    await page.keyboard.press('Control+Shift+z');
    await page.keyboard.press('Control+Shift+z');
    await becomes(page, 'start', lean);
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await becomes(page, 'start', start);
    await allSaved(page);
    await page.close();
  });

  it('lets two tabs on one plan not overwrite each other', async () => {
    const [one, two] = [await served.page(TIMETABLE), await served.page(TIMETABLE)];
    await choose(one, 'fare-calculator');
    await one.keyboard.press('d');
    await one.getByText('First plan · 3 decisions').waitFor();
    await allSaved(one);
    await choose(two, 'tide-note');
    await two.keyboard.press('d');
    await two.getByText('was changed in another tab').waitFor();
    await two.getByRole('button', { name: 'Keep mine as a copy' }).click();
    await two.getByText('First plan, my copy · 3 decisions').waitFor();
    await one.reload();
    await one.getByText('First plan · 3 decisions').waitFor();
    await choose(one, 'tide-note');
    await one.getByRole('button', { name: 'Join it' }).waitFor();
    await one.close();
    await two.close();
  });

  it('walks the waterfall by keyboard, back to the cause', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/crew/duty/manifest&plan=baseline');
    await settles(async () => expect(await figure(page, 'hops')).toBe(5));
    await page.getByRole('listbox').focus();
    await page.keyboard.press('End');
    await page.getByRole('heading', { name: 'manifest', exact: true }).waitFor();
    await page.keyboard.press('ArrowLeft');
    await page.getByRole('heading', { name: 'manifest-grid' }).waitFor();
    await page.keyboard.press('ArrowLeft');
    await page.getByRole('heading', { name: 'manifest-page' }).waitFor();
    await page.close();
  });

  it('refuses broken project files with the place, and opens good ones', async () => {
    const page = await served.page(TIMETABLE);
    await page.getByRole('combobox', { name: /^project/ }).click();
    await page.getByRole('option', { name: 'Read another app' }).click();
    const bring = async (name: string, text: string) => {
      const again = page.getByRole('button', { name: 'something else' });
      if (await again.isVisible()) await again.click();
      const file = { name, mimeType: 'application/json', buffer: Buffer.from(text) };
      await page.getByLabel('Archive or project file').setInputFiles(file);
      await page.getByRole('button', { name: 'Read it' }).click();
    };
    await bring('broken.json', '{\n oops');
    await page.getByText('broken.json:2:2').waitFor();
    await bring('newer.json', '{"format":"yokeline-project","version":7}');
    await page.getByText('version 7; this program reads up to 2').waitFor();
    const empty = {
      format: 'yokeline-project',
      version: 1,
      plans: [],
      snapshot: {
        name: 'empty',
        origin: 'source',
        modules: [],
        imports: [],
        packages: [],
        entries: [],
        routes: [],
        scripts: [],
        unresolved: [],
        failed: [],
      },
    };
    await bring('empty.json', JSON.stringify(empty));
    await page.getByRole('heading', { name: 'No routes yet' }).waitFor();
    await page.close();
  });

  it('explains in the Inventory why the document maker is on the landing route, and leads to the import', async () => {
    const page = await served.page('/p/saltmarsh/inventory?route=/timetable&plan=baseline');
    await page.getByText('berth-finder').first().waitFor();
    await page.getByLabel('Where is').fill('minutes before');
    await page.getByRole('button', { name: /ticket-lines/ }).click();
    await page.getByLabel('Where is').fill('paperkit/src');
    await page
      .getByRole('button', { name: /paperkit.src.index/ })
      .first()
      .click();
    const why = page.locator('section', {
      has: page.getByRole('heading', { name: 'Why it is at start of /timetable' }),
    });
    await why.getByText('src/tickets/ticket-dialog.tsx').waitFor();
    await settles(async () =>
      expect(await why.locator('ol').first().textContent()).toContain('src/timetable/departure-board.tsx, line 6'),
    );
    await page.getByRole('button', { name: 'show in Split' }).nth(1).click();
    await page.getByRole('heading', { name: 'berth-finder' }).waitFor();
    await page.close();
  });
});
