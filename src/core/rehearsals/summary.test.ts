import { ROUND } from '../../test-support/programs.ts';
import { at, rehearsal, run } from '../../test-support/rehearsals.ts';
import { type Decision } from '../plan/types.ts';
import { asRehearsed } from './as-rehearsed.ts';
import { conditionsAsRun } from './conditions-as-run.ts';
import { measuredOf, summaryOf } from './summary.ts';
import { leftOutWords, slowedWords } from './words.ts';

describe('a rehearsal in a list', () => {
  it('says what was run, under what, and what was seen', () => {
    const made = rehearsal([at(900), at(500), at(700)]);
    const { plan, pattern, address, conditions, at: when } = made;
    expect(summaryOf(made)).toEqual({
      ...{ plan, pattern, address, conditions, at: when, interactive: 700 },
      measured: {
        firstContent: { median: 500, least: 500, most: 500, runs: 3 },
        largestContent: { median: 520, least: 520, most: 520, runs: 3 },
        interactive: { median: 700, least: 500, most: 900, runs: 3 },
      },
    });
    const acted = summaryOf(rehearsal([at(null)], { acts: ['dialog'] }));
    expect(acted).toMatchObject({ interactive: null, acts: ['dialog'] });
    expect(acted.measured?.interactive).toBeUndefined();
  });

  it('is found for what it was made from, the newest first', () => {
    const detach: Decision = { kind: 'detach', module: 'a' };
    const kept = (interactive: number, more: object = {}) => ({
      ...{ snapshotId: 's', decisions: [detach], summary: summaryOf(rehearsal([at(interactive)])) },
      ...more,
    });
    const now = { snapshotId: 's', decisions: [detach], pattern: '/', conditions: ROUND };
    const of = (all: Parameters<typeof measuredOf>[0], more: object = {}) =>
      measuredOf(all, { ...now, ...more })?.interactive?.median ?? null;
    expect(of([kept(700), kept(900)])).toBe(700);
    expect(of([kept(700, { snapshotId: 'older' }), kept(900)])).toBe(900);
    expect(of([kept(700)], { decisions: [] })).toBeNull();
    expect(of([kept(700)], { pattern: '/other' })).toBeNull();
    expect(of([kept(700)], { conditions: { ...ROUND, cache: 'returning' } })).toBeNull();
    expect(of([kept(700)], { conditions: { ...ROUND, link: { ...ROUND.link, downKbps: 1 } } })).toBeNull();
    // What conditions are called is no matter.
    expect(of([kept(700)], { conditions: { ...ROUND, link: { ...ROUND.link, name: 'mine' } } })).toBe(700);
    const { measured: _, ...former } = summaryOf(rehearsal([at(5)]));
    expect(of([kept(5, { summary: former }), kept(900)])).toBe(900);
  });
});

describe('a plan and conditions as they were run', () => {
  const plan = { name: 'Lean', description: '', decisions: [{ kind: 'grain' }, { kind: 'floor', bytes: 1 }] } as never;

  it('leave out what only a person can edit in, and say so once for each reason', () => {
    const leftOut = [
      { decision: 0, why: 'by hand (src/a.js:3)' },
      { decision: 1, why: 'by hand (src/b.js:9)' },
    ];
    expect(asRehearsed(plan, { leftOut: leftOut.slice(0, 1) }).decisions).toEqual([{ kind: 'floor', bytes: 1 }]);
    expect(asRehearsed(plan, { leftOut: [] })).toBe(plan);
    const words = leftOutWords(plan, { leftOut });
    expect(words).toEqual([expect.stringMatching(/ and 1 more: by hand$/)]);
    const [one] = leftOutWords(plan, { leftOut: leftOut.slice(0, 1) });
    expect(one).toMatch(/^(?!.* more).*: by hand$/);
    expect(leftOutWords(plan, { leftOut: [{ decision: 7, why: 'it is gone' }] })).toEqual(['a decision: it is gone']);
  });

  it('have the thread as slow as it was', () => {
    const device = { ...ROUND.device, cpuFactor: 4, browserFactor: 4 };
    const as = (slowed: number) => rehearsal([run({ slowed })], { conditions: { ...ROUND, device } });
    expect(conditionsAsRun(as(3)).device).toMatchObject({ cpuFactor: 3, browserFactor: 3 });
    expect(conditionsAsRun(as(4.1)).device).toEqual(device);
    expect(conditionsAsRun(as(4.2)).device).toMatchObject({ cpuFactor: 4.2 });
    expect(conditionsAsRun(as(3.8)).device).toMatchObject({ cpuFactor: 3.8 });
    const apart = { ...as(2), conditions: { ...ROUND, device: { ...device, browserFactor: 2 } } };
    expect(conditionsAsRun(apart).device).toMatchObject({ cpuFactor: 2, browserFactor: 1 });
    expect(conditionsAsRun({ ...as(3), runs: [] }).device).toEqual(device);
    // Files that were assembled of modules keep these apart; those of a build tell of none.
    const assembled = { ...as(4.1), runs: [run({ slowed: 4.1, modules: { 'src/a.ts': 1 } })] };
    expect(conditionsAsRun(assembled).device).toEqual({ ...device, moduleMs: expect.any(Number) });
    expect([slowedWords(as(3)), slowedWords(as(4))]).toEqual([
      ', its thread taking 3.0 times as long as the reference machine’s',
      '',
    ]);
  });
});
