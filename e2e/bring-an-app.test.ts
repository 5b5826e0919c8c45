import fs from 'node:fs';
import path from 'node:path';
import { zipSync } from 'fflate';
import type { Page } from 'playwright-core';
import { folderOf, removeFolders } from '../src/test-support/folders.ts';
import { builtFile, outputOf } from '../src/test-support/output.ts';
import { becomes, changed, figure, Served, settles } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(async () => {
  await served.stop();
  removeFolders();
});

const APP = {
  'index.html': '<script type="module" src="/src/main.js"></script><div id="root"></div>',
  'package.json': '{ "name": "lamp-oil" }',
  'src/main.js': "import { page } from './page.js';\nexport const routes = [{ path: '/', component: page }];",
  'src/page.js': "import './heavy.js';\nexport const page = () => 'lamp';",
  'src/heavy.js': `export const heavy = '${'oil '.repeat(4000)}';`,
};

async function ask(page: Page): Promise<void> {
  await page.getByRole('combobox', { name: /^project/ }).click();
  await page.getByRole('option', { name: 'Read another app' }).click();
  await page.getByRole('heading', { name: 'Read an app' }).waitFor();
}

async function reads(page: Page, folder: string): Promise<void> {
  await page.getByLabel('Folder on this machine').fill(folder);
  await page.getByRole('button', { name: 'Read it' }).click();
}

const elsewhere = /\/p\/(?!saltmarsh)[^/]+\/inventory/;

describe('bringing an app', () => {
  it('from a folder on this machine; what can’t be read is said', async () => {
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    await reads(page, '/no/such/folder');
    await page.getByText('No such folder').waitFor();
    const folder = folderOf(APP);
    await reads(page, folder);
    await page.waitForURL(elsewhere);
    await page.getByText('heavy.js').or(page.getByText('the app’s own code')).first().waitFor();
    await ask(page);
    await page.getByRole('button', { name: folder }).click();
    await settles(async () => expect(await page.getByLabel('Folder on this machine').inputValue()).toBe(folder));
    await page.close();
  });

  it('from a folder of a workspace: what lies around it is asked for once, and comes', async () => {
    const workspace = folderOf({
      ...Object.fromEntries(Object.entries(APP).map(([name, text]) => [`apps/lamp/${name}`, text])),
      'apps/lamp/src/page.js': "import '../../../kit/wick.js';\nexport const page = () => 'lamp';",
      'kit/wick.js': `export const wick = '${'wick '.repeat(4000)}';`,
    });
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    await reads(page, path.join(workspace, 'apps/lamp'));
    await page.waitForURL(elsewhere);
    await page.getByText(/Imports lead out of the folder/).waitFor();
    await page.getByRole('button', { name: 'Read the workspace too' }).click();
    await page.getByText(/1 modules and scripts added/).waitFor();
    await settles(async () => expect(await page.getByText(/Imports lead out of the folder/).count()).toBe(0));
    await page.close();
  });

  it('from a file that a person picks where nothing says what starts it, or an app of a workspace', async () => {
    const within = (folder: string) =>
      Object.fromEntries(Object.entries(APP).map(([name, text]) => [`${folder}/${name}`, text]));
    const odd = folderOf({ 'code/boot.js': "import './oil.js';", 'code/oil.js': 'export const oil = 1;' });
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    await reads(page, odd);
    await page.getByRole('button', { name: 'code/boot.js' }).click();
    await page.waitForURL(elsewhere);
    await page.getByText('No route was found').waitFor();
    await ask(page);
    const url = page.url();
    await reads(
      page,
      folderOf({ ...within('apps/lamp'), ...within('apps/oil'), 'package.json': '{ "workspaces": [] }' }),
    );
    await page.getByRole('region', { name: 'Read one of its apps' }).waitFor();
    await page.getByRole('button', { name: 'apps/oil' }).click();
    await page.waitForURL((to) => to.href !== url && elsewhere.test(to.href));
    await page.close();
  });

  it('as an archive, chosen or dropped, and refuses one that reaches outside', async () => {
    const bytes = (text: string) => new TextEncoder().encode(text);
    const files = Object.fromEntries(Object.entries(APP).map(([name, text]) => [name, bytes(text)]));
    const folder = folderOf({});
    fs.writeFileSync(path.join(folder, 'lamp.zip'), zipSync(files));
    fs.writeFileSync(path.join(folder, 'evil.zip'), zipSync({ ...files, '../../evil.js': bytes('x') }));
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    await page.getByLabel('Archive or project file').setInputFiles(path.join(folder, 'evil.zip'));
    await page.getByRole('button', { name: 'Read it' }).click();
    await page.getByRole('alert').filter({ hasText: /lead/ }).waitFor();
    await page.keyboard.press('Escape');
    const zip = [...fs.readFileSync(path.join(folder, 'lamp.zip'))];
    await page.evaluate((content) => {
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(content)], 'lamp.zip', { type: 'application/zip' }));
      dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    }, zip);
    await page.getByText('lamp.zip').waitFor();
    await page.getByRole('button', { name: 'Read it' }).click();
    await page.waitForURL(elsewhere);
    await page.getByRole('combobox', { name: 'project: Lamp Oil' }).waitFor();
    await page.close();
  });

  it('as a production output: real files, what is doubled, and nothing to cut without sources', async () => {
    const piece = (source: string, out: string) => ({ source, out });
    const big = `console.log("${'oil '.repeat(3000)}");`;
    const output = outputOf({
      'assets/main-1.js': builtFile([piece('../src/main.js', big)]),
      'assets/far-2.js': builtFile([piece('../src/far.js', 'far();')]),
    });
    const folder = folderOf({
      'index.html': '<script type="module" src="/lamp/assets/main-1.js"></script>',
      ...output,
    });
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    await reads(page, folder);
    await page.waitForURL(elsewhere);
    await page.getByText('none of the 1 files is compressed ahead').waitFor();
    await page.getByRole('tab', { name: '2 files inside' }).click();
    await page.getByText('The maps of these files name what is in them').waitFor();
    await page.getByRole('tab', { name: 'Routes and parts' }).click();
    await settles(async () => expect(await page.getByLabel('Base address').inputValue()).toBe('/lamp/'));
    await page.getByText('Split', { exact: true }).click();
    await page.getByText('There is nothing to cut here').waitFor();
    await page.close();
  });
});

