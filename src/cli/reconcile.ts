import type { Command } from 'commander';
import { amend } from '../core/amend/amend.ts';
import { reconcile } from '../core/reconcile/reconcile.ts';
import { reconcileMarkdown, reconcileTables } from '../core/reconcile/reconcile-text.ts';
import { planNamed, readProject } from './files.ts';
import { columns, print } from './output.ts';
import { readFolder } from './reading.ts';

export function addReconcile(program: Command): void {
  program
    .command('reconcile')
    .description('lay what a plan promised beside what the next production build delivered, hints included')
    .argument('<folder>', 'folder that the production build wrote, with its source maps')
    .requiredOption('--project <file>', 'project file')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--markdown', 'print Markdown for a review')
    .addHelpText('after', '\nExit codes: 0 delivered as far as the files tell, 1 not all of it, 2 bad input.')
    .action(
      async (folder: string, options: { project: string; plan?: string; markdown?: boolean }, command: Command) => {
        const project = readProject(options.project);
        const plan = planNamed(project, options.plan);
        process.stderr.write(`reading ${folder}\n`);
        const { snapshot: built } = await readFolder(folder, { as: 'output' });
        const found = reconcile(amend(project.snapshot, project.amendments).snapshot, plan, built);
        if (options.markdown) process.stdout.write(reconcileMarkdown(found));
        else
          print(command, found, () =>
            reconcileTables(found).flatMap(({ title, head, rows }) => [title, ...columns([head, ...rows])]),
          );
        if (!found.ok) process.exitCode = 1;
      },
    );
}
