import fs from 'node:fs';
import { Served, settles } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

describe('handoff', () => {
  it('writes out a plan’s hints, which the browser then follows; addresses come from a map', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    await page.getByRole('tab', { name: 'Each hint' }).click();
    // Which of several ways saves most is the model's matter.
    const way = page.getByRole('combobox', { name: 'Way of hinting at tide-chart' });
    await way.selectOption(await way.locator('option', { hasText: /when idle/ }).getAttribute('value'));
    await page.getByRole('checkbox', { name: /tide-chart by script, when idle/ }).click();
    await page.getByText('First plan · 1 decision').waitFor();
    await page.getByRole('button', { name: /^Handoff/ }).click();
    await page.getByRole('button', { name: /^Decisions/ }).click();
    await page.getByRole('main').getByText('prefetch tide-chart by script, when idle').waitFor();
    await page.getByRole('button', { name: /^Markup/ }).click();
    await page.getByText('This plan has nothing of the kind').waitFor();
    await page.getByRole('button', { name: /^Hints by script/ }).click();
    const text = page.getByRole('textbox', { name: 'Hints by script' });
    await settles(async () => expect(await text.inputValue()).toContain('{{tide-chart}}'));
    await page.getByLabel('Map from modules to built files').setInputFiles({
      name: 'map.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{"src/tide/tide-chart.tsx":"assets/tide-9c.js"}'),
    });
    await page.getByText('from map.json').waitFor();
    await settles(async () => expect(await text.inputValue()).toContain('/assets/tide-9c.js'));
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as a file' }).click();
    const download = await saving;
    expect(download.suggestedFilename()).toBe('first-plan-hints.js');
    const script = fs.readFileSync(await download.path(), 'utf8');

    // What was saved does in a page what the plan says.
    const asked: string[] = [];
    const browser = page.context().browser()!;
    const made = await browser.newPage();
    await made.route('http://made.example/**', (route) => {
      const { pathname } = new URL(route.request().url());
      asked.push(pathname);
      if (pathname === '/hints.js') return route.fulfill({ contentType: 'text/javascript', body: script });
      if (pathname !== '/') return route.fulfill({ contentType: 'text/javascript', body: '' });
      const body = `<!doctype html><p>made</p><script type="module">
        import { hints } from '/hints.js'; hints['/timetable'](); globalThis.begun = true;</script>`;
      return route.fulfill({ contentType: 'text/html', body });
    });
    await made.goto('http://made.example/');
    await made.locator('link[rel="prefetch"][href="/assets/tide-9c.js"]').waitFor({ state: 'attached' });
    await made.close();
    expect(asked).toContain('/hints.js');

    await page.getByLabel('Map from modules to built files').setInputFiles({
      name: 'broken.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{"a":3}'),
    });
    await page
      .getByRole('alert')
      .getByText(/broken.json/)
      .waitFor();
    await page.keyboard.press('Control+z');
    await page.close();
  });
});
