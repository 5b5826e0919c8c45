import { jest } from '@jest/globals';
import { GatheredChanges } from './gathered-changes.ts';

describe('changes that come close together', () => {
  let told: string[][];
  let changes: GatheredChanges;

  beforeEach(() => {
    jest.useFakeTimers();
    told = [];
    changes = new GatheredChanges((files) => told.push([...files].sort()));
  });
  afterEach(() => {
    changes.close();
    jest.useRealTimers();
  });

  it('are told at once when it is quiet, those that came later by themselves', () => {
    changes.note('a', 'change');
    jest.advanceTimersByTime(30);
    changes.note('b', 'add');
    jest.advanceTimersByTime(30);
    expect(told).toEqual([]);
    jest.advanceTimersByTime(30);
    changes.note('a', 'unlink');
    jest.advanceTimersByTime(1000);
    expect(told).toEqual([['a', 'b'], ['a']]);
  });

  it('are told though it is never quiet', () => {
    for (let ms = 0; ms < 1500; ms += 20) {
      changes.note(`${ms % 3}`, 'change');
      jest.advanceTimersByTime(20);
    }
    expect(told.length).toBe(2);
  });

  it('leave out files that are only there in between, and no others', () => {
    // One that another is put in the place of; one that is taken away and put there again; one that comes and goes twice.
    for (const [file, event] of [
      ...[
        ['a.tmp', 'add'],
        ['a.tmp', 'change'],
        ['a.tmp', 'unlink'],
        ['a', 'change'],
      ],
      ...[
        ['b', 'unlink'],
        ['b', 'add'],
        ['c', 'add'],
        ['c', 'unlink'],
        ['c', 'add'],
        ['d', 'unlink'],
      ],
    ])
      changes.note(file, event);
    jest.advanceTimersByTime(50);
    expect(told).toEqual([['a', 'b', 'c', 'd']]);
    // What was told is there: that it goes is told as well.
    changes.note('c', 'unlink');
    changes.note('e', 'add');
    changes.note('e', 'unlink');
    jest.advanceTimersByTime(50);
    expect(told).toEqual([['a', 'b', 'c', 'd'], ['c']]);
    changes.note('f', 'add');
    changes.note('f', 'unlink');
    jest.advanceTimersByTime(50);
    expect(told).toHaveLength(2);
  });

  it('aren’t told any more once nobody wants to hear', () => {
    changes.note('a', 'change');
    changes.close();
    jest.advanceTimersByTime(1000);
    expect(told).toEqual([]);
  });
});
