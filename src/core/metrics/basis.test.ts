import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import { EVALUATION_RATE } from '../sim/conditions.ts';
import { simulate } from '../sim/simulate.ts';
import { basisOf, basisWords } from './basis.ts';

const SLOW = { ...ROUND, device: { ...ROUND.device, cpuFactor: 2, drawingFactor: 1.5 } };
/** What 100 kB are reckoned to take on the reference machine, in ms. */
const RATED = 100_000 * EVALUATION_RATE.likely;
const entry = { at: 1, tag: 'script', group: 0, mode: 'async' } as const;
const text = { at: 2, tag: 'text', part: 0 } as const;

function basis(
  resource: Parameters<typeof file>[1],
  drawn: Parameters<typeof screenPart>[1],
  until = Infinity,
  conditions = SLOW,
) {
  const needs = [{ resource: 0, state: 'evaluated' as const }];
  const program = page(drawn?.drawnBy === 'document' ? [entry, text] : [entry], [file('/a.js', resource)], {
    parts: [screenPart('page', { drawnBy: 'script', needs, ...drawn })],
  });
  return basisOf(program, simulate(program, conditions), conditions, until);
}

describe('what running and drawing rest on', () => {
  it('is told for each, on the device of the conditions', () => {
    expect(basis({ cpuMs: 20 }, { renderMs: 10 })).toEqual({
      running: { measured: 40, tabled: 0, estimated: 0 },
      drawing: { measured: 0, tabled: 0, estimated: 30 },
    });
    const mixed = basis({ cpuMs: 20, estimatedBytes: 100_000 }, { renderMs: 10, measured: true });
    expect(mixed.running.measured).toBeCloseTo(40, 6);
    expect(mixed.running.estimated).toBeCloseTo(2 * RATED, 6);
    expect(mixed.drawing).toEqual({ measured: 30, tabled: 0, estimated: 0 });
  });

  it('tells what the table of packages says', () => {
    const { running } = basis({ cpuMs: 10, estimatedBytes: 100_000, tabledBytes: 60_000 }, { renderMs: 0 });
    expect(running.measured).toBeCloseTo(20, 6);
    expect(running.tabled).toBeCloseTo(2 * 0.6 * RATED, 6);
    expect(running.estimated).toBeCloseTo(2 * 0.4 * RATED, 6);
  });

  it('counts what was measured of other apps with the table', () => {
    const { running } = basis({ cpuMs: 30, tabledMs: 22, estimatedBytes: 0 }, { renderMs: 0 });
    expect([running.measured, running.tabled, running.estimated].map(Math.round)).toEqual([16, 44, 0]);
  });

  it('counts what packages draw with the table, unless somebody measured the part', () => {
    const { drawing } = basis({ cpuMs: 20 }, { renderMs: 10, tabledMs: 6 });
    expect([drawing.measured, drawing.tabled, drawing.estimated].map(Math.round)).toEqual([0, 18, 12]);
    expect(basis({ cpuMs: 20 }, { renderMs: 10, tabledMs: 6, measured: true }).drawing).toEqual({
      ...{ measured: 30, tabled: 0, estimated: 0 },
    });
  });

  it('counts script as measured where the device says what it costs', () => {
    const device = { ...SLOW.device, evaluationRate: 0.0002 };
    const { running } = basis({ estimatedBytes: 100_000 }, { renderMs: 0 }, Infinity, { ...SLOW, device });
    expect(running.measured).toBeCloseTo(40, 6);
    expect(running.estimated).toBe(0);
  });

  it('counts what the document draws where script has it answer', () => {
    expect(basis({ cpuMs: 20 }, { renderMs: 10, drawnBy: 'document' }).drawing.estimated).toBe(30);
  });

  it('counts what is drawn anew with its answers, as far as it is drawn by then', () => {
    const answer = file('/data', { type: 'fetch', bytes: 400_000 });
    const drawn = screenPart('page', {
      ...{ needs: [{ resource: 0, state: 'evaluated' as const }], fill: [1], renderMs: 10, measured: true as const },
      ...{ fillMs: 40, fillTabledMs: 30 },
    });
    const asked = { at: 2, tag: 'script', group: 1, mode: 'async' } as const;
    const program = page([entry, asked], [file('/a.js', { cpuMs: 2 }), answer], { parts: [drawn] });
    const timeline = simulate(program, SLOW);
    expect(basisOf(program, timeline, SLOW, Infinity).drawing).toEqual({ measured: 30, tabled: 90, estimated: 30 });
    const before = timeline.tasks.find((t) => t.anew)!.start;
    expect(basisOf(program, timeline, SLOW, before).drawing).toEqual({ measured: 30, tabled: 0, estimated: 0 });
  });

  it('leaves out what comes later, and what the document draws', () => {
    expect(basis({ cpuMs: 20 }, { renderMs: 10 }, 0)).toEqual({
      running: { measured: 0, tabled: 0, estimated: 0 },
      drawing: { measured: 0, tabled: 0, estimated: 0 },
    });
    expect(basis({ cpuMs: 20 }, { renderMs: 10, drawnBy: 'document', interactive: false }).drawing.estimated).toBe(0);
  });

  it('reads as words', () => {
    const none = { measured: 0, tabled: 0, estimated: 0 };
    expect(basisWords({ running: none, drawing: none })).toEqual([]);
    expect(
      basisWords({
        running: { measured: 0.2, tabled: 0, estimated: 30 },
        drawing: { measured: 12, tabled: 0, estimated: 0.4 },
      }),
    ).toEqual(['30 ms on running script (estimated from its size)', '12 ms on drawing (measured)']);
    expect(basisWords({ running: { measured: 10, tabled: 5, estimated: 20 }, drawing: none })).toEqual([
      '35 ms on running script (10 ms measured, 5 ms measured elsewhere, 20 ms estimated from its size)',
    ]);
  });
});
