import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import { createRequire } from 'node:module';
import os from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { allSaved, atRest, becomes, changed, figure, Served, settles } from './served.ts';

const axe = createRequire(import.meta.url).resolve('axe-core/axe.min.js');

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

interface Violation {
  id: string;
  nodes: { html: string; failureSummary: string }[];
}

/** What an automated check for accessibility finds on a page. */
async function violations(page: Page): Promise<string[]> {
  await atRest(page);
  // Evaluated, since the page's policy runs no script that is put into it.
  await page.evaluate(fs.readFileSync(axe, 'utf8'));
  const found = await page.evaluate(async () => {
    const checker = (globalThis as unknown as { axe: { run(options: object): Promise<{ violations: Violation[] }> } })
      .axe;
    // Of WCAG 2.2, and not asked for otherwise.
    return (await checker.run({ rules: { 'target-size': { enabled: true } } })).violations;
  });
  return found.flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)} ${n.failureSummary}`));
}

describe.each(['light', 'dark'])('every station in the %s theme', (theme) => {
  it.each([
    ['inventory', '/p/saltmarsh/inventory?route=/timetable', 'ticket-dialog', true],
    ['split', '/p/saltmarsh/split?route=/timetable', 'ticket-dialog', false],
    ['startup', '/p/saltmarsh/startup?route=/crew/duty/manifest', 'entry', false],
  ])('%s has no accessibility violations that a machine can find', async (station, where, chosen, module) => {
    const page = await served.page(where);
    if (theme === 'dark') await page.keyboard.press('t');
    if (module) {
      await page.getByRole('tab', { name: /modules/ }).click();
      await page.getByLabel('Where is').fill(chosen);
      await page
        .getByRole('button', { name: new RegExp(chosen) })
        .first()
        .click();
      await page.getByRole('heading', { name: /Why it is at start/ }).waitFor();
    } else {
      await page.getByRole('option', { name: new RegExp(`^${chosen} ?(,|\\d)`) }).click();
      await page.getByRole('complementary').getByRole('heading', { name: chosen }).waitFor();
    }
    if (station === 'split') await page.getByText('Start, before and after').waitFor();
    expect(await violations(page)).toEqual([]);
    await page.close();
  });
});

/** Pages within stations, and how to get there. */
type StationPage = [string, string, (page: Page) => Promise<void>];
const PAGES: StationPage[] = [
  [
    'unused rules and the comparison of routes',
    '/p/saltmarsh/inventory?route=/',
    async (page) => {
      await page.getByRole('tab', { name: /unused rules/ }).click();
      await page.getByLabel('Beside').selectOption('/help');
      await page.getByText('than /help').waitFor();
    },
  ],
  [
    'routes and parts',
    '/p/saltmarsh/inventory?route=/',
    async (page) => {
      await page.getByRole('tab', { name: 'Routes and parts' }).click();
      await page.getByRole('heading', { name: 'Parts of its screen' }).waitFor();
    },
  ],
  [
    'a visit',
    '/p/saltmarsh/visits?route=/timetable&device=laptop',
    async (page) => {
      await page.getByRole('button', { name: /opens deck plan/ }).click();
      await page.getByRole('slider').waitFor();
    },
  ],
  [
    'findings',
    '/p/saltmarsh/advice?route=/timetable',
    async (page) => {
      await page.getByText(/findings, each measured/).waitFor();
    },
  ],
  [
    'all visitors',
    '/p/saltmarsh/visits?route=/&page=all&plan=baseline',
    async (page) => {
      await page.getByText(/visits played, the same/).waitFor();
    },
  ],
  [
    'start and later, with a block that is tried',
    '/p/saltmarsh/split?route=/timetable',
    async (page) => {
      await page.getByRole('tab', { name: 'Start and later' }).click();
      await page.getByRole('button', { name: /, package @saltmarsh\/paperkit,/ }).click();
      await page.getByText('leaves the start', { exact: true }).waitFor();
    },
  ],
  [
    'own conditions',
    '/p/saltmarsh/split?route=/timetable',
    async (page) => {
      await page.keyboard.press('c');
      await page.getByLabel('Round trip').fill('99');
      await page.getByLabel('Round trip').press('Enter');
      await page.getByLabel('Keep this link as').fill('Pier');
      await page.getByLabel('Keep this link as').press('Enter');
      await page.getByRole('button', { name: 'Forget Pier' }).waitFor();
    },
  ],
  [
    'the words',
    '/p/saltmarsh/split?route=/timetable',
    async (page) => {
      await page.keyboard.press('w');
      await page.getByRole('dialog').waitFor();
    },
  ],
  [
    'files',
    '/p/saltmarsh/split?route=/timetable',
    async (page) => {
      await page.getByRole('tab', { name: 'Files' }).click();
      await page.getByText('as a table').click();
      await page.getByText('this plan').first().waitFor();
    },
  ],
  [
    'scripts',
    '/p/saltmarsh/split?route=/timetable',
    async (page) => {
      await page.getByRole('tab', { name: 'Scripts' }).click();
      await page.getByRole('row', { name: /^blocking/ }).waitFor();
    },
  ],
  [
    'the load sheet',
    '/p/saltmarsh/load-sheet?route=/timetable',
    async (page) => {
      await page.getByRole('grid', { name: 'Load sheet' }).waitFor();
    },
  ],
  [
    'the decisions of a plan',
    '/p/saltmarsh/split?route=/timetable',
    async (page) => {
      await page.keyboard.press('l');
      await page.getByRole('dialog').waitFor();
    },
  ],
  ...(
    [
      ['figures', 'Landing on /timetable'],
      ['routes', 'Routes and actions'],
      ['across', 'Changes against Baseline'],
      ['curves', 'over the mix of visitors'],
      ['waterfalls', 'Every plan on the same time axis'],
      ['decisions', 'Decisions that differ'],
    ] as const
  ).map(
    ([page, words]): StationPage => [
      `compare, ${page}`,
      `/p/saltmarsh/compare?route=/timetable&page=${page}&with=Baseline&with=First+plan&under=home-line/laptop/empty`,
      async (at) => {
        await at.getByText(words).last().waitFor();
      },
    ],
  ),
  ...(
    [
      ['patch', 'Source patch'],
      ['limits', 'from this plan'],
      ['build', 'Read the build'],
      ['project', 'A plan by itself'],
      ['har', 'as an HTTP Archive'],
    ] as const
  ).map(
    ([page, words]): StationPage => [
      `handoff, ${page}`,
      `/p/saltmarsh/handoff?route=/timetable&page=${page}`,
      async (at) => {
        await at.getByText(words).last().waitFor();
        if (page !== 'limits') return;
        await at.getByRole('button', { name: /^Set (again )?from this plan/ }).click();
        await at.getByText(/all kept by/).waitFor();
      },
    ],
  ),
  [
    'a moment that has to be said',
    '/p/saltmarsh/split?route=/timetable&plan=baseline&chosen=split point:src/timetable/line-badge.tsx',
    async (page) => {
      await page.getByRole('button', { name: 'another moment' }).click();
      await page.getByRole('button', { name: 'Choose', exact: true }).click();
      await page.getByText('Say ms after its landing or move.').waitFor();
    },
  ],
  [
    'the guide',
    '/p/saltmarsh/startup?route=/timetable',
    async (page) => {
      await page.getByRole('button', { name: 'Guide', exact: true }).click();
      await page.getByRole('region', { name: 'Guide' }).waitFor();
    },
  ],
];

describe.each(['light', 'dark'])('pages in the %s theme', (theme) => {
  it.each(PAGES)('%s: no accessibility violations that a machine can find', async (_, where, reach) => {
    const page = await served.page(where);
    if (theme === 'dark') await page.keyboard.press('t');
    await reach(page);
    expect(await violations(page)).toEqual([]);
    await page.close();
  });
});

describe('the load sheet', () => {
  it('is walked by keys, tells each cell in words, folds, filters, and marks its chunk', async () => {
    const page = await served.page('/p/saltmarsh/load-sheet?route=/timetable&plan=baseline');
    const grid = page.getByRole('grid', { name: 'Load sheet' });
    await grid.focus();
    await page.getByText(/^entry, .* landing on \//).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowRight');
    await page
      .getByText(/already here/)
      .last()
      .waitFor();
    await page.keyboard.press('Enter');
    const rows = await grid.getByRole('row').count();
    await page.getByRole('button', { name: 'landings only' }).click();
    await settles(async () => expect(await grid.getByRole('row').count()).toBe(8));
    await page.getByRole('button', { name: 'unfold all routes' }).click();
    await settles(async () => expect(await grid.getByRole('row').count()).toBe(rows));
    await page.getByLabel('Find a chunk').fill('mapkeel');
    await settles(async () =>
      expect(await grid.getByRole('row').first().getByRole('gridcell').count()).toBeLessThan(5),
    );
    await page.getByLabel('Find a chunk').fill('');
    await page.getByLabel('only what differs').check();
    await page.getByText('Nothing differs').waitFor();
    await page.close();
  });
});

describe('enlarged to 200 %', () => {
  it.each(['inventory', 'split', 'load-sheet', 'startup', 'visits', 'advice', 'compare', 'handoff'])(
    '%s can be read and reached without moving sideways',
    async (station) => {
      const context = await served.context({ viewport: { width: 640, height: 400 }, deviceScaleFactor: 2 });
      await context.addInitScript(() => localStorage.setItem('yokeline:guide', '{"state":"left","step":0}'));
      const page = await context.newPage();
      await page.goto(`${served.address}/p/saltmarsh/${station}?route=/timetable`);
      await page.locator('[data-ready]').waitFor();
      await page.getByRole('main').getByRole('heading').first().waitFor({ state: 'attached' });
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide).toBeLessThanOrEqual(640);
      // Names keep room beside the figures.
      if (station === 'split') {
        const name = page
          .getByRole('option', { name: /^ticket-dialog ?,/ })
          .locator('span')
          .first();
        expect((await name.boundingBox())!.width).toBeGreaterThan(80);
        await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
        await page.getByRole('button', { name: 'Detach it' }).scrollIntoViewIfNeeded();
        await page.getByRole('button', { name: 'Detach it' }).click();
        await page.getByText('First plan · 1 decision').waitFor();
        await page.keyboard.press('Control+z');
        await page.getByText('First plan · 0 decisions').waitFor();
        await allSaved(page);
      }
      await context.close();
    },
  );
});

describe('links and keys', () => {
  it('keep every choice in the address, and open it again', async () => {
    const page = await served.page(
      '/p/saltmarsh/startup?route=/help&link=home-line&device=laptop&cache=returning&plan=baseline',
    );
    for (const words of ['/help', 'Home line', 'Laptop', 'Returning', 'Baseline, as built'])
      await page.getByText(words).first().waitFor();
    await page.keyboard.press(']');
    await page.waitForURL(/route=%2Fcrew/);
    await page.keyboard.press('2');
    await page.waitForURL(/\/split\?/);
    await page.getByRole('heading', { name: 'What /crew/duty/manifest pulls in' }).waitFor();
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Keys' }).waitFor();
    await page.keyboard.press('Escape');
    await page.close();
  });

  it('find anything that can be done by typing its name', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    const menu = page.getByRole('dialog', { name: 'What to do' });
    const run = async (words: string) => {
      await page.keyboard.press('Control+k');
      await menu.getByRole('combobox').fill(words);
      await page.keyboard.press('Enter');
      await menu.waitFor({ state: 'detached' });
    };
    await run('handoff');
    await page.getByRole('heading', { name: /^Handoff of/ }).waitFor();
    await run('/help');
    await page.waitForURL(/route=%2Fhelp/);
    await run('home line');
    await page.waitForURL(/link=home-line/);
    await page.keyboard.press('Control+k');
    await menu.getByRole('combobox').fill('no such thing');
    await menu.getByText('Nothing goes by that name').waitFor();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await menu.waitFor({ state: 'detached' });
    expect(page.url()).toContain('/handoff');
    await page.close();
  });

  it('find an import from the keyboard alone, and detach it', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page.getByRole('listbox').waitFor();
    await page.keyboard.press('/');
    await page.keyboard.type('formrig');
    await page.keyboard.press('Escape');
    await page.getByRole('listbox').focus();
    await page.keyboard.press('ArrowDown');
    await page.getByRole('heading', { name: '@saltmarsh/formrig' }).waitFor();
    await page.keyboard.press('d');
    await page.getByText('First plan · 1 decision').waitFor();
    await page.getByRole('button', { name: 'Join it' }).waitFor();
    await page.keyboard.press('d');
    await page.getByText('First plan · 0 decisions').waitFor();
    await page.close();
  });

  it('work after a row was clicked, and not while a menu or a field has the focus', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    await page.getByRole('option', { name: /^tide-level ?,/ }).click();
    const before = await page.getByRole('combobox', { name: /^plan/ }).textContent();
    await page.getByRole('combobox', { name: /^link/ }).click();
    await page.getByRole('option', { name: /^Crowded cell/ }).waitFor();
    for (const key of ['d', 'p', '1']) await page.keyboard.press(key);
    await page.keyboard.press('Escape');
    await page.waitForTimeout(300);
    expect(await page.getByRole('combobox', { name: /^plan/ }).textContent()).toBe(before);
    await page.getByRole('heading', { name: 'What /timetable pulls in' }).waitFor();
    await page.getByRole('option', { name: /^tide-level ?,/ }).click();
    await page.keyboard.press('4');
    await page.getByRole('heading', { name: 'Where the time went' }).waitFor();
    await page.close();
  });

  it('on the baseline begin a plan, and leave the baseline as built', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable&plan=baseline');
    const asBuilt = await figure(page, 'interactive');
    await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
    await page.keyboard.press('d');
    await page.getByText('Plan · 1 decision').waitFor();
    await changed(page, 'interactive', asBuilt);
    await page.keyboard.press('Control+z');
    await becomes(page, 'interactive', asBuilt);
    await page.getByText('Plan · 0 decisions').waitFor();
    await page.getByRole('combobox', { name: /^plan/ }).click();
    await page.getByRole('option', { name: 'Baseline' }).click();
    await page.getByText('Baseline, as built', { exact: true }).waitFor();
    await page.close();
  });

  it('make a plan, and a copy of it with its decisions', async () => {
    const page = await served.page('/p/saltmarsh/split?route=/timetable');
    const make = async (choice: string, name: string) => {
      await page.getByRole('combobox', { name: /^plan/ }).click();
      await page.getByRole('option', { name: choice }).click();
      await page.getByLabel('Name').fill(name);
      await page.getByRole('button', { name: 'Make plan' }).click();
    };
    await make('New plan', 'Slack water');
    await page.getByText('Slack water · 0 decisions').waitFor();
    await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
    await page.keyboard.press('d');
    await page.getByText('Slack water · 1 decision').waitFor();
    await make('Copy', 'Slack water');
    await page.getByText('choose another name').waitFor();
    await page.getByLabel('Name').fill('High water');
    await page.getByRole('button', { name: 'Make plan' }).click();
    await page.getByText('High water · 1 decision').waitFor();
    await page.close();
  });
});

describe('what isn’t there', () => {
  it('is said in words, with a way on', async () => {
    const page = await (await served.context()).newPage();
    await page.goto(`${served.address}/p/nothing/startup`);
    await page.getByRole('heading', { name: 'No such project' }).waitFor();
    await page.goto(`${served.address}/p/saltmarsh/nowhere`);
    await page.getByRole('link', { name: 'Open the sample' }).click();
    await page.locator('[data-ready]').waitFor();
    await page.close();
  });

  it('in a plan is counted, with the reason at hand', async () => {
    const { snapshot } = JSON.parse(fs.readFileSync(sampleFile(), 'utf8')) as { snapshot: unknown };
    const decisions = [{ kind: 'detach', import: 'src/gone.ts::./nothing' }];
    const project = { format: 'yokeline-project', version: 1, snapshot, plans: [{ name: 'Old', decisions }] };
    const answer = await fetch(`${served.address}/api/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ fileName: 'old.json', text: JSON.stringify(project) }),
    });
    const { id } = (await answer.json()) as { id: string };
    const page = await served.page(`/p/${id}/startup`);
    const warning = page.getByText('1 decision no longer applies');
    await warning.waitFor();
    await settles(async () => expect(await warning.getAttribute('title')).toContain('src/gone.ts::./nothing'));
    await page.close();
  });
});

/** The sample as a project file, made by the command line. */
function sampleFile(): string {
  const file = path.join(fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-e2e-')), 'sample.json');
  execFileSync(process.execPath, ['bin/yokeline.mjs', 'read', 'examples/saltmarsh-ferries', '--out', file]);
  return file;
}
