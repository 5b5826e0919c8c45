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

  it('tells what can be done with a row, by pointer and by key', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    const before = await figure(page, 'start');
    const dialog = page.getByRole('option', { name: /^ticket-dialog/ });
    await dialog.click({ button: 'right', position: { x: 60, y: 10 } });
    await page.getByRole('menu').getByText('ticket-dialog', { exact: true }).waitFor();
    await page.getByRole('menuitem', { name: /^Detach it/ }).click();
    await changed(page, 'start', before);
    await page.keyboard.press('Control+z');
    await becomes(page, 'start', before);
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await dialog.click();
    await page.getByRole('listbox').focus();
    await page.keyboard.press('Shift+F10');
    await page.getByRole('menuitem', { name: 'Copy where it is imported' }).click();
    await page.getByText('Copied: src/timetable/departure-board.tsx:6').waitFor();
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('src/timetable/departure-board.tsx:6');
    // Afterwards the list has the keys again.
    await page.keyboard.press('d');
    await changed(page, 'start', before);
    await page.keyboard.press('Control+z');
    await becomes(page, 'start', before);
    await page.close();
  });

  it('goes from the field on into the list, in Split and in the list of modules, which any column puts in order', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page.getByRole('option', { name: /^ticket-dialog/ }).waitFor();
    await page.keyboard.press('/');
    await page.keyboard.type('paperkit');
    await page.keyboard.press('ArrowDown');
    await page.getByRole('option', { name: /^@saltmarsh\/paperkit/, selected: true }).waitFor();
    await page.getByRole('button', { name: 'Inventory' }).click();
    await page.getByRole('tab', { name: /modules$/ }).click();
    const field = page.getByLabel('Find a module in the list');
    await field.fill('crew');
    await page.getByText('8 modules of 122').waitFor();
    const names = () => page.getByRole('listbox', { name: 'Modules' }).getByRole('option').allTextContents();
    const byWeight = await names();
    await page.getByRole('button', { name: 'module', exact: true }).click();
    expect(await names()).toEqual([...byWeight].sort());
    await page.getByRole('button', { name: 'module', exact: true, pressed: true }).click();
    expect(await names()).toEqual([...byWeight].sort().reverse());
    await field.press('Enter');
    await page.getByRole('heading', { name: /^sort-names\.ts|^manifest-page|^manifest-grid/ }).waitFor();
    await page.close();
  });

  it('gives more room to what stands beside it, and remembers that', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    const sheet = page.getByRole('complementary', { name: 'Details' });
    const width = async () => Math.round((await sheet.boundingBox())!.width);
    const border = page.getByRole('separator', { name: 'Width of this column' });
    const usual = await width();
    await border.focus();
    await page.keyboard.press('ArrowLeft');
    expect(await width()).toBe(usual + 16);
    const { x, y, width: thick } = (await border.boundingBox())!;
    await page.mouse.move(x + thick / 2, y + 80);
    await page.mouse.down();
    await page.mouse.move(x + thick / 2 - 60, y + 90, { steps: 4 });
    await page.mouse.up();
    expect(await width()).toBe(usual + 76);
    await page.reload();
    await sheet.waitFor();
    expect(await width()).toBe(usual + 76);
    await border.dblclick();
    expect(await width()).toBe(usual);
    await page.close();
  });

  it('gives columns of a list more room, by pointer and by keys, and remembers that', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page.getByRole('tab', { name: 'Files' }).click();
    const head = page.getByRole('columnheader', { name: /^chunk/ });
    const width = async () => Math.round((await head.boundingBox())!.width);
    const usual = await width();
    const { x, y, height } = (await head.boundingBox())!;
    await page.mouse.move(x + usual, y + height / 2);
    await page.mouse.down();
    await page.mouse.move(x + usual - 60, y + height / 2, { steps: 4 });
    await page.mouse.up();
    expect(await width()).toBe(usual - 60);
    await head.getByRole('button').press('Alt+ArrowRight');
    expect(await width()).toBe(usual - 44);
    await page.reload();
    await head.waitFor();
    expect(await width()).toBe(usual - 44);
    await head.getByRole('button').press('Alt+Home');
    expect(await width()).toBe(usual);
    await page.close();
  });

  it.each([
    ['split?route=/timetable', 'Imports', 'needed', 'ArrowLeft', 32],
    ['advice?route=/timetable', 'Each hint', 'way', 'ArrowRight', 32],
    ['compare?route=/timetable', 'Figures', 'measure', 'ArrowRight', 32],
    ['compare?route=/timetable', 'Routes and actions', 'First plan', 'ArrowRight', 32],
    ['compare?route=/timetable', 'Across', 'landings', 'ArrowLeft', -32],
  ])('gives columns another width whose heads sort nothing: %s, %s, %s', async (address, tab, column, key, change) => {
    const page = await served.page(`/p/saltmarsh/${address}`);
    await page.getByRole('tab', { name: tab }).click();
    const edge = page.getByRole('separator', { name: `Width of the column ${column}` });
    await edge.waitFor();
    const width = () => edge.evaluate((e) => Math.round(e.closest('[data-column]')!.getBoundingClientRect().width));
    const usual = await width();
    await edge.press(key);
    await edge.press(key);
    expect(Math.abs((await width()) - usual - change)).toBeLessThanOrEqual(1);
    await page.reload();
    await page.getByRole('tab', { name: tab }).click();
    await edge.waitFor();
    expect(Math.abs((await width()) - usual - change)).toBeLessThanOrEqual(1);
    await edge.press('Enter');
    expect(await width()).toBe(usual);
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
