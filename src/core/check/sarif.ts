import { amountWords } from '../limits/words.ts';
import { VERSION } from '../version.ts';
import type { LimitCause } from './causes.ts';
import { causeWords, landingChangeWords } from './landing-words.ts';
import { lostWords } from './lost-imports.ts';
import type { CheckReport } from './report.ts';

/** What a check finds, as SARIF knows rules. */
const RULES = {
  'limit-broken': 'A landing or an action comes to more than its limit.',
  'limit-missing': 'A limit is for a route or an action that isn’t there any more.',
  'landing-heavier': 'A landing fetches more at its start than in the commit that it is compared with.',
  'landing-slower': 'A landing is predicted to be interactive later than in the commit that it is compared with.',
  'import-lost': 'An import leads nowhere that led somewhere in the commit that the app is compared with.',
  'edit-pending': 'A plan counts on an edit that the code doesn’t have yet.',
} as const;
type Rule = keyof typeof RULES;

type Level = 'error' | 'warning' | 'note';

interface Place {
  path: string;
  line: number;
}

/** Less than this isn’t worth a place in a review: bytes, ms. */
const LEAST_BYTES = 100;
const LEAST_MS = 10;

/**
 * A check as a log of the Static Analysis Results Interchange Format (OASIS, SARIF 2.1.0), so that review systems put its findings at their
 * lines. Paths are from the app's folder (`prefix`: from the repository's root to that).
 */
export function checkSarif(report: CheckReport, prefix = ''): string {
  const results = [
    ...report.broken.map(({ limit, words, value, because }) =>
      result(
        'limit-broken',
        'error',
        `${words}; now ${amountWords(limit.measure, value)}.${brings(because[0])}`,
        because[0] && placeOf(because[0]),
        prefix,
      ),
    ),
    ...report.missing.map(({ words }) =>
      result('limit-missing', 'warning', `${words}: it isn’t there any more.`, undefined, prefix),
    ),
    ...(report.against?.lost ?? []).map((u) =>
      result('import-lost', 'warning', `${lostWords(u)}.`, { path: u.from, line: u.line }, prefix),
    ),
    ...(report.against?.landings ?? []).flatMap((change) => {
      const figure = (measure: string) => change.figures.find((f) => f.measure === measure);
      const more = (measure: string) => {
        const { before = null, after = null } = figure(measure) ?? {};
        return before === null || after === null ? 0 : after - before;
      };
      const rule: Rule | null =
        more('start bytes') >= LEAST_BYTES
          ? 'landing-heavier'
          : more('interactive') >= LEAST_MS
            ? 'landing-slower'
            : null;
      if (rule === null) return [];
      const cause = causeWords(change);
      const text = `${change.route}: ${landingChangeWords(change)}.${cause === null ? '' : ` ${cause}.`}`;
      return [result(rule, 'warning', text, change.brings[0] && placeOf(change.brings[0]), prefix)];
    }),
    ...report.pending.map(({ words, path, line }) =>
      result('edit-pending', 'note', `${words}: not in the code yet.`, { path, line }, prefix),
    ),
  ];
  const rules = Object.entries(RULES).map(([id, text]) => ({ id, shortDescription: { text } }));
  const log = {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: { driver: { name: 'Yokeline', semanticVersion: VERSION, rules } },
        columnKind: 'utf16CodeUnits',
        results,
      },
    ],
  };
  return `${JSON.stringify(log, null, 1)}\n`;
}

function placeOf({ from, line }: LimitCause): Place {
  return { path: from, line };
}

/** The parts of a way from the repository’s top. What an app takes of a workspace lies outside of its folder, and review systems know no ways up. */
function fromTop(way: string): string[] {
  const parts: string[] = [];
  for (const part of way.split('/'))
    if (part === '..' && parts.length > 0 && parts.at(-1) !== '..') parts.pop();
    else if (part !== '.' && part !== '') parts.push(part);
  return parts;
}

function brings(cause: LimitCause | undefined): string {
  return cause ? ` ${cause.from}:${cause.line} ${cause.isNew ? 'now brings' : 'brings'} ${cause.to}.` : '';
}

function result(ruleId: Rule, level: Level, text: string, place: Place | undefined, prefix: string) {
  const region = { startLine: Math.max(1, place?.line ?? 1) };
  const uri = place && fromTop(`${prefix}${place.path}`).map(encodeURIComponent).join('/');
  return {
    ...{ ruleId, level, message: { text } },
    ...(uri === undefined
      ? {}
      : { locations: [{ physicalLocation: { artifactLocation: { uri, uriBaseId: '%SRCROOT%' }, region } }] }),
  };
}
