import path from 'node:path';
import type { Command } from 'commander';
import { amend, rebuiltRoutes } from '../core/amend/amend.ts';
import type { Amendments } from '../core/amend/types.ts';
import { AppState, landingChanges } from '../core/check/landing-changes.ts';
import { alikeLandings, landingLines } from '../core/check/landing-words.ts';
import { lostImports, lostWords } from '../core/check/lost-imports.ts';
import { landingsToRun, type RehearsedLimit, rehearsedLimits } from '../core/check/rehearsed.ts';
import { type Against, type CheckReport, checkMarkdown, checkReport } from '../core/check/report.ts';
import { checkSarif } from '../core/check/sarif.ts';
import { InputError } from '../core/errors.ts';
import { type Decided, PLANS_FILE_NAME } from '../core/formats/plans-file.ts';
import { amountWords } from '../core/limits/words.ts';
import { BASELINE, type Plan } from '../core/plan/types.ts';
import { spreadWords } from '../core/rehearsals/words.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { counted } from '../core/text/counted.ts';
import type { ReadOptions } from '../reader/read-app.ts';
import { readAtCommit } from '../reader/versions/at-commit.ts';
import { git } from '../reader/versions/git.ts';
import { rehearse } from '../rehearse/rehearse.ts';
import { dataFrom } from '../rehearse/stage/data-from.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { decidedFor } from './decided.ts';
import { planNamed, readProject } from './files.ts';
import { print } from './output.ts';
import { howProcessesRead, readFolder, STARTS, tellOutside, WORKSPACE, workspaceFrom } from './reading.ts';
import { MOST_RUNS, runsOf } from './rehearse.ts';

const LIMITS_BROKEN = 1;
const LIMITS_MISSING = 2;

interface Options extends ConditionOptions {
  project?: string;
  plan?: string;
  against?: string;
  markdown?: boolean;
  sarif?: boolean;
  rehearsed?: boolean;
  runs: string;
  data?: string;
  workspace?: string;
  start?: string[];
}

/** What an app is checked by. */
type Judge = Decided & {
  /** The app as the project has it; null where only its folder has anything. */
  snapshot: Snapshot | null;
};

export function addCheck(program: Command): void {
  const command = program
    .command('check')
    .description(
      'read an app again and check it against its limits, or against a commit: what changed or broke, and which import did it',
    )
    .argument('<folder>', 'the app’s folder as it is now')
    .option('--project <file>', `project file with limits, in place of ${PLANS_FILE_NAME} in the folder`)
    .option('--plan <name>', 'check under this plan, in place of those that the limits were set for')
    .option('--against <ref>', 'tell what changed of each landing since this commit, branch or tag')
    .option(...WORKSPACE)
    .option(...STARTS)
    .option('--markdown', 'print Markdown for a pull request')
    .option('--sarif', 'print SARIF 2.1.0, with paths from the top of the repository, for review systems')
    .option(
      '--rehearsed',
      'judge limits on first and largest content, interactive and waits by a browser on this machine, not by prediction; runs the app’s own code',
    )
    .option('--runs <n>', `how often a browser runs each landing, 1 to ${MOST_RUNS}`, '3')
    .option('--data <where>', 'as for rehearse: answers to calls for data')
    .addHelpText(
      'after',
      '\nExit codes: 0 all limits kept, 1 limits broken, 2 bad input or a limit for what isn’t there any more. Limits have conditions of their own; those named here are for --against.',
    );
  withConditionOptions(command).action(async (folder: string, options: Options, command: Command) => {
    const judge = judgeOf(folder, options);
    const { amendments } = judge;
    if ((amendments.limits ?? []).length === 0 && options.against === undefined)
      throw new InputError(
        'No limits',
        'Set them with: yokeline limits FILE --set-from PLAN, or under Handoff in the workbench; or name a commit to compare with: --against REF.',
        options.project ?? path.join(folder, PLANS_FILE_NAME),
      );
    const as = judge.snapshot?.origin === 'output' ? 'output' : 'sources';
    const how = { as, ...workspaceFrom(options), starts: options.start, corrected: rebuiltRoutes(amendments) } as const;
    process.stderr.write(`reading ${folder}\n`);
    const { snapshot: now } = await readFolder(folder, how);
    tellOutside(folder, now);
    const plan = options.plan === undefined ? undefined : planNamed(judge, options.plan);
    const { against, before } = await since(folder, options, how, { now, amendments, plan: plan ?? BASELINE });
    const project = { ...judge, snapshot: judge.snapshot ?? before ?? now };
    const rehearsed = options.rehearsed ? await inBrowser(folder, judge, plan, options, how) : [];
    const report = checkReport(project, now, plan, rehearsed, against);
    if (options.sarif) process.stdout.write(checkSarif(report, await prefixOf(folder)));
    else if (options.markdown) process.stdout.write(checkMarkdown(report));
    else print(command, report, () => lines(report, now.routes.length));
    if (!report.ok) process.exitCode = report.broken.length > 0 ? LIMITS_BROKEN : LIMITS_MISSING;
  });
}

