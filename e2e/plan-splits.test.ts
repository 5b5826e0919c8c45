import { becomes, changed, figure, Served, settles } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

describe('planning splits', () => {
  it('explains what keeps the chart package in the start of the page whose first screen needs it', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page
      .getByRole('option', { name: /^tide-chart/ })
      .first()
      .click();
    const sheet = page.getByRole('complementary', { name: 'Details' });
    await sheet.getByText(/kept by\s+src\/timetable\/departure-board.tsx, line 4/).waitFor();
    await sheet.getByText(/Used later, without hovering or focusing first, it keeps the visitor waiting for/).waitFor();
    await sheet.getByText('The first screen or the shell needs it: no detachment frees it.').waitFor();
    await page.close();
  });

  it('frees what is kept in a start that can do without it, as promised', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/harbour');
    const before = await figure(page, 'start');
    await page
      .getByRole('option', { name: /^fare-calculator/ })
      .first()
      .click();
    const sheet = page.getByRole('complementary', { name: 'Details' });
    await sheet.getByText(/imports? more frees/).waitFor();
    const said = sheet.getByText(/imports? more frees/).locator('.text-better');
    const promised = Number.parseFloat((await said.first().textContent()) ?? '');
    await sheet.getByRole('button', { name: 'Free it' }).click();
    const freed = await changed(page, 'start', before);
    expect(promised).toBeGreaterThan(20);
    // The promise is about what is freed besides the calculator; that goes too where what brings it leaves.
    expect((before - freed) / 1000).toBeGreaterThan(promised - 2);
    await page.keyboard.press('Control+z');
    await becomes(page, 'start', before);
    await page.close();
  });

  it('cuts finer or coarser as the curve promises, and takes it back', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/book');
    const before = await figure(page, 'requests');
    await page.getByRole('tab', { name: 'Files' }).click();
    await page.getByText('as a table').click();
    const line = page.getByRole('row', { name: /^one file/ });
    const promised = Number((await line.getByRole('cell').nth(2).textContent()) ?? '');
    await line.getByRole('button').click();
    await becomes(page, 'requests', promised);
    await page.getByLabel('Least size of a chunk').fill('');
    await page.keyboard.press('Enter');
    await becomes(page, 'requests', before);
    await page.close();
  });

  it('gathers, tells a rule that matches nothing, and names a chunk by hand', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/book');
    await page.getByRole('tab', { name: 'Files' }).click();
    await page.getByLabel('Path pattern').fill('package:@saltmarsh/formrig');
    await page.getByLabel('Name of the chunk').fill('forms');
    await page.getByRole('button', { name: 'Add the rule' }).click();
    await page.getByLabel('name of forms').waitFor();
    await page.getByLabel('name of forms').fill('booking forms');
    await page.keyboard.press('Enter');
    await page.getByLabel('name of booking forms').waitFor();
    await page.getByLabel('Path pattern').fill('src/nowhere/**');
    await page.getByLabel('Name of the chunk').fill('nothing');
    await page.getByRole('button', { name: 'Add the rule' }).click();
    await page.getByText('no module matches src/nowhere/**').waitFor();
    await page.close();
  });

  it('keeps a placeholder, and lets code run later than it is fetched', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/');
    await page
      .getByRole('option', { name: /^next-sailings/ })
      .first()
      .click();
    const before = await figure(page, 'interactive');
    await page.getByLabel('Placeholder kept at least').fill('4000');
    await page.keyboard.press('Enter');
    expect(await changed(page, 'interactive', before)).toBeGreaterThan(before + 2000);
    await page.getByLabel('Placeholder kept at least').fill('0');
    await page.keyboard.press('Enter');
    await becomes(page, 'interactive', before);
    await page.getByLabel('Its code runs').selectOption('on the action');
    await page.getByRole('button', { name: 'Undo “next-sailings: run on the action”' }).waitFor();
    await page
      .getByRole('complementary', { name: 'Details' })
      .getByText(/Used later, without hovering or focusing first, it keeps the visitor waiting for/)
      .waitFor();
    await page.getByRole('button', { name: /^Undo “next-sailings: run/ }).click();
    await becomes(page, 'interactive', before);
    await page.close();
  });

  it('joins a staircase at once, and the hops fall', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/crew/duty/manifest');
    const before = await figure(page, 'hops');
    await page
      .getByRole('option', { name: /^duty-section/ })
      .first()
      .click();
    await page.getByRole('button', { name: /^Join the whole staircase/ }).click();
    expect(await changed(page, 'hops', before)).toBeLessThan(before - 1);
    await page.getByRole('button', { name: /^Undo “join the staircase/ }).click();
    await becomes(page, 'hops', before);
    await page.close();
  });

  it('compares all placements of a script, and keeps the promise of the one chosen', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/help');
    const before = await figure(page, 'interactive');
    await page.getByRole('tab', { name: 'Scripts' }).click();
    const line = page.getByRole('row', { name: /^after load/ });
    const promised = (await line.getByRole('cell').nth(3).textContent()) ?? '';
    await line.getByRole('button').click();
    expect(await changed(page, 'interactive', before)).toBeLessThan(before);
    await settles(async () =>
      expect(await page.locator('[data-figure="interactive"] dd').first().textContent()).toBe(promised),
    );
    await page
      .getByRole('row', { name: /^blocking/ })
      .getByRole('button')
      .click();
    await becomes(page, 'interactive', before);
    await page.close();
  });

  it('lists the decisions of a plan in words; it can be named, and deleted', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/trips');
    await page.keyboard.press('l');
    const sheet = page.getByRole('dialog');
    await sheet.getByText('gather @saltmarsh/formrig as “forms”').waitFor();
    await sheet.getByText('doesn’t apply: no module matches src/nowhere/**').waitFor();
    await sheet.getByLabel('Name').fill('Forms apart');
    await sheet.getByLabel('What it is for').fill('Booking only.');
    await sheet.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('combobox', { name: /Forms apart/ }).waitFor();
    await page.keyboard.press('l');
    await sheet.getByRole('button', { name: 'delete this plan' }).click();
    await sheet.getByRole('button', { name: 'delete', exact: true }).click();
    await page.getByRole('combobox', { name: /Baseline, as built/ }).waitFor();
    await page.close();
  });
});
