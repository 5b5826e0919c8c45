import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Served, settles } from './served.ts';

let served: Served;
beforeAll(async () => {
  served = await Served.start();
});
afterAll(() => served.stop());

/** What a cell of milliseconds or seconds says, in ms. */
const milliseconds = (text: string) => {
  const [, number, unit] = /([\d.]+) (ms|s)/.exec(text)!;
  return Number(number) * (unit === 's' ? 1000 : 1);
};

it('is made from the interface, seen beside the prediction, and moves it when it is taken', async () => {
  const page = await served.page('/p/saltmarsh/startup?route=/harbour&plan=baseline&link=clear-cell&device=laptop');
  await page.getByRole('tab', { name: 'Rehearsed' }).click();
  await page.getByRole('heading', { name: '/harbour wasn’t rehearsed yet' }).waitFor();
  const begin = page.getByRole('button', { name: 'Rehearse', exact: true });
  expect(await begin.isDisabled()).toBe(true);
  await page.getByText('Run this app’s own code on this machine').click();
  await page.getByLabel('Each is run').fill('1');
  await page.getByLabel('Each is run').press('Enter');
  await begin.click();
  const bar = page.getByRole('progressbar', { name: 'Runs done' });
  await bar.waitFor();
  // Whoever comes back meanwhile sees that it goes on.
  await page.reload();
  await page.getByRole('tab', { name: 'Rehearsed' }).click();
  await bar.waitFor();
  const row = page.locator('[data-rehearsed="firstContent"]');
  await row.waitFor();
  const cells = async () => (await row.locator('td').allTextContents()).map((t) => t.trim());
  const [, predicted, rehearsed] = await cells();
  await page.getByRole('img', { name: 'Requests, parts and thread, predicted and rehearsed' }).waitFor();
  await page.getByRole('button', { name: 'Use these measurements' }).click();
  await page.getByText(/In use: Chromium/).waitFor();
  // The router of the sample draws its frame only with the page, which code doesn’t show.
  const far = Math.abs(milliseconds(predicted) - milliseconds(rehearsed));
  await settles(async () => {
    expect(Math.abs(milliseconds((await cells())[1]) - milliseconds(rehearsed))).toBeLessThan(far);
  });
  await page.getByRole('button', { name: 'leave it out again' }).click();
  await settles(async () => expect((await cells())[1]).toBe(predicted));
  await page.getByRole('button', { name: /^Forget Baseline/ }).click();
  await page.getByRole('heading', { name: '/harbour wasn’t rehearsed yet' }).waitFor();
  await page.close();
});

it('is made on the command line, of a plan against another one, and can be learnt from', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-rehearsal-'));
  const file = path.join(folder, 'sample.yokeline.json');
  // What is learnt of packages stays in here.
  const env = { ...process.env, YOKELINE_READING_CACHE: path.join(folder, 'cache') };
  const yokeline = (...args: string[]) =>
    execFileSync(process.execPath, ['bin/yokeline.mjs', ...args, '--json'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
      env,
    });
  yokeline('read', 'examples/saltmarsh-ferries', '--out', file);
  const project = JSON.parse(fs.readFileSync(file, 'utf8'));
  const decisions = [{ kind: 'detach', module: 'src/fares/fare-calculator.tsx' }];
  fs.writeFileSync(file, JSON.stringify({ ...project, plans: [{ name: 'Lean', decisions }] }));
  const options = [
    '--app',
    'examples/saltmarsh-ferries',
    '--route',
    '/timetable',
    '--link',
    'clear-cell',
    '--device',
    'laptop',
    '--runs',
    '1',
  ];
  const act = ['--act', 'fares'];
  const said = JSON.parse(
    yokeline('rehearse', file, ...options, ...act, '--plan', 'Lean', '--against', 'Baseline', '--learn'),
  );
  const [run] = said.rehearsal.runs;
  expect(run.errors).toEqual([]);
  expect(run.moments.interactive).toBeGreaterThan(run.moments.firstContent - 1);
  expect(run.parts.find((p: { part: string }) => p.part === 'page').shown).toBeGreaterThan(0);
  expect(run.moments.waits).toEqual([expect.any(Number)]);
  expect(run.moments.waits[0]).toBeGreaterThan(0);
  expect(said.quantities.find((q: { quantity: string }) => q.quantity === 'wait').predicted).toBeGreaterThan(0);
  expect(said.gains.map((g: { quantity: string }) => g.quantity)).toContain('interactive');
  const { measured } = JSON.parse(fs.readFileSync(file, 'utf8')).amendments;
  expect(Object.keys(measured.modules)).toContain('src/main.tsx');
  expect(measured.draws['/timetable'].shell).toBeGreaterThan(0);
  fs.rmSync(folder, { recursive: true });
});

