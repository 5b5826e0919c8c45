// Chunks, loads and outlines of generated apps.
import { largeApp } from '../../examples/large-app.mjs';
import { line, measure, report } from './report.mjs';

const core = (file) => import(new URL(`../../dist/core/${file}`, import.meta.url));
const { planned } = await core('chunks/planned.js');
const { compileLoad } = await core('load/compile.js');
const { outlineOf } = await core('outline/outline.js');
const { BASELINE } = await core('plan/types.js');
const { simulate } = await core('sim/simulate.js');
const { DEFAULT_CONDITIONS } = await core('sim/conditions.js');
const { importKey } = await core('snapshot/graph-index.js');

const AIMS = { 1000: 15, 10000: 150, 100000: undefined };

export function chunksOfGenerated() {
  for (const [count, aim] of Object.entries(AIMS)) ofSize(Number(count), aim);
  const form = (count) => {
    const snapshot = largeApp(count);
    return measure(() => planned(snapshot, BASELINE), 5);
  };
  const times = form(100_000) / form(10_000);
  line('form chunks: 100,000 modules against 10,000', `${times.toFixed(1).padStart(9)} ×`, 'aim ≤ 12 ×', times <= 12);
}

function ofSize(count, aim) {
  const snapshot = largeApp(count);
  const route = snapshot.routes[0].pattern;
  const runs = count > 50_000 ? 5 : 15;
  const landing = () => simulate(compileLoad(planned(snapshot, BASELINE), route), DEFAULT_CONDITIONS);
  const said = `${count.toLocaleString('en')} modules`;
  const requests = landing().requests.length;
  report(`${said}: chunks + compile + simulate (${requests} requests)`, measure(landing, runs), aim);
  const mid = count === 10_000;
  report(
    `${said}: form chunks alone`,
    measure(() => planned(snapshot, BASELINE), runs),
    mid ? 60 : undefined,
  );
  let pick = 0;
  const joined = snapshot.imports.filter((i) => i.kind === 'static');
  report(
    `${said}: form chunks after one more decision`,
    measure(() => {
      pick += 977;
      const decision = { kind: 'detach', import: importKey(snapshot, joined[pick % joined.length]) };
      planned(snapshot, { ...BASELINE, decisions: [decision] });
    }, runs * 2),
    mid ? 20 : undefined,
  );
  report(
    `${said}: outline with all carried weights`,
    measure(() => outlineOf(snapshot, BASELINE, route), runs),
    mid ? 150 : undefined,
  );
}
