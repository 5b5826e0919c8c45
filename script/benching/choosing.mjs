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
/** Of the waste of the best set. */
const LEVELS = [0, 0.2, 0.4, 0.6, 0.8, 1];

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
  byWaste(said, price);
}

/** The curve of gain against waste beside the best of all sets for each of some amounts of waste. */
function byWaste(said, price) {
  const short = Array.from({ length: PROBLEMS / 4 }, (_, at) => {
    const p = { ...madeUpProblem(seeded, 2000 + at, FEW, price), most: null };
    const before = p.measure([]).cost;
    const { frontier } = finish(stepwise(p));
    return LEVELS.map((level) => {
      const waste = frontier.at(-1).weight * level;
      const least = p.least(waste);
      const found = Math.min(before, frontier.filter((f) => f.weight <= waste).at(-1)?.objective ?? before);
      return before - least < 1 ? 0 : (found - least) / (before - least);
    });
  }).flat();
  const best = short.filter((s) => s < SAME).length / short.length;
  const worst = Math.max(...short);
  line(`${said}: best per waste`, `${(best * 100).toFixed(0).padStart(5)} %`, 'aim ≥ 98 %', best >= 0.98);
  line(`${said}: short of it, the worst`, `${(worst * 100).toFixed(1).padStart(5)} %`, 'aim ≤ 1 %', worst <= 0.01);
}
