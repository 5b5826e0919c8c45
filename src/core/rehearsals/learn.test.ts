import { rehearsal, run } from '../../test-support/rehearsals.ts';
import { sketch } from '../../test-support/snapshots.ts';
import { withMeasured } from '../amend/with-measured.ts';
import { learnt } from './learn.ts';
import type { RehearsedRun } from './types.ts';

describe('what is learnt', () => {
  const snapshot = sketch({ 'main.js': {}, 'page.js': {} });
  const learned = (runs: RehearsedRun[], before = null as Parameters<typeof learnt>[2]) =>
    learnt(snapshot, [rehearsal(runs)], before);

  it('is the mean of the runs, on a machine that isn’t slowed', () => {
    const runs = [run({ modules: { 'main.js': 8 }, slowed: 4 }), run({ modules: { 'main.js': 4 }, slowed: 1 })];
    expect(learned(runs).modules!['main.js'].ms).toBe(3);
  });

  it('is said to come of the last rehearsal that it rests on', () => {
    const at = (when: string, browser: string) =>
      rehearsal([run({ modules: { 'main.js': 2 } })], { at: when, browser });
    const [early, late] = [at('2026-11-28T10:00:00Z', 'Old 1'), at('2026-11-29T10:00:00Z', 'New 2')];
    expect(learnt(snapshot, [early, late], null).by).toBe('New 2, 2026-11-29');
    expect(learnt(snapshot, [late, early], null).by).toBe('New 2, 2026-11-29');
  });

  it('gives modules their share of compiling files, by their size', () => {
    const tasks = [
      { start: 0, end: 30, of: { run: 10, compile: 20 } },
      { start: 40, end: 60, of: { draw: 10, compile: 10 } },
    ];
    const { modules = {} } = learned([run({ modules: { 'main.js': 1, 'page.js': 1 }, tasks })]);
    const [main, other] = snapshot.modules.map((m) => m.bytes.minified);
    expect(modules['main.js'].ms).toBeCloseTo(1 + (20 * main) / (main + other), 1);
  });

  it('keeps what was known of what nobody measured now, and says with what it was measured', () => {
    const before = {
      ...{ by: 'earlier', modules: { 'page.js': { ms: 9, bytes: 1 } }, shellWaits: ['/other', '/'] },
      draws: { '/': { shell: 3 }, '/other': { page: 1 } },
    };
    const parts = [{ part: 'page', shown: 10, drawMs: 7, late: false }];
    const next = learned([run({ modules: { 'main.js': 2 }, parts })], before);
    expect(next).toMatchObject({
      by: 'Chromium 1, 2026-11-29',
      modules: { 'page.js': { ms: 9 }, 'main.js': { ms: 2 } },
      draws: { '/': { shell: 3, page: 7 }, '/other': { page: 1 } },
      shellWaits: ['/other'],
    });
  });

  it('tells how long the browser took for its own work, by the first file that a document names', () => {
    const asked = (discovered: number, slowed: number) => {
      const entry = { address: 'https://app.test/', sent: 1, firstByte: 100, end: 101, bytes: 600, discovered: 0 };
      const early = { ...entry, address: 'https://app.test/early.js', discovered: 40 };
      return run({
        slowed,
        requests: [entry, early, { ...early, discovered: discovered + 30 }, { ...early, discovered }],
      });
    };
    // 21 ms are reckoned on the reference machine.
    expect(learned([asked(142, 4), asked(121, 2)]).browser).toBe(0.5);
    expect(learned([asked(100 + 21 * 4 * 5, 4)]).browser).toBeUndefined();
    expect(learned([run({ requests: [] })], { by: '', browser: 0.7 }).browser).toBe(0.7);
  });

  it('tells of a shell that waits for its page', () => {
    const both = (late: boolean, shell: number) =>
      run({
        parts: [
          { part: 'shell', shown: shell, drawMs: 1, late: false },
          { part: 'page', shown: 700, drawMs: 1, late },
        ],
      });
    expect(learned([both(true, 700), both(true, 700)]).shellWaits).toEqual(['/']);
    expect(learned([both(true, 700), both(true, 400)]).shellWaits).toEqual([]);
    expect(learned([both(false, 700)]).shellWaits).toEqual([]);
  });

  it('is believed of modules that are as large as they were', () => {
    const [main] = snapshot.modules;
    const measured = (bytes: number) => ({ by: '', modules: { 'main.js': { ms: 5, bytes } } });
    const known = (bytes: number) => withMeasured(snapshot, measured(bytes)).modules[0].evaluationMs;
    expect([known(main.bytes.minified), known(main.bytes.minified * 2)]).toEqual([5, undefined]);
  });
});
