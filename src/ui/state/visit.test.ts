import type { Visit } from '../../core/visits/types.ts';
import { addStep, changeStep, removeStep, useVisitChoice } from './visit.ts';

const visit: Visit = {
  name: '',
  landing: '/',
  holds: [],
  steps: [
    { does: 'act', part: 'a', dwellMs: 1000, leadMs: 200 },
    { does: 'move', to: '/b', by: 'inside', dwellMs: 1000, leadMs: 200, holds: [] },
    { does: 'act', part: 'b', dwellMs: 1000, leadMs: 200 },
  ],
};
const now = () => useVisitChoice.getState();

beforeEach(() => useVisitChoice.setState({ script: null, step: null }));

it('changes one step and leaves the visit that it began with alone', () => {
  changeStep(visit, 0, { leadMs: 900 });
  expect(now().script?.steps[0]).toMatchObject({ part: 'a', leadMs: 900 });
  expect(visit.steps[0]).toMatchObject({ leadMs: 200 });
});

it('leaves a step out, and looks at the one before it', () => {
  removeStep(visit, 0);
  expect(now().script?.steps.map((s) => s.does)).toEqual(['move', 'act']);
  expect(now().step).toBe(-1);
});

it('ends the visit before a move, since what follows belongs to where it led', () => {
  removeStep(visit, 1);
  expect(now().script?.steps.map((s) => s.does)).toEqual(['act']);
  expect(now().step).toBe(0);
});

it('adds a step and looks at it', () => {
  addStep(visit, { does: 'deploy', dwellMs: 5 });
  expect(now().script?.steps.at(-1)?.does).toBe('deploy');
  expect(now().step).toBe(3);
});
