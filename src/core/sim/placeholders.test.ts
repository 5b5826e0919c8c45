import { file, page, ROUND, screenPart } from '../../test-support/programs.ts';
import type { LoadProgram } from '../load/types.ts';
import { simulate } from './simulate.ts';

/** A page that a script draws, with an outer part whose code takes so long, and one inside of it. */
function shown(placeholders: LoadProgram['placeholders'], outerMs: number, innerMs?: number, renderMs = 0) {
  const entry = { at: 1, tag: 'script', group: 0, mode: 'async' } as const;
  const needs = (resource: number) => [{ resource, state: 'evaluated' as const }];
  const part = (id: string, resource: number, after: number[]) =>
    screenPart(id, { drawnBy: 'script', needs: needs(resource), after, renderMs });
  const loads = (group: number) => ({ when: 'eval' as const, do: { kind: 'import' as const, group } });
  const inner = innerMs === undefined ? [] : [innerMs];
  const program = page(
    [entry],
    [
      file('/entry.js', { follow: [loads(1)] }),
      file('/outer.js', { serverMs: outerMs, follow: inner.length > 0 ? [loads(2)] : [] }),
      ...inner.map((serverMs) => file('/inner.js', { serverMs })),
    ],
    {
      parts: [part('page', 0, []), part('outer', 1, [0]), ...(inner.length > 0 ? [part('inner', 2, [1])] : [])],
      ...(placeholders ? { placeholders } : {}),
    },
  );
  const { reveals, requests } = simulate(program, ROUND);
  const at = (id: string, state: string) =>
    reveals.find((r) => program.parts[r.part].id === id && r.state === state)?.at ?? Number.NaN;
  const since = at('outer', 'stand-in');
  const there = (name: string) => (requests.find((r) => r.address === `/${name}.js`)?.evaluated ?? Number.NaN) - since;
  return {
    outer: at('outer', 'shown') - since,
    standIn: at('inner', 'stand-in') - since,
    inner: at('inner', 'shown') - since,
    there: [there('outer'), there('inner')],
  };
}

const KEPT = { holdMs: 300 };
const NESTED = { holdMs: 500, nested: true } as const;
const FRAME = 20;

describe('a placeholder that the component system keeps', () => {
  it('stays for its time, and no longer where the code comes later', () => {
    expect(shown(undefined, 50).outer).toBeLessThan(200);
    expect(shown(KEPT, 20).outer).toBeCloseTo(300, 6);
    expect(shown(KEPT, 80).outer).toBeCloseTo(300, 6);
    const late = shown(KEPT, 400);
    expect(late.outer).toBeGreaterThan(late.there[0]);
    expect(late.outer).toBeLessThan(late.there[0] + FRAME);
  });

  it('lets in what was drawn meanwhile, which takes its share of the drawing; nothing more where it isn’t kept', () => {
    expect(shown(KEPT, 20, undefined, 100).outer).toBeCloseTo(350, 6);
    const [late, free] = [KEPT, undefined].map((kept) => shown(kept, 400, undefined, 100));
    expect(late.outer - late.there[0]).toBeCloseTo(free.outer - free.there[0], 6);
  });

  it('keeps what is inside as well: both come together, or one after another placeholder', () => {
    const together = shown(KEPT, 20, 20);
    expect(together.inner).toBeCloseTo(together.outer, 6);
    const apart = shown(KEPT, 400, 50);
    expect(apart.outer).toBeLessThan(apart.there[0] + FRAME);
    expect(apart.standIn).toBeGreaterThan(apart.there[0]);
    expect(apart.inner).toBeCloseTo(apart.standIn + 300, 6);
    const slow = shown(KEPT, 400, 500);
    expect(slow.inner).toBeLessThan(slow.there[1] + FRAME);
  });

  it('may keep only what has another one inside, until that is done with', () => {
    const alone = shown(NESTED, 50);
    expect(alone.outer).toBeLessThan(alone.there[0] + FRAME);
    const quick = shown(NESTED, 50, 60);
    expect(quick.outer).toBeGreaterThanOrEqual(quick.there[1]);
    expect(quick.outer).toBeLessThan(quick.there[1] + FRAME);
    const slow = shown(NESTED, 100, 900);
    expect(slow.outer).toBeCloseTo(500, 6);
    expect(slow.inner).toBeLessThan(slow.there[1] + FRAME);
  });
});

describe('what only waits for an answer', () => {
  /** A part whose code comes with the page's, or later, and that waits for an answer that takes so long. */
  function answered(placeholders: LoadProgram['placeholders'], { answerMs = 40, codeMs = 0, renderMs = 0 } = {}) {
    const entry = { at: 1, tag: 'script', group: 0, mode: 'async' } as const;
    const code = (resource: number) => ({ resource, state: 'evaluated' as const });
    const isLater = codeMs > 0;
    const program = page(
      [entry],
      [
        file('/entry.js', { follow: [{ when: 'eval', do: { kind: 'import', group: 1 } }] }),
        file('/outer.js', {
          serverMs: 20,
          follow: [
            { when: 'eval', do: { kind: 'fetch', resource: 2 } },
            ...(isLater ? [{ when: 'eval' as const, do: { kind: 'import' as const, group: 3 }, answers: [2] }] : []),
          ],
        }),
        file('/rows', { type: 'fetch', serverMs: answerMs }),
        ...(isLater ? [file('/list.js', { serverMs: codeMs })] : []),
      ],
      {
        parts: [
          screenPart('page', { drawnBy: 'script', needs: [code(0)] }),
          screenPart('outer', { drawnBy: 'script', needs: [code(1)], after: [0], renderMs: 0 }),
          screenPart('list', {
            ...{ drawnBy: 'script', after: [1], renderMs },
            needs: [code(isLater ? 3 : 1), { resource: 2, state: 'arrived' }],
          }),
        ],
        ...(placeholders ? { placeholders } : {}),
      },
    );
    const { reveals, requests } = simulate(program, ROUND);
    const at = (id: string, state: string) =>
      reveals.find((r) => program.parts[r.part].id === id && r.state === state)?.at ?? Number.NaN;
    const answer = requests.find((r) => r.address === '/rows')!.end;
    return { outer: at('outer', 'shown') - at('outer', 'stand-in'), list: at('list', 'shown'), answer };
  }

  it('doesn’t keep what is around it', () => {
    expect(answered(NESTED).outer).toBeLessThan(200);
    expect(answered(KEPT).outer).toBeCloseTo(300, 6);
  });

  it('is drawn once the answer is there, all of it', () => {
    const late = answered(KEPT, { answerMs: 800, renderMs: 50 });
    expect(late.list - late.answer).toBeGreaterThan(50);
    expect(late.list - late.answer).toBeLessThan(50 + FRAME);
  });

  it('has a placeholder from then on, where its code comes only then', () => {
    const late = answered(KEPT, { answerMs: 800, codeMs: 20 });
    expect(late.list - late.answer).toBeCloseTo(300, 6);
  });
});
