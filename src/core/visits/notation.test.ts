import fc from 'fast-check';
import { readVisit, writeVisit } from './notation.ts';
import type { Visit, VisitStep } from './types.ts';

const name = fc.string({ minLength: 1, maxLength: 12 }).filter((s) => s.trim() !== '' && !s.startsWith('/'));
const pattern = name.map((n) => `/${n}`);
const pause = fc.record({ dwellMs: fc.nat(90_000), leadMs: fc.nat(5000) });
const holds = fc.array(name, { maxLength: 2 });
const step: fc.Arbitrary<VisitStep> = fc.oneof(
  fc.tuple(pause, name).map(([p, part]) => ({ does: 'act' as const, part, ...p })),
  fc.tuple(pause, name).map(([p, part]) => ({ does: 'scroll' as const, part, ...p })),
  fc.tuple(pause, name).map(([p, part]) => ({ does: 'approach' as const, part, ...p })),
  fc.tuple(pause, pattern).map(([p, to]) => ({ does: 'approach' as const, to, ...p })),
  fc
    .tuple(pause, pattern, fc.constantFrom('inside' as const, 'document' as const), holds)
    .map(([p, to, by, parts]) => ({ does: 'move' as const, to, by, holds: parts, ...p })),
  fc
    .tuple(fc.nat(9000), fc.integer({ min: 1, max: 9000 }), fc.integer({ min: 1, max: 9000 }))
    .map(([dwellMs, width, height]) => ({ does: 'resize' as const, width, height, dwellMs })),
  fc.nat(9000).map((dwellMs) => ({ does: 'deploy' as const, dwellMs })),
  fc.tuple(fc.nat(9000), pattern, fc.boolean(), holds).map(([dwellMs, to, deployed, parts]) => ({
    does: 'return' as const,
    to,
    deployed,
    awayMs: 86_400_000,
    holds: parts,
    dwellMs,
  })),
);

it('a visit on one line reads back as it was, whatever its names hold', () => {
  fc.assert(
    fc.property(pattern, holds, fc.array(step, { maxLength: 5 }), (landing, held, steps) => {
      const visit: Visit = { name: '', landing, holds: held, steps };
      expect(readVisit(writeVisit(visit))).toEqual(visit);
    }),
    { numRuns: 300 },
  );
});

it('reads what a person writes', () => {
  expect(readVisit('/ > act fares @4000+300 > open /book > deploy @5')).toEqual({
    name: '',
    landing: '/',
    holds: [],
    steps: [
      { does: 'act', part: 'fares', dwellMs: 4000, leadMs: 300 },
      { does: 'move', to: '/book', by: 'document', dwellMs: 0, leadMs: 0, holds: [] },
      { does: 'deploy', dwellMs: 5 },
    ],
  });
});

it('names the step that it can’t read', () => {
  expect(() => readVisit('/ > jump high')).toThrow(expect.objectContaining({ at: 'steps[0]' }));
  expect(() => readVisit('/ > act x > resize big')).toThrow(expect.objectContaining({ at: 'steps[1]' }));
  expect(() => readVisit('')).toThrow('Empty visit');
});
