import { planWith } from '../plan/decisions.ts';
import type { Plan } from '../plan/types.ts';
import type { Conditions } from '../sim/conditions.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot } from '../snapshot/types.ts';
import type { Habits, VisitorModel } from '../snapshot/visitor-types.ts';
import { Compilations } from './compiled.ts';
import { Scorer } from './score.ts';
import type { Remedy } from './types.ts';

/** What is varied: how many stays come to use what the change is about, people's hesitation, the rate of the link. */
export const BREAK_EVEN_OVER = ['use', 'hesitation', 'rate'] as const;
export type BreakEvenOver = (typeof BREAK_EVEN_OVER)[number];

/** What a change saves, by a share of stays (0 to 1), a hesitation in ms, or a rate in kilobits per second. */
export interface BreakEven {
  over: BreakEvenOver;
  /** As it is now. */
  now: number;
  /** Expected ms per visit that the change saves there; less than nothing where it harms. */
  points: { at: number; gain: number }[];
  /** Where it begins or ceases to pay, between the points next to each other of which one pays. */
  crossings: number[];
}

const USES = [0, 0.02, 0.05, 0.1, 0.2, 0.35, 0.5, 0.75, 1];
const HESITATIONS = [0, 50, 100, 200, 400, 800, 1600];
const RATES = [250, 500, 1000, 1600, 3000, 6000, 12_000, 25_000, 50_000];

/**
 * At what share of use, hesitation or link rate a change starts to pay: it is scored with and without at each of several
 * values, with all else as it is. Null where nobody's use is about what the change moves.
 */
export function breakEven(
  app: Snapshot,
  plan: Plan,
  remedy: Remedy,
  model: VisitorModel,
  conditions: Conditions,
  over: BreakEvenOver,
): BreakEven | null {
  const changed = planWith(plan, remedy);
  const used = over === 'use' ? usedBy(model, modulesOf(app, remedy)) : [];
  if (over === 'use' && used.length === 0) return null;
  const compilations = [new Compilations(app, model), new Compilations(app, model)];
  const gainAt = (at: number): number => {
    const people = over === 'use' ? withUse(model, used, at) : over === 'hesitation' ? hesitating(model, at) : model;
    const under = over === 'rate' ? { ...conditions, link: { ...conditions.link, downKbps: at } } : conditions;
    const [was, now] = [plan, changed].map((p, i) => new Scorer(app, people, under, compilations[i]).score(p).cost);
    return was - now;
  };
  const now =
    over === 'use'
      ? shareOf(model, used[0])
      : over === 'hesitation'
        ? model.hesitation.medianMs
        : conditions.link.downKbps;
  const tried = over === 'use' ? USES : over === 'hesitation' ? HESITATIONS : RATES;
  const points = [...new Set([...tried, now])].sort((a, b) => a - b).map((at) => ({ at, gain: gainAt(at) }));
  return { over, now, points, crossings: crossingsOf(points) };
}

/** Where a line through the points crosses nothing. */
function crossingsOf(points: BreakEven['points']): number[] {
  const found: number[] = [];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    if (a.gain > 0 === b.gain > 0) continue;
    found.push(a.at + ((b.at - a.at) * -a.gain) / (b.gain - a.gain));
  }
  return found;
}

/** A habit of the model: a part that is used on a route, or a move from one route to another. */
type Use = { route: string; part: string } | { route: string; to: string };

function usedBy(model: VisitorModel, modules: ReadonlySet<string>): Use[] {
  const pages = new Map(model.routes.map((r) => [r.pattern, r.page]));
  return model.routes.flatMap(({ pattern: route, acts, moves }): Use[] => [
    ...acts.filter((a) => modules.has(a.module)).map(({ part }) => ({ route, part })),
    ...moves.filter((m) => modules.has(pages.get(m.to) ?? '')).map(({ to }) => ({ route, to })),
  ]);
}

/** Paths of the modules that a way moves or fetches. */
function modulesOf(app: Snapshot, { decisions }: Remedy): Set<string> {
  const found = new Set<string>();
  for (const decision of decisions) {
    if (decision.kind === 'trigger' || decision.kind === 'split') found.add(decision.splitPoint);
    else if (decision.kind === 'detach' || decision.kind === 'join') {
      if ('module' in decision) found.add(decision.module);
      else if ('import' in decision) {
        const at = graphIndex(app).importAt.get(decision.import);
        if (at !== undefined) found.add(app.modules[app.imports[at].to].path);
      }
    } else if (decision.kind === 'hint') {
      const { target } = decision.hint;
      if (target.kind === 'split point') found.add(target.module);
      if (target.kind === 'route') {
        const page = app.routes.find((r) => r.pattern === target.pattern)?.page;
        if (page) found.add(page);
      }
    }
  }
  return found;
}

function shareOf(model: VisitorModel, use: Use): number {
  const habits = model.routes.find((r) => r.pattern === use.route)!;
  return 'part' in use
    ? habits.acts.find((a) => a.part === use.part)!.share
    : habits.moves.find((m) => m.to === use.to)!.share;
}

/** The model with all of these uses at one share; other moves make room where that is needed. */
function withUse(model: VisitorModel, uses: readonly Use[], share: number): VisitorModel {
  const change = (habits: Habits): Habits => {
    const own = uses.filter((u) => u.route === habits.pattern);
    const parts = new Set(own.flatMap((u) => ('part' in u ? [u.part] : [])));
    const to = new Set(own.flatMap((u) => ('to' in u ? [u.to] : [])));
    const each = share / Math.max(1, to.size);
    const others = habits.moves.reduce((sum, m) => sum + (to.has(m.to) ? 0 : m.share), 0);
    const room = to.size > 0 && others > 1 - share ? (1 - share) / others : 1;
    return {
      ...habits,
      acts: habits.acts.map((a) => (parts.has(a.part) ? { ...a, share } : a)),
      moves: habits.moves.map((m) => ({ ...m, share: to.has(m.to) ? each : m.share * room })),
    };
  };
  return { ...model, routes: model.routes.map(change) };
}

function hesitating(model: VisitorModel, medianMs: number): VisitorModel {
  const hesitation = { ...model.hesitation, medianMs };
  const routes = model.routes.map((r) => ({ ...r, acts: r.acts.map((a) => ({ ...a, hesitation })) }));
  return { ...model, hesitation, routes };
}
