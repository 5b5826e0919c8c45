import { becomes, changed, figure, Served } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

describe('the Split list', () => {
  it('detaches several imports as one step, chosen together, and what leads into a package from its fold', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    const before = await figure(page, 'start');
    const sheet = page.getByRole('complementary', { name: 'Details' });
    await page.getByRole('option', { name: /^ticket-dialog/ }).click();
    await page.getByRole('option', { name: /^fare-calculator/ }).click({ modifiers: ['Control'] });
    await sheet.getByRole('heading', { name: '2 imports chosen' }).waitFor();
    const promise = (await sheet.getByText(/kB → /).textContent()) ?? '';
    const promised = Number.parseFloat(promise.slice(promise.indexOf('→') + 1));
    await page.keyboard.press('d');
    const after = await changed(page, 'start', before);
    expect(after / 1000).toBeCloseTo(promised, 0);
    await page.getByRole('button', { name: /^Undo “detach 2 imports”/ }).click();
    await becomes(page, 'start', before);
    await page.getByRole('button', { name: 'by folder' }).click();
    await page.getByRole('option', { name: /^@saltmarsh\/paperkit/ }).click();
    await sheet.getByRole('button', { name: /^Detach/ }).click();
    expect(await changed(page, 'start', before)).toBeLessThan(before - 100_000);
    await page.keyboard.press('Control+z');
    await becomes(page, 'start', before);
    await page.close();
  });

  it('goes into a split point and tells what its own imports do to the wait', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    const sheet = page.getByRole('complementary', { name: 'Details' });
    await page.getByRole('option', { name: /^ticket-dialog/ }).click();
    await page.keyboard.press('d');
    await sheet.getByRole('button', { name: /Its own imports/ }).click();
    await page.getByRole('heading', { name: /What ticket-dialog pulls in/ }).waitFor();
    await page.getByRole('option', { name: /^@saltmarsh\/paperkit/ }).click();
    await sheet.getByText(/The wait for ticket-dialog goes from/).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('heading', { name: /What \/timetable pulls in/ }).waitFor();
    await page.close();
  });

  it('fetches a split point at any moment that is said', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page.getByRole('option', { name: /^tide-chart/ }).click();
    await page.getByRole('button', { name: 'another moment' }).click();
    await page.getByLabel('ms after its landing or move').fill('soon');
    await page.getByRole('button', { name: 'Choose', exact: true }).click();
    await page.getByText('“ms after its landing or move” must be a number').waitFor();
    await page.getByLabel('ms after its landing or move').fill('400');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'after 400 ms', pressed: true }).waitFor();
    await page.getByRole('option', { name: /^tide-chart.*after 400 ms/ }).waitFor();
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'in view', pressed: true }).waitFor();
    await page.close();
  });

  it('is compared across landings, plans and conditions, sorted by what changed', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    const before = await figure(page, 'start');
    await page.getByRole('option', { name: /^fare-calculator/ }).click();
    await page.keyboard.press('d');
    await changed(page, 'start', before);
    await page.getByRole('button', { name: 'Compare', exact: true }).click();
    await page.getByRole('tab', { name: 'Across' }).click();
    const rows = page.getByRole('row');
    await page.getByText('Changes against Baseline').waitFor();
    await page.getByRole('button', { name: 'change', exact: true }).click();
    await rows.nth(1).getByText('better than the baseline').waitFor({ state: 'attached' });
    await page.getByLabel('only what differs').check();
    const differ = await rows.count();
    await page.getByLabel('rows').selectOption('plans');
    expect(await page.getByLabel('columns').inputValue()).toBe('subjects');
    await page.getByLabel('only what differs').uncheck();
    expect(await rows.count()).toBe(3);
    expect(differ).toBeGreaterThan(1);
    await page.keyboard.press('Control+z');
    await page.close();
  });

  it('ships a part that the server draws without its script, and trims a sheet', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/sailings/:id');
    const before = await figure(page, 'start');
    await page
      .getByRole('option', { name: /^ship-facts/ })
      .first()
      .click();
    await page.getByRole('button', { name: 'Ship no script for it' }).click();
    await page.getByRole('option', { name: /^ship-facts/ }).waitFor({ state: 'detached' });
    await page.getByRole('button', { name: /^Undo “no script for ship-facts”/ }).waitFor();
    await page.getByRole('button', { name: 'Inventory', exact: true }).click();
    await page.getByRole('tab', { name: /unused rule/ }).click();
    await page.locator('summary', { hasText: '.css' }).first().click();
    await page.getByRole('button', { name: 'leave these rules out' }).click();
    expect(await changed(page, 'start', before)).toBeLessThan(before);
    await page.close();
  });

  it('marks a chunk that was chosen in the load sheet in Startup and Split too', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    const row = page.getByRole('option', { name: /^weather-strip/ });
    await row.click();
    await page.getByRole('button', { name: 'Split', exact: true }).click();
    await page.getByRole('option', { name: /^weather-strip/, selected: true }).waitFor();
    await page.getByRole('option', { name: /^line-badge/ }).click();
    await page.getByRole('button', { name: 'Startup', exact: true }).click();
    await page.getByRole('option', { name: /^line-badge/, selected: true }).waitFor();
    await page.close();
  });
});
