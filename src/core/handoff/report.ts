import { decisionWords, shipsBy } from '../plan/decisions.ts';
import { chosenImports } from '../plan/effective.ts';
import type { Decision, Plan, ShipsBy } from '../plan/types.ts';
import { troublesOf } from '../ship/shipped.ts';
import type { Conditions } from '../sim/conditions.ts';
import type { Snapshot } from '../snapshot/types.ts';
import { kilobytes, milliseconds } from '../text/amounts.ts';
import { oneLine } from '../text/one-line.ts';
import { plain as text } from '../text/table-text.ts';
import type { RouteChange } from './tables.ts';
import type { RehearsedLanding } from './types.ts';

const GROUPS: ShipsBy[] = ['source edit', 'server or markup', 'build setting'];

/** A plan's decisions by how they reach production, each in words, with the lines of code that it is about. */
export function decisionsByWay(
  snapshot: Snapshot,
  plan: Plan,
): { by: ShipsBy; decisions: { words: string; lines: string[] }[] }[] {
  return GROUPS.map((by) => ({
    by,
    decisions: plan.decisions
      .filter((d) => shipsBy(d) === by)
      .map((d) => ({ words: decisionWords(d), lines: linesOf(snapshot, d) })),
  })).filter((g) => g.decisions.length > 0);
}

/** `file:line` of the imports that a decision detaches or joins. */
function linesOf(snapshot: Snapshot, decision: Decision): string[] {
  if (decision.kind !== 'detach' && decision.kind !== 'join') return [];
  const { imports, modules } = snapshot;
  const chosen = chosenImports(snapshot, decision);
  const meant = typeof chosen === 'string' ? [] : chosen.map((i) => imports[i]);
  return meant.map((i) => `${modules[i.from].path}:${i.line}`);
}

const SUMS =
  'Start: script and style of the app that the first screen needs. Other scripts: third-party and classic scripts. Also fetched: what comes by itself without being needed. Compressed, whatever a cache holds.';

/** A report that can be pasted into a review: what is decided, under which conditions, and what it does; Markdown. */
export function reportText(
  app: Snapshot,
  plan: Plan,
  conditions: Conditions,
  changes: readonly RouteChange[],
  rehearsed: readonly RehearsedLanding[] = [],
): string {
  const { link, device, cache } = conditions;
  const groups = decisionsByWay(app, plan).map(({ by, decisions }) =>
    [
      `### By ${by}`,
      '',
      ...decisions.map(
        ({ words, lines }) =>
          `- ${text(words)}${lines.map((l) => `\n  - \`${oneLine(l).replace(/`/g, '’')}\``).join('')}`,
      ),
    ].join('\n'),
  );
  const stale = troublesOf(app, plan).stale.map(
    (s) => `- ${text(decisionWords(plan.decisions[s.decision]))}: ${text(s.reason)}`,
  );
  const rows = changes.map(
    ({ pattern, before, after }) =>
      `| ${text(pattern)} | ${pair(before.firstContent, after.firstContent, milliseconds)} | ${pair(before.interactive, after.interactive, milliseconds)} | ${pair(before.startBytes, after.startBytes, kilobytes)} | ${pair(before.otherScripts, after.otherScripts, kilobytes)} | ${pair(before.alsoFetched, after.alsoFetched, kilobytes)} | ${pair(before.requests, after.requests, String)} | ${pair(before.hops, after.hops, String)} |`,
  );
  const unknown = [...new Set(changes.flatMap((c) => c.unknown))];
  return `${[
    `# ${text(plan.name)}`,
    // At the beginning of a block these make it a list or a line.
    ...(plan.description ? [text(plan.description).replace(/^[-+=]/, '\\$&')] : []),
    `Predicted for ${text(link.name)} (${link.rttMs} ms round trip, ${link.downKbps} kbps down), ${text(device.name)}, cache ${cache}. As built → with the plan.`,
    [
      '| landing on | first content | interactive | start | other scripts | also fetched | requests | hops |',
      '|---|---|---|---|---|---|---|---|',
      ...rows,
    ].join('\n'),
    SUMS,
    ...(unknown.length > 0
      ? [
          `At least: the size of ${unknown.map(text).join(', ')} isn’t known, so times and “other scripts” rest on less than everything.`,
        ]
      : []),
    ...(rehearsed.length > 0 ? [rehearsedText(rehearsed)] : []),
    `## Decisions`,
    ...(groups.length > 0 ? groups : ['None.']),
    ...(stale.length > 0 ? [`### Without effect here`, stale.join('\n')] : []),
  ].join('\n\n')}\n`;
}

/** What a browser was seen to do, in the middle of its runs. */
function rehearsedText(rehearsed: readonly RehearsedLanding[]): string {
  const seen = ({ before, after }: RehearsedLanding['interactive']) =>
    [before?.words ?? 'not rehearsed', ...(after ? [`**${after.words}**`] : [])].join(' → ');
  return [
    '## Rehearsed in a browser',
    '',
    '| landing on | first content | interactive |',
    '|---|---|---|',
    ...rehearsed.map((r) => `| ${text(r.pattern)} | ${seen(r.firstContent)} | ${seen(r.interactive)} |`),
  ].join('\n');
}

function pair(before: number, after: number, write: (n: number) => string): string {
  const [was, now] = [write(before), write(after)];
  return was === now ? was : `${was} → **${now}**`;
}
