import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { becomes, changed, figure, Served } from './served.ts';

let served: Served;

beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

describe('the guide', () => {
  it('leads a newcomer from the slow start to the patch, in the real interface, and can be left and taken up', async () => {
    const page = await served.newcomer();
    await page.goto(`${served.address}/`);
    const guide = page.getByRole('region', { name: 'Guide' });
    await guide.getByRole('button', { name: 'Show me around' }).click();
    const next = guide.getByRole('button', { name: '✓ Next' });
    for (const way of ['Show the startup', 'Show the inventory']) {
      await guide.getByRole('button', { name: way }).click();
      await next.click();
    }
    await guide.getByRole('button', { name: 'Choose it in Split' }).click();
    await page.getByRole('button', { name: 'Detach it' }).click();
    await next.click();
    await guide.getByRole('button', { name: 'Play a visit' }).click();
    await next.click();
    await guide.getByRole('heading', { name: 'Hint it' }).waitFor();
    await guide.getByRole('button', { name: 'Leave the guide' }).click();
    await page.reload();
    await page.getByRole('button', { name: 'Guide', exact: true }).click();
    await guide.getByRole('heading', { name: 'Hint it' }).waitFor();
    await guide.getByRole('button', { name: 'Show what else helps' }).click();
    await page.getByText(/findings, each measured/).waitFor();
    await page
      .getByRole('complementary', { name: 'Details' })
      .getByRole('button', { name: 'Apply', exact: true })
      .click();
    await next.click();
    await guide.getByRole('button', { name: 'Compare the plans' }).click();
    await next.click();
    await guide.getByRole('button', { name: 'Show the patch' }).click();
    await page.getByRole('region', { name: 'Text of the patch' }).waitFor();
    await guide.getByRole('button', { name: 'Done' }).click();
    await guide.waitFor({ state: 'detached' });
    await page.close();
  });
});

/** A request as no browser would send it. */
function raw(
  path: string,
  headers: Record<string, string>,
  method = 'GET',
  at = served.address,
): Promise<{ status: number; headers: http.IncomingHttpHeaders; body: string }> {
  return new Promise((give, fail) => {
    const request = http.request(`${at}${path}`, { method, headers }, (answer) => {
      let body = '';
      answer.on('data', (piece) => {
        body += piece;
      });
      answer.on('end', () => give({ status: answer.statusCode ?? 0, headers: answer.headers, body }));
    });
    request.on('error', fail);
    request.end();
  });
}

describe('safety', () => {
  it('answers neither pages nor calls to foreign Hosts and Origins, and tells nothing of the inside', async () => {
    for (const path of [
      '/',
      '/p/saltmarsh/startup',
      '/api/projects',
      '/api/projects/saltmarsh/file',
      '/schema/plan.schema.json',
    ]) {
      const { status, body } = await raw(path, { host: 'evil.example' });
      expect({ path, status }).toEqual({ path, status: 403 });
      expect(body).not.toContain('Saltmarsh');
    }
    const local = new URL(served.address).host;
    const foreign = await raw(
      '/api/projects',
      { host: local, origin: 'http://evil.example', 'content-type': 'application/json' },
      'POST',
    );
    expect(foreign.status).toBe(403);
    const unreadable = await raw('/api/projects/%FF', { host: local });
    expect([unreadable.status, JSON.parse(unreadable.body).title]).toEqual([404, 'No such project']);
    const paths = await raw('/schema/..%2f..%2fpackage.json', { host: local });
    expect(paths.status).toBe(404);
    expect(paths.body).not.toContain('dependencies');
  });

  it('takes bodies as large as projects are, refuses larger ones, and marks data as data', async () => {
    const send = (body: string) =>
      fetch(`${served.address}/api/projects`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      });
    const text = JSON.stringify({ format: 'yokeline-project', version: 1, snapshot: 1, plans: [] });
    const large = await send(`${JSON.stringify({ fileName: 'a.json', text })}${' '.repeat(30_000_000)}`);
    // It was read to its end, and what is wrong with it is told.
    expect(await large.json()).toMatchObject({ title: 'Unexpected content', at: expect.stringContaining('snapshot') });
    expect(large.headers.get('content-security-policy')).toBe("default-src 'none'; frame-ancestors 'none'");
    const foreign = await raw('/api/projects', { host: 'evil.example' }, 'POST');
    expect(foreign.status).toBe(403);
    const { headers } = await raw('/api/projects', { host: new URL(served.address).host });
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'x-frame-options': 'DENY' });
  });

  it('runs no script that is put into the page, and lets nobody frame it', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    const ran = await page.evaluate(async () => {
      const script = document.createElement('script');
      script.textContent = 'globalThis.intruder = true';
      document.body.append(script);
      const image = document.createElement('img');
      image.setAttribute('onerror', 'globalThis.intruder = true');
      image.src = '/nowhere.png';
      document.body.append(image);
      await new Promise((go) => setTimeout(go, 500));
      return (globalThis as unknown as { intruder?: boolean }).intruder ?? false;
    });
    expect(ran).toBe(false);
    const { headers } = await raw('/p/saltmarsh/startup', { host: new URL(served.address).host });
    expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+';.*frame-ancestors 'none'/);
    expect(headers).toMatchObject({ 'x-frame-options': 'DENY', 'x-content-type-options': 'nosniff' });
    await page.close();
  });

  it('asks for the key once where one is set, and keeps it out of scripts and addresses', async () => {
    const keyed = await Served.start({ YOKELINE_KEY: 'sea-lavender-and-thrift' });
    try {
      const host = `pier.example:${new URL(keyed.address).port}`;
      expect((await raw('/p/saltmarsh/startup', { host }, 'GET', keyed.address)).status).toBe(401);
      expect((await raw('/?key=samphire', { host }, 'GET', keyed.address)).status).toBe(401);
      const { status, headers } = await raw(
        '/p/saltmarsh/startup?key=sea-lavender-and-thrift',
        { host },
        'GET',
        keyed.address,
      );
      expect({ status, to: headers.location }).toEqual({ status: 303, to: `http://${host}/p/saltmarsh/startup` });
      expect(headers['set-cookie']![0]).toMatch(/HttpOnly; SameSite=Strict/);
      const page = await keyed.page('/p/saltmarsh/startup?route=/timetable&key=sea-lavender-and-thrift');
      expect(page.url()).not.toContain('sea-lavender-and-thrift');
      expect(await page.evaluate(() => document.cookie)).toBe('');
      await page.close();
    } finally {
      await keyed.stop();
    }
  });
});

