import { planWith } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import { type Conditions, LINKS, type Link } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { FindingKind } from '../vocabulary/findings.ts';
import { cautionsOf, effectOf, SMALL_LOSS } from './effect.ts';
import type { Scorer } from './score.ts';
import type { Advice, CandidateFinding, Finding, Score } from './types.ts';

/** What saves nothing alone has to save so much once all else is taken, in expected ms per visit, before it is told. */
const LEAST_AFTER = 5;

/**
 * What saves nothing as the plan is, but once the findings are taken: what it works at stood behind something else until then.
 * `taken`: the plan with all of them.
 */
export function* payingAfter(
  app: Snapshot,
  taken: Plan,
  candidates: readonly CandidateFinding[],
  noGain: Advice['noGain'],
  scorer: Scorer,
): Generator<{ done: number; of: number }, Finding[]> {
  const found: Finding[] = [];
  const before = scorer.score(taken);
  for (const { remedies, ...candidate } of candidates) {
    const isOpen = noGain.some((n) => n.id === candidate.id) && !candidate.seen && !candidate.whose;
    if (!isOpen || remedies.some((r) => r.withdraw && r.withdraw.length > 0)) continue;
    for (const remedy of remedies) {
      const effect = effectOf(before, scorer.score(planWith(taken, remedy)));
      yield { done: candidates.length, of: candidates.length };
      const known = found.findIndex((f) => f.id === candidate.id);
      if (effect.cost > -LEAST_AFTER || (known >= 0 && found[known].effect.cost <= effect.cost)) continue;
      const cautions = cautionsOf(app, taken, remedy);
      if (cautions.length > 0) continue;
      if (known >= 0) found.splice(known, 1);
      const why = `${candidate.why} It pays once what stands above is taken.`;
      found.push({ ...candidate, why, remedy, effect, cautions, together: null, basis: { on: 'those above' } });
    }
  }
  return found.sort((a, b) => a.effect.cost - b.effect.cost || (a.id < b.id ? -1 : 1));
}

/** What is hidden here has to save so much on another link, in expected ms per visit. */
const LEAST_ELSEWHERE = 3;
/** What the present link may hide: a chain of requests costs a round trip for each. */
const HURTS_ELSEWHERE: ReadonlySet<FindingKind> = new Set(['nested splits']);

/**
 * Chains that cost next to nothing on the present link, but do on a named one that takes longer for a round trip: told with that link, and what is
 * saved there.
 */
export function* payingElsewhere(
  app: Snapshot,
  plan: Plan,
  now: {
    candidates: readonly CandidateFinding[];
    open: Advice['noGain'];
    before: Score;
    conditions: Conditions;
    scorer: Scorer;
  },
  on: (link: Link) => Scorer,
): Generator<{ done: number; of: number }, Finding[]> {
  const { candidates, open, before, conditions, scorer } = now;
  const slower = LINKS.filter((l) => l.rttMs > conditions.link.rttMs).sort((a, b) => a.rttMs - b.rttMs);
  const found: Finding[] = [];
  const scorers = new Map<Link, { there: Scorer; was: number }>();
  const onLink = (link: Link) => {
    const known = scorers.get(link);
    if (known) return known;
    const there = on(link);
    const made = { there, was: there.score(plan).cost };
    scorers.set(link, made);
    return made;
  };
  for (const { remedies, ...candidate } of candidates) {
    const known = open.find((n) => n.id === candidate.id);
    if (!known || known.cost > SMALL_LOSS || !HURTS_ELSEWHERE.has(candidate.kind)) continue;
    for (const link of slower) {
      const { there, was } = onLink(link);
      const gains = remedies.map((remedy) => ({ remedy, saves: was - there.score(planWith(plan, remedy)).cost }));
      yield { done: candidates.length, of: candidates.length };
      const [best] = gains.sort((a, b) => b.saves - a.saves);
      if (!best || best.saves < LEAST_ELSEWHERE) continue;
      const cautions = cautionsOf(app, plan, best.remedy);
      const effect = effectOf(before, scorer.score(planWith(plan, best.remedy)));
      const why = `${candidate.why} The link chosen here hides it; on ${link.name} a visit would save ${Math.round(best.saves)} ms.`;
      const basis = { on: 'a link' as const, link: link.name, saves: best.saves };
      found.push({ ...candidate, why, remedy: best.remedy, effect, cautions, together: null, basis });
      break;
    }
  }
  return found;
}
