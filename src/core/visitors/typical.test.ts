import type { Habits, VisitorModel } from '../snapshot/visitor-types.ts';
import { typicalVisit } from './typical.ts';

const ways = {
  staysInside: (_: string, to: string) => to !== '/far',
  hasMoment: (_: string, __: string, part: string) => part !== 'gone',
};
const act = (part: string, share: number, scroll = false) => ({
  part,
  name: part,
  module: part,
  scroll,
  share,
  hesitation: { medianMs: 250, spread: 0.5 },
});
function habits(pattern: string, more: Partial<Habits> = {}): Habits {
  return {
    pattern,
    page: pattern,
    landings: 1,
    dwell: { medianMs: 5000, spread: 0.5 },
    moves: [],
    acts: [],
    conditions: [],
    ...more,
  };
}
const model = (...routes: Habits[]): VisitorModel => ({
  segments: [],
  touch: null,
  dataSaver: 0,
  returning: 0,
  deployed: 0,
  hesitation: { medianMs: 300, spread: 0.5 },
  routes,
});

it('does what is usual, in order, and leaves out what is rare or impossible', () => {
  const home = habits('/', { acts: [act('often', 0.4), act('rare', 0.01), act('gone', 0.9), act('low', 0.3, true)] });
  expect(typicalVisit(model(home), ways, '/').steps).toEqual([
    { does: 'act', part: 'often', dwellMs: 5000, leadMs: 250 },
    { does: 'scroll', part: 'low', dwellMs: 5000, leadMs: 0 },
  ]);
});

it('does what exactly one stay in ten does, three acts at most, and needs what more than half need', () => {
  const acts = [act('edge', 0.1), act('below', 0.0999), act('b', 0.5), act('c', 0.5), act('d', 0.5)];
  const condition = (part: string, share: number) => ({ part, name: part, share }) as Habits['conditions'][number];
  const conditions = [condition('half', 0.5), condition('most', 0.51), { ...condition('crew', 0.9), segment: 'crew' }];
  const visit = typicalVisit(model(habits('/', { acts, conditions })), ways, '/');
  expect(visit.steps.map((s) => 'part' in s && s.part)).toEqual(['edge', 'b', 'c']);
  expect(visit.holds).toEqual(['most']);
});

it('ends after four stays', () => {
  const chain = ['/', '/a', '/b', '/c', '/d'].map((pattern, i, all) =>
    habits(pattern, { moves: all[i + 1] ? [{ to: all[i + 1], share: 0.9 }] : [] }),
  );
  const { steps } = typicalVisit(model(...chain), ways, '/');
  expect(steps.map((s) => s.does === 'move' && s.to)).toEqual(['/a', '/b', '/c']);
});

it('goes on along the likeliest moves, and nowhere twice', () => {
  const home = habits('/', {
    moves: [
      { to: '/a', share: 0.2 },
      { to: '/b', share: 0.3 },
    ],
  });
  const b = habits('/b', {
    moves: [
      { to: '/', share: 0.9 },
      { to: '/far', share: 0.1 },
    ],
  });
  const far = habits('/far', { moves: [{ to: '/a', share: 0.5 }] });
  const { steps } = typicalVisit(model(home, habits('/a'), b, far), ways, '/');
  expect(steps.map((s) => ('to' in s && 'by' in s ? [s.to, s.by] : s))).toEqual([
    ['/b', 'inside'],
    ['/far', 'document'],
    ['/a', 'inside'],
  ]);
});

it('holds conditions that most stays have, and none of a segment', () => {
  const conditions = [
    { part: 'mostly', share: 0.8 },
    { part: 'seldom', share: 0.2 },
    { part: 'crew', share: 0.9, segment: 'crew' },
  ];
  expect(typicalVisit(model(habits('/', { conditions })), ways, '/').holds).toEqual(['mostly']);
});

it('of a route that nobody knows is a landing alone', () => {
  expect(typicalVisit(model(), ways, '/lost')).toMatchObject({ landing: '/lost', steps: [] });
});
