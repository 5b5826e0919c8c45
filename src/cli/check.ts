import type { Command } from 'commander';
import { rebuiltRoutes } from '../core/amend/amend.ts';
import { checkMarkdown, checkReport } from '../core/check/report.ts';
import { InputError } from '../core/errors.ts';
import { amountWords } from '../core/limits/words.ts';
import { planNamed, readProject } from './files.ts';
import { print } from './output.ts';
import { readFolder, STARTS, WORKSPACE, workspaceFrom } from './reading.ts';

const LIMITS_BROKEN = 1;
const LIMITS_MISSING = 2;

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
    .addHelpText(
      'after',
      '\nExit codes: 0 all limits kept, 1 limits broken, 2 bad input or a limit for what isn’t there any more.',
    )
    .action(
      async (
        folder: string,
        options: { project: string; plan?: string; markdown?: boolean; workspace?: string; start?: string[] },
        command: Command,
      ) => {
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
        const report = checkReport(project, snapshot, plan);
        if (options.markdown) process.stdout.write(checkMarkdown(report));
        else
          print(command, report, () => [
            report.ok ? `${report.checked} limits kept` : `${report.broken.length} of ${report.checked} limits broken`,
            ...report.broken.flatMap(({ words, limit, value, because, recover }) => [
              `${words}; now ${amountWords(limit.measure, value)}`,
              ...because.map(
                (b) =>
                  `  ${b.isNew ? 'new: ' : ''}${b.from}:${b.line} brings ${b.to}, ${amountWords('bytes', b.bytes)}`,
              ),
              ...recover.map(
                (r) => `  detaching ${r.from}:${r.line} → ${r.to} comes to ${amountWords(limit.measure, r.value)}`,
              ),
            ]),
            ...report.missing.map((m) => `not there any more: ${m.words}`),
            ...report.pending.map((p) => `not in the code yet: ${p.path}:${p.line} ${p.words}`),
          ]);
        if (!report.ok) process.exitCode = report.broken.length > 0 ? LIMITS_BROKEN : LIMITS_MISSING;
      },
    );
}
