import type { Command } from 'commander';
import { amend } from '../core/amend/amend.ts';
import { InputError } from '../core/errors.ts';
import { limitStates, proposeLimits } from '../core/limits/limits.ts';
import { amountWords, limitWords } from '../core/limits/words.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, saveProject } from './files.ts';
import { print } from './output.ts';

interface Options extends ConditionOptions {
  setFrom?: string;
  slack: string;
  out?: string;
}

export function addLimits(program: Command): void {
  const command = program
    .command('limits')
    .description('the most that landings and actions may come to: how they stand, or set from a plan')
    .argument('<file>', 'project file')
    .option('--set-from <plan>', 'replace the limits by what this plan comes to, under the conditions below')
    .option('--slack <percent>', 'how much more bytes and times may be', '10')
    .option('--out <file>', 'write there instead of changing the file');
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const project = readProject(file);
    const { snapshot } = amend(project.snapshot, project.amendments);
    if (options.setFrom !== undefined) {
      const slack = Number(options.slack);
      if (!(slack >= 0 && slack <= 500))
        throw new InputError('No such slack', 'Give per cent from 0 to 500.', `--slack ${options.slack}`);
      const plan = planNamed(project, options.setFrom);
      const limits = proposeLimits(snapshot, plan, conditionsOf(options), slack / 100);
      project.amendments = { ...project.amendments, limits };
      saveProject(options.out ?? file, project);
    }
    const states = limitStates(snapshot, project.amendments.limits ?? [], project.plans);
    const limits = states.map(({ limit, state, value }) => ({ words: limitWords(limit), state, value, limit }));
    print(command, { limits }, () =>
      limits.length === 0
        ? ['no limits yet; set them with --set-from PLAN']
        : limits.map(
            (l) =>
              `${l.state}: ${l.words}; now ${l.state === 'missing' ? 'nothing' : amountWords(l.limit.measure, l.value)}`,
          ),
    );
  });
}
