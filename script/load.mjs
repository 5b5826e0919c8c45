// Twenty clients change plans of projects with 5,000 modules for a minute, on this machine; prints how long saving takes. Build
// first: npm run build:node && npm run build:web. Other lengths: node script/load.mjs SECONDS
import { largeApp } from '../examples/large-app.mjs';
import { withSample } from './served.mjs';

const CLIENTS = 20;
const seconds = Number(process.argv[2] ?? 60);
const AIM_MS = 100;

await withSample(async (address) => {
  const call = async (method, where, body) => {
    const answer = await fetch(`${address}${where}`, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    if (!answer.ok) throw new Error(`${method} ${where}: ${answer.status} ${await answer.text()}`);
    return answer.json();
  };
  const { importKey } = await import('../dist/core/snapshot/graph-index.js');
  const snapshot = largeApp(5000);
  const text = JSON.stringify({ format: 'yokeline-project', version: 1, snapshot, plans: [] });
  const keys = snapshot.imports
    .filter((i) => i.kind === 'static')
    .slice(0, 2000)
    .map((i) => importKey(snapshot, i));
  const plans = [];
  for (let n = 0; n < CLIENTS; n++) {
    const { id } = await call('POST', '/api/projects', { fileName: 'app.yokeline.json', text });
    plans.push((await call('GET', `/api/projects/${id}`)).plans[0]);
  }
  const took = [];
  let failed = 0;
  const until = performance.now() + seconds * 1000;
  const client = async (plan) => {
    let { version } = plan;
    for (let n = 1; performance.now() < until; n++) {
      const decisions = keys.slice(0, n % 60).map((key) => ({ kind: 'detach', import: key }));
      const began = performance.now();
      try {
        ({ version } = await call('PUT', `/api/plans/${plan.id}`, { version, decisions }));
        took.push(performance.now() - began);
      } catch (error) {
        failed++;
        console.error(error.message);
      }
      // A person who changes something ten times a second.
      await new Promise((go) => setTimeout(go, 100));
    }
  };
  await Promise.all(plans.map(client));
  took.sort((a, b) => a - b);
  const at = (share) => took[Math.min(took.length - 1, Math.floor(share * took.length))].toFixed(1);
  const ok = failed === 0 && Number(at(0.95)) <= AIM_MS;
  console.log(`${CLIENTS} clients for ${seconds} s: ${took.length} saves, ${failed} failed`);
  console.log(
    `middle ${at(0.5)} ms, 95 % ${at(0.95)} ms (aim ≤ ${AIM_MS} ms, ${ok ? 'held' : 'MISSED'}), longest ${at(1)} ms`,
  );
  if (!ok) process.exitCode = 1;
});