describe('faults', () => {
  it('a server that is stopped loses nothing: it is told, and all is saved once it is back', async () => {
    const context = await served.context();
    const page = await context.newPage();
    await page.goto(`${served.address}/p/saltmarsh/split?route=/timetable`);
    await page.locator('[data-ready]').waitFor();
    const before = await figure(page, 'interactive');
    const dialog = page.getByRole('option', { name: /^ticket-dialog ?,/ });
    // The figures come with the page; the list once it has fetched the app.
    await dialog.waitFor();
    await served.stopServer();
    await dialog.click();
    await page.keyboard.press('d');
    const after = await changed(page, 'interactive', before);
    await page.getByText('not saved, try again').waitFor();
    await page.getByText('The server doesn’t answer').first().waitFor();
    await served.startServer();
    await page.getByText('everything is saved').waitFor();
    await page.reload();
    await becomes(page, 'interactive', after);
    await page.getByRole('option', { name: /^berth-finder ?,/ }).waitFor();

    // Even if the page goes before the server is back.
    await served.stopServer();
    await page.keyboard.press('Control+z');
    await page.getByRole('option', { name: /^berth-finder ?,/ }).click();
    await page.keyboard.press('d');
    const twice = await changed(page, 'interactive', after);
    await page.getByText('not saved, try again').waitFor();
    await page.close();
    await served.startServer();
    const again = await context.newPage();
    await again.goto(`${served.address}/p/saltmarsh/split?route=/timetable`);
    await again.getByText('Decisions that were never saved are here again').waitFor();
    await becomes(again, 'interactive', twice);
    await context.close();
  });

  it('code that can’t be fetched leaves the page as it is, is told, and comes once the server is back', async () => {
    const context = await served.context();
    const page = await context.newPage();
    // Nothing is fetched ahead.
    await page.addInitScript(() => {
      window.requestIdleCallback = () => 0;
    });
    await page.goto(`${served.address}/p/saltmarsh/split?route=/timetable&plan=baseline`);
    await page.getByRole('option', { name: /^ticket-dialog ?,/ }).waitFor();
    await context.setOffline(true);
    await page.keyboard.press('5');
    await page.getByText('the server doesn’t answer').first().waitFor();
    await page.locator('[data-ready]').waitFor();
    await page.keyboard.press('2');
    await page.getByRole('option', { name: /^ticket-dialog ?,/ }).waitFor();
    await page.keyboard.press('5');
    await context.setOffline(false);
    await page.getByRole('tablist', { name: 'Visits' }).waitFor();
    await context.close();
  });

  it.each(['fails', 'ends without a word'])('a computation that %s is begun again', async (how) => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable&plan=baseline');
    const before = await figure(page, 'interactive');
    page.removeAllListeners('pageerror');
    await page.workers()[0].evaluate((fails) => {
      if (!fails) return self.close();
      setTimeout(() => {
        throw new Error('broken on purpose');
      });
    }, how === 'fails');
    await page.getByText('A computation broke down and is begun again').waitFor();
    await page.keyboard.press(']');
    await changed(page, 'interactive', before);
    await page.close();
  });
});

