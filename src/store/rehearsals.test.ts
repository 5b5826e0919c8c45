import fs from 'node:fs';
import path from 'node:path';
import zlib from 'node:zlib';
import { summaryOf } from '../core/rehearsals/summary.ts';
import type { Rehearsal } from '../core/rehearsals/types.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import { folderOf, removeFolders } from '../test-support/folders.ts';
import { openStore } from './database.ts';
import { insertProject } from './projects.ts';
import { allowToRun, insertRehearsal, listRehearsals, mayRun, rehearsalOf, removeRehearsal } from './rehearsals.ts';

afterAll(removeFolders);

const PROJECT = {
  name: 'P',
  createdAt: '2026',
  folder: null,
  readAs: 'tell by content',
  givenBase: null,
  workspace: null,
  starts: [],
};
const rehearsal = (at: string): Rehearsal => ({
  ...{ plan: 'Lean', pattern: '/', address: '/', conditions: DEFAULT_CONDITIONS, browser: 'Chromium 1', at },
  ...{ runs: [], leftOut: [], told: ['one'] },
});

const EMPTY_RUN = { requests: [], parts: [], tasks: [], modules: {}, slowed: 1, busy: 0, errors: [] };

function fresh() {
  const store = openStore(path.join(folderOf({}), 'a.sqlite'), path.resolve('src/store/migrations'));
  for (const id of ['p', 'q']) insertProject(store, { ...PROJECT, id });
  return store;
}

const one = (id: string, at: string, projectId = 'p') => ({
  ...{ id, projectId, snapshotId: 's', decisions: [{ kind: 'grain' } as const] },
  rehearsal: rehearsal(at),
});

describe('rehearsals', () => {
  it('are kept as they were, the newest first, and each with its project', () => {
    const store = fresh();
    insertRehearsal(store, one('a', '2026-11-01'));
    insertRehearsal(store, one('b', '2026-11-03'));
    insertRehearsal(store, one('c', '2026-11-02'));
    insertRehearsal(store, one('other', '2026-11-04', 'q'));
    const listed = ({ rehearsal, ...kept }: ReturnType<typeof one>) => ({ ...kept, summary: summaryOf(rehearsal) });
    expect(listRehearsals(store, 'p')).toEqual(
      [one('b', '2026-11-03'), one('c', '2026-11-02'), one('a', '2026-11-01')].map(listed),
    );
    expect(rehearsalOf(store, 'p', 'c')).toEqual(one('c', '2026-11-02').rehearsal);
    expect(rehearsalOf(store, 'q', 'c')).toBeUndefined();
    expect(removeRehearsal(store, 'q', 'b')).toBe(false);
    expect(removeRehearsal(store, 'p', 'b')).toBe(true);
    expect(listRehearsals(store, 'p').map((r) => r.id)).toEqual(['c', 'a']);
    store.prepare("DELETE FROM projects WHERE id = 'p'").run();
    expect(listRehearsals(store, 'p')).toEqual([]);
    store.close();
  });

  it('of one act, as they were kept before, are of a list of one', () => {
    const store = fresh();
    insertRehearsal(store, one('old', '2026-11-01'));
    insertRehearsal(store, one('none', '2026-11-02'));
    const moments = { firstContent: 1, largestContent: 2, interactive: 3, contentLoaded: 4, load: 5, wait: 6 };
    const body = { ...one('old', '2026-11-01').rehearsal, act: 'fares', runs: [{ ...EMPTY_RUN, moments }] };
    const summary = { ...summaryOf(one('old', '2026-11-01').rehearsal), act: 'fares' };
    store
      .prepare("UPDATE rehearsals SET summary = ?, body = ? WHERE id = 'old'")
      .run(JSON.stringify(summary), zlib.gzipSync(JSON.stringify(body)));
    store.exec(fs.readFileSync('src/store/migrations/0012-acts.sql', 'utf8'));
    expect(listRehearsals(store, 'p').map((r) => r.summary.acts)).toEqual([undefined, ['fares']]);
    const { wait: _, ...others } = moments;
    expect(rehearsalOf(store, 'p', 'old')).toEqual({
      ...one('old', '2026-11-01').rehearsal,
      ...{ acts: ['fares'], runs: [{ ...EMPTY_RUN, moments: { ...others, waits: [6] } }] },
    });
    expect(rehearsalOf(store, 'p', 'none')).toEqual(one('none', '2026-11-02').rehearsal);
    store.close();
  });

  it('are let go of from the oldest on', () => {
    const store = fresh();
    const day = (n: number) => `2026-11-${String(n).padStart(3, '0')}`;
    for (let n = 0; n < 63; n++) insertRehearsal(store, one(`r${n}`, day(n)));
    const kept = listRehearsals(store, 'p').map((r) => r.id);
    expect([kept.length, kept[0], kept.at(-1)]).toEqual([60, 'r62', 'r3']);
    store.close();
  });

  it('need leave for each project', () => {
    const store = fresh();
    allowToRun(store, 'p', true);
    expect([mayRun(store, 'p'), mayRun(store, 'q'), mayRun(store, 'none')]).toEqual([true, false, false]);
    allowToRun(store, 'p', false);
    expect(mayRun(store, 'p')).toBe(false);
    store.close();
  });
});
