import type { MomentView } from '../../../worker/services/visits.ts';
import { marksOf, scaleOf } from './scale.ts';
import { away, meanwhile, momentWords } from './words.ts';

function moment(more: Partial<MomentView> = {}): MomentView {
  return {
    page: 0,
    step: 0,
    interaction: 0,
    name: 'dialog',
    kind: 'act',
    act: 4000,
    lead: 300,
    taken: 0,
    shown: 400,
    answering: 400,
    complete: 450,
    wait: 400,
    standIn: null,
    failed: null,
    parts: [],
    requests: [],
    bytes: 0,
    splitPoint: null,
    was: 20,
    ...more,
  };
}

describe('the axis of moments', () => {
  it('holds every wait and lead of acts and moves, and turns places back into times', () => {
    const scale = scaleOf([moment(), moment({ complete: 900 })], 500, false);
    expect(scale.to).toBeGreaterThan(900);
    expect(scale.from).toBeLessThan(-300);
    expect(scale.x(scale.from)).toBeCloseTo(0, 9);
    expect(scale.x(scale.to)).toBeCloseTo(500, 9);
    for (const ms of [-200, 0, 431]) expect(scale.ms(scale.x(ms))).toBeCloseTo(ms, 9);
  });

  it('is not stretched by documents, by what never comes, or by deploys', () => {
    const plain = scaleOf([moment()], 500, false);
    const long = [
      moment({ kind: 'landing', wait: 9000, complete: 9000 }),
      moment({ kind: 'document', wait: 4000, complete: 4000 }),
      moment({ kind: 'other', was: 7000 }),
      moment({ wait: Number.NaN, complete: Number.NaN, answering: Number.NaN, was: Number.NaN }),
    ];
    expect(scaleOf([moment(), ...long], 500, false).to).toBe(plain.to);
  });

  it('keeps no room for leads where screens are touched', () => {
    const [pointed, touched] = [false, true].map((touch) => scaleOf([moment()], 500, touch));
    expect(-touched.from).toBeLessThan(-pointed.from / 5);
  });

  it('marks round times, the act among them, none where its words would be cut off', () => {
    const scale = scaleOf([moment()], 500, false);
    const marks = marksOf(scale, 7);
    expect(marks).toContain(0);
    expect(marks.every((ms) => ms % 50 === 0)).toBe(true);
    for (const ms of marks) {
      expect(scale.x(ms)).toBeGreaterThan(10);
      expect(scale.x(ms)).toBeLessThan(490);
    }
    expect(marksOf(scaleOf([moment()], 500, true), 7)[0]).toBe(0);
  });
});

describe('a moment in words', () => {
  const pause = { dwellMs: 0, leadMs: 0 };

  it.each([
    [undefined, 'lands on'],
    [{ does: 'act' as const, part: 'x', ...pause }, 'opens dialog'],
    [{ does: 'scroll' as const, part: 'x', ...pause }, 'scrolls to dialog'],
    [{ does: 'move' as const, to: '/b', by: 'inside' as const, holds: [], ...pause }, 'goes to /b'],
    [{ does: 'move' as const, to: '/b', by: 'document' as const, holds: [], ...pause }, 'opens /b'],
    [{ does: 'approach' as const, to: '/b', ...pause }, 'hovers or focuses what leads to /b'],
    [{ does: 'resize' as const, width: 5, height: 6, dwellMs: 0 }, 'screen becomes 5 × 6'],
    [{ does: 'deploy' as const, dwellMs: 0 }, 'the app is deployed again'],
    [
      { does: 'return' as const, to: '/', awayMs: 86_400_000, deployed: false, dwellMs: 0, holds: [] },
      'returns to / after 1 d',
    ],
  ])('%j', (step, words) => {
    expect(momentWords(moment(), step)).toBe(words);
  });

  it('says what the person looked at', () => {
    expect(meanwhile(moment({ standIn: { from: 8, to: 120, flash: true } }))).toContain('it only flashes');
    expect(meanwhile(moment({ standIn: { from: 8, to: 420, flash: false } }))).toBe(
      'a placeholder from 8 ms to 420 ms',
    );
    expect(meanwhile(moment({ failed: 'told' }))).toContain('message');
    expect(meanwhile(moment({ failed: 'silent' }))).toContain('nothing happens');
    expect(meanwhile(moment({ wait: Number.NaN }))).toBe('it never comes');
    expect(meanwhile(moment({ kind: 'landing' }))).toBe('a blank page');
    expect(meanwhile(moment({ kind: 'move' }))).toBe('the screen before');
  });

  it('counts days and hours of being away', () => {
    expect([away(86_400_000 * 3), away(7_200_000), away(1500)]).toEqual(['3 d', '2 h', '1.50 s']);
  });
});
