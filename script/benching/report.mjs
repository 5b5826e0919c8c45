// Measuring, and each figure beside its aim.

let missed = 0;

/** How many aims were missed so far. */
export const missedAims = () => missed;

/** Median of several runs, after warming up, in ms. */
export function measure(run, runs = 15, warm = 3) {
  for (let i = 0; i < warm; i++) run();
  const times = Array.from({ length: runs }, () => {
    const began = performance.now();
    run();
    return performance.now() - began;
  });
  return median(times);
}

export function median(times) {
  return [...times].sort((a, b) => a - b)[times.length >> 1];
}

/** A time with its aim, where there is one. */
export function report(name, ms, aim) {
  line(name, `${ms.toFixed(1).padStart(9)} ms`, aim === undefined ? null : `aim ≤ ${aim} ms`, !(ms > aim));
}

/** A share with its aim. */
export function share(name, value, aim) {
  line(name, `${(value * 100).toFixed(1).padStart(5)} %`, `aim ≤ ${aim * 100} %`, value <= aim);
}

/** Any figure with its aim; `held` tells whether it is kept. */
export function line(name, value, aim, held) {
  if (aim !== null && !held) missed++;
  console.log(`${name.padEnd(70)} ${value}   ${aim === null ? '' : `${aim}   ${held ? 'held' : 'MISSED'}`}`);
}
