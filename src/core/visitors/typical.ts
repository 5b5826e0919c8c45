import type { Habits, VisitorModel } from '../snapshot/visitor-types.ts';
import type { Visit, VisitStep } from '../visits/types.ts';
import type { Ways } from './draw.ts';

/** What at least this share of stays does belongs to a typical visit. */
const OFTEN = 0.1;
const MOST_STAYS = 4;
const MOST_ACTS = 3;

/** A visit as the model's habits suggest: the usual acts on each route, the likeliest move, no route twice. */
export function typicalVisit(model: VisitorModel, ways: Ways, landing: string): Visit {
  const steps: VisitStep[] = [];
  const been = new Set<string>();
  let opened = landing;
  let at: Habits | undefined = model.routes.find((r) => r.pattern === landing);
  const holds = at ? always(at) : [];
  while (at) {
    const here: Habits = at;
    been.add(here.pattern);
    const dwellMs = Math.round(here.dwell.medianMs);
    const acts = here.acts.filter((a) => a.share >= OFTEN && ways.hasMoment(opened, here.pattern, a.part));
    for (const { part, scroll, hesitation } of acts.slice(0, MOST_ACTS)) {
      steps.push(
        scroll
          ? { does: 'scroll', part, dwellMs, leadMs: 0 }
          : { does: 'act', part, dwellMs, leadMs: Math.round(hesitation.medianMs) },
      );
    }
    if (been.size === MOST_STAYS) break;
    const [next] = here.moves.filter((m) => !been.has(m.to)).sort((a, b) => b.share - a.share);
    at = next && model.routes.find((r) => r.pattern === next.to);
    if (!at) break;
    const by = ways.staysInside(opened, at.pattern) ? 'inside' : 'document';
    if (by === 'document') opened = at.pattern;
    steps.push({
      does: 'move',
      to: at.pattern,
      by,
      dwellMs,
      leadMs: Math.round(model.hesitation.medianMs),
      holds: always(at),
    });
  }
  return { name: `A typical visit from ${landing}`, landing, holds, steps };
}

/** Conditional parts that most stays need. */
function always({ conditions }: Habits): string[] {
  return conditions.filter((c) => c.segment === undefined && c.share > 0.5).map((c) => c.part);
}
