// Refreshes docs/screenshots from the sample. Build first: npm run build:node && npm run build:web
import { withSample } from './served.mjs';

await withSample(async (address, context) => {
  const page = await context.newPage();
  const open = async (where) => {
    await page.goto(address + where);
    await page.locator('[data-ready]').waitFor();
    await page.waitForTimeout(500);
  };
  const take = (name) => page.screenshot({ path: `docs/screenshots/${name}.png` });
  const choose = (name) => page.getByRole('option', { name: new RegExp(`^${name} ?,`) }).click();

  await open('/p/saltmarsh/startup?route=/crew/duty/manifest&plan=baseline');
  await take('staircase');

  await open('/p/saltmarsh/inventory?route=/timetable');
  await page.getByLabel('Where is').fill('paperkit/src');
  await page
    .getByRole('button', { name: /paperkit.src.index/ })
    .first()
    .click();
  await page.getByLabel('Where is').fill('');
  await page.getByRole('heading', { name: /Why it is at start/ }).waitFor();
  await take('inventory');

  await open('/p/saltmarsh/inventory?route=/');
  await page.getByRole('tab', { name: 'Routes and parts' }).click();
  await page.getByRole('heading', { name: 'Parts of its screen' }).waitFor();
  await page.mouse.click(700, 760);
  await take('routes');

  await open('/p/saltmarsh/split?route=/timetable');
  await choose('berth-finder');
  await page.keyboard.press('d');
  await page.getByRole('button', { name: 'on the action', exact: true }).click();
  await choose('weather-strip');
  await page.keyboard.press('p');
  await choose('ticket-dialog');
  await page.waitForTimeout(600);
  await take('split');
  await page.getByRole('tab', { name: 'Start and later' }).click();
  await page.getByRole('button', { name: /, package @saltmarsh\/paperkit,/ }).click();
  await page.getByText('leaves the start', { exact: true }).waitFor();
  await page.waitForTimeout(1500);
  await take('start-and-later');
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Imports' }).click();
  await choose('ticket-dialog');
  await page.keyboard.press('d');
  await page.waitForTimeout(600);

  await page.getByRole('tab', { name: 'Files' }).click();
  await page.getByText('this plan').first().waitFor();
  await page.waitForTimeout(600);
  await take('files');
  await page.keyboard.press('3');
  await page.getByRole('grid', { name: 'Load sheet' }).waitFor();
  await page.waitForTimeout(600);
  await take('load-sheet');

  await page.keyboard.press('4');
  await page.waitForTimeout(600);
  await take('startup');
  await page.getByRole('tab', { name: 'Over a mix' }).click();
  await page.getByText(/drawn visits, the same/).waitFor();
  await page.waitForTimeout(1500);
  await page.mouse.click(640, 660);
  await take('mix');
  await page.getByRole('tab', { name: 'Rehearsed' }).click();
  await page.getByText('Run this app’s own code').click();
  await page.getByRole('button', { name: 'Rehearse', exact: true }).click();
  await page.getByText(/^Interactive against the baseline/).waitFor({ timeout: 180_000 });
  await page.waitForTimeout(600);
  await take('rehearsed');
  await open('/p/saltmarsh/visits?route=/timetable&device=laptop');
  await page.getByRole('button', { name: /opens fare calculator/ }).waitFor();
  const visit =
    '/timetable > act ticket @6000+280 > act fares @9000+280 > scroll tide @9000 > move /book @8000+280 > act payment @14000+280';
  await open(`/p/saltmarsh/visits?route=/timetable&device=laptop&moment=1&visit=${encodeURIComponent(visit)}`);
  await page.getByText('Its code is fetched').waitFor();
  await page.getByRole('button', { name: 'on hover or focus' }).click();
  await page.getByText(/^At once .* with lead enough/).waitFor();
  await page.waitForTimeout(600);
  await take('visit');
  await page.getByRole('tab', { name: 'All visitors' }).click();
  await page.getByText(/visits played, the same/).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(600);
  await page.mouse.click(640, 100);
  await take('visitors');
  await open('/p/saltmarsh/advice?route=/timetable');
  await page.getByText(/findings, each measured/).waitFor({ timeout: 60_000 });
  await page.getByRole('list', { name: 'Findings' }).getByRole('button').first().click();
  await page.getByRole('button', { name: 'Preview' }).click();
  await page.waitForTimeout(900);
  await take('findings');
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('tab', { name: 'Each hint' }).click();
  await page.getByText(/ways of hinting, each simulated alone/).waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'tide-chart', exact: true }).click();
  await page.getByRole('button', { name: 'link speed' }).click();
  await page.getByText(/per visit\. It/).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(600);
  await take('hints');
  await page.getByRole('tab', { name: 'Choose for me' }).click();
  await page.getByLabel('Choose', { exact: true }).selectOption('hints');
  await page.getByLabel('For', { exact: true }).selectOption('crowds');
  await page.getByRole('button', { name: 'Choose', exact: true }).click();
  await page.getByText(/candidates: from/).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(600);
  await take('choose');
  await page.getByRole('button', { name: /^Apply these/ }).click();
  await page.waitForTimeout(600);
  await page.getByRole('button', { name: /^Handoff/ }).click();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: /^Source patch/ }).click();
  await page.getByRole('region', { name: 'Text of the patch' }).waitFor();
  await page.waitForTimeout(600);
  await take('patch');
  await page.getByRole('button', { name: /^Limits/ }).click();
  await page.getByRole('button', { name: 'Set from this plan' }).click();
  await page.getByText(/all kept by/).waitFor();
  const most = page.getByRole('spinbutton', { name: '/timetable: interactive, at most' });
  await most.fill('900');
  await most.press('Enter');
  await page.getByText('1 limit exceeded').waitFor();
  await page.mouse.click(700, 780);
  await take('limits');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.request.post(`${address}/api/projects/saltmarsh/plans`, {
    data: {
      name: 'Only the chat later',
      decisions: [{ kind: 'script', script: 'support-chat', placement: 'after load' }],
    },
  });
  await open('/p/saltmarsh/compare?route=/timetable');
  await page.getByRole('checkbox', { name: 'Only the chat later' }).click();
  await page.getByRole('tab', { name: 'Waterfalls' }).click();
  await page.getByText('Every plan on the same time axis').waitFor();
  await page.waitForTimeout(1500);
  await page.mouse.click(700, 640);
  await take('compare');
  await open('/p/saltmarsh/startup?route=/timetable');
  await page.keyboard.press('t');
  await page.getByRole('option', { name: /^entry \d/ }).click();
  await page.waitForTimeout(300);
  await take('startup-dark');
});