describe('a database that goes', () => {
  it('is told on every page, put back with all that was saved, and kept when one begins afresh', async () => {
    const own = await Served.start();
    const file = path.join(own.data, 'yokeline.sqlite');
    try {
      const page = await own.page('/p/saltmarsh/split?route=/timetable');
      await page.getByRole('option', { name: /^ticket-dialog ?,/ }).click();
      const before = await figure(page, 'start');
      await page.keyboard.press('d');
      const after = await changed(page, 'start', before);
      await page.getByRole('img', { name: 'Everything is saved' }).waitFor();
      fs.renameSync(file, `${file}.away`);
      await page.goto(own.address);
      await page.getByText('The database is gone').waitFor();
      await page.getByRole('button', { name: 'Put the database back' }).click();
      await page.locator('[data-figure="start"]').waitFor();
      await page.goto(`${own.address}/p/saltmarsh/split?route=/timetable`);
      await becomes(page, 'start', after);

      fs.writeFileSync(file, 'no database '.repeat(50_000));
      await page.goto(`${own.address}/p/saltmarsh/visits`);
      await page.getByRole('button', { name: 'Begin afresh with the sample' }).waitFor();
      await own.stopServer();
      await own.startServer();
      await page.goto(own.address);
      await page.getByText('is no database').waitFor();
      await page.getByRole('button', { name: 'Begin afresh with the sample' }).click();
      const kept = /kept as (\S+?)\.$/.exec((await page.getByText(/kept as/).textContent()) ?? '')?.[1];
      expect(fs.readFileSync(path.join(own.data, kept!), 'utf8')).toMatch(/^no database /);
      await page.getByRole('link', { name: 'Go on' }).click();
      await page.locator('[data-figure="start"]').waitFor();
      await page.close();
    } finally {
      await own.stop();
    }
  });
});

describe('two tabs', () => {
  it('stay in step, each with its own undo', async () => {
    const context = await served.context();
    await context.addInitScript(() => localStorage.setItem('yokeline:guide', '{"state":"left","step":0}'));
    const [one, two] = [await context.newPage(), await context.newPage()];
    for (const page of [one, two]) {
      await page.goto(`${served.address}/p/saltmarsh/split?route=/timetable`);
      await page.locator('[data-ready]').waitFor();
    }
    const before = await figure(one, 'start');
    await one.getByRole('option', { name: /^fare-calculator ?,/ }).click();
    await one.keyboard.press('d');
    const after = await changed(one, 'start', before);
    await becomes(two, 'start', after);
    await two.getByText('was changed in another tab').waitFor();
    await one.keyboard.press('Control+z');
    await becomes(two, 'start', before);
    await context.close();
  });
});

describe('the address', () => {
  it('goes back and forward through stations, routes and plans, with what was chosen', async () => {
    const page = await served.page('/p/saltmarsh/startup?route=/timetable');
    await page.keyboard.press('2');
    await page.getByRole('option', { name: /^fare-calculator ?,/ }).click();
    await page.getByRole('complementary').getByRole('heading', { name: 'fare-calculator' }).waitFor();
    const chosen = page.url();
    expect(chosen).toContain('chosen=import');
    await page.keyboard.press(']');
    await page.keyboard.press('8');
    await page.getByRole('button', { name: /^Limits/ }).click();
    await page.waitForURL(/handoff.*page=limits/);
    await page.goBack();
    await page.waitForURL(/\/split\?route=%2Fsailings/);
    await page.goBack();
    await page.getByRole('complementary').getByRole('heading', { name: 'fare-calculator' }).waitFor();
    await page.goBack();
    await page.waitForURL(/\/startup\?route=%2Ftimetable/);
    await page.goForward();
    await page.waitForURL(/\/split/);
    const other = await served.page(new URL(chosen).pathname + new URL(chosen).search);
    await other.getByRole('complementary').getByRole('heading', { name: 'fare-calculator' }).waitFor();
    await other.close();
    await page.close();
  });

  it.each([
    ['inventory', /^Routes and parts/],
    ['split', 'Files'],
    ['startup', 'Over a mix'],
    ['visits', 'All visitors'],
    ['advice', 'Choose for me'],
  ])('names the open page of %s, which is there again after a reload and by going back', async (station, name) => {
    const page = await served.page(`/p/saltmarsh/${station}?route=/timetable`);
    const open = page.getByRole('tab', { name, selected: true });
    await page.getByRole('tab', { name }).click();
    await page.waitForURL(/[?&]page=/);
    await page.reload();
    await open.waitFor();
    await page.keyboard.press('3');
    await page.waitForURL(/\/load-sheet\?(?!.*page=)/);
    await page.goBack();
    await open.waitFor();
    // A page that isn’t there is the first one.
    const odd = await served.page(`/p/saltmarsh/${station}?route=/timetable&page=nowhere`);
    await odd.getByRole('tab', { selected: true }).first().waitFor();
    await odd.close();
    await page.close();
  });
});
