// The search by steps beside trying every set, on made-up problems.
import { madeUpProblem } from './made-up-choices.mjs';
import { line, report } from './report.mjs';

const core = (file) => import(new URL(`../../dist/core/${file}`, import.meta.url));
const { FEW, stepwise } = await core('choose/select.js');
const { seeded } = await core('sim/random.js');
const { finish } = await core('steps.js');

const PROBLEMS = 100;
/** Short of the best by less is the best, as no change counts that saves less. */
const SAME = 0.002;

export function choosing() {
  for (const price of [0, 10, 40]) withPrice(price);
}

function withPrice(price) {
  let took = 0;
  const short = Array.from({ length: PROBLEMS }, (_, at) => {
    const p = madeUpProblem(seeded, 1000 + at, FEW, price);
    const before = p.measure([]).cost;
    const least = p.least();
    const began = performance.now();
    const { chosen } = finish(stepwise(p));
    took += performance.now() - began;
    const set = chosen.flatMap((c) => c.candidates).sort((a, b) => a - b);
    const saved = before - least;
    return saved < 1 ? 0 : (p.measure(set).cost + price * set.length - least) / saved;
  });
  const best = short.filter((s) => s < SAME).length / PROBLEMS;
  const worst = Math.max(...short);
  const said = `choosing among ${FEW}, each change to save ${price}`;
  line(`${said}: best of all sets`, `${(best * 100).toFixed(0).padStart(5)} %`, 'aim ≥ 98 %', best >= 0.98);
  line(`${said}: short of it, the worst`, `${(worst * 100).toFixed(1).padStart(5)} %`, 'aim ≤ 1 %', worst <= 0.01);
  report(`${said}: all ${PROBLEMS} searches`, took);
}
