import type { SplitRow } from '../../../core/outline/outline.ts';
import { decisionWords, subjectOf } from '../../../core/plan/decisions.ts';
import type { Decision } from '../../../core/plan/types.ts';
import { shortName } from '../../../core/text/short-name.ts';
import type { Hint } from '../../../core/vocabulary/hints.ts';
import { useWorkbench } from '../../state/workbench.ts';
import type { Line } from './lines.ts';

/** Detaches a joined import, or joins a deferred one; goes back to as built where that is the same. */
export function toggleImport(line: Exclude<Line, { kind: 'heading' | 'group' }>): void {
  if (line.kind === 'import') {
    const { key, changed, to } = line.row;
    if (changed) takeBack({ kind: 'join', import: key });
    else useWorkbench.getState().decide([{ kind: 'detach', import: key }]);
    useWorkbench.getState().choose({ selection: { kind: 'split point', module: to } });
  } else joinSplit(line.row);
}

/** Joins all the imports that lead to a split point: what the plan detached is taken back, the rest is joined. */
export function joinSplit(row: SplitRow): void {
  const { decide, withdraw, choose } = useWorkbench.getState();
  const detached = row.imports.filter((i) => i.changed);
  const words = `join ${row.name}`;
  if (detached.length === row.imports.length) {
    withdraw(
      detached.map((i) => subjectOf({ kind: 'detach', import: i.key })),
      words,
    );
  } else {
    decide(
      row.imports.map((i) => ({ kind: 'join', import: i.key })),
      words,
    );
  }
  choose({ selection: row.imports[0] ? { kind: 'import', key: row.imports[0].key } : null });
}

/** Joins all deferred pieces of a route's own chain, so that they travel and run together. */
export function joinChain(chain: SplitRow[], route: string): void {
  const { decide, choose } = useWorkbench.getState();
  const decisions = chain.flatMap((row) => row.imports.map((i): Decision => ({ kind: 'join', import: i.key })));
  decide(decisions, `join the staircase of ${route}`);
  choose({ selection: null });
}

function takeBack(decision: Decision): void {
  useWorkbench.getState().withdraw([subjectOf(decision)], `remove: ${decisionWords(decision)}`);
}

/** A hint for a split point on one route. */
export function hintFor(row: SplitRow, route: string, kind: Hint['kind'], place: Hint['place']): Hint {
  return { kind, place, target: { kind: 'split point', module: row.target }, routes: [route] };
}

export function toggleHint(row: SplitRow, hint: Hint): void {
  const decision: Decision = { kind: 'hint', hint };
  if (isThere(row, hint))
    useWorkbench.getState().withdraw([subjectOf(decision)], `no ${hint.kind} for ${shortName(row.target)}`);
  else useWorkbench.getState().decide([decision]);
}

function isThere(row: SplitRow, { kind, place }: Pick<Hint, 'kind' | 'place'>): boolean {
  return row.hints.some((h) => h.kind === kind && h.place === place);
}

/** Whether the document preloads a split point on the route. */
export function hasPreload(row: SplitRow): boolean {
  return isThere(row, PRELOAD);
}

const PRELOAD = { kind: 'modulepreload', place: 'markup' } as const;

export function togglePreload(row: SplitRow, route: string): void {
  toggleHint(row, hintFor(row, route, PRELOAD.kind, PRELOAD.place));
}