describe('correcting what was read', () => {
  it('changes the prediction at once, is kept, and can be undone', async () => {
    const page = await served.page('/p/saltmarsh/inventory?route=/');
    await page.getByRole('tab', { name: 'Routes and parts' }).click();
    const before = await figure(page, 'first content');
    await page.getByLabel('Drawn', { exact: true }).selectOption('server');
    const drawn = await changed(page, 'first content', before);
    expect(drawn).toBeLessThan(before);
    await page.reload();
    await becomes(page, 'first content', drawn);
    await page.getByRole('tab', { name: 'Routes and parts' }).click();
    await page.getByText('corrected').waitFor();
    await page.getByLabel('Time at the server', { exact: true }).fill('900');
    await page.keyboard.press('Enter');
    expect(await changed(page, 'first content', drawn)).toBeGreaterThan(drawn);
    await page.getByRole('button', { name: 'Undo “/: 900 ms at the server”' }).waitFor();
    await page.keyboard.press('Tab');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await becomes(page, 'first content', drawn);
    await page.getByRole('button', { name: 'as it was read' }).click();
    await becomes(page, 'first content', before);
    await page.close();
  });

  it('refuses what can’t be, by the field, and keeps what was there', async () => {
    const page = await served.page('/p/saltmarsh/inventory?route=/help');
    await page.getByRole('tab', { name: 'Routes and parts' }).click();
    await page.getByLabel('Base address').fill('app');
    await page.keyboard.press('Enter');
    await page.getByText('It begins with / or is a whole address').waitFor();
    await page.getByLabel('Page module').fill('src/nowhere.tsx');
    await page.keyboard.press('Enter');
    await page.getByText('No module src/nowhere.tsx was read.').waitFor();
    await page.getByLabel('Address pattern').fill('/trips');
    await page.keyboard.press('Enter');
    await page.getByText('There is a route /trips already').waitFor();
    await settles(async () => expect(await page.getByRole('button', { name: 'Nothing to undo' }).count()).toBe(1));
    await page.close();
  });

  it('proposes the parts of the page that a route is given', async () => {
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    const wrong = '/* another page */\nexport function Cover() {\n  return <main>cover</main>;\n}\n';
    const right =
      "import { useState } from 'react';\nimport { Ledger } from './ledger.jsx';\n" +
      'export function Desk() {\n  const [open, setOpen] = useState(false);\n' +
      '  return <main><button onClick={() => setOpen(true)}>Open ledger</button>{open && <Ledger />}</main>;\n}\n';
    await reads(
      page,
      folderOf({
        ...APP,
        'src/main.js':
          "import { Cover } from './cover.jsx';\nimport { Desk } from './desk.jsx';\nexport const routes = [{ path: '/', component: Cover }];\nconsole.log(Desk);\n",
        'src/cover.jsx': wrong,
        'src/desk.jsx': right,
        'src/ledger.jsx': 'export function Ledger() {\n  return <table />;\n}\n',
      }),
    );
    await page.waitForURL(elsewhere);
    await page.getByRole('tab', { name: 'Routes and parts' }).click();
    await page.getByLabel('Page module').fill('src/desk.jsx');
    await page.keyboard.press('Enter');
    await page.getByText('Parts are proposed as the code is by your correction.').waitFor();
    await settles(async () => {
      const values = await page.locator('input').evaluateAll((all) => all.map((i) => (i as HTMLInputElement).value));
      expect(values).toEqual(expect.arrayContaining(['src/ledger.jsx', 'Open ledger']));
    });
    await page.close();
  });

  it('adds, renames and leaves out routes; a proposal is confirmed', async () => {
    const page = await served.page('/p/saltmarsh/inventory');
    await ask(page);
    // Without a document, nothing says under which address it is.
    const { 'index.html': _, ...scripts } = APP;
    await reads(page, folderOf({ ...scripts, 'src/main.js': "import './page.js';" }));
    await page.waitForURL(elsewhere);
    await page.getByText('No routes yet').waitFor();
    await page.getByRole('button', { name: 'Add a route' }).click();
    await page.getByRole('dialog').getByLabel('Address pattern').fill('/lamp');
    await page.getByRole('dialog').getByLabel('Page module').fill('src/page.js');
    await page.getByRole('button', { name: 'Add it' }).click();
    await page.getByText('added by hand').waitFor();
    await page.locator('[data-ready]').waitFor();
    await page.getByRole('button', { name: 'It is right so' }).click();
    await page.getByRole('tab', { name: 'Routes and parts', exact: true }).waitFor();
    await page.getByRole('button', { name: 'leave out this route' }).click();
    await page.getByText('No routes yet').waitFor();
    await page.keyboard.press('Control+z');
    await page.getByText('added by hand').waitFor();
    await page.close();
  });
});
