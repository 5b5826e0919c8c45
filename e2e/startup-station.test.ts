import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { becomes, changed, figure, Served, settles } from './served.ts';

let served: Served;
let folder: string;

beforeAll(async () => {
  served = await Served.start();
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-startup-'));
});
afterAll(async () => {
  await served.stop();
  fs.rmSync(folder, { recursive: true });
});

describe('the Startup station', () => {
  it('saves a landing as an archive that lies under its own prediction, and as a picture', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    await page.getByRole('option', { name: /^entry styles/ }).waitFor();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'save HAR' }).click(),
    ]);
    const file = path.join(folder, download.suggestedFilename());
    expect(download.suggestedFilename()).toBe('startup-timetable.har');
    await download.saveAs(file);
    const entries = JSON.parse(fs.readFileSync(file, 'utf8')).log.entries as unknown[];
    await page.getByLabel('compare with a recording').setInputFiles(file);
    const recording = page.getByRole('region', { name: 'Recording' });
    await recording.getByText(`${entries.length} of ${entries.length} requests found in it`).waitFor();
    const [picture] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'save picture' }).click(),
    ]);
    const svg = path.join(folder, 'picture.svg');
    await picture.saveAs(svg);
    const drawn = fs.readFileSync(svg, 'utf8');
    expect(drawn.startsWith('<svg')).toBe(true);
    expect(drawn.includes('var(--')).toBe(false);
    await page.close();
  });

  it('gives what the command line gives for the same conditions', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable&plan=baseline');
    await page.getByRole('option', { name: /^entry styles/ }).waitFor();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'save HAR' }).click(),
    ]);
    const file = path.join(folder, 'baseline.har');
    await download.saveAs(file);
    const { log } = JSON.parse(fs.readFileSync(file, 'utf8'));
    const project = path.join(folder, 'sample.yokeline.json');
    const yokeline = (...args: string[]) =>
      execFileSync(process.execPath, ['bin/yokeline.mjs', ...args, '--json'], { encoding: 'utf8' });
    yokeline('read', 'examples/saltmarsh-ferries', '--out', project);
    const { milestones, requests } = JSON.parse(yokeline('simulate', project, '--route', '/timetable'));
    expect(log.pages[0].pageTimings._interactive).toBeCloseTo(milestones.interactive, 1);
    expect(log.pages[0].pageTimings._firstContent).toBeCloseTo(milestones.firstContent, 1);
    expect(log.entries).toHaveLength(requests.length);
    await page.close();
  });

  it('tells what is wrong with a recording and goes on', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    const broken = path.join(folder, 'broken.har');
    fs.writeFileSync(broken, '{"log": {"entries": [');
    await page.getByRole('option', { name: /^entry styles/ }).waitFor();
    await page.getByLabel('compare with a recording').setInputFiles(broken);
    await page.getByText(/Broken JSON/).waitFor();
    await page.getByRole('option', { name: /^entry styles/ }).waitFor();
    await page.close();
  });

  it('predicts under own values, which the address keeps, and goes back to a named link', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    const before = await figure(page, 'interactive');
    await page.keyboard.press('c');
    await page.getByLabel('Round trip').fill('20');
    await page.keyboard.press('Enter');
    const quick = await changed(page, 'interactive', before);
    expect(quick).toBeLessThan(before);
    expect(page.url()).toContain('link=own%7E20%7E');
    await page.keyboard.press('Escape');
    await page.reload();
    await becomes(page, 'interactive', quick);
    await page.close();
  });

  it('shows the screen at any instant, zooms, and folds roles away', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    await page.getByRole('heading', { name: /^The screen at/ }).waitFor();
    await page.getByLabel('Instant at which the screen is shown').fill('100');
    await page.getByTitle('departure board: not there').waitFor();
    await page.getByRole('button', { name: '4×' }).click();
    const wide = await page.locator('[data-picture]').evaluate((svg) => svg.getBoundingClientRect().width);
    expect(wide).toBeGreaterThan(3000);
    await page.getByRole('checkbox', { name: 'content' }).uncheck();
    await page.getByRole('option', { name: /^document/ }).waitFor({ state: 'detached' });
    await page.close();
  });

  it('predicts over a mix of visitors, and is told who comes', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    await page.getByRole('tab', { name: 'Over a mix' }).click();
    await page.getByText(/^500 drawn visits, the same for the plan and the baseline/).waitFor();
    const middle = async () =>
      Number.parseFloat(
        (await page
          .getByRole('row', { name: /^interactive/ })
          .getByRole('cell')
          .nth(2)
          .textContent()) ?? '',
      );
    const before = await middle();
    for (const slow of ['Crowded cell', 'Clear cell', 'Shared Wi-Fi', 'Edge of coverage']) {
      await page.getByLabel(`weight of ${slow}`).fill('0');
      await page.keyboard.press('Enter');
    }
    await page.getByText(/^500 drawn visits/).waitFor();
    await settles(async () => expect(await middle()).toBeLessThan(before));
    await page.getByLabel('weight of Home line').fill('0');
    await page.keyboard.press('Enter');
    await page.getByText(/Give at least one of the links a weight above 0/).waitFor();
    await page.close();
  });
});
