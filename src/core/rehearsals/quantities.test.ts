import { at, milestones, rehearsal, run, timeline } from '../../test-support/rehearsals.ts';
import { middleRun } from './middle-run.ts';
import { type Beside, gainsOf, quantitiesBeside, type Verdict } from './quantities.ts';
import { spreadOf } from './spread.ts';
import { besideWords, gainWords, offWords, spreadWords } from './words.ts';

describe('what was measured several times', () => {
  it('has a middle, a least and a most; of nothing there is none', () => {
    expect(spreadOf([30, 10, null, 20, undefined, Number.NaN])).toEqual({ median: 20, least: 10, most: 30, runs: 3 });
    expect(spreadOf([10, 40])?.median).toBe(25);
    expect(spreadOf([null])).toBeNull();
    expect(spreadWords({ median: 1064.4, least: 1050, most: 1074, runs: 3 })).toBe('1064 ± 12 ms');
    expect([spreadWords({ median: 10, least: 10, most: 10, runs: 1 }), spreadWords(null)]).toEqual([
      '10 ms',
      'not seen',
    ]);
  });

  it('has a run in the middle', () => {
    const runs = [at(900), at(500), at(700), at(null)];
    expect(middleRun({ runs }).moments.interactive).toBe(500);
    expect(middleRun({ runs: runs.slice(0, 3) }).moments.interactive).toBe(700);
    const request = { address: '/a.js', discovered: 90, sent: 90, firstByte: 95, end: 120, bytes: 9 };
    const [task, of] = [
      { start: 80, end: 130, of: {} },
      { requests: [request], tasks: [{ start: 100, end: 140, of: {} }] },
    ];
    const acted = run({
      ...of,
      firstAct: 100,
      tasks: [task, ...of.tasks],
      requests: [request, { ...request, discovered: 101 }],
    });
    expect(middleRun({ runs: [acted] })).toMatchObject({ requests: [request], tasks: [task] });
  });
});

describe('quantities side by side', () => {
  it('say by how much of the rehearsed the prediction is off', () => {
    const made = rehearsal([at(milestones.interactive * 2), at(milestones.interactive * 2)]);
    const beside = quantitiesBeside({ milestones, timeline }, made);
    const interactive = beside.find((b) => b.quantity === 'interactive')!;
    expect(interactive.off).toBeCloseTo(-0.5);
    expect(besideWords(interactive)[3]).toBe('−50 %');
    expect([0.126, -0.004, 0.996, null].map(offWords)).toEqual(['+13 %', '0 %', '+100 %', '']);
    const never = quantitiesBeside({ milestones: { ...milestones, interactive: Number.NaN }, timeline }, made);
    expect(never.find((b) => b.quantity === 'interactive')).toMatchObject({ predicted: null, off: null });
  });

  const beside = (predicted: number, least: number, most = least): Beside[] => [
    {
      ...{ quantity: 'interactive', name: 'Interactive', predicted, off: null },
      rehearsed: { median: (least + most) / 2, least, most, runs: 2 },
    },
  ];
  it.each<[string, Beside[], Beside[], Verdict]>([
    ['as it was promised', beside(1000, 1000), beside(700, 690), 'as predicted'],
    ['within the spread', beside(1000, 950, 1050), beside(990, 940, 1040), 'too small to tell'],
    ['much less', beside(1000, 1000), beside(500, 900), 'less than predicted'],
    ['much more', beside(1000, 1000), beside(900, 500), 'more than predicted'],
    ['against it', beside(1000, 1000), beside(800, 1200), 'the other way'],
    ['near enough for its spread', beside(1000, 960, 1040), beside(750, 640, 760), 'as predicted'],
  ])('a gain that came %s', (_, before, after, verdict) => {
    const [gain] = gainsOf(before, after);
    expect(gain.verdict).toBe(verdict);
    expect(gainWords(gain)[3]).toBe(verdict);
  });

  it('have no verdict where one of them was never seen', () => {
    const [gain] = gainsOf([{ ...beside(1000, 0)[0], rehearsed: null }], beside(900, 900));
    expect(gain).toMatchObject({ predicted: 100, rehearsed: null, give: null, verdict: null });
    expect(gainWords(gain)).toEqual(['Interactive', '−100 ms', 'not seen', '']);
    const [other] = gainsOf(beside(1000, 1000), [{ ...beside(0, 900)[0], predicted: null }]);
    expect(other).toMatchObject({ predicted: null, rehearsed: 100, give: 0, verdict: null });
    expect(gainWords(other)).toEqual(['Interactive', '', '−100 ms ± 0', '']);
  });

  it('have a sign from half a millisecond on', () => {
    const words = (predicted: number) =>
      gainWords({ ...{ quantity: 'interactive', name: '', rehearsed: null, give: null, verdict: null }, predicted })[1];
    expect([words(0), words(0.4), words(-0.4), words(0.6), words(-2)]).toEqual([
      '0 ms',
      '0 ms',
      '0 ms',
      '−1 ms',
      '+2 ms',
    ]);
  });
});
