// Problems of choosing, made up from a seed: for the tests of the search, and for the bench.

/**
 * A made-up problem of the kind that hints pose: milestones that are over when the last of what they wait for is there;
 * candidates that bring some of that earlier and hold up something else; waste with a limit; candidates that exclude
 * each other. `least`: by trying every set. `seeded`: makes random numbers of a seed.
 */
export function madeUpProblem(seeded, seed, count, price = 0) {
  const next = seeded(seed);
  const pick = (most) => Math.floor(next() * most);
  const gates = Array.from({ length: 10 }, () => 200 + next() * 1500);
  const milestones = Array.from({ length: 4 }, () => ({
    share: 0.1 + next(),
    waits: [pick(10), pick(10), pick(10)],
  }));
  const candidates = Array.from({ length: count }, () => ({
    gate: pick(10),
    earlier: 100 + next() * 900,
    holds: pick(10),
    later: next() < 0.4 ? next() * 200 : 0,
    waste: next() < 0.5 ? next() * 100 : 0,
  }));
  const most = 40 + next() * 200;
  const instead = candidates.map((c, i) => (next() < 0.2 ? `gate ${c.gate}` : String(i)));
  const measure = (set) => {
    const at = [...gates];
    for (const i of set) {
      at[candidates[i].gate] = Math.max(50, at[candidates[i].gate] - candidates[i].earlier);
      at[candidates[i].holds] += candidates[i].later;
    }
    const waste = set.reduce((sum, i) => sum + candidates[i].waste, 0);
    const cost = milestones.reduce((sum, m) => sum + m.share * Math.max(...m.waits.map((g) => at[g])), 0);
    return { cost: cost + waste * 0.3, waste };
  };
  const bundles = milestones
    .map((m) => candidates.flatMap((c, i) => (m.waits.includes(c.gate) ? [i] : [])))
    .flatMap((of) => of.flatMap((a) => of.filter((b) => b > a && instead[a] !== instead[b]).map((b) => [a, b])));
  const problem = {
    count,
    instead: (i) => instead[i],
    bundles,
    measure,
    price,
    keeps: () => true,
    weight: (m) => m.waste,
    most,
    touches: () => true,
  };
  /** The least cost (with the price) of all sets that waste so much at most. */
  const least = (within = most) => {
    let best = measure([]).cost;
    for (let bits = 1; bits < 2 ** count; bits++) {
      const set = Array.from({ length: count }, (_, i) => i).filter((i) => bits & (1 << i));
      if (new Set(set.map((i) => instead[i])).size < set.length) continue;
      const m = measure(set);
      if (m.waste <= within) best = Math.min(best, m.cost + price * set.length);
    }
    return best;
  };
  return { ...problem, least };
}
