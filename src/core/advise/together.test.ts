import fc from 'fast-check';
import { planWith, subjectOf } from '../plan/decisions.ts';
import { BASELINE, type Decision, type Plan } from '../plan/types.ts';
import { remediesTogether } from './together.ts';
import type { Remedy } from './types.ts';

/** Detaching and joining an import are about the same, so that many of these contradict each other. */
const decision: fc.Arbitrary<Decision> = fc.record({
  kind: fc.constantFrom('detach' as const, 'join' as const),
  import: fc.constantFrom('a.ts -> b.ts', 'a.ts -> c.ts', 'b.ts -> d.ts', 'd.ts -> e.ts'),
});
const remedy: fc.Arbitrary<Remedy> = fc.record({
  words: fc.constant('a change'),
  decisions: fc.array(decision, { maxLength: 3 }),
  withdraw: fc.array(decision.map(subjectOf), { maxLength: 2 }),
});
const bySubject = (plan: Plan) => new Map(plan.decisions.map((d) => [subjectOf(d), d]));

it('several changes together are what they are one after the other', () => {
  fc.assert(
    fc.property(fc.array(decision, { maxLength: 3 }), fc.array(remedy, { maxLength: 4 }), (had, remedies) => {
      const plan = planWith(BASELINE, { decisions: had });
      const one = planWith(plan, remediesTogether('all', remedies));
      expect(bySubject(one)).toEqual(bySubject(remedies.reduce(planWith, plan)));
    }),
  );
});
