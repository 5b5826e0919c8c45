// Measures in a page of a browser, beside the reference machine: this machine is another one, and one that is shared with others changes from minute to minute.
const { REFERENCE_MS, usualTime, workload } = await import('../dist/core/sim/workload.js');

/** How many times slower than the reference machine this one is just now, in a page. */
async function slowness(page) {
  return (await page.evaluate(`(${usualTime})(${workload}, () => performance.now())`)) / REFERENCE_MS;
}

/** Does something in a page: what it gave, how many times slower than the reference machine this one was meanwhile, and whether it was that all the time. */
export async function besideReference(page, work) {
  const before = await slowness(page);
  const result = await work();
  const after = await slowness(page);
  return { result, slower: Math.sqrt(before * after), even: Math.abs(Math.log(after / before)) < Math.log(1.2) };
}

/** What running files takes of a page's thread to compile them where they come over the network, in ms per byte: most of it is done beside the thread then. Rehearsed: 7 ms of 352 kB. */
export const COMPILE = 0.000018;

const middle = (of) => [...of].sort((a, b) => a - b)[of.length >> 1];

/** What something took in the middle one of several runs, on the reference machine. `of`: what it took in the result of one. */
export function ofReference(runs, of) {
  return middle(evenOnes(runs).map(({ result, slower }) => of(result) / slower));
}

/** Of several runs those during which the machine stayed as it was; all of them where there is no such. */
function evenOnes(runs) {
  const even = runs.filter((run) => run.even);
  return even.length > 0 ? even : runs;
}
