import { planWith } from '../plan/decisions.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { changesOf } from './changes.ts';
import type { Candidate } from './types.ts';

const candidate = (about: Candidate['about'], decisions: Decision[], withdraw: string[] = []): Candidate => ({
  id: JSON.stringify([decisions, withdraw]),
  instead: '',
  together: null,
  words: '',
  why: '',
  about,
  routes: null,
  remedy: { words: '', decisions, withdraw },
});
const least = (bytes: number): Decision => ({ kind: 'floor', bytes });
const prefetch: Decision = {
  kind: 'hint',
  hint: { kind: 'prefetch', routes: ['/'], target: { kind: 'route', pattern: '/list' }, place: 'markup' },
};
const preload: Decision = {
  kind: 'hint',
  hint: { kind: 'preload', routes: ['/'], target: { kind: 'asset', address: '/hero.avif' }, place: 'markup' },
};
const free = { spareDataSavers: false };

describe('what candidates change together', () => {
  it('makes ways to split before hints', () => {
    const { decisions } = changesOf([candidate('hint', [preload]), candidate('split', [least(4000)])], free);
    expect(decisions).toEqual([least(4000), preload]);
  });

  it('leaves the last word about a subject to the later one, be it a decision or a withdrawal', () => {
    const one = candidate('split', [least(2000)]);
    const other = candidate('split', [least(8000)]);
    const back = candidate('split', [], ['floor']);
    const plan = { ...BASELINE, decisions: [least(1000)] };
    const outcome = (...of: Candidate[]) => planWith(plan, changesOf(of, free)).decisions;
    expect(outcome(one, other)).toEqual([least(8000)]);
    expect(outcome(one, back)).toEqual([]);
    expect(outcome(back, one)).toEqual([least(2000)]);
  });

  it('spares data savers what is fetched in case, and only that', () => {
    const { decisions } = changesOf([candidate('hint', [prefetch, preload])], { spareDataSavers: true });
    expect(decisions).toEqual([{ kind: 'hint', hint: expect.objectContaining({ notForDataSaver: true }) }, preload]);
  });
});
