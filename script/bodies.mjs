// Eight bodies of 100 MB come in at once while somebody else works; prints how long the other one's calls wait. Build first:
// npm run build:node && npm run build:web. Other counts and sizes: node script/bodies.mjs COUNT MB
import { largeApp } from '../examples/large-app.mjs';
import { withSample } from './served.mjs';

const count = Number(process.argv[2] ?? 8);
const megabytes = Number(process.argv[3] ?? 100);
const AIM_MS = 250;

await withSample(async (address) => {
  const snapshot = largeApp(5000);
  const sources = { 'src/filled.ts': '/* so that the body is as large */ '.repeat((megabytes * 1e6) / 35) };
  const text = JSON.stringify({ format: 'yokeline-project', version: 1, snapshot, plans: [], sources });
  const body = JSON.stringify({ fileName: 'app.yokeline.json', text });
  const headers = { 'content-type': 'application/json' };
  const { plans } = await (await fetch(`${address}/api/projects/saltmarsh`)).json();
  let { version } = plans[0];
  const took = [];
  let going = true;
  const other = (async () => {
    while (going) {
      const began = performance.now();
      const answer = await fetch(`${address}/api/plans/${plans[0].id}`, {
        method: 'PUT',
        headers,
        body: JSON.stringify({ version, decisions: [] }),
      });
      if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`);
      version = (await answer.json()).version;
      took.push(performance.now() - began);
      await new Promise((wake) => setTimeout(wake, 20));
    }
  })();
  const began = performance.now();
  const statuses = await Promise.all(
    Array.from(
      { length: count },
      async () => (await fetch(`${address}/api/projects`, { method: 'POST', headers, body })).status,
    ),
  );
  const all = performance.now() - began;
  going = false;
  await other;
  took.sort((a, b) => a - b);
  const at = (share) => took[Math.min(took.length - 1, Math.floor(took.length * share))];
  console.log(
    `${count} bodies of ${Math.round(body.length / 1e6)} MB: answered ${statuses.join(', ')} in ${(all / 1000).toFixed(1)} s`,
  );
  console.log(
    `${took.length} other calls: median ${at(0.5).toFixed(0)} ms, 95th percentile ${at(0.95).toFixed(0)} ms (aim ≤ ${AIM_MS}), longest ${at(1).toFixed(0)} ms`,
  );
  if (at(0.95) > AIM_MS || statuses.some((s) => s !== 201)) process.exitCode = 1;
});
