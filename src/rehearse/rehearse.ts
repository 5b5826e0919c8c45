import type { Amendments } from '../core/amend/types.ts';
import { InputError } from '../core/errors.ts';
import type { Plan } from '../core/plan/types.ts';
import { readRun } from '../core/rehearsals/read-run.ts';
import type { Rehearsal, RehearsedRun } from '../core/rehearsals/types.ts';
import type { Conditions } from '../core/sim/conditions.ts';
import type { CacheState } from '../core/vocabulary/cache-states.ts';
import { answersInFolder } from '../reader/answers/app-types.ts';
import { remembering } from '../reader/memory/remembering.ts';
import type { ReadOptions } from '../reader/read-app.ts';
import { connectsLater, findBrowser, NO_BROWSER } from './browser/find-browser.ts';
import type { Doing } from './measure/do-act.ts';
import { busyShare, stolenShare, ticks } from './measure/machine.ts';
import { type RunLanding, runLanding } from './measure/run-landing.ts';
import type { Speaking } from './serve/server.ts';
import { ServerBeside } from './serve/server-beside.ts';
import { dataAnswers } from './stage/answers.ts';
import { applyPlan } from './stage/apply-plan.ts';
import type { DataFrom } from './stage/data-from.ts';
import { HOST, type Site, siteFor } from './stage/site.ts';

/** What is to be rehearsed: one plan of an app, landing on one route. */
export interface RehearsalWork {
  /** The app’s folder, and how it is read. */
  folder: string;
  reading: ReadOptions;
  /** What a person corrected on what is read. */
  amendments: Amendments;
  plan: Plan;
  pattern: string;
  /** Where on the route it is landed, where its pattern leaves that open. */
  address?: string;
  conditions: Conditions;
  /** What is done once the landing has come to rest, one after the other: parts by their ids, routes that are moved to by their patterns. */
  acts: readonly string[];
  /** How often it is run. */
  runs: number;
  data?: DataFrom;
  /** Folder in which readings keep what they found out; null: nowhere. */
  memory: string | null;
}

/** How far a rehearsal is. */
export interface RehearsalProgress {
  doing: string;
  done: number;
  of: number;
}

/** How many visits came before, for each state of the cache that a rehearsal can make. */
const EARLIER: Partial<Record<CacheState, number>> = { empty: 0, returning: 1, frequent: 2 };

/** A machine that others keep busier than this is waited for, so often; after that it is told. */
const TOO_BUSY = 0.2;
const MOST_WAITS = 20;

/**
 * Runs a landing of a plan in a real browser over an emulated link, several times, and gives what was measured. It runs the app’s own code.
 * Refuses, with what to do, what can’t be run here. `stopped`: asked in between; what was run by then is given.
 */
export async function rehearse(
  work: RehearsalWork,
  progress: (at: RehearsalProgress) => void,
  stopped: () => boolean = () => false,
): Promise<Rehearsal> {
  const program = findBrowser();
  if (program === null) throw new InputError('No browser', NO_BROWSER, 'CHROMIUM');
  const earlier = EARLIER[work.conditions.cache];
  if (earlier === undefined)
    throw new InputError(
      'This state of the cache isn’t rehearsed',
      `Rehearsals make these: ${Object.keys(EARLIER).join(', ')}. Choose one of them.`,
      'cache',
    );
  const { link } = work.conditions;
  const told = notMade(work.conditions);
  const speaking = speakingOf(link.protocol, link.tls, told);
  progress({ doing: 'reading the app under the plan', done: 0, of: work.runs });
  const applied = remembering(work.memory, () => applyPlan(work.folder, work.plan, work.amendments, work.reading));
  const site = siteFor(applied, work.pattern, {
    ...{ folder: work.folder, address: work.address, acts: work.acts, isSecure: speaking.tls !== 'none' },
    ...(work.data ? { data: dataAnswers(work.data) } : {}),
    // Found out before anything is measured.
    shapes: answersInFolder(work.folder, applied.snapshot, work.pattern, work.reading.workspace),
  });
  const { hosts, answers, answering } = site;
  const server = await ServerBeside.start(
    { hosts, speaking, link: { ...link, headStartMs: connectsLater(program) }, answers },
    answering,
  );
  try {
    const runs: RehearsedRun[] = [];
    let browser = '';
    for (let n = 0; n < work.runs && !stopped(); n++) {
      progress({ doing: `landing, run ${n + 1} of ${work.runs}`, done: n, of: work.runs });
      const made = await oneRun(program, site, work, earlier, server, told, stopped);
      if (!made) break;
      runs.push(made.run);
      browser = `Chromium ${made.version}`;
    }
    if (runs.length === 0) throw new InputError('Stopped', 'The rehearsal was stopped before its first run was done.');
    return {
      ...{ plan: work.plan.name, pattern: work.pattern, address: site.address, conditions: work.conditions },
      ...(work.acts.length === 0 ? {} : { acts: [...work.acts] }),
      ...{
        browser,
        at: new Date().toISOString(),
        runs,
        leftOut: applied.leftOut,
        told: [...new Set([...told, ...site.told])],
      },
    };
  } finally {
    server.stop();
  }
}

