import { amend } from '../amend/amend.ts';
import type { Amendments } from '../amend/types.ts';
import { PlanFigures } from '../compare/figures.ts';
import { conditionsOfLimit, planOfLimit, stateOf } from '../limits/limits.ts';
import type { Limit, LimitState } from '../limits/types.ts';
import { amountWords, limitSubject, limitWords } from '../limits/words.ts';
import { decisionWords } from '../plan/decisions.ts';
import { chosenImports } from '../plan/effective.ts';
import type { Plan } from '../plan/types.ts';
import type { Spread } from '../rehearsals/spread.ts';
import { spreadWords } from '../rehearsals/words.ts';
import { graphIndex } from '../snapshot/graph-index.ts';
import type { Snapshot, Unresolved } from '../snapshot/types.ts';
import { causesOf, type LimitCause, type Recover, recoverFor } from './causes.ts';
import type { LandingChange } from './landing-change-types.ts';
import { alikeLandings, causesWords } from './landing-words.ts';
import { lostWords } from './lost-imports.ts';
import type { RehearsedLimit } from './rehearsed.ts';

export interface BrokenLimit {
  limit: Limit;
  words: string;
  value: number | null;
  allowed: number;
  because: LimitCause[];
  recover: Recover[];
}

export interface Against {
  ref: string;
  commit: string;
  landings: LandingChange[];
  /** Imports that lead nowhere since then. */
  lost: Unresolved[];
}

export interface CheckReport {
  /** Nothing broken and nothing missing. */
  ok: boolean;
  checked: number;
  broken: BrokenLimit[];
  /** Limits for routes and actions that the app doesn't have any more. */
  missing: { limit: Limit; words: string }[];
  /** Edits that the plan counts on and that the code doesn't have yet. */
  pending: { words: string; path: string; line: number }[];
  /** Limits that were judged by what a browser measured, not by a prediction. */
  rehearsed: RehearsedLimit[];
  /** What changed of landings since the commit that was named; null where none was. */
  against: Against | null;
}

/**
 * Checks an app as it is now (`now`, read again) against a project's limits: what broke, by which imports compared with the
 * snapshot of the project, and which detachments would recover how much. `plan` in place of those that limits were set for;
 * `rehearsed`: what a browser measured, which counts in place of the prediction.
 */
export function checkReport(
  project: { snapshot: Snapshot; plans: readonly Plan[]; amendments: Amendments },
  now: Snapshot,
  plan?: Plan,
  rehearsed: readonly RehearsedLimit[] = [],
  against: Against | null = null,
): CheckReport {
  const seen = new Map(rehearsed.map((r) => [r.limit, r.measured]));
  const before = amend(project.snapshot, project.amendments).snapshot;
  const app = amend(now, project.amendments).snapshot;
  const limits = project.amendments.limits ?? [];
  const broken: BrokenLimit[] = [];
  const missing: CheckReport['missing'] = [];
  const figures = new Map<Plan, PlanFigures>();
  for (const limit of limits) {
    const under = plan ?? planOfLimit(limit, project.plans);
    const measured = figures.get(under) ?? new PlanFigures(app, under);
    figures.set(under, measured);
    const { state, value } = judged(stateOf(app, measured, limit), seen.get(limit));
    if (state === 'missing') missing.push({ limit, words: limitWords(limit) });
    if (state !== 'broken') continue;
    const because = causesOf(before, app, under, limit);
    const recover = recoverFor(app, under, limit, because);
    broken.push({ limit, words: limitWords(limit), value, allowed: limit.most, because, recover });
  }
  const pending = [...figures.keys()].flatMap((p) => pendingOf(app, p));
  return {
    ok: broken.length === 0 && missing.length === 0,
    ...{ checked: limits.length, broken, missing, pending, rehearsed: [...rehearsed], against },
  };
}

/** How a limit stands by what a browser measured of it; as predicted where none did. */
function judged(predicted: LimitState, measured: Spread | null | undefined): LimitState {
  if (measured === undefined || predicted.state === 'missing') return predicted;
  const kept = measured !== null && measured.median <= predicted.limit.most;
  return { limit: predicted.limit, state: kept ? 'kept' : 'broken', value: measured?.median ?? null };
}

