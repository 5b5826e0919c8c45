import { VISIT } from './types.ts';

const fine = {
  name: 'v',
  landing: '/',
  steps: [
    { does: 'move', to: '/b' },
    { does: 'approach', part: 'x', leadMs: 5 },
  ],
};

it('fills in what a visit leaves out', () => {
  expect(VISIT.check(fine, 'visit')).toEqual({
    name: 'v',
    landing: '/',
    holds: [],
    steps: [
      { does: 'move', to: '/b', by: 'inside', dwellMs: 0, leadMs: 0, holds: [] },
      { does: 'approach', part: 'x', dwellMs: 0, leadMs: 5 },
    ],
  });
});

it.each([
  ['visit.steps[0].does', { ...fine, steps: [{ does: 'fly' }] }],
  ['visit.steps[0].dwellMs', { ...fine, steps: [{ does: 'deploy', dwellMs: -1 }] }],
  ['visit.steps[0].part', { ...fine, steps: [{ does: 'act' }] }],
  ['visit.steps[0].width', { ...fine, steps: [{ does: 'resize', width: 'wide', height: 3 }] }],
  ['visit.steps[0].by', { ...fine, steps: [{ does: 'move', to: '/', by: 'train' }] }],
  ['visit.steps', { ...fine, steps: Array.from({ length: 501 }, () => ({ does: 'deploy' })) }],
  ['visit.landing', { ...fine, landing: 3 }],
])('names %s', (at, visit) => {
  expect(() => VISIT.check(visit, 'visit')).toThrow(expect.objectContaining({ at }));
});
