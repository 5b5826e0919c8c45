import fs from 'node:fs';
import path from 'node:path';
import type { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { mergeDecided } from '../core/formats/merge-decided.ts';
import { PLANS_FILE_NAME, writePlansFile } from '../core/formats/plans-file.ts';
import { counted } from '../core/text/counted.ts';
import { decidedIn } from './decided.ts';
import { readProject, saveProject, writeFile } from './files.ts';
import { print } from './output.ts';

export function addKeep(program: Command): void {
  program
    .command('keep')
    .description(
      `keep the plans, limits and corrections of a project beside the app’s code, as ${PLANS_FILE_NAME}, or take them from there`,
    )
    .argument('<file>', 'project file')
    .requiredOption('--in <folder>', 'the app’s folder')
    .option('--over', 'write over what the folder keeps, where that says otherwise')
    .option('--take', 'take what the folder keeps into the project file, with what is there already')
    .action((file: string, options: { in: string; over?: boolean; take?: boolean }, command: Command) => {
      if (!fs.statSync(options.in, { throwIfNoEntry: false })?.isDirectory())
        throw new InputError('No such folder', 'Name the app’s folder.', `--in ${options.in}`);
      const project = readProject(file);
      const kept = decidedIn(options.in);
      const at = path.join(options.in, PLANS_FILE_NAME);
      const { measured } = project.amendments;
      if (!options.take) {
        const text = writePlansFile(project);
        if (kept !== null && !options.over && writePlansFile(kept) !== text)
          throw new InputError(
            'The folder keeps something else',
            'Take it into the project first with --take, or write over it with --over.',
            at,
          );
        writeFile(at, text);
        print(command, { file: at, plans: project.plans.length }, () => [
          `${at} written: ${counted(project.plans.length, 'plan')}`,
        ]);
        return;
      }
      if (kept === null)
        throw new InputError('Nothing is kept there', `Write it with: yokeline keep ${file} --in ${options.in}.`, at);
      const { decided, conflicts } = mergeDecided(null, project, kept);
      const amendments = { ...decided.amendments, ...(measured === undefined ? {} : { measured }) };
      saveProject(file, { ...project, plans: [...decided.plans], amendments });
      print(command, { file, plans: decided.plans.length, conflicts }, () => [
        `${file}: ${counted(decided.plans.length, 'plan')}`,
        ...conflicts,
      ]);
    });
}
