import fs from 'node:fs';
import type { Command } from 'commander';
import { InputError } from '../core/errors.ts';
import { readFileMap } from '../core/formats/file-map.ts';
import { studied } from '../core/formats/project-file.ts';
import type { FileMap } from '../core/handoff/addresses.ts';
import { ARTEFACTS, handoff } from '../core/handoff/handoff.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { planNamed, readProject, writeFile } from './files.ts';
import { print } from './output.ts';

interface Options extends ConditionOptions {
  kind: string;
  plan?: string;
  files?: string;
  out: string;
}

export function addExport(program: Command): void {
  const command = program
    .command('export')
    .description('what a plan hands over: links, headers, rules, scripts, a manifest, figures or a report')
    .argument('<file>', 'project file')
    .requiredOption('--kind <kind>', `one of ${ARTEFACTS.join(', ')}`)
    .requiredOption('--out <path>', 'file to write')
    .option('--plan <name>', 'plan in the file; the baseline by default')
    .option('--files <map>', 'JSON that names the built file of each module; stand-ins without it');
  withConditionOptions(command).action((file: string, options: Options, command: Command) => {
    const kind = ARTEFACTS.find((a) => a === options.kind);
    if (!kind)
      throw new InputError('Nothing of that kind', `Choose one of ${ARTEFACTS.join(', ')}.`, `--kind ${options.kind}`);
    const project = readProject(file);
    const plan = planNamed(project, options.plan);
    const files = options.files === undefined ? null : mapIn(options.files);
    const { artefacts, standIns } = handoff(studied(project), plan, conditionsOf(options), files);
    const { text } = artefacts.find((a) => a.kind === kind)!;
    if (text === '')
      throw new InputError(
        'Nothing to hand over',
        `The plan ${plan.name} has nothing that becomes ${kind}.`,
        `--kind ${kind}`,
      );
    writeFile(options.out, text);
    const used = standIns.filter((s) => text.includes(s));
    print(command, { kind, out: options.out, standIns: used }, () => [
      `${kind} written to ${options.out}`,
      ...(used.length > 0
        ? [`${used.length} stand-ins to be replaced by addresses of the build: ${used.slice(0, 5).join(', ')}`]
        : []),
    ]);
  });
}

function mapIn(file: string): FileMap {
  let text: string;
  try {
    text = fs.readFileSync(file, 'utf8');
  } catch {
    throw new InputError('No such file', 'Check the path of the map.', `--files ${file}`);
  }
  return readFileMap(text, file);
}