const MOVES = {
  'index.html': '<div id="app"></div><script type="module" src="/main.js"></script>',
  'main.js': `import Home from './home.js';
const routes = [{ path: '/', component: Home }, { path: '/far', component: () => import('./far.js') }];
async function show(path) {
  const { component } = routes.find((r) => r.path === path);
  const draw = component === Home ? Home : (await component()).default;
  document.getElementById('app').replaceChildren(...draw());
}
addEventListener('click', (e) => {
  const link = e.target.closest('a[href^="/far"]');
  if (!link) return;
  e.preventDefault();
  history.pushState(null, '', link.href);
  show(link.pathname);
});
show(location.pathname);`,
  'home.js': `const link = (href) => Object.assign(document.createElement('a'), { href, textContent: href });
export default function Home() { return [link('/far'), link('/elsewhere')]; }`,
  'far.js':
    "export default function Far() { for (const end = performance.now() + 60; performance.now() < end; ); return [Object.assign(document.createElement('h1'), { textContent: 'Far' })]; }",
};

it.each([
  ['follows a link, and tells how long the other page is waited for', MOVES, (wait: number | null) => wait! > 0, /^$/],
  [
    'tells where a link opens another document, and counts nothing of that',
    { ...MOVES, 'main.js': MOVES['main.js'].replace('e.preventDefault();', 'return;') },
    (wait: number | null) => wait === null,
    /opened another document/,
  ],
])('%s', (_, files, isFine, told) => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-moves-'));
  for (const [file, text] of Object.entries(files)) fs.writeFileSync(path.join(folder, file), text);
  const args = ['rehearse', folder, '--route', '/', '--act', '/far', '--runs', '1', '--device', 'laptop', '--json'];
  const said = JSON.parse(
    execFileSync(process.execPath, ['bin/yokeline.mjs', ...args], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    }),
  );
  const [run] = said.rehearsal.runs;
  expect(run.errors).toEqual([]);
  expect(run.moments.firstContent).toBeGreaterThan(0);
  expect(run.moments.waits.map(isFine)).toEqual([true]);
  // It is drawn once its code has come, outside of any call of the browser's: that is drawing as well.
  const drew = run.tasks.some((t: { of: { draw?: number } }) => (t.of.draw ?? 0) > 40);
  expect(drew || run.moments.waits[0] === null).toBe(true);
  const word = said.rehearsal.told.filter((t: string) => /another document|move couldn/.test(t)).join();
  expect(word).toMatch(told);
  fs.rmSync(folder, { recursive: true });
});

it('judges limits by a browser where that is wanted', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-rehearsal-'));
  const file = path.join(folder, 'sample.yokeline.json');
  const sample = 'examples/saltmarsh-ferries';
  execFileSync(process.execPath, ['bin/yokeline.mjs', 'read', sample, '--out', file], { stdio: 'ignore' });
  const project = JSON.parse(fs.readFileSync(file, 'utf8'));
  const under = { route: '/harbour', link: 'clear-cell', device: 'laptop' };
  const limits = [
    { ...under, measure: 'first content', most: 30_000 },
    { ...under, measure: 'interactive', most: 10 },
  ];
  fs.writeFileSync(file, JSON.stringify({ ...project, amendments: { ...project.amendments, limits } }));
  const args = ['check', sample, '--project', file, '--rehearsed', '--runs', '1', '--json'];
  const { status, stdout } = spawnSync(process.execPath, ['bin/yokeline.mjs', ...args], { encoding: 'utf8' });
  expect(status).toBe(1);
  const report = JSON.parse(stdout);
  expect(report.rehearsed.map((r: { measured: { runs: number } }) => r.measured.runs)).toEqual([1, 1]);
  expect(report.broken).toMatchObject([{ limit: { measure: 'interactive' } }]);
  expect(report.broken[0].value).toBe(report.rehearsed[1].measured.median);
  fs.rmSync(folder, { recursive: true });
});

