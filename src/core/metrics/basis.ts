import type { LoadProgram } from '../load/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Timeline } from '../sim/types.ts';

/** How much of a time somebody measured, how much tables of what was measured elsewhere say, and how much is estimated: ms on the device of the conditions. */
export interface Basis {
  measured: number;
  tabled: number;
  estimated: number;
}

/** What the page’s thread does until an instant, by what its cost rests on. */
export interface ThreadBasis {
  /** Files of script: measured modules and scripts, or the device’s rate times their size. */
  running: Basis;
  /** Parts that script draws or has answer: measured, told by the table of what packages draw, or reckoned from what their code draws. */
  drawing: Basis;
}

/**
 * What running script and drawing rest on, of all that is done until an instant (ms): a figure is as good as what it
 * rests on.
 */
export function basisOf(program: LoadProgram, timeline: Timeline, conditions: Conditions, until: number): ThreadBasis {
  const { cpuFactor, evaluationRate } = conditions.device;
  const running: Basis = { measured: 0, tabled: 0, estimated: 0 };
  for (const { kind, request, start, end } of timeline.tasks) {
    if (kind !== 'evaluate' || request < 0 || start >= until) continue;
    const { resource } = timeline.requests[request];
    // Where the device says what script costs, that was measured.
    const known = evaluationRate !== undefined || resource < 0;
    const measured = known ? end - start : Math.min(end - start, program.resources[resource].cpuMs * cpuFactor);
    const { estimatedBytes = 0, tabledBytes = 0, tabledMs = 0 } = program.resources[resource] ?? {};
    const elsewhere = known ? 0 : Math.min(measured, tabledMs * cpuFactor);
    const tabled = estimatedBytes > 0 ? ((end - start - measured) * tabledBytes) / estimatedBytes : 0;
    running.measured += measured - elsewhere;
    running.tabled += tabled + elsewhere;
    running.estimated += end - start - measured - tabled;
  }
  const drawing: Basis = { measured: 0, tabled: 0, estimated: 0 };
  for (const { part: at, anew, start, end } of timeline.tasks) {
    if (at === undefined || start >= until) continue;
    const { renderMs, tabledMs = 0, fillMs = 0, fillTabledMs = 0, measured } = program.parts[at];
    // What somebody measured is what it took to show; what answers fill is reckoned.
    const [whole, tabled] = anew ? [fillMs, fillTabledMs] : [renderMs, measured ? 0 : tabledMs];
    const ofTable = whole > 0 ? ((end - start) * tabled) / whole : 0;
    drawing.tabled += ofTable;
    drawing[measured && !anew ? 'measured' : 'estimated'] += end - start - ofTable;
  }
  return { running, drawing };
}

/** The same in words, as parts of a sentence; nothing for what takes less than half a millisecond. */
export function basisWords({ running, drawing }: ThreadBasis): string[] {
  return [
    share(running, 'running script', 'from its size'),
    share(drawing, 'drawing', 'from what the code draws'),
  ].filter((words) => words !== null);
}

const LEAST = 0.5;

function share({ measured, tabled, estimated }: Basis, doing: string, from: string): string | null {
  const sum = measured + tabled + estimated;
  if (sum < LEAST) return null;
  const said = (ms: number) => `${Math.round(ms)} ms`;
  const kinds = [
    { ms: measured, words: 'measured' },
    { ms: tabled, words: 'measured elsewhere' },
    { ms: estimated, words: `estimated ${from}` },
  ].filter(({ ms }) => ms >= LEAST);
  const basis = kinds.length === 1 ? kinds[0].words : kinds.map(({ ms, words }) => `${said(ms)} ${words}`).join(', ');
  return `${said(sum)} on ${doing} (${basis})`;
}
