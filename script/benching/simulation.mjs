// The simulator alone, and many landings of the sample.
import { measure, report } from './report.mjs';

const core = (file) => import(new URL(`../../dist/core/${file}`, import.meta.url));
const { planned } = await core('chunks/planned.js');
const { compileLoad } = await core('load/compile.js');
const { drawConditions, landUnder } = await core('mix/mix.js');
const { BASELINE } = await core('plan/types.js');
const { DEFAULT_CONDITIONS, DEVICES, LINKS } = await core('sim/conditions.js');
const { simulate } = await core('sim/simulate.js');

/** A page whose script asks for so many files of 8 kB. */
function pageOf(files) {
  const nothing = { origin: '', serverMs: 5, cache: 'immutable', cpuMs: 1, estimatedBytes: 0, imports: [], follow: [] };
  const script = (n) => ({
    ...nothing,
    address: `/${n}.js`,
    name: `${n}`,
    type: 'script',
    bytes: 8000,
    purpose: 'start',
  });
  const resources = Array.from({ length: files - 1 }, (_, n) => script(n));
  resources[0].follow = [{ when: 'eval', do: { kind: 'import', group: 1 } }];
  return {
    document: {
      address: '/',
      bytes: 5000,
      serverMs: 50,
      cache: 'no-store',
      earlyHints: [],
      linkHeader: [],
      flush: [],
      markup: [{ at: 100, tag: 'script', group: 0, mode: 'module' }],
    },
    resources,
    groups: [[0], resources.map((_, i) => i).slice(1)].map((of) => ({
      name: 'g',
      resources: of,
      after: [],
      loader: 'listed',
    })),
    parts: [],
    steps: [],
  };
}
export function pages() {
  report(
    'simulate: a landing with 40 requests',
    measure(() => simulate(pageOf(40), DEFAULT_CONDITIONS)),
    1.5,
  );
  report(
    'simulate: a landing with 500 requests',
    measure(() => simulate(pageOf(500), DEFAULT_CONDITIONS), 9),
    40,
  );
}

export function landings(snapshot) {
  const program = compileLoad(planned(snapshot, BASELINE), '/timetable');
  const mix = {
    links: LINKS.map((link) => ({ link, weight: 1 })),
    devices: DEVICES.map((device) => ({ device, weight: 1 })),
    returning: 0.3,
    spread: 0.25,
  };
  const drawn = drawConditions(mix, 1000, 1);
  const all = () => {
    for (const conditions of drawn) landUnder(program, conditions);
  };
  report('sample: 1,000 landings over a mix', measure(all, 3, 1), 2500);
  report(
    'sample: chunks + compile + simulate',
    measure(() => simulate(compileLoad(planned(snapshot, BASELINE), '/timetable'), DEFAULT_CONDITIONS), 50, 10),
  );
  report(
    'sample: simulate alone',
    measure(() => simulate(program, DEFAULT_CONDITIONS), 50, 10),
  );
}
