import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Download, Page } from 'playwright-core';
import { allSaved, changed, figure, Served, settles } from './served.ts';

let served: Served;
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-path-'));

beforeAll(async () => {
  served = await Served.start();
});
afterAll(async () => {
  await served.stop();
  fs.rmSync(folder, { recursive: true, force: true });
});

async function saved(page: Page, press: () => Promise<void>): Promise<string> {
  const waiting = page.waitForEvent('download');
  await press();
  const download: Download = await waiting;
  const file = path.join(folder, download.suggestedFilename());
  await download.saveAs(file);
  return file;
}

function yokeline(...args: string[]): { status: number | null; out: ReturnType<typeof JSON.parse>; text: string } {
  const { status, stdout } = spawnSync(process.execPath, ['bin/yokeline.mjs', ...args], { encoding: 'utf8' });
  return { status, out: stdout.startsWith('{') ? JSON.parse(stdout) : null, text: stdout };
}

const station = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^${name}`) }).click();

describe('the whole path', () => {
  it('goes from a finding to a patch that is applied, read again and kept by limits', async () => {
    // Findings: the first two are taken, as they are offered.
    const page = await served.page('/p/saltmarsh/advice?route=/timetable');
    const before = await figure(page, 'interactive');
    const details = page.getByRole('complementary', { name: 'Details' });
    for (let taken = 0; taken < 2; taken++) {
      await page.getByText(/findings, each measured/).waitFor();
      const was = await figure(page, 'interactive');
      await page.getByRole('list', { name: 'Findings' }).getByRole('button').first().click();
      await details.getByRole('button', { name: 'Apply', exact: true }).click();
      await changed(page, 'interactive', was);
    }

    // A split of one's own.
    await station(page, 'Split');
    const start = await figure(page, 'start');
    await page.getByRole('option', { name: /^fare-calculator ?,/ }).click();
    await page.getByRole('button', { name: 'Detach it' }).click();
    await changed(page, 'start', start);

    // A hint, switched on by itself.
    await station(page, 'Advice');
    await page.getByRole('tab', { name: 'Each hint' }).click();
    await page
      .getByRole('checkbox', { name: /tide-chart/ })
      .first()
      .click();

    // Compare: figures, then what earned it.
    await station(page, 'Compare');
    await page.getByRole('heading', { name: 'Landing on /timetable' }).waitFor();
    const row = page.getByRole('row', { name: /^interactive/ }).first();
    await row.getByText(/▾/).waitFor();
    const csv = fs.readFileSync(
      await saved(page, () => page.getByRole('button', { name: 'Save as CSV' }).click()),
      'utf8',
    );
    expect(csv).toMatch(/interactive,[\d.]+ s,[\d.]+ s \(−/);
    await page.getByRole('tab', { name: 'Gain by decision' }).click();
    await page
      .getByRole('row', { name: /^all of them/ })
      .getByText(/▾/)
      .waitFor();
    await page.getByRole('tab', { name: 'Waterfalls' }).click();
    const png = await saved(page, () => page.getByRole('button', { name: 'Save as PNG' }).click());
    expect(fs.readFileSync(png).subarray(1, 4).toString()).toBe('PNG');
    await settles(async () => expect(await figure(page, 'interactive')).toBeLessThan(before * 0.7));

    // The patch, the limits, and the project as a file.
    await station(page, 'Handoff');
    await page.getByRole('button', { name: /^Source patch/ }).click();
    await page.getByRole('region', { name: 'Text of the patch' }).waitFor();
    await settles(async () => expect(await page.getByRole('region', { name: 'By hand' }).count()).toBe(0));
    const patch = await saved(page, () => page.getByRole('button', { name: 'Save as a file' }).click());
    await page.getByRole('button', { name: /^Limits/ }).click();
    await page.getByRole('button', { name: 'Set from this plan' }).click();
    await page.getByText(/limits, all kept by First plan/).waitFor();
    await page.getByRole('button', { name: /^Project and plan/ }).click();
    await allSaved(page);
    const project = await saved(page, () => page.getByRole('button', { name: 'Save the project' }).click());

    // In the code: applied by git, read again, checked.
    const app = path.join(folder, 'app');
    fs.cpSync('examples/saltmarsh-ferries', app, { recursive: true });
    expect(yokeline('check', app, '--project', project).out.pending.length).toBeGreaterThan(2);
    execFileSync('git', ['apply', patch], { cwd: app });
    const kept = yokeline('check', app, '--project', project);
    expect(kept).toMatchObject({ status: 0, out: { ok: true, broken: [], pending: [] } });

    // Somebody imports the document maker at the top of the wrong file.
    const tiles = path.join(app, 'src/home/route-tiles.tsx');
    const line = "import { makeDocument } from '@saltmarsh/paperkit';\n";
    fs.writeFileSync(tiles, `${line}${fs.readFileSync(tiles, 'utf8')}globalThis.made = makeDocument;\n`);
    const broken = yokeline('check', app, '--project', project);
    expect(broken.status).toBe(1);
    expect(broken.out.broken.length).toBeGreaterThan(3);
    for (const { words, because } of broken.out.broken) {
      expect({ words, because: because[0] }).toMatchObject({
        because: { from: 'src/home/route-tiles.tsx', line: 1, isNew: true },
      });
    }
    expect(broken.out.broken[0].recover[0]).toMatchObject({ from: 'src/home/route-tiles.tsx', enough: true });
    expect(yokeline('check', app, '--project', project, '--markdown').text).toContain(
      '`src/home/route-tiles.tsx:1` now brings `packages/paperkit/src/index.ts`',
    );
    await page.close();
  });

  it('tells limits that are exceeded on every station, and sends a plan by itself', async () => {
    const page = await served.page('/p/saltmarsh/handoff?route=/timetable&plan=baseline');
    await page.getByRole('button', { name: /limits exceeded/ }).waitFor();
    await station(page, 'Inventory');
    await page.getByRole('button', { name: /limits exceeded/ }).click();
    await page.getByText(/limits exceeded by Baseline/).waitFor();
    await page.getByRole('button', { name: /^Project and plan/ }).click();
    const input = page.getByLabel('Plan file');
    const plan = { name: 'First plan', description: '', decisions: [{ kind: 'detach', import: 'src/gone.ts::./x' }] };
    const app = { name: 'other', modules: 3, imports: 2 };
    const sent = JSON.stringify({ format: 'yokeline-plan', version: 1, app, plan });
    await input.setInputFiles({ name: 'sent.plan.json', mimeType: 'application/json', buffer: Buffer.from(sent) });
    await page
      .getByText(/“First plan 2” is here. It was made for other with 3 modules. 1 decision can’t be applied/)
      .waitFor();
    await input.setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('[[[') });
    await page.getByRole('alert').getByText('Broken JSON').waitFor();
    const schema = await page.request.get(`${served.address}/schema/project.schema.json`);
    expect((await schema.json()).title).toBe('Yokeline project');
    await page.close();
  });
});
