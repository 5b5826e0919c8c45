import type { Page } from 'playwright-core';
import { REFERENCE_MS, workload } from '../src/core/sim/workload.ts';

/** From so long on a task is long, on the reference machine. In ms. */
const LONG_MS = 50;

interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  /** Microseconds; `tdur` is the thread's own time. */
  ts: number;
  dur: number;
  tdur?: number;
  args: { name?: string };
}

/**
 * Tasks that held the page's thread for long while something was done, in ms, up to the moment at which `shown` (a text)
 * appears where it is given. What counts is the thread's own time, as it would be on the reference machine: a test machine
 * may be slower, or busy with something else.
 */
export async function longTasks(page: Page, work: () => Promise<void>, shown = ''): Promise<number[]> {
  const before = await slowness(page);
  const browser = page.context().browser()!;
  await browser.startTracing(page, { categories: ['toplevel', 'blink.user_timing'] });
  if (shown) await page.evaluate(markWhenShown, shown);
  await work();
  const { traceEvents } = JSON.parse((await browser.stopTracing()).toString()) as { traceEvents: TraceEvent[] };
  const slower = Math.max(1, before, await slowness(page));
  const threadOf = (e: TraceEvent) => `${e.pid} ${e.tid}`;
  const own = traceEvents
    .filter((e) => e.ph === 'M' && e.name === 'thread_name' && e.args.name === 'CrRendererMain')
    .map(threadOf);
  const mark = traceEvents.find((e) => e.name === 'shown');
  const tasks = traceEvents.filter((e) => e.ph === 'X' && e.name.endsWith('::RunTask') && own.includes(threadOf(e)));
  if (tasks.length === 0 || (shown && !mark)) throw new Error('the page was not traced');
  return tasks
    .filter((t) => mark === undefined || t.ts + t.dur < mark.ts)
    .map((t) => (t.tdur ?? t.dur) / 1000 / slower)
    .filter((ms) => ms > LONG_MS);
}

/** The same of the calmest of a few times: what a page always does too long, it does in each of them. */
export async function longTasksAtBest(once: () => Promise<number[]>): Promise<number[]> {
  let fewest = await once();
  for (let tries = 1; tries < 4 && fewest.length > 0; tries++) {
    const again = await once();
    if (again.length < fewest.length) fewest = again;
  }
  return fewest;
}

function markWhenShown(text: string): void {
  const watch = new MutationObserver(() => {
    if (!document.body.textContent?.includes(text)) return;
    performance.mark('shown');
    watch.disconnect();
  });
  watch.observe(document.body, { subtree: true, childList: true, characterData: true });
}

/** How much slower this machine's browser is than the reference, as far as it is free now. */
async function slowness(page: Page): Promise<number> {
  const times: number[] = await page.evaluate(`(() => {
    ${workload}
    return Array.from({ length: 9 }, () => {
      const began = performance.now();
      workload();
      return performance.now() - began;
    });
  })()`);
  return times.sort((a, b) => a - b)[4] / REFERENCE_MS;
}
