import { isAboutReading, keeping, NO_HISTORY, taken, takenAgain, takenBack } from './history.ts';
import type { Step } from './types.ts';

const step = (words: string): Step => ({ of: 'plan', words, before: [], after: [] });
const reading = { of: 'reading', words: 'r', before: {}, after: {} } as unknown as Step;

describe('steps', () => {
  const two = taken(taken(NO_HISTORY, step('a')), step('b'));

  it('are taken back and taken again, the last one first', () => {
    const back = takenBack(two)!;
    expect([back.step.words, back.history.done.length, back.history.undone.length]).toEqual(['b', 1, 1]);
    expect(takenAgain(back.history)).toEqual({ step: step('b'), history: two });
  });

  it('that were taken back are gone once another is taken', () => {
    const other = taken(takenBack(two)!.history, step('c'));
    expect([other.done.map((s) => s.words), other.undone]).toEqual([['a', 'c'], []]);
    expect(takenAgain(other)).toBeNull();
  });

  it('end', () => {
    expect([takenBack(NO_HISTORY), takenAgain(NO_HISTORY)]).toEqual([null, null]);
  });

  it('about one thing remain when the rest is forgotten', () => {
    const mixed = takenBack(taken(taken(two, reading), step('d')))!.history;
    expect(keeping(mixed, isAboutReading)).toEqual({ done: [reading], undone: [] });
  });
});
