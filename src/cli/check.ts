import path from 'node:path';
import type { Command } from 'commander';
import { rebuiltRoutes } from '../core/amend/amend.ts';
import { landingsToRun, type RehearsedLimit, rehearsedLimits } from '../core/check/rehearsed.ts';
import { checkMarkdown, checkReport } from '../core/check/report.ts';
import { InputError } from '../core/errors.ts';
import type { ProjectFile } from '../core/formats/project-file.ts';
import { amountWords } from '../core/limits/words.ts';
import type { Plan } from '../core/plan/types.ts';
import { spreadWords } from '../core/rehearsals/words.ts';
import type { ReadOptions } from '../reader/read-app.ts';
import { rehearse } from '../rehearse/rehearse.ts';
import { dataFrom } from '../rehearse/stage/data-from.ts';
import { planNamed, readProject } from './files.ts';
import { print } from './output.ts';
import { readFolder, STARTS, WORKSPACE, workspaceFrom } from './reading.ts';
import { MOST_RUNS, runsOf } from './rehearse.ts';

const LIMITS_BROKEN = 1;
const LIMITS_MISSING = 2;

interface Options {
  project: string;
  plan?: string;
  markdown?: boolean;
  rehearsed?: boolean;
  runs: string;
  data?: string;
  workspace?: string;
  start?: string[];
}

export function addCheck(program: Command): void {
  program
    .command('check')
    .description(
      'read an app again and check it against the limits of its project: what broke, and which import did it',
    )
    .argument('<folder>', 'the app’s folder as it is now')
    .requiredOption('--project <file>', 'project file with limits')
    .option('--plan <name>', 'check under this plan, in place of those that the limits were set for')
    .option(...WORKSPACE)
    .option(...STARTS)
    .option('--markdown', 'print Markdown for a pull request')
    .option(
      '--rehearsed',
      'judge limits on first content, interactive and waits by a browser on this machine, not by prediction; runs the app’s own code',
    )
    .option('--runs <n>', `how often a browser runs each landing, 1 to ${MOST_RUNS}`, '3')
    .option('--data <where>', 'as for rehearse: answers to calls for data')
    .addHelpText(
      'after',
      '\nExit codes: 0 all limits kept, 1 limits broken, 2 bad input or a limit for what isn’t there any more.',
    )
    .action(async (folder: string, options: Options, command: Command) => {
      const project = readProject(options.project);
      if ((project.amendments.limits ?? []).length === 0)
        throw new InputError(
          'No limits',
          'Set them with: yokeline limits FILE --set-from PLAN, or under Handoff in the workbench.',
          options.project,
        );
      const as = project.snapshot.origin === 'source' ? 'sources' : 'output';
      process.stderr.write(`reading ${folder}\n`);
      const corrected = rebuiltRoutes(project.amendments);
      const how = { as, ...workspaceFrom(options), starts: options.start, corrected } as const;
      const { snapshot } = await readFolder(folder, how);
      const plan = options.plan === undefined ? undefined : planNamed(project, options.plan);
      const rehearsed = options.rehearsed ? await inBrowser(folder, project, plan, options, { ...how, as }) : [];
      const report = checkReport(project, snapshot, plan, rehearsed);
      if (options.markdown) process.stdout.write(checkMarkdown(report));
      else
        print(command, report, () => [
          report.ok ? `${report.checked} limits kept` : `${report.broken.length} of ${report.checked} limits broken`,
          ...report.broken.flatMap(({ words, limit, value, because, recover }) => [
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
        ]);
      if (!report.ok) process.exitCode = report.broken.length > 0 ? LIMITS_BROKEN : LIMITS_MISSING;
    });
}

/** Runs the landings that limits on times are about, under the plans that these were set for. */
async function inBrowser(
  folder: string,
  { amendments, plans }: ProjectFile,
  plan: Plan | undefined,
  options: Options,
  reading: ReadOptions,
): Promise<RehearsedLimit[]> {
  const runs = runsOf(options.runs);
  const data = options.data === undefined ? {} : { data: dataFrom(options.data, path.resolve) };
  const found: RehearsedLimit[] = [];
  for (const landing of landingsToRun(amendments.limits ?? [], plans, plan)) {
    const { plan: under, route: pattern, act, conditions } = landing;
    const work = { folder: path.resolve(folder), reading, amendments, plan: under, pattern, conditions, runs, ...data };
    const rehearsal = await rehearse({ ...work, ...(act === undefined ? {} : { act }) }, ({ doing }) =>
      process.stderr.write(`${under.name}, ${pattern}${act === undefined ? '' : ` › ${act}`}: ${doing}\n`),
    );
    found.push(...rehearsedLimits(landing, rehearsal));
  }
  return found;
}
