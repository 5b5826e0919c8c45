import { hintSubject, hintWords } from './hints.ts';
import { matchWords } from './match.ts';
import { shortName } from './names.ts';
import { triggerPhrase } from './triggers.ts';
import type { Decision, Fallback, ImportChoice, Plan, ShipsBy, SplitSettings } from './types.ts';

/** What a decision is about: two decisions with the same subject contradict each other, the later one holds. */
export function subjectOf(decision: Decision): string {
  switch (decision.kind) {
    case 'detach':
    case 'join':
      return 'import' in decision
        ? `import ${decision.import}`
        : 'module' in decision
          ? `imports of ${decision.module}`
          : `imports of package ${decision.package}`;
    case 'gather':
      return `gather ${decision.name}`;
    case 'together':
      return `together ${[...decision.modules].sort().join(' ')}`;
    case 'apart':
      return `apart ${matchWords(decision.match)}`;
    case 'chunk name':
      return `chunk name ${decision.chunk}`;
    case 'floor':
    case 'ceiling':
    case 'copy':
    case 'grain':
      return decision.kind;
    case 'trigger':
      return `trigger ${decision.splitPoint}`;
    case 'split':
      return `split ${decision.splitPoint}`;
    case 'hint':
      return hintSubject(decision.hint);
    case 'script':
      return `script ${decision.script}`;
    case 'loader':
      return 'loader';
    case 'put aside':
      return `put aside ${decision.finding}`;
    case 'no script':
    case 'trim':
      return `${decision.kind} ${decision.module}`;
    case 'move':
      return `move ${decision.import}`;
    case 'one version':
      return `one version ${decision.package}`;
    case 'drop link':
      return `drop link ${decision.rel} ${decision.address}`;
    case 'style in script':
      return `style in script ${matchWords(decision.match)}`;
  }
}

/** The plan with one decision more; an earlier one about the same subject is replaced in its place. */
export function withDecision(plan: Plan, decision: Decision): Plan {
  const subject = subjectOf(decision);
  const at = plan.decisions.findIndex((d) => subjectOf(d) === subject);
  const decisions = at < 0 ? [...plan.decisions, decision] : plan.decisions.with(at, decision);
  return { ...plan, decisions };
}

/** The plan without the decision about that subject; the same plan when there is none. */
export function withoutSubject(plan: Plan, subject: string): Plan {
  const decisions = plan.decisions.filter((d) => subjectOf(d) !== subject);
  return decisions.length === plan.decisions.length ? plan : { ...plan, decisions };
}

/** The plan with several changes: decisions by their subjects that are taken back, then decisions that are made. */
export function planWith(
  plan: Plan,
  { decisions, withdraw = [] }: { decisions: readonly Decision[]; withdraw?: readonly string[] },
): Plan {
  return decisions.reduce(withDecision, withdraw.reduce(withoutSubject, plan));
}

/** How a plan differs from another: decisions that it has beside, that it lacks, and that it took otherwise. */
export function planDifference(
  plan: Pick<Plan, 'decisions'>,
  other: Pick<Plan, 'decisions'>,
): {
  added: Decision[];
  missing: Decision[];
  changed: { now: Decision; was: Decision }[];
} {
  const others = new Map(other.decisions.map((d) => [subjectOf(d), d]));
  const own = new Set(plan.decisions.map(subjectOf));
  const changed: { now: Decision; was: Decision }[] = [];
  for (const now of plan.decisions) {
    const was = others.get(subjectOf(now));
    if (was && JSON.stringify(was) !== JSON.stringify(now)) changed.push({ now, was });
  }
  return {
    added: plan.decisions.filter((d) => !others.has(subjectOf(d))),
    missing: other.decisions.filter((d) => !own.has(subjectOf(d))),
    changed,
  };
}

export function shipsBy(decision: Decision): ShipsBy {
  switch (decision.kind) {
    case 'detach':
    case 'join':
    case 'trigger':
    case 'split':
    case 'no script':
    case 'trim':
    case 'move':
      return 'source edit';
    case 'hint':
    case 'script':
    case 'drop link':
      return 'server or markup';
    case 'put aside':
      return 'nothing to ship';
    default:
      return 'build setting';
  }
}