/** The project that was named, else what is kept beside the code. */
function judgeOf(folder: string, { project }: Options): Judge {
  return project === undefined ? { ...decidedFor(folder, project), snapshot: null } : readProject(project);
}

/** What changed since the commit that was named, and the app as it was then. */
async function since(
  folder: string,
  options: Options,
  how: Parameters<typeof readFolder>[1],
  { now, amendments, plan }: { now: Snapshot; amendments: Amendments; plan: Plan },
): Promise<{ against: Against | null; before: Snapshot | null }> {
  const ref = options.against;
  if (ref === undefined) return { against: null, before: null };
  process.stderr.write(`reading ${folder} at ${ref}\n`);
  const around = how?.workspace ?? null;
  const { commit, read } = await readAtCommit(folder, ref, around, (at, workspace) =>
    readFolder(at, { ...how, ...(workspace === null ? {} : { workspace }) }),
  );
  const conditions = conditionsOf(options);
  const state = (of: Snapshot) => new AppState(amend(of, amendments).snapshot, plan, conditions);
  const landings = landingChanges(state(read.snapshot), state(now));
  const lost = lostImports(read.snapshot, now);
  return { against: { ref, commit, landings, lost }, before: read.snapshot };
}

/** The way from the top of the repository to the folder, as paths in review systems begin; nothing outside of one. */
function prefixOf(folder: string): Promise<string> {
  return git(folder, ['rev-parse', '--show-prefix']).catch(() => '');
}

function lines(report: CheckReport, routes: number): string[] {
  const { checked, broken, against } = report;
  return [
    ...(checked === 0
      ? []
      : [report.ok ? `${counted(checked, 'limit')} kept` : `${broken.length} of ${checked} limits broken`]),
    ...broken.flatMap(({ words, limit, value, because, recover }) => [
      `${words}; now ${amountWords(limit.measure, value)}`,
      ...because.map(
        (b) => `  ${b.isNew ? 'new: ' : ''}${b.from}:${b.line} brings ${b.to}, ${amountWords('bytes', b.bytes)}`,
      ),
      ...recover.map(
        (r) => `  detaching ${r.from}:${r.line} → ${r.to} comes to ${amountWords(limit.measure, r.value)}`,
      ),
    ]),
    ...report.rehearsed.map((r) => `measured: ${r.words}; ${spreadWords(r.measured)}`),
    ...report.missing.map((m) => `not there any more: ${m.words}`),
    ...report.pending.map((p) => `not in the code yet: ${p.path}:${p.line} ${p.words}`),
    ...(against === null ? [] : againstLines(against, routes)),
  ];
}

function againstLines({ ref, commit, landings, lost }: Against, routes: number): string[] {
  const name = commit.startsWith(ref) ? commit.slice(0, 10) : `${ref} (${commit.slice(0, 10)})`;
  const nowhere = lost.map((u) => `  ${lostWords(u)}`);
  if (landings.length === 0) return [`no landing changes against ${name}`, ...nowhere];
  return [`against ${name}:`, ...nowhere, ...alikeLandings(landings).flatMap((l) => landingLines(l, routes))];
}

/** Runs the landings that limits on times are about, under the plans that these were set for. */
async function inBrowser(
  folder: string,
  { amendments, plans }: Judge,
  plan: Plan | undefined,
  options: Options,
  reading: ReadOptions,
): Promise<RehearsedLimit[]> {
  const runs = runsOf(options.runs);
  const data = options.data === undefined ? {} : { data: dataFrom(options.data, path.resolve) };
  const found: RehearsedLimit[] = [];
  for (const landing of landingsToRun(amendments.limits ?? [], plans, plan)) {
    const { plan: under, route: pattern, act, conditions } = landing;
    const { memory } = howProcessesRead();
    const how = { folder: path.resolve(folder), reading, amendments, memory };
    const work = { ...how, plan: under, pattern, conditions, runs, ...data };
    const rehearsal = await rehearse({ ...work, acts: act === undefined ? [] : [act] }, ({ doing }) =>
      process.stderr.write(`${under.name}, ${pattern}${act === undefined ? '' : ` › ${act}`}: ${doing}\n`),
    );
    found.push(...rehearsedLimits(landing, rehearsal));
  }
  return found;
}
