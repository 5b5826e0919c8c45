import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import type { MarkupItem, ScreenPart, ScriptMode } from '../load/types.ts';
import { simulate } from '../sim/simulate.ts';
import { earlyInput } from './early-input.ts';

const PIECES = [
  { upTo: 4000, atMs: 0 },
  { upTo: 20_000, atMs: 700 },
];

/** A streamed page of the server whose script makes it answer. */
function waitWith(mode: ScriptMode, more: Partial<ScreenPart> = {}) {
  const markup: MarkupItem[] = [
    { at: 200, tag: 'script', group: 0, mode },
    { at: 1500, tag: 'text', part: 0 },
  ];
  const needs = [{ resource: 0, state: 'evaluated' as const }];
  const lead = screenPart('lead', { drawnBy: 'document', interactive: true, needs, ...more });
  const program = page(markup, [file('/a.js', { bytes: 30_000, cpuMs: 40 })], { parts: [lead] });
  Object.assign(program.document, { bytes: 20_000, flush: PIECES });
  const timeline = simulate(program, ROUND);
  return { timeline, wait: earlyInput(program, timeline) };
}

describe('input before the script that answers it', () => {
  it('waits from when the part shows until it answers', () => {
    const { timeline, wait } = waitWith('module');
    const at = (state: string) => timeline.reveals.find((r) => r.state === state)!.at;
    expect(wait).toEqual({ part: 0, waitMs: at('answering') - at('shown') });
  });

  it('waits less where the script doesn’t wait for the end of a streamed document', () => {
    expect(waitWith('module').wait!.waitMs).toBeGreaterThan(waitWith('module-async').wait!.waitMs + 300);
  });

  it('is no matter where nothing answers, or script draws it', () => {
    expect(waitWith('module', { interactive: false }).wait).toBeNull();
    expect(waitWith('module', { drawnBy: 'script', renderMs: 3 }).wait).toBeNull();
  });
});
