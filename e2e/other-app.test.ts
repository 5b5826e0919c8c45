import path from 'node:path';
import { folderOf, removeFolders } from '../src/test-support/folders.ts';
import { atRest, figure, Served, settles } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(async () => {
  await served.stop();
  removeFolders();
});

const HEAVY = `export const heavy = '${'oil '.repeat(4000)}';`;

/** Reads a folder into a project of its own; gives its id. */
async function projectOf(files: Record<string, string>): Promise<string> {
  const folder = folderOf(files);
  const headers = { 'content-type': 'application/json' };
  const begun = await fetch(`${served.address}/api/readings`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ folder }),
  });
  expect(begun.status).toBeLessThan(300);
  const { id } = (await begun.json()) as { id: string };
  return settles(async () => {
    const answer = await fetch(`${served.address}/api/readings/${id}`);
    const { projectId } = (await answer.json()) as { projectId: string | null };
    if (!projectId) throw new Error(`${path.basename(folder)} isn't read yet`);
    return projectId;
  });
}

describe('another app', () => {
  it('is shown with none of the figures, badges and findings of the one before', async () => {
    // Without a document, nothing says under which address it is.
    const bare = await projectOf({
      'main.js': `import './heavy.js';\nimport './gone.js';\n${"import './lost.js';\n".repeat(6)}console.log(1);`,
      'heavy.js': HEAVY,
      'package.json': '{ "name": "bare-lamp" }',
    });
    const page = await served.page('/p/saltmarsh/advice?route=/timetable&plan=baseline');
    await page.getByText(/findings, each measured/).waitFor();
    const badges = page.getByRole('navigation', { name: 'Stations' }).getByText(/findings/);
    expect(await badges.count()).toBeGreaterThan(0);
    await page.getByRole('combobox', { name: /^project/ }).click();
    await page.getByRole('option', { name: 'Bare Lamp' }).click();
    await page.waitForURL(new RegExp(bare));
    const lacks = page.getByRole('region', { name: 'What is missing' });
    await lacks.getByText('No route was found').waitFor();
    await lacks.getByText(/imports couldn’t be resolved/).waitFor();
    expect(await page.locator('[data-figure]').count()).toBe(0);
    expect(await badges.count()).toBe(0);
    await page.goBack();
    await page.getByText(/findings, each measured/).waitFor();
    expect(await figure(page, 'start')).toBeGreaterThan(100_000);
    await page.close();
  });

  it('tells an unknown size in every figure that rests on it, and takes it when it is given', async () => {
    const id = await projectOf({
      'index.html':
        '<script src="https://tags.example/tag.js"></script><script type="module" src="/src/main.js"></script><div id="root"></div>',
      'src/main.js': "import { page } from './page.js';\nexport const routes = [{ path: '/', component: page }];",
      'src/page.js': "import './heavy.js';\nexport const page = () => 'lamp';",
      'src/heavy.js': HEAVY,
      'package.json': '{ "name": "tagged-lamp" }',
    });
    const page = await served.page(`/p/${id}/startup?route=/`);
    const strip = page.getByRole('region', { name: 'Live strip' });
    await strip.locator('[data-figure="interactive"]').getByText(/^≥/).waitFor();
    await strip.locator('[data-figure="other scripts"]').getByText('≥ 0 kB').waitFor();
    await page.getByRole('option', { name: /tag size unknown/ }).waitFor();
    await page.getByRole('region', { name: 'What is missing' }).getByRole('button', { name: 'Give it' }).click();
    const field = page.getByLabel('Size, compressed');
    await field.fill('40');
    await field.press('Enter');
    await strip.locator('[data-figure="other scripts"]').getByText('40 kB', { exact: true }).waitFor();
    await atRest(page);
    expect(await strip.getByText(/≥/).count()).toBe(0);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await strip.locator('[data-figure="other scripts"]').getByText('≥ 0 kB').waitFor();
    // The figure unfolds into the files behind it.
    await page.getByRole('button', { name: /start: what is behind it/ }).click();
    await page.getByRole('region', { name: 'other scripts' }).getByText('unknown').waitFor();
    await page.close();
  });

  it('is told to have no such route where the address names one, and a key that opens a dialog writes nothing into it', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/nowhere');
    await page.getByText('has no route /nowhere').waitFor();
    await page.keyboard.press('l');
    const name = page.getByLabel(/^Name/);
    await settles(async () => expect(await name.inputValue()).toBe('First plan'));
    await name.fill('Renamed');
    await name.press('Escape');
    await page.keyboard.press('l');
    await settles(async () => expect(await name.inputValue()).toBe('First plan'));
    await name.fill('Renamed');
    await name.press('Enter');
    await page.getByRole('heading', { name: 'Renamed' }).waitFor();
    await page.getByRole('button', { name: 'Close', exact: true }).click();
    await page.keyboard.press('Control+z');
    await page.getByRole('combobox', { name: /^plan/ }).getByText('First plan').waitFor();
    await page.close();
  });
});
