import type { HintRow } from '../../../core/choose/hint-table.ts';
import { shortTarget } from '../../../core/plan/hints.ts';
import type { Hint } from '../../../core/vocabulary/hints.ts';
import { isDocumentHint } from '../../../core/vocabulary/hints.ts';
import { triggerWords } from '../../../core/vocabulary/triggers.ts';

/** One thing that can be hinted at on a route, with the ways of doing it, the one that saves most first. */
export interface HintLine {
  key: string;
  name: string;
  ways: HintRow[];
  /** Those that the plan has. */
  on: HintRow[];
  why: string;
}

export interface RouteHints {
  /** Empty: every route. */
  route: string;
  lines: HintLine[];
}

/** Less than this is told as no difference, in ms per visit. */
export const NO_GAIN = 0.5;

/** Rows by route, then by what they aim at; what saves most first. `all`: also what doesn't help. */
export function hintLines(rows: readonly HintRow[], all: boolean): RouteHints[] {
  const routes = new Map<string, Map<string, HintRow[]>>();
  for (const row of rows) {
    const route = row.hint.routes.length === 1 ? row.hint.routes[0] : '';
    const lines = routes.get(route) ?? new Map<string, HintRow[]>();
    routes.set(route, lines);
    const key = `${route} ${JSON.stringify(row.hint.target)}`;
    lines.set(key, [...(lines.get(key) ?? []), row]);
  }
  const told = [...routes].map(
    ([route, lines]): RouteHints => ({
      route,
      lines: [...lines]
        .map(([key, ways]): HintLine => {
          const sorted = [...ways].sort((a, b) => b.gain - a.gain);
          const { hint } = sorted[0];
          const on = sorted.filter((w) => w.on);
          const why = sorted.find((w) => !w.on)?.why ?? sorted[0].why;
          return { key, name: shortTarget(hint.target), ways: sorted, on, why };
        })
        .filter((line) => all || line.on.length > 0 || line.ways[0].gain > NO_GAIN)
        .sort((a, b) => b.ways[0].gain - a.ways[0].gain),
    }),
  );
  const best = (r: RouteHints) => Math.max(0, ...r.lines.map((l) => l.ways[0].gain));
  return told.filter((r) => r.lines.length > 0).sort((a, b) => best(b) - best(a));
}

/** How a hint is given, as short as it fits beside its target: `prefetch, idle`. */
export function wayWords({ kind, place, on, priority }: Hint): string {
  if (kind === 'fetch priority') return `${priority} fetch priority`;
  if (isDocumentHint(kind)) return `${kind}, ${on?.on === 'approach' ? 'on hover or focus' : 'at once'}`;
  return `${kind}, ${place === 'script' && on ? triggerWords(on) : place}`;
}