const VISIT = {
  'index.html':
    '<meta name="viewport" content="width=device-width"><div id="root"></div><script type="module" src="/src/main.jsx"></script>',
  'package.json': '{ "dependencies": { "react": "19", "react-dom": "19" } }',
  'src/main.jsx': `import { lazy, Suspense, useState } from 'react';
import { createRoot } from 'react-dom/client';
import Home from './home';
const Far = lazy(() => import('./far'));
export const routes = [{ path: '/', element: <Home /> }, { path: '/far', element: <Far /> }];
function App() {
  const [path, setPath] = useState(location.pathname);
  const go = (e) => {
    const link = e.target.closest('a');
    if (!link) return;
    e.preventDefault();
    history.pushState(null, '', link.pathname);
    setPath(link.pathname);
  };
  return <div onClick={go}><nav><a href="/">Home</a> <a href="/far">Far</a></nav><Suspense fallback={<p>…</p>}>{path === '/far' ? <Far /> : <Home />}</Suspense></div>;
}
createRoot(document.getElementById('root')).render(<App />);`,
  'src/home.jsx': `import { lazy, Suspense, useState } from 'react';
import { Seen } from './seen';
const Notes = lazy(() => import('./notes'));
const Panel = lazy(() => import('./panel'));
const Sign = () => <svg width="20" height="20"><circle r="9" cx="10" cy="10" /></svg>;
export default function Home() {
  const [, setOther] = useState(false);
  const [open, setOpen] = useState(false);
  return <main><button onClick={() => setOther(true)}><Sign /></button><button onClick={() => setOpen(true)}><Sign /></button>{open && <Suspense><Panel /></Suspense>}<h1>Tides</h1><div style={{ height: 3000 }}>long</div><Seen><Suspense fallback={<p>…</p>}><Notes /></Suspense></Seen></main>;
}`,
  'src/seen.jsx': `import { useEffect, useRef, useState } from 'react';
export function Seen({ children }) {
  const ref = useRef(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver(([e]) => { if (e.isIntersecting) setSeen(true); });
    watch.observe(ref.current);
    return () => watch.disconnect();
  }, []);
  return <div ref={ref} style={{ minHeight: 50 }}>{seen ? children : null}</div>;
}`,
  'src/notes.jsx': 'export default function Notes() { return <section>Low water cancels the crossing.</section>; }',
  'src/panel.jsx': 'export default function Panel() { return <aside>Signs</aside>; }',
  'src/far.jsx': 'export default function Far() { return <h1>Far</h1>; }',
};

it('goes on from act to act: finds what has no words, scrolls to what stands below, moves there and back, and lays each wait beside what is predicted', () => {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'yokeline-visit-'));
  for (const [file, text] of Object.entries(VISIT)) {
    fs.mkdirSync(path.dirname(path.join(folder, file)), { recursive: true });
    fs.writeFileSync(path.join(folder, file), text);
  }
  for (const name of ['react', 'react-dom', 'scheduler'])
    fs.cpSync(path.join('node_modules', name), path.join(folder, 'node_modules', name), { recursive: true });
  const acts = ['panel', 'notes', '/far', '/', '/far'];
  const args = ['rehearse', folder, '--route', '/', ...acts.flatMap((a) => ['--act', a]), '--runs', '1', '--json'];
  const said = JSON.parse(
    execFileSync(process.execPath, ['bin/yokeline.mjs', ...args], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    }),
  );
  const [run] = said.rehearsal.runs;
  expect([run.errors, said.rehearsal.acts]).toEqual([[], acts]);
  expect(run.moments.waits).toEqual(acts.map(() => expect.any(Number)));
  const asked = run.requests
    .map((r: { address: string }) => r.address)
    .filter((a: string) => /(panel|notes|far)-/.test(a));
  // What was fetched once is there the second time.
  expect(asked).toHaveLength(3);
  // The sign says nothing: the second of two such buttons brings it.
  expect(said.rehearsal.told).toContainEqual(expect.stringMatching(/buttons without words were pressed/));
  const waits = said.quantities.filter((q: { quantity: string }) => q.quantity === 'wait');
  expect(waits.map((q: { name: string; predicted: number }) => [q.name, q.predicted >= 0])).toEqual(
    acts.map((a) => [`Wait for ${a}`, true]),
  );
  // All three came over the link the first time.
  for (const at of [0, 1, 2]) expect(run.moments.waits[at]).toBeGreaterThan(60);
  fs.rmSync(folder, { recursive: true });
});
