import type { CDPSession } from 'playwright-core';
import type { RehearsedTask, ThreadKind } from '../../core/rehearsals/types.ts';

/** An event of a browser’s trace (Trace Event Format); times in µs. */
export interface TraceEvent {
  name: string;
  ph: string;
  ts: number;
  dur?: number;
  pid: number;
  tid: number;
  args: { name?: string; data?: { isOutermostMainFrame?: boolean; documentLoaderURL?: string } };
}

/** Nothing is told of each function that is compiled as it is called: telling it takes longer than that does, and it belongs to what calls it. */
const CATEGORIES = ['devtools.timeline', 'blink.user_timing', 'toplevel', 'v8.execute'];
/** Shorter tasks aren’t kept, in ms. */
const LEAST_TASK_MS = 1;

/** What each event of the page’s thread is about; what is inside of one that isn’t named here belongs to what is around it. */
const KINDS: Record<string, ThreadKind> = {
  EvaluateScript: 'run',
  'v8.run': 'run',
  'v8.evaluateModule': 'run',
  'v8.compile': 'compile',
  'v8.compileModule': 'compile',
  ...Object.fromEntries(
    ['FunctionCall', 'RunMicrotasks', 'TimerFire', 'FireAnimationFrame', 'FireIdleCallback', 'EventDispatch'].map(
      (name) => [name, 'draw' as const],
    ),
  ),
  ...Object.fromEntries(
    ['UpdateLayoutTree', 'Layout', 'PrePaint', 'Paint', 'Layerize', 'Commit', 'UpdateLayer', 'CompositeLayers'].map(
      (name) => [name, 'layout' as const],
    ),
  ),
};

/** Begins to trace a page; the answer ends it and gives what was traced. */
export async function traced(tools: CDPSession): Promise<() => Promise<TraceEvent[]>> {
  const events: TraceEvent[] = [];
  tools.on('Tracing.dataCollected', ({ value }) => {
    for (const event of value) events.push(event as unknown as TraceEvent);
  });
  await tools.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: CATEGORIES, excludedCategories: ['*'] },
  });
  return async () => {
    const complete = new Promise<void>((done) => tools.once('Tracing.tracingComplete', () => done()));
    await tools.send('Tracing.end');
    await complete;
    return events;
  };
}

/** The tasks of the page’s thread since the navigation to an address began, each with what its time went to. */
export function tasksOf(events: readonly TraceEvent[], address: string): RehearsedTask[] {
  const start = events.find(
    (e) =>
      e.name === 'navigationStart' &&
      e.args.data?.isOutermostMainFrame === true &&
      e.args.data.documentLoaderURL === address,
  );
  if (!start) return [];
  const own = events
    .filter(
      (e) =>
        e.pid === start.pid &&
        e.tid === threadOf(events, start) &&
        e.ph === 'X' &&
        e.dur !== undefined &&
        e.ts >= start.ts,
    )
    .sort((a, b) => a.ts - b.ts || b.dur! - a.dur!);
  const tasks: RehearsedTask[] = [];
  const open: { end: number; kind: ThreadKind; inner: number; dur: number }[] = [];
  const close = (until: number) => {
    while (open.length > 0 && open[open.length - 1].end <= until) {
      const { kind, inner, dur } = open.pop()!;
      const { of } = tasks[tasks.length - 1];
      of[kind] = (of[kind] ?? 0) + (dur - inner) / 1000;
      if (open.length > 0) open[open.length - 1].inner += dur;
    }
  };
  for (const { name, ts, dur = 0 } of own) {
    close(ts);
    if (open.length === 0) tasks.push({ start: (ts - start.ts) / 1000, end: (ts + dur - start.ts) / 1000, of: {} });
    open.push({ end: ts + dur, kind: KINDS[name] ?? open.at(-1)?.kind ?? 'other', inner: 0, dur });
  }
  close(Number.POSITIVE_INFINITY);
  return tasks.filter((t) => t.end - t.start >= LEAST_TASK_MS);
}

function threadOf(events: readonly TraceEvent[], { pid }: TraceEvent): number | undefined {
  return events.find((e) => e.pid === pid && e.name === 'thread_name' && e.args.name === 'CrRendererMain')?.tid;
}
