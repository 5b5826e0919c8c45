import type { ChunkGraph } from '../chunks/types.ts';
import { modulesOfPart } from '../load/part-modules.ts';
import type { LoadProgram } from '../load/types.ts';
import { expectedParts, LONG_TASK } from '../metrics/readout.ts';
import type { RecordedRequest } from '../recordings/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { drawingTimes } from './drawing-times.ts';
import type { RawEntry, RawLanding } from './raw.ts';
import type { RehearsedPart, RehearsedRun, RehearsedTask } from './types.ts';

/** What the modules are that parts of a landing are drawn by: to be watched while it is run. */
export function watchedModules(snapshot: Snapshot, pattern: string, program: LoadProgram): Map<string, number> {
  const route = snapshot.routes.find((r) => r.pattern === pattern)!;
  const { moduleAt } = graphIndex(snapshot);
  return new Map(
    program.parts.flatMap(({ id }): [string, number][] => {
      const module = moduleAt.get(modulesOfPart(snapshot, route, id).at(-1) ?? '');
      return module === undefined ? [] : [[id, module]];
    }),
  );
}

/** What was run: the landing, the files that it had, and the module of each part. */
export interface Landed {
  program: LoadProgram;
  graph: ChunkGraph;
  snapshot: Snapshot;
  conditions: Conditions;
  watched: ReadonlyMap<string, number>;
  /** The module that draws what each act brings, which is watched as well; −1 where there is none. */
  acted: readonly number[];
}

/** Reads off what a page told, and what its thread did, what predictions speak of. */
export function readRun(
  raw: RawLanding,
  tasks: RehearsedTask[],
  { program, graph, snapshot, conditions, watched, acted }: Landed,
): Omit<RehearsedRun, 'busy' | 'slowed' | 'errors'> {
  const landed = landingOf(raw);
  const shown = program.parts.map(({ id }) => {
    const whole = landed.calls[watched.get(id) ?? -1]?.find(([, , isWhole]) => isWhole);
    return whole ? shownAfter(landed, whole[1]) : null;
  });
  const { times } = raw;
  const drawn = drawingTimes({ shown, tasks, times }, program, graph, conditions.device.browserFactor);
  const shell = program.parts.find((p) => p.id === 'shell') ?? program.parts[0];
  const start = new Set(shell?.needs.map((n) => n.resource));
  const parts = program.parts.map(
    ({ id }, p): RehearsedPart => ({
      ...{ part: id, shown: shown[p], drawMs: drawn[p] },
      late: program.parts[p].needs.some((n) => !start.has(n.resource)),
    }),
  );
  const { firstContent, largestContent, document } = raw;
  return {
    ...(raw.firstAct === null ? {} : { firstAct: raw.firstAct }),
    requests: [document, ...raw.resources].map(asRecorded),
    moments: {
      ...{ firstContent, largestContent, contentLoaded: document.contentLoaded, load: document.load },
      interactive: interactiveOf(landed, program, conditions, parts),
      ...(acted.length === 0 ? {} : { waits: acted.map((module, act) => waitOf(raw, act, module)) }),
    },
    parts,
    tasks,
    modules: Object.fromEntries(Object.entries(times).map(([m, ms]) => [snapshot.modules[Number(m)].path, ms])),
  };
}

/** A landing alone: what came of acts isn’t of it. */
function landingOf(raw: RawLanding): RawLanding {
  const until = raw.firstAct ?? Number.POSITIVE_INFINITY;
  return {
    ...raw,
    changes: raw.changes.filter((c) => c.at < until),
    longTasks: raw.longTasks.filter((t) => t.start < until),
    calls: Object.fromEntries(
      Object.entries(raw.calls).map(([module, calls]) => [module, calls.filter(([began]) => began < until)]),
    ),
  };
}

/** From an act to what it brings being painted: its module’s first whole call after it, before the next act. In ms; null where that wasn’t seen. */
function waitOf(raw: RawLanding, act: number, module: number): number | null {
  const at = raw.acts[act] ?? null;
  if (at === null) return null;
  const until = raw.acts.slice(act + 1).find((next) => next !== null) ?? Number.POSITIVE_INFINITY;
  const call = raw.calls[module]?.find(([began, , whole]) => whole && began >= at && began < until);
  const shown = call ? shownAfter(raw, call[1]) : null;
  return shown === null ? null : shown - at;
}

/** What was called shows with the first change of the page after it. */
function shownAfter({ changes }: RawLanding, at: number): number | null {
  return changes.find((c) => c.at >= at)?.painted ?? null;
}

/**
 * When the last part of the first screen that answers was painted; where none can be seen, the last change of the page. No long task that
 * was under way then goes on.
 */
function interactiveOf(
  raw: RawLanding,
  program: LoadProgram,
  conditions: Conditions,
  parts: readonly RehearsedPart[],
): number | null {
  const expected = expectedParts(program, conditions).filter((p) => program.parts[p].interactive);
  const seen = expected.flatMap((p) => parts[p].shown ?? []);
  const from = seen.length > 0 ? Math.max(...seen) : (raw.changes.at(-1)?.painted ?? raw.firstContent);
  if (from === null) return null;
  // Frames are painted a little after what follows their work; nothing answers before something shows.
  const shown = Math.max(from, raw.firstContent ?? 0);
  const going = raw.longTasks.filter((t) => t.start <= shown && t.end > shown && t.end - t.start > LONG_TASK);
  return Math.max(shown, ...going.map((t) => t.end));
}

function asRecorded({
  address,
  startTime,
  requestStart,
  responseStart,
  responseEnd,
  transferSize,
}: RawEntry): RecordedRequest {
  // Of a worker's script the browser says when it came, and may name a later time for when it was asked for.
  const discovered = Math.min(startTime, responseEnd);
  const sent = Math.min(requestStart || startTime, responseEnd);
  return {
    address,
    discovered,
    sent,
    firstByte: responseStart || sent,
    end: responseEnd,
    bytes: transferSize,
  };
}