/** A decision in words, for lists, undo and reports. */
export function decisionWords(decision: Decision): string {
  switch (decision.kind) {
    case 'detach':
    case 'join':
      return `${decision.kind} ${choiceWords(decision)}`;
    case 'gather':
      return `gather ${matchWords(decision.match)} as “${decision.name}”`;
    case 'together':
      return `keep ${decision.modules.map(shortName).join(', ')} together`;
    case 'apart':
      return `keep ${matchWords(decision.match)} apart`;
    case 'floor':
      return `no chunk under ${kilobytes(decision.bytes)}`;
    case 'ceiling':
      return `at most ${decision.requests} chunks per moment`;
    case 'copy':
      return `copy what is shared under ${kilobytes(decision.below)}`;
    case 'grain':
      return 'one file per module';
    case 'chunk name':
      return `call a chunk “${decision.name}”`;
    case 'trigger':
      return `fetch ${shortName(decision.splitPoint)} ${triggerPhrase(decision.fetch)}`;
    case 'split':
      return `${shortName(decision.splitPoint)}: ${settingsWords(decision)}`;
    case 'hint':
      return hintWords(decision.hint);
    case 'script':
      return `place ${decision.script}: ${decision.placement}`;
    case 'loader':
      return decision.loader === 'listed' ? 'list whole load groups' : 'let imports be discovered';
    case 'put aside':
      return `put aside: ${decision.finding} (${decision.reason || 'no reason given'})`;
    case 'no script':
      return `no script for ${shortName(decision.module)}`;
    case 'trim':
      return `trim ${decision.module.slice(decision.module.lastIndexOf('/') + 1)}`;
    case 'move': {
      const [from, what] = decision.import.split('::');
      return `import ${shortName(what)} in ${shortName(decision.to)}, not in ${shortName(from)}`;
    }
    case 'one version':
      return `one version of ${decision.package}: that in ${decision.keep}`;
    case 'drop link':
      return `leave out the ${decision.rel} of ${decision.address}`;
    case 'style in script':
      return `styles of ${matchWords(decision.match)} in script`;
  }
}

function settingsWords({
  run,
  show,
  fallback,
  onError,
  together,
  clientOnly,
  data,
  answerAhead,
}: SplitSettings): string {
  const said = [
    ...(run ? [`run ${triggerPhrase(run)}`] : []),
    ...(show ? [`show ${triggerPhrase(show)}`] : []),
    ...(fallback ? [fallbackWords(fallback)] : []),
    ...(onError ? [onError === 'nothing' ? 'nothing if it fails' : `${onError} if it fails`] : []),
    ...(together ? [`shown together with “${together}”`] : []),
    ...(clientOnly ? ['client only'] : []),
    ...(data ? [`data ${data}`] : []),
    ...(answerAhead ? [`answer fetched ahead, good for ${answerAhead.keepMs / 1000} s`] : []),
  ];
  return said.join(', ') || 'as it is by itself';
}

const SCOPE_WORDS: Record<NonNullable<Fallback['scope']>, string> = {
  part: '',
  area: ' in place of the page',
  app: ' in place of the whole app',
};

function fallbackWords({ show, holdMs, scope = 'part' }: Fallback): string {
  const held = show === 'stand-in' && holdMs > 0 ? ` for at least ${holdMs} ms` : '';
  const words = { nothing: 'nothing until it shows', 'old screen': 'the old screen until it shows' }[show as string];
  return `${words ?? `${show === 'stand-in' ? 'a stand-in' : show}${held}`}${SCOPE_WORDS[scope]}`;
}

function choiceWords(choice: ImportChoice): string {
  if ('import' in choice) return importWords(choice.import);
  return 'module' in choice ? `every import of ${shortName(choice.module)}` : `the package ${choice.package}`;
}

function kilobytes(bytes: number): string {
  return `${Math.round(bytes / 100) / 10} kB`;
}

function importWords(key: string): string {
  const [from, specifier] = key.split('::');
  return `${shortName(specifier ?? '')} from ${shortName(from)}`;
}
