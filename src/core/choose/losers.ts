import type { Score } from '../advise/types.ts';
import type { Circumstance, Loser } from './types.ts';

/** What comes later by more than this is told: in ms, and as a share of what it was. */
const TOLD_MS = 10;
const TOLD_SHARE = 0.01;
const MOST = 20;

interface Scored {
  circumstance: Circumstance;
  score: Score;
}

/** Who is worse off: circumstances, landings and waits that take longer than before, the worst first. */
export function losersOf(before: readonly Scored[], after: readonly Scored[]): Loser[] {
  const losers: Loser[] = [];
  const tell = (circumstance: string, who: string, was: number, now: number) => {
    if (now - was > Math.max(TOLD_MS, was * TOLD_SHARE)) losers.push({ circumstance, who, change: now - was });
  };
  for (const [at, { circumstance, score }] of after.entries()) {
    const was = before[at].score;
    const { name } = circumstance;
    tell(name, '', was.cost, score.cost);
    for (const route of score.routes) {
      const old = was.routes.find((r) => r.pattern === route.pattern);
      if (!old || route.share === 0) continue;
      tell(name, `first content of ${route.pattern}`, old.firstContent, route.firstContent);
      tell(name, `${route.pattern} until interactive`, old.interactive, route.interactive);
    }
    for (const wait of score.waits) {
      const old = was.waits.find((w) => w.key === wait.key);
      if (old) tell(name, `${wait.name} on ${wait.route}`, old.wait, wait.wait);
    }
  }
  return losers.sort((a, b) => b.change - a.change).slice(0, MOST);
}
