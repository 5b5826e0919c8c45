import type { Habits, VisitorModel } from '../snapshot/visitor-types.ts';
import { drawVisit } from './draw.ts';

const COUNT = 4000;
const HESITATION = { medianMs: 800, spread: 0.5 };

const habits = (more: Partial<Habits>): Habits => ({
  ...{ pattern: '/', page: 'home', landings: 1, dwell: { medianMs: 3000, spread: 0.5 } },
  ...{ moves: [], acts: [], conditions: [] },
  ...more,
});

function drawAll(routes: Habits[], more: Partial<VisitorModel> = {}) {
  const model: VisitorModel = {
    ...{ routes, hesitation: HESITATION, touch: 0.25, dataSaver: 0.1, returning: 0.5, deployed: 0.4, segments: [] },
    ...more,
  };
  const ways = { staysInside: () => true, hasMoment: () => true };
  return Array.from({ length: COUNT }, (_, n) => drawVisit(model, ways, 7, n));
}
const share = <T>(of: T[], fits: (one: T) => boolean) => of.filter(fits).length / of.length;

describe('drawn visits', () => {
  it('need parts as often as is said; of those that exclude each other one at most', () => {
    const conditions = [
      { part: 'guest', share: 0.5, group: 'who' },
      { part: 'member', share: 0.3, group: 'who' },
      { part: 'crew', share: 0.2, group: 'who' },
      { part: 'banner', share: 0.4 },
    ];
    const held = drawAll([habits({ conditions })]).map((d) => d.visit.holds);
    for (const { part, share: expected } of conditions)
      expect(share(held, (h) => h.includes(part))).toBeCloseTo(expected, 1);
    for (const h of held) expect(h.filter((p) => p !== 'banner')).toHaveLength(1);
  });

  it('share a segment over all of its parts', () => {
    const conditions = ['desk', 'rota'].map((part) => ({ part, share: 1, segment: 'staff' }));
    const held = drawAll([habits({ conditions })], { segments: [{ name: 'staff', share: 0.3 }] });
    const parts = held.map((d) => d.visit.holds);
    expect(share(parts, (h) => h.length === 2)).toBeCloseTo(0.3, 1);
    expect(share(parts, (h) => h.length === 1)).toBe(0);
  });

  it('come back, after a deploy or not, by touch and saving data as often as the model says', () => {
    const all = drawAll([habits({})]);
    expect(share(all, (d) => d.cache === 'empty')).toBeCloseTo(0.5, 1);
    expect(share(all, (d) => d.cache === 'deployed')).toBeCloseTo(0.2, 1);
    expect(share(all, (d) => d.touch === true)).toBeCloseTo(0.25, 1);
    expect(share(all, (d) => d.dataSaver)).toBeCloseTo(0.1, 1);
    expect(drawAll([habits({})], { touch: null })[0].touch).toBeNull();
  });

  it('end after twelve stays, however sure the next move is', () => {
    const round = [
      habits({ moves: [{ to: '/next', share: 1 }] }),
      habits({ pattern: '/next', landings: 0, moves: [{ to: '/', share: 1 }] }),
    ];
    for (const { visit } of drawAll(round).slice(0, 50)) {
      expect(visit.steps).toHaveLength(11);
      expect(visit.steps.every((s) => s.does === 'move')).toBe(true);
    }
  });

  it('move on and act by their shares, in the order of the stay, with times from their distributions', () => {
    const act = { part: 'dialog', name: 'dialog', module: 'dialog', scroll: false, share: 0.6, hesitation: HESITATION };
    const below = { ...act, part: 'below', scroll: true, share: 0.5 };
    const all = drawAll([
      habits({ acts: [act, below], moves: [{ to: '/next', share: 0.7 }] }),
      habits({ pattern: '/next', landings: 0 }),
    ]).map((d) => d.visit.steps);
    const has = (does: string) => share(all, (steps) => steps.some((s) => s.does === does));
    expect(has('act')).toBeCloseTo(0.6, 1);
    expect(has('scroll')).toBeCloseTo(0.5, 1);
    expect(has('move')).toBeCloseTo(0.7, 1);
    const moved = all.filter((steps) => steps.some((s) => s.does === 'move'));
    for (const steps of moved) expect(steps.at(-1)?.does).toBe('move');
    const leads = all.flatMap((steps) => steps.filter((s) => s.does === 'act').map((s) => s.leadMs));
    const middle = leads.sort((a, b) => a - b)[leads.length >> 1];
    expect(middle).toBeGreaterThan(720);
    expect(middle).toBeLessThan(880);
  });
});
