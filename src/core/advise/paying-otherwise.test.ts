import { sketch } from '../../test-support/snapshots.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { DEFAULT_CONDITIONS, LINKS, type Link } from '../sim/conditions.ts';
import { finish } from '../steps.ts';
import { payingAfter, payingElsewhere } from './paying-otherwise.ts';
import type { Scorer } from './score.ts';
import type { CandidateFinding, Remedy } from './types.ts';

const app = sketch({ main: { imports: ['a', 'b'] }, a: {}, b: {} });
const detach = (module: string): Decision => ({ kind: 'detach', module });
const remedy = (module: string, more: Partial<Remedy> = {}): Remedy => ({
  ...{ words: module, decisions: [detach(module)] },
  ...more,
});
const candidate = (id: string, remedies: Remedy[], more: Partial<CandidateFinding> = {}): CandidateFinding => ({
  ...{ id, kind: 'nested splits', what: id, why: `${id} is so.`, evidence: [], routes: [], remedies },
  ...more,
});
/** A scorer by what a visit costs under the modules that a plan detaches. */
const scorer = (cost: (modules: string[]) => number) =>
  ({
    score: ({ decisions }: Plan) => ({
      ...{ routes: [], waits: [], waste: 0 },
      cost: cost(decisions.flatMap((d) => ('module' in d && typeof d.module === 'string' ? [d.module] : []))),
    }),
  }) as unknown as Scorer;
const saving = (gains: Record<string, number>) =>
  scorer((modules) => 100 - modules.reduce((sum, m) => sum + (gains[m] ?? 0), 0));
const inVain = (...ids: string[]) => ids.map((id) => ({ id, cost: 0 })) as never;

describe('what pays once all else is taken', () => {
  const laterOn = (candidates: CandidateFinding[], gains: Record<string, number>, ids = candidates.map((c) => c.id)) =>
    finish(payingAfter(app, BASELINE, candidates, inVain(...ids), saving(gains)));

  it('is told from 5 ms a visit on, by its best way, the best first', () => {
    const found = laterOn(
      [
        candidate('less', [remedy('a'), remedy('b')]),
        candidate('least', [remedy('d')]),
        candidate('most', [remedy('c')]),
      ],
      { a: 5, b: 7, c: 30, d: 4.9 },
    );
    expect(found.map((f) => [f.id, f.remedy.words, f.effect.cost])).toEqual([
      ['most', 'c', -30],
      ['less', 'b', -7],
    ]);
    expect(found[0]).toMatchObject({
      ...{ why: 'most is so. It pays once what stands above is taken.', together: null },
      basis: { on: 'those above' },
    });
    expect(laterOn([candidate('one', [remedy('b'), remedy('a')])], { a: 5, b: 7 })[0].remedy.words).toBe('b');
    expect(laterOn([candidate('alike', [remedy('a'), remedy('b')])], { a: 7, b: 7 })[0].remedy.words).toBe('a');
  });

  it('is nothing that pays already, is about being seen or single visitors, withdraws, or takes more than detaching', () => {
    const gains = { a: 50 };
    expect(laterOn([candidate('x', [remedy('a')])], gains, ['other'])).toEqual([]);
    expect(laterOn([candidate('x', [remedy('a')], { seen: true })], gains)).toEqual([]);
    expect(laterOn([candidate('x', [remedy('a')], { whose: 'data savers' })], gains)).toEqual([]);
    expect(laterOn([candidate('x', [remedy('a', { withdraw: ['y'] })])], gains)).toEqual([]);
    expect(laterOn([candidate('x', [remedy('a', { withdraw: [] })])], gains)).toHaveLength(1);
    const hard = { ...app, imports: app.imports.map((i) => ({ ...i, sync: { reason: 'called', line: 1 } })) };
    expect(finish(payingAfter(hard, BASELINE, [candidate('x', [remedy('a')])], inVain('x'), saving(gains)))).toEqual(
      [],
    );
  });

  it('of the same worth is in the order of its ids', () => {
    const found = laterOn([candidate('z', [remedy('a')]), candidate('y', [remedy('b')])], { a: 9, b: 9 });
    expect(found.map((f) => f.id)).toEqual(['y', 'z']);
  });
});

describe('what pays on another link', () => {
  const [slowest] = [...LINKS].sort((a, b) => b.rttMs - a.rttMs);
  const fastest = [...LINKS].sort((a, b) => a.rttMs - b.rttMs)[0];
  const elsewhere = (
    candidates: CandidateFinding[],
    gainOn: (link: Link, module: string) => number,
    { link = fastest, open = candidates.map((c) => ({ id: c.id, cost: 0 })) } = {},
  ) => {
    const asked: string[] = [];
    const here = saving({});
    const now = {
      ...{ candidates, open: open as never, before: here.score(BASELINE), scorer: here },
      conditions: { ...DEFAULT_CONDITIONS, link },
    };
    const found = finish(
      payingElsewhere(app, BASELINE, now, (on) => {
        asked.push(on.id);
        return scorer((modules) => 100 - modules.reduce((sum, m) => sum + gainOn(on, m), 0));
      }),
    );
    return { found, asked };
  };

  it('is told with the nearest slower link on which it saves 3 ms, and by its best way', () => {
    const slower = LINKS.filter((l) => l.rttMs > fastest.rttMs).sort((a, b) => a.rttMs - b.rttMs);
    const second = slower[1];
    const { found, asked } = elsewhere([candidate('x', [remedy('a'), remedy('b')])], (link, module) =>
      link.rttMs >= second.rttMs ? (module === 'b' ? 8.4 : 3) : 2.9,
    );
    expect(asked).toEqual(slower.slice(0, 2).map((l) => l.id));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({
      ...{ id: 'x', together: null, basis: { on: 'a link', link: second.name } },
      remedy: { words: 'b' },
      why: `x is so. The link chosen here hides it; on ${second.name} a visit would save 8 ms.`,
    });
    expect(found[0].basis).toMatchObject({ saves: expect.closeTo(8.4) });
  });

  it('asks each link once, whatever is looked at on it', () => {
    const { asked } = elsewhere([candidate('x', [remedy('a')]), candidate('y', [remedy('b')])], () => 9);
    expect(asked).toHaveLength(1);
  });

  it('is nothing where no link is slower, it costs more than a little here, pays already, or is of another kind', () => {
    const x = [candidate('x', [remedy('a')])];
    const count = (...args: Parameters<typeof elsewhere>) => elsewhere(...args).found.length;
    expect(count(x, () => 9)).toBe(1);
    expect(count(x, () => 9, { link: slowest })).toBe(0);
    expect(count(x, () => 9, { link: fastest, open: [{ id: 'x', cost: 3 }] })).toBe(1);
    expect(count(x, () => 9, { link: fastest, open: [{ id: 'x', cost: 3.1 }] })).toBe(0);
    expect(count(x, () => 9, { link: fastest, open: [] })).toBe(0);
    expect(count([candidate('x', [remedy('a')], { kind: 'staircase' })], () => 9)).toBe(0);
    expect(count([candidate('x', [])], () => 9)).toBe(0);
  });
});
