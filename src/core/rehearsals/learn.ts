import type { Measured } from '../snapshot/measured-types.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { browserShare } from './browser-share.ts';
import type { Rehearsal, RehearsedRun } from './types.ts';

/** Digits that are kept, in ms: runs are told by the browser in tenths. */
const DIGITS = 2;

/**
 * What rehearsals say about an app, for its predictions: what modules take when they run (with their share of what compiling their files takes),
 * what drawing parts takes, on the reference device, and how long the browser takes for its own work. Of several runs the mean of those that know it. `before`: what was known, which stays where nothing newer is said.
 */
export function learnt(snapshot: Snapshot, rehearsals: readonly Rehearsal[], before: Measured | null = null): Measured {
  const bytesOf = new Map(snapshot.modules.map((m) => [m.path, m.bytes.minified]));
  const modules = new Map<string, number[]>();
  const draws = new Map<string, Map<string, number[]>>();
  for (const { pattern, runs } of rehearsals) {
    const own = draws.get(pattern) ?? new Map<string, number[]>();
    draws.set(pattern, own);
    for (const run of runs) {
      const compile = compiledPerByte(run, bytesOf);
      for (const [path, ms] of Object.entries(run.modules))
        add(modules, path, (ms + compile * (bytesOf.get(path) ?? 0)) / run.slowed);
      for (const { part, drawMs } of run.parts) if (drawMs !== null) add(own, part, drawMs / run.slowed);
    }
  }
  const known = [...modules].flatMap(([path, all]) => {
    const bytes = bytesOf.get(path);
    return bytes === undefined ? [] : [[path, { ms: mean(all), bytes }] as const];
  });
  const drawn = [...draws].map(([pattern, parts]) => [
    pattern,
    { ...before?.draws?.[pattern], ...Object.fromEntries([...parts].map(([part, all]) => [part, mean(all)])) },
  ]);
  const waiting = rehearsals.flatMap((r) => (shellWaited(r) ? [r.pattern] : []));
  const seen = new Set(rehearsals.map((r) => r.pattern));
  const browser = browserShare(rehearsals) ?? before?.browser;
  const last = rehearsals.reduce((a, b) => (a.at > b.at ? a : b));
  return {
    by: `${last.browser}, ${last.at.slice(0, 10)}`,
    modules: { ...before?.modules, ...Object.fromEntries(known) },
    draws: { ...before?.draws, ...Object.fromEntries(drawn) },
    shellWaits: [...new Set([...(before?.shellWaits ?? []).filter((p) => !seen.has(p)), ...waiting])],
    ...(browser === undefined ? {} : { browser: Number(browser.toFixed(DIGITS)) }),
  };
}

/** Whether the shell was painted with the page in every run, and later than its code and the thread let it. */
function shellWaited({ runs }: Rehearsal): boolean {
  return runs.every(({ parts }) => {
    const shell = parts.find((p) => p.part === 'shell')?.shown;
    const page = parts.find((p) => p.part === 'page')?.shown;
    return shell != null && shell === page && parts.some((p) => p.part === 'page' && p.late);
  });
}

/** What compiling files took on the page’s thread, in ms per byte of what ran of them: it is no module’s own time, but each one’s size has it grow. */
function compiledPerByte({ tasks, modules }: RehearsedRun, bytesOf: ReadonlyMap<string, number>): number {
  const bytes = Object.keys(modules).reduce((sum, path) => sum + (bytesOf.get(path) ?? 0), 0);
  const compile = tasks.reduce((sum, { of }) => sum + (of.run || !of.draw ? (of.compile ?? 0) : 0), 0);
  return bytes > 0 ? compile / bytes : 0;
}

function add(to: Map<string, number[]>, key: string, value: number): void {
  const known = to.get(key);
  if (known) known.push(value);
  else to.set(key, [value]);
}

function mean(all: readonly number[]): number {
  return Number((all.reduce((sum, ms) => sum + ms, 0) / all.length).toFixed(DIGITS));
}
