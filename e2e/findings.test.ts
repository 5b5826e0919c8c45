import type { Page } from 'playwright-core';
import { becomes, changed, figure, Served, settles } from './served.ts';
import { longTasks, longTasksAtBest } from './thread.ts';

/** Changes are told to a hundredth of a second. */
const ROUNDING_MS = 15;

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

const details = (page: Page) => page.getByRole('complementary', { name: 'Details' });
const measured = (page: Page) => page.getByText(/findings, each measured/).waitFor();
const rows = (page: Page) => page.getByRole('list', { name: 'Findings' }).getByRole('button');

describe('findings', () => {
  it('by advice alone make the landing at least 40 % shorter, each with what the strip then shows', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    const before = await figure(page, 'interactive');
    for (let taken = 0; taken < 3; taken++) {
      await measured(page);
      await rows(page).first().click();
      const was = await figure(page, 'interactive');
      const row = details(page).getByRole('row').filter({ hasText: '/timetable' });
      const said = (await row.getByRole('cell').nth(1).textContent()) ?? '';
      const change = /▾ ([\d.]+) (ms|s)/.exec(said);
      await details(page).getByRole('button', { name: 'Apply', exact: true }).click();
      if (change)
        await becomes(page, 'interactive', was - Number(change[1]) * (change[2] === 's' ? 1000 : 1), ROUNDING_MS);
    }
    await settles(async () => expect(await figure(page, 'interactive')).toBeLessThan(before * 0.6));
    for (let undone = 0; undone < 3; undone++) await page.keyboard.press('Control+z');
    await becomes(page, 'interactive', before);
    await page.close();
  });

  it('are told as they are found; the work can be stopped, and goes on from there', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/');
    const sofar = page.getByText(/finding(s)? so far/);
    await sofar.waitFor();
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    await page.getByText(/then it was stopped/).waitFor();
    const stopped = await sofar.textContent();
    const count = await rows(page).count();
    expect(count).toBeGreaterThan(0);
    await page.waitForTimeout(1500);
    expect(await sofar.textContent()).toBe(stopped);
    await page.getByRole('button', { name: 'Go on', exact: true }).click();
    await measured(page);
    // Some of them turn out to be one.
    expect(await rows(page).count()).toBeGreaterThan(0);
    await page.close();
  });

  it('can be chosen together, by clicks and by keys, measured as one and applied as one step', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    await measured(page);
    const before = await figure(page, 'interactive');
    await rows(page).nth(0).click();
    await rows(page)
      .nth(2)
      .click({ modifiers: ['ControlOrMeta'] });
    await details(page).getByRole('heading', { name: '2 findings chosen' }).waitFor();
    await page.keyboard.press('Space');
    await details(page).getByRole('heading', { name: '1 finding chosen' }).waitFor();
    await page.keyboard.press('Shift+ArrowUp');
    // The one that is left and the one that is reached, besides the first.
    await details(page).getByRole('heading', { name: '3 findings chosen' }).waitFor();
    await details(page)
      .getByRole('heading', { name: /^Together ▾/ })
      .waitFor();
    await details(page).getByRole('button', { name: 'Preview', exact: true }).click();
    await settles(async () => expect(await figure(page, 'interactive')).toBeLessThan(before));
    const previewed = await figure(page, 'interactive');
    await details(page)
      .getByRole('button', { name: /^Apply them all/ })
      .click();
    await becomes(page, 'interactive', previewed, ROUNDING_MS);
    await page.keyboard.press('Control+z');
    await becomes(page, 'interactive', before);
    await page.close();
  });

  it('can be dismissed with a reason, and reconsidered', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/');
    await measured(page);
    const count = await rows(page).count();
    const name = ((await rows(page).nth(1).textContent()) ?? '').slice(0, 20);
    await rows(page).nth(1).click();
    await page
      .getByRole('complementary')
      .getByRole('button', { name: /^Dismiss/ })
      .click();
    await details(page).getByLabel('Why not').fill('the team decided so');
    await details(page).getByLabel('Why not').press('Enter');
    await page.getByRole('heading', { name: 'Dismissed' }).waitFor();
    await page.getByText('the team decided so').first().waitFor();
    await settles(async () => expect(await rows(page).count()).toBe(count - 1));
    await page
      .getByRole('main')
      .getByRole('button', { name: new RegExp(`^${name}`) })
      .first()
      .click();
    await details(page).getByRole('button', { name: 'Reconsider' }).click();
    await page.getByRole('heading', { name: 'Dismissed' }).waitFor({ state: 'detached' });
    await settles(async () => expect(await rows(page).count()).toBe(count));
    await page.close();
  });

  it('are counted at their stations, and the page stays free while they are worked out', async () => {
    const long = await longTasksAtBest(async () => {
      const watched = await served.page('/p/saltmarsh/startup?route=/timetable');
      const found = await longTasks(watched, () =>
        watched.getByRole('button', { name: /^Split \d+ findings/ }).waitFor(),
      );
      await watched.close();
      return found;
    });
    expect(long).toEqual([]);
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    await page.getByRole('button', { name: /^Split \d+ findings/ }).click();
    await page.getByRole('region', { name: 'Where things stand' }).getByRole('button', { name: /best$/ }).click();
    await page.getByRole('button', { name: /findings in Advice/ }).click();
    await details(page).getByRole('button', { name: 'Apply', exact: true }).waitFor();
    await page.close();
  });

  it('chooses changes together, can be stopped, and takes them in one step', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    const before = await figure(page, 'interactive');
    await page.getByRole('tab', { name: 'Choose for me' }).click();
    await page.getByLabel('At most', { exact: true }).fill('3');
    await page.getByLabel('At most', { exact: true }).press('Enter');
    await page.getByRole('button', { name: 'Choose', exact: true }).click();
    await page.getByText(/trying each by itself/).waitFor();
    await page.keyboard.press('4');
    await page.keyboard.press('6');
    await page.getByRole('tab', { name: 'Choose for me' }).click();
    await page.getByText(/3 of \d+ candidates: from .* of expected cost per visit/).waitFor();
    await page.getByRole('button', { name: 'Apply these 3' }).click();
    await settles(async () => expect(await figure(page, 'interactive')).toBeLessThan(before * 0.7));
    await page.keyboard.press('Control+z');
    await becomes(page, 'interactive', before);
    await page.getByLabel('At most', { exact: true }).fill('15');
    await page.getByLabel('At most', { exact: true }).press('Enter');
    await page.getByRole('button', { name: 'Choose', exact: true }).click();
    await page.getByText(/: \d+ %; [1-9]\d* changes so far/).waitFor();
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByText(/Stopped with \d+ changes?; each of them is measured/).waitFor();
    await page.close();
  });

  it('chooses hints that save more together than the best alone, by a point on the curve; the page stays free', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    await page.getByRole('tab', { name: 'Each hint' }).click();
    const first = page.getByText(/^▾ \d+ ms$/).first();
    await page.getByText(/ways of hinting, each simulated alone/).waitFor();
    const alone = Number(/(\d+) ms/.exec((await first.textContent()) ?? '')?.[1]);
    await page.getByRole('tab', { name: 'Choose for me' }).click();
    await page.getByLabel('Choose', { exact: true }).selectOption('hints');
    const choosing = async () => {
      await page.getByRole('button', { name: /^Choose( again)?$/ }).click();
      await page.getByText(/trying each by itself/).waitFor();
      await page.getByRole('button', { name: /^Apply these/ }).waitFor();
    };
    expect(await longTasksAtBest(() => longTasks(page, choosing, 'Apply these'))).toEqual([]);
    const caption = page.locator('figcaption').filter({ hasText: 'fetched for nothing' });
    const together = Number(/saves (\d+) ms/.exec((await caption.textContent()) ?? '')?.[1]);
    expect(together).toBeGreaterThan(alone);
    const slider = page.getByRole('slider', { name: /gain against waste/ });
    await slider.press('Home');
    await settles(async () => expect(await slider.getAttribute('aria-valuetext')).toContain('wastes 0 kB'));
    const fewer = (await page.getByRole('button', { name: /^Apply (it|these)/ }).textContent()) ?? '';
    await page.getByRole('button', { name: /^Apply (it|these)/ }).click();
    await page.getByText(new RegExp(`First plan · ${/\d+/.exec(fewer)?.[0] ?? 1} decisions?`)).waitFor();
    await page.keyboard.press('Control+z');
    await page.getByText('First plan · 0 decisions').waitFor();
    await page.close();
  });

  it('are worked out, and changes chosen, by all cores but one', async () => {
    const context = await served.context();
    await context.addInitScript(() => {
      Object.defineProperty(navigator, 'hardwareConcurrency', { value: 4 });
      localStorage.setItem('yokeline:guide', '{"state":"left","step":0}');
    });
    const page = await context.newPage();
    await page.goto(`${served.address}/p/saltmarsh/advice?route=/timetable`);
    await measured(page);
    // One for what is looked at, and three for what takes long.
    expect(page.workers()).toHaveLength(4);
    const alone = await served.page('/p/saltmarsh/advice?route=/timetable');
    await measured(alone);
    expect(alone.workers()).toHaveLength(2);
    expect(await rows(page).allTextContents()).toEqual(await rows(alone).allTextContents());
    await alone.close();
    await page.getByRole('tab', { name: 'Choose for me' }).click();
    await page.getByLabel('Choose', { exact: true }).selectOption('hints');
    await page.getByRole('button', { name: 'Choose', exact: true }).click();
    await page.getByRole('button', { name: /^Apply these/ }).waitFor();
    await context.close();
  });

  it('can be tried on the strip and the waterfall without being made, also over the baseline', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable&plan=baseline');
    await measured(page);
    const before = await figure(page, 'interactive');
    await rows(page).first().click();
    await details(page).getByRole('button', { name: 'Preview' }).click();
    const tried = await changed(page, 'interactive', before);
    expect(tried).toBeLessThan(before);
    await page.keyboard.press('4');
    await page.getByRole('img', { name: /before/ }).waitFor();
    await page.getByRole('region', { name: 'Live strip' }).getByRole('button', { name: 'Stop' }).click();
    await becomes(page, 'interactive', before);

    await page.keyboard.press('6');
    await page.getByRole('combobox', { name: /^plan/ }).click();
    await page.getByRole('option', { name: /^First plan/ }).click();
    await measured(page);
    await rows(page).first().click();
    await details(page).getByRole('button', { name: 'Preview' }).click();
    await becomes(page, 'interactive', tried);
    await page.getByText('First plan · 0 decisions').waitFor();
    await page.getByRole('region', { name: 'Live strip' }).getByRole('button', { name: 'Apply', exact: true }).click();
    await page.getByText(/First plan · [1-9]/).waitFor();
    await becomes(page, 'interactive', tried);
    await page.keyboard.press('Control+z');
    await becomes(page, 'interactive', before);
    await page.close();
  });

  it('tell whether the source patch writes them, and what they save all visitors', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    await measured(page);
    await page.getByRole('button', { name: /^ticket dialog comes with the start/ }).click();
    await details(page).getByText('The source patch writes all of it.').waitFor();
    await page.getByRole('button', { name: /^@saltmarsh\/tidewright stays in the start/ }).click();
    await details(page)
      .getByText(/Not by the source patch/)
      .waitFor();
    await details(page).getByRole('button', { name: 'all visitors' }).click();
    await details(page)
      .getByRole('row', { name: /^all of them/ })
      .getByText(/▾/)
      .waitFor();
    await page.close();
  });

  it('switches a hint on and off, and tells when it would pay', async () => {
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    await page.getByRole('tab', { name: 'Each hint' }).click();
    const hint = page.getByRole('checkbox', { name: /^prefetch tide-chart/ }).first();
    await hint.click();
    await page.getByText('First plan · 1 decision').waitFor();
    await details(page).getByText('a hint of this plan').waitFor();
    await details(page)
      .getByText(/As the plan is, it saves \d+ ms per visit/)
      .waitFor();
    await details(page).getByRole('button', { name: 'share of use' }).click();
    await details(page)
      .getByText(/At 30 % \(as now\) it saves/)
      .waitFor();
    await details(page).getByRole('slider').press('Home');
    await details(page)
      .getByText(/At 0 % it/)
      .waitFor();
    await page.keyboard.press('Control+z');
    await page.getByText('First plan · 0 decisions').waitFor();
    await page.close();
  });

  it('an import says what it costs and who pays', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
    await page
      .getByRole('complementary')
      .getByText(/This line costs .* until interactive on \/timetable under Crowded cell; \d+ % of all landings pay/)
      .waitFor();
    await page.close();
  });
});
