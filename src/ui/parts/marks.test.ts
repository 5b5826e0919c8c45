import { turnedByClick, turnedByStep, withTurned } from './marks.ts';

const NO_KEYS = { ctrlKey: false, metaKey: false, shiftKey: false };
const CTRL = { ...NO_KEYS, ctrlKey: true };
const COMMAND = { ...NO_KEYS, metaKey: true };
const SHIFT = { ...NO_KEYS, shiftKey: true };
const ROWS = [null, 'a', 'b', null, 'c', 'd'];
const NONE = new Set<string>();

describe('rows that are chosen together', () => {
  it('are none by a click alone', () => {
    expect(turnedByClick(ROWS, NONE, 1, 2, NO_KEYS)).toEqual([]);
  });

  it.each([CTRL, COMMAND])('begin with the one that was looked at and the one that is clicked (%j)', (held) => {
    expect(turnedByClick(ROWS, NONE, 1, 4, held)).toEqual(['a', 'c']);
    expect(turnedByClick(ROWS, NONE, -1, 4, held)).toEqual(['c']);
    expect(turnedByClick(ROWS, NONE, 3, 4, held)).toEqual(['c']);
    // The one that is looked at stays chosen by itself.
    expect(turnedByClick(ROWS, NONE, 4, 4, held)).toEqual(['c']);
  });

  it('grow and shrink one by one', () => {
    const marks = withTurned(NONE, turnedByClick(ROWS, NONE, 1, 4, CTRL));
    const more = withTurned(marks, turnedByClick(ROWS, marks, 4, 5, CTRL));
    expect([...more]).toEqual(['a', 'c', 'd']);
    expect([...withTurned(more, turnedByClick(ROWS, more, 5, 1, CTRL))]).toEqual(['c', 'd']);
    expect(turnedByClick(ROWS, more, 5, 3, CTRL)).toEqual([]);
  });

  it('take all between two rows, either way, and drop none of those that are there', () => {
    expect(turnedByClick(ROWS, NONE, 1, 5, SHIFT)).toEqual(['a', 'b', 'c', 'd']);
    expect(turnedByClick(ROWS, new Set(['b']), 5, 0, SHIFT)).toEqual(['a', 'c', 'd']);
    expect(turnedByClick(ROWS, NONE, -1, 5, SHIFT)).toEqual([]);
  });

  it('grow with each step of the keys', () => {
    expect(turnedByStep(ROWS, NONE, 1, 2)).toEqual(['a', 'b']);
    expect(turnedByStep(ROWS, new Set(['a', 'b']), 2, 4)).toEqual(['c']);
    expect(turnedByStep(ROWS, NONE, -1, 1)).toEqual(['a']);
  });
});
