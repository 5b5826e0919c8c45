import type { ChunkGraph } from '../chunks/types.ts';
import type { LoadProgram } from '../load/types.ts';
import { REFERENCE_COSTS } from '../sim/conditions.ts';
import type { RehearsedTask } from './types.ts';

/** When parts of a landing were painted, and what the thread did. */
export interface Drawn {
  /** By the part’s index in the program; null where it couldn’t be seen. */
  shown: readonly (number | null)[];
  tasks: readonly RehearsedTask[];
  /** What modules took by themselves when they ran, by index. */
  times: Readonly<Record<number, number>>;
}

/**
 * What drawing each part took, in ms on the device that it ran on. Parts that are painted together were drawn together: what the thread did
 * from the paint before to theirs besides running modules is theirs, each by its share of what was reckoned. Painting that the model counts
 * by itself isn’t counted again. `browserFactor`: times that the device is slower.
 */
export function drawingTimes(
  { shown, tasks, times }: Drawn,
  { parts, resources }: LoadProgram,
  { chunks }: Pick<ChunkGraph, 'chunks'>,
  browserFactor: number,
): (number | null)[] {
  const found = parts.map((): number | null => null);
  const paints = [...new Set(shown.filter((at) => at !== null))].sort((a, b) => a - b);
  const counted = new Set<number>();
  let from = 0;
  paints.forEach((to, round) => {
    const together = parts.flatMap((_, p) => (shown[p] === to ? [p] : []));
    let script = 0;
    let layout = 0;
    for (const task of tasks) {
      const share = Math.max(0, Math.min(task.end, to) - Math.max(task.start, from)) / (task.end - task.start);
      if (share === 0) continue;
      const { draw = 0, compile = 0, layout: laid = 0 } = task.of;
      // Where a task evaluates files, what it compiles is theirs.
      script += share * (draw + (task.of.run ? 0 : compile));
      layout += share * laid;
    }
    // Modules of deferred files run in the same way as what draws; those that start the app are evaluated by the browser.
    for (const p of together)
      for (const { resource } of parts[p].needs)
        for (const m of chunks[resources[resource].chunk ?? -1]?.modules ?? []) {
          if (counted.has(m)) continue;
          counted.add(m);
          if (round > 0) script -= times[m] ?? 0;
        }
    const all = Math.max(0, script) + Math.max(0, layout - REFERENCE_COSTS.paint * browserFactor);
    const reckoned = together.reduce((sum, p) => sum + parts[p].renderMs, 0);
    for (const p of together) found[p] = all * (reckoned > 0 ? parts[p].renderMs / reckoned : 1 / together.length);
    from = to;
  });
  return found;
}