function pendingOf(app: Snapshot, plan: Plan): CheckReport['pending'] {
  return plan.decisions.flatMap((decision) => {
    if (decision.kind === 'trim') {
      const rule = app.unusedRules.find((r) => r.module === decision.module);
      return rule ? [{ words: decisionWords(decision), path: rule.module, line: rule.line }] : [];
    }
    if (decision.kind === 'move') {
      const { importAt } = graphIndex(app);
      const item = app.imports[importAt.get(decision.import) ?? -1];
      return item ? [{ words: decisionWords(decision), path: app.modules[item.from].path, line: item.line }] : [];
    }
    if (decision.kind !== 'detach' && decision.kind !== 'join') return [];
    const chosen = chosenImports(app, decision);
    if (typeof chosen === 'string') return [];
    const wanted = decision.kind === 'detach' ? 'static' : 'dynamic';
    return chosen
      .map((i) => app.imports[i])
      .filter((i) => i.kind === wanted)
      .map((i) => ({ words: decisionWords(decision), path: app.modules[i.from].path, line: i.line }));
  });
}

/** The report for a pull request, in Markdown. */
export function checkMarkdown(report: CheckReport): string {
  const { checked, broken, missing, pending } = report;
  const head =
    checked === 0
      ? null
      : report.ok
        ? `**Load limits kept**: ${checked} checked.`
        : `**Load limits broken**: ${broken.length} of ${checked}${missing.length > 0 ? `, and ${missing.length} for what isn’t there any more` : ''}.`;
  const parts = head === null ? [] : [head];
  for (const { limit, value, because, recover } of broken) {
    const { link, device } = conditionsOfLimit(limit);
    const over = value === null ? '' : `, ${amountWords(limit.measure, value - limit.most)} more than`;
    parts.push(
      `### ${code(limitSubject(limit))}\n\n**${amountWords(limit.measure, value)}**${over || ', where'} ${amountWords(limit.measure, limit.most)} ${over ? 'allowed' : 'is allowed'} (${link.name}, ${device.name}, cache ${limit.cache}).`,
    );
    if (because.length > 0)
      parts.push(
        because
          .map(
            (b) =>
              `- ${code(`${b.from}:${b.line}`)} ${b.isNew ? 'now brings' : 'brings'} ${code(b.to)}: ${amountWords('bytes', b.bytes)} minified in ${b.modules} ${b.modules === 1 ? 'module' : 'modules'}\n  - ${b.path.map((s) => code(s.line === null ? s.path : `${s.path}:${s.line}`)).join(' → ')}`,
          )
          .join('\n'),
      );
    if (recover.length > 0)
      parts.push(
        `Detaching would recover:\n\n${recover
          .map(
            (r) =>
              `- ${code(`${r.from}:${r.line}`)} → ${code(r.to)}: ${amountWords(limit.measure, r.value)}, ${amountWords(limit.measure, r.saves)} less${r.enough ? ', which keeps the limit' : ''}${r.blocked ? `; takes more than detaching: ${escaped(r.blocked)}` : ''}`,
          )
          .join('\n')}`,
      );
  }
  if (report.against) parts.push(againstMarkdown(report.against));
  if (report.rehearsed.length > 0)
    parts.push(
      `Measured in a browser, in place of a prediction:\n\n${report.rehearsed.map((r) => `- ${code(r.words)}: ${spreadWords(r.measured)}`).join('\n')}`,
    );
  if (missing.length > 0)
    parts.push(`Limits for what isn’t there any more:\n\n${missing.map((m) => `- ${code(m.words)}`).join('\n')}`);
  if (pending.length > 0)
    parts.push(
      `Counted on, but not in the code yet:\n\n${pending.map((p) => `- ${code(`${p.path}:${p.line}`)} ${escaped(p.words)}`).join('\n')}`,
    );
  return `${parts.join('\n\n')}\n`;
}

/** What changed of landings, as a list. */
function againstMarkdown({ ref, landings, lost }: Against): string {
  const nowhere = lost.map((u) => `- ${lostWords(u, code, code)}`);
  if (landings.length === 0) return [`No landing changes against ${code(ref)}.`, ...nowhere].join('\n');
  const lines = alikeLandings(landings).map(({ routes, words, change }) => {
    const because = causesWords(change, code).map((cause) => `\n  - ${cause}`);
    return `- ${routes.map(code).join(', ')}: ${words}${because.join('')}`;
  });
  return `Against ${code(ref)}:\n\n${[...nowhere, ...lines].join('\n')}`;
}

/** A text from outside that Markdown shows as it is. */
function escaped(text: string): string {
  return text.replace(/[\\`*_{}[\]<>#|~&]/g, '\\$&').replace(/\s+/g, ' ');
}

/** A text from outside as code, whatever backticks it holds. */
function code(text: string): string {
  return `\`${text.replace(/`/g, 'ʼ').replace(/\s+/g, ' ')}\``;
}