async function oneRun(
  program: string,
  site: Site,
  { conditions, acts }: RehearsalWork,
  earlier: number,
  server: ServerBeside,
  told: string[],
  stopped: () => boolean,
): Promise<{ run: RehearsedRun; version: string } | null> {
  let busy = await busyShare();
  for (let waited = 0; busy > TOO_BUSY && waited < MOST_WAITS && !stopped(); waited++) busy = await busyShare();
  if (busy > TOO_BUSY) told.push('other programs kept this machine busy, so that times are too long');
  const address = `${server.scheme}://${HOST}${site.address}`;
  const land = () =>
    withStolen(() => runLanding(program, address, conditions, server.led, earlier, stopped, site.acts));
  let { done, stolen } = await land();
  if (isUneven(done, stolen) && !stopped()) {
    const again = await land();
    if (unevenness(again.done, again.stolen) < unevenness(done, stolen)) ({ done, stolen } = again);
  }
  if (stolen > TOO_BUSY)
    told.push(
      'others were given much of this machine’s time during a run (it is a guest of another), so that times are too long',
    );
  else if (isUneven(done, stolen))
    told.push('this machine became faster or slower during a run, so that predictions beside it may be off by as much');
  if (!done.sandboxed) told.push('the browser ran without its sandbox, which this system or user doesn’t give it');
  told.push(...undoneWords(done, site.acts, acts));
  if (stopped() && !done.quiet) return null;
  if (!done.quiet) told.push('the page never came to rest: it was looked at for a minute and a half');
  const { app, program: landing, watched, acted } = site;
  const run = readRun(done.raw, done.tasks, { ...app, program: landing, conditions, watched, acted });
  return {
    run: { ...run, busy: Math.max(busy, stolen), slowed: done.slowed, errors: done.errors },
    version: done.version,
  };
}

/** What there is to tell of acts, in words. */
function undoneWords({ undone }: RunLanding, acts: readonly Doing[], names: readonly string[]): string[] {
  return undone.map(({ act, why }) => {
    const rest = acts.length - act - 1;
    return toldOf(
      why,
      acts[act],
      names[act],
      rest === 0 ? '' : `, and ${rest === 1 ? 'the act' : `${rest} acts`} after it`,
    );
  });
}

function toldOf(why: RunLanding['undone'][number]['why'], what: Doing, name: string, more: string): string {
  switch (why) {
    case 'tried':
      return `nothing on the page says what brings ${name}: buttons without words were pressed until one did`;
    case 'nothing new':
      return notDone(what, name);
    case 'not found':
      return `${notDone(what, name)}${more}`;
    case 'opened a document':
      return `what was done opened another document: what came of it isn’t told${more}`;
  }
}

function notDone(what: Doing, name: string): string {
  switch (what.does) {
    case 'press':
      return `nothing on the page says “${what.words}”: the act couldn’t be done`;
    case 'move':
      return `no link on the page leads to ${what.linkTo}: the move couldn’t be made`;
    case 'scroll':
      return `scrolling to ${name} brought nothing new: it was there before, or isn’t drawn there`;
  }
}

/** By so much the machine may become faster or slower during a run. */
const MOST_DRIFT = Math.log(1.25);

/** How far a run was disturbed: 1 where it is too much. */
const unevenness = ({ drift }: Pick<RunLanding, 'drift'>, stolen: number): number =>
  Math.max(stolen / TOO_BUSY, Math.abs(Math.log(drift)) / MOST_DRIFT);
const isUneven = (done: Pick<RunLanding, 'drift'>, stolen: number): boolean => unevenness(done, stolen) > 1;

/** Does something, and tells what share of the processors' time was stolen meanwhile. */
async function withStolen<T>(work: () => Promise<T>): Promise<{ done: T; stolen: number }> {
  const before = ticks();
  const done = await work();
  return { done, stolen: stolenShare(before, ticks()) };
}

/** What of the conditions a rehearsal doesn’t make, in words. */
function notMade({ link, device }: Conditions): string[] {
  return [
    ...(link.serverScheduling === 'fifo' ? [] : ['the server sends what is ready in the order in which it became so']),
    ...(device.dataSaver ? ['the browser doesn’t say that data is to be saved'] : []),
  ];
}

function speakingOf(protocol: Conditions['link']['protocol'], tls: Speaking['tls'], told: string[]): Speaking {
  if (protocol === 'h1') return { protocol, tls };
  if (protocol !== 'h2') told.push('served over HTTP/2: HTTP/3 isn’t spoken here');
  if (tls === 'none') told.push('served with TLS 1.3: browsers speak HTTP/2 only over TLS');
  return { protocol: 'h2', tls: tls === 'none' ? '1.3' : tls };
}
