// What people wait for, in a real browser on the served program.
import { largeApp } from '../../examples/large-app.mjs';
import { withSample } from '../served.mjs';
import { median, report } from './report.mjs';

/** From the key that decides to the redrawn live strip, in a real browser on the served sample. */
export function toggle() {
  return withSample(async (address, context) => {
    const page = await context.newPage();
    await page.goto(`${address}/p/saltmarsh/split?route=/timetable`);
    await page.locator('[data-figure="interactive"]').waitFor();
    // Each import once: a plan that was worked out before would be answered from memory.
    const names = ['ticket-dialog', 'berth-finder', 'fare-calculator', 'tide-level', '@saltmarsh/datelog'];
    const times = [];
    for (const name of names) {
      await page
        .getByRole('option', { name: new RegExp(`^${name} ?,`) })
        .first()
        .click();
      await page.waitForTimeout(400);
      times.push(
        await page.evaluate(async () => {
          const shown = () => document.querySelector('dl:has([data-figure])').textContent;
          const was = shown();
          const began = performance.now();
          document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'd', bubbles: true }));
          while (shown() === was && performance.now() - began < 5000) await new Promise(requestAnimationFrame);
          return performance.now() - began;
        }),
      );
      await page.waitForTimeout(400);
    }
    report('browser: a toggle on the sample to the redrawn strip', median(times), 100);
  });
}

/** Opening, searching and scrolling a large project in a real browser on the served program. */
export function largeProject(count) {
  return withSample(async (address, context) => {
    const snapshot = largeApp(count);
    const texts = Object.fromEntries(
      snapshot.modules.map((m, i) => [m.path, `const a${i}="phrase ${i} of module";`.padEnd(m.bytes.minified, 'x()+')]),
    );
    const file = { format: 'yokeline-project', version: 1, snapshot, plans: [], texts };
    const answer = await fetch(`${address}/api/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ fileName: 'large.json', text: JSON.stringify(file) }),
    });
    const { id } = await answer.json();
    const said = `browser: ${count.toLocaleString('en')} modules`;
    const large = count > 10_000;
    const opened = [];
    for (let run = 0; run < 3; run++) {
      const page = await context.newPage();
      const began = performance.now();
      await page.goto(`${address}/p/${id}/startup`);
      await page.locator('[data-figure="interactive"]').waitFor();
      opened.push(performance.now() - began);
      await page.close();
    }
    report(`${said}: open to the first prediction`, median(opened), large ? undefined : 2000);

    const page = await context.newPage();
    const stock = performance.now();
    await page.goto(`${address}/p/${id}/inventory`);
    await page.getByLabel('Where is').waitFor();
    report(`${said}: open to the whole inventory`, performance.now() - stock);
    const names = [];
    for (const text of ['r3/m17', 'p12/', 'frame']) {
      await page.getByLabel('Where is').fill('');
      names.push(await shown(page, text));
    }
    report(`${said}: a name typed to the list shown`, median(names), large ? undefined : 100);
    const phrases = [];
    for (const n of [1, 4000, 7000, count - 1]) {
      const began = performance.now();
      await fetch(`${address}/api/projects/${id}/search?q=phrase%20${n}%20of`).then((r) => r.json());
      if (n > 1) phrases.push(performance.now() - began);
    }
    report(`${said}: a phrase searched in all texts (from the second on)`, median(phrases), large ? undefined : 100);
    await page.getByLabel('Where is').fill('');
    await page.getByRole('tab', { name: /modules/ }).click();
    const slowest = await page.evaluate(async () => {
      const list = document.querySelector('[role="tabpanel"] .h-72');
      const frames = [];
      let last = performance.now();
      for (let i = 0; i < 90; i++) {
        list.scrollTop += 400;
        await new Promise(requestAnimationFrame);
        const now = performance.now();
        frames.push(now - last);
        last = now;
      }
      return frames.sort((a, b) => a - b)[Math.floor(frames.length * 0.95)];
    });
    report(`${said}: a frame while the list of modules is scrolled, 95th percentile`, slowest);
    await page.close();
  });
}

/** From typing a name to the list that shows it. */
function shown(page, text) {
  return page.evaluate(async (wanted) => {
    const input = document.getElementById('finder');
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
    const began = performance.now();
    set.call(input, wanted);
    input.dispatchEvent(new Event('input', { bubbles: true }));
    const found = () => input.closest('search').textContent.includes(wanted.replace(/^.*\//, ''));
    while (!found() && performance.now() - began < 5000) await new Promise(requestAnimationFrame);
    return performance.now() - began;
  }, text);
}
