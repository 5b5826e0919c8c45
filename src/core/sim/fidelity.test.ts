import fs from 'node:fs';
import path from 'node:path';
import { parseLoadCase } from '../formats/load-case.ts';
import { playCase } from '../formats/play-case.ts';

type Spread = [number, number, number] | number;
interface Measured {
  milestones: Record<string, Spread>;
  resources: Record<string, { responseEnd?: Spread; initiatorType?: string; seenInRuns?: unknown }>;
  evalEnd?: Record<string, Spread>;
  steps?: Record<string, { duration: Spread }>;
  textPaint?: Record<string, Spread>;
  textInFont?: Record<string, Spread>;
}

const folder = path.resolve('fidelity/recordings');
const middle = (v: Spread | undefined) => (Array.isArray(v) ? v[0] : v);
const quantile = (v: number[], share: number) =>
  [...v].sort((a, b) => a - b)[Math.min(v.length - 1, Math.floor(share * v.length))];

/** Relative errors over all recorded loads, by measure. */
function errors(): Record<'firstContent' | 'responseEnd' | 'evalEnd' | 'steps' | 'text', number[]> {
  const found = {
    firstContent: [] as number[],
    responseEnd: [] as number[],
    evalEnd: [] as number[],
    steps: [] as number[],
    text: [] as number[],
  };
  for (const name of fs.readdirSync(folder)) {
    const recorded = JSON.parse(fs.readFileSync(path.join(folder, name), 'utf8')) as { measured: Measured };
    const translated = parseLoadCase(recorded);
    const predicted = playCase(translated);
    const note = (measure: keyof typeof found, is: number | null | undefined, truth: number | undefined, floor = 1) => {
      if (truth !== undefined && is != null) found[measure].push(Math.abs(is - truth) / Math.max(truth, floor));
    };
    const { milestones, resources, evalEnd = {}, steps = {}, textPaint = {}, textInFont = {} } = recorded.measured;
    note('firstContent', predicted.firstContentfulPaint, middle(milestones.firstContentfulPaint));
    for (const [href, r] of Object.entries(resources)) {
      if (href.includes('#') || r.initiatorType === 'early-hints' || r.seenInRuns) continue;
      note('responseEnd', predicted.resources[href]?.responseEnd, middle(r.responseEnd));
    }
    for (const [href, v] of Object.entries(evalEnd)) note('evalEnd', predicted.evalEnd[href], middle(v));
    for (const [id, v] of Object.entries(steps)) note('steps', predicted.steps[id], middle(v.duration), 20);
    for (const [id, v] of Object.entries(textPaint)) note('text', predicted.textPaint[id], middle(v));
    for (const [id, v] of Object.entries(textInFont)) note('text', predicted.textInFont[id], middle(v));
  }
  return found;
}

describe('predictions of the recorded loads', () => {
  const found = errors();

  it.each([
    ['firstContent', 89, 0.015, 0.08],
    ['responseEnd', 450, 0.015, 0.08],
    ['evalEnd', 280, 0.015, 0.06],
    ['steps', 15, 0.025, 0.08],
    ['text', 20, 0.025, 0.06],
  ] as const)(
    '%s: at least %d compared, median error at most %d, nine in ten within %d',
    (measure, count, median, p90) => {
      expect(found[measure].length).toBeGreaterThanOrEqual(count);
      expect(quantile(found[measure], 0.5)).toBeLessThanOrEqual(median);
      expect(quantile(found[measure], 0.9)).toBeLessThanOrEqual(p90);
    },
  );
});
